import { apply, inverted, wordsOfChange, type Effect } from '@jinx/core/document';
import type { Entry } from '../../stores/effect';

/** A step of undo in words. */
export interface Step {
  readonly words: readonly string[];
  /** How many steps back it is from where the effect stands; 0 and less is ahead of it. */
  readonly back: number;
}

const known = new WeakMap<Entry, readonly string[]>();

function wordsOf(entry: Entry, before: Effect, after: Effect): readonly string[] {
  const words = known.get(entry) ?? wordsOfChange(before, after, entry.label);
  // A drag that goes on is told anew each time.
  if (entry.gesture === null) known.set(entry, words);
  return words;
}

/** The last steps, the newest first: those that were undone, then those that were done. */
export function stepsOf(effect: Effect, past: readonly Entry[], future: readonly Entry[], most: number): Step[] {
  const steps: Step[] = [];
  const walk = (
    entries: readonly Entry[],
    turned: (entry: Entry) => Entry['changes'],
    add: (words: readonly string[], n: number) => void,
  ) => {
    let current: Effect | null = effect;
    entries.forEach((entry, n) => {
      const from: Effect | null = current;
      try {
        current = from && apply(from, turned(entry));
      } catch {
        // Somebody else took away what it is about.
        current = null;
      }
      if (!from || !current) return add([entry.label], n);
      add(turned(entry) === entry.changes ? wordsOf(entry, from, current) : wordsOf(entry, current, from), n);
    });
  };
  walk(
    [...future].reverse().slice(0, most),
    ({ changes }) => changes,
    (words, n) => steps.unshift({ words, back: -n }),
  );
  walk(
    [...past].reverse().slice(0, most),
    ({ changes }) => inverted(changes),
    (words, n) => steps.push({ words, back: n + 1 }),
  );
  return steps;
}
