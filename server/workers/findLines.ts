import type { FoundIn } from '@jinx/core/answers';
import type { SetLine } from '@jinx/core/document';

/** Lines told of one effect at most. */
const MOST_LINES = 12;

const isIn = (words: readonly string[], text: string): boolean => words.every((word) => text.includes(word));

/** The lines of one effect in which words stand; none where they stand in no line and not in its name. */
export function findLines(
  { id, name }: { id: string; name: string },
  all: readonly SetLine[],
  words: readonly string[],
): FoundIn[] {
  const lines = all.filter((line) => isIn(words, `${line.heading} ${line.name} ${line.value}`.toLowerCase()));
  const isNamed = isIn(words, name.toLowerCase());
  if (lines.length === 0 && !isNamed) return [];
  return [{ id, name, lines: lines.slice(0, MOST_LINES), more: Math.max(0, lines.length - MOST_LINES) }];
}
