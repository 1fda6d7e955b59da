import { CanonicalTexts, parseEffect, type Effect } from '@jinx/core/document';
import type { Session } from '../database.ts';

/** Effects that are worked on now stay at hand, so that a small change need not read all of one. */
const MOST = 128;
const documents = new Map<string, Effect>();
const texts = new CanonicalTexts();

export const textOf = (effect: Effect): string => texts.of(effect);

/** Keeps at hand what an effect is after an edit. An edit's id is never used twice, so this never goes stale. */
export function remember(head: string, document: Effect): void {
  documents.delete(head);
  documents.set(head, document);
  if (documents.size > MOST) documents.delete(documents.keys().next().value!);
}

/** The document of an effect that stands at `head`. */
export async function documentOf(session: Session, id: string, head: string): Promise<Effect> {
  const known = documents.get(head);
  if (known) return known;
  const { rows } = await session.query<{ document: string }>(
    'select document from effects where id = $1 and head = $2',
    [id, head],
  );
  const document = parseEffect(JSON.parse(rows[0]!.document));
  remember(head, document);
  return document;
}
