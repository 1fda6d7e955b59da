/** Whether a key types a sign that a chip begins with, rather than giving a command. */
export const typesInto = (event: KeyboardEvent, signs: RegExp): boolean =>
  !event.ctrlKey && !event.metaKey && !event.altKey && event.key.length === 1 && signs.test(event.key);
