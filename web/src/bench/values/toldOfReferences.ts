import type { Pasted } from '@jinx/core/editing';

const list = (words: readonly string[]) => new Intl.ListFormat('en').format(words);

/** What came along with what was put in, and what had no match here; nothing where all was as it should be. */
export function toldOfReferences({ brought, lost }: Pasted): string {
  const along = brought.length > 0 ? `Brought along: ${list(brought)}.` : '';
  const without = lost.length > 0 ? `No match here: ${list(lost)}.` : '';
  return [along, without].filter(Boolean).join(' ');
}
