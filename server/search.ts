import { parseEffect, wordsOf, type SetLine } from '@jinx/core/document';
import type { Session } from './database.ts';

/** Where a word was found in one effect. */
export interface FoundIn {
  readonly id: string;
  readonly name: string;
  readonly lines: readonly SetLine[];
  /** Lines that were found beside those that are told. */
  readonly more: number;
}

/** Lines told of one effect at most. */
const MOST_LINES = 12;

const isIn = (words: readonly string[], text: string): boolean => words.every((word) => text.includes(word));

/** Looks for words in everything that is set in the effects of a project: pictures, meshes, looks, colours, settings, values. */
export async function searched(session: Session, projectId: string, text: string): Promise<FoundIn[]> {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const { rows } = await session.query<{ id: string; name: string; document: string }>(
    'select id, name, document from effects where project_id = $1 and deleted_at is null order by name, id',
    [projectId],
  );
  return rows.flatMap(({ id, name, document }) => {
    const all = wordsOf(parseEffect(JSON.parse(document)));
    const lines = all.filter((line) => isIn(words, `${line.heading} ${line.name} ${line.value}`.toLowerCase()));
    const isNamed = isIn(words, name.toLowerCase());
    if (lines.length === 0 && !isNamed) return [];
    return [{ id, name, lines: lines.slice(0, MOST_LINES), more: Math.max(0, lines.length - MOST_LINES) }];
  });
}
