import type { Collection } from './collection.ts';
import type { Effect } from './effect.ts';
import { differencesOf, wordsOf, type Difference } from './words.ts';

/** A step that changes more than this is told by its own name. */
const MOST_LINES = 3;

/** What of two states of an effect is not the same, in words; only what is not shared by both is looked at. */
export function changedLines(before: Effect, after: Effect): Difference[] {
  if (before === after) return [];
  const only = <T>(one: Collection<T>, other: Collection<T>): Collection<T> => ({
    order: one.order.filter((id) => one.byId[id] !== other.byId[id]),
    byId: one.byId,
  });
  const [left, right] = [
    { ...before, layers: only(before.layers, after.layers) },
    { ...after, layers: only(after.layers, before.layers) },
  ];
  return differencesOf(wordsOf(left, 'all'), wordsOf(right, 'all'));
}

/** One difference as a line, as in "Motes: lifetime 1.2 s to 1.6 s". */
export function lineOf({ heading, name, left, right }: Difference): string {
  if (left === null) return `${heading}: ${name} ${right}`;
  if (right === null) return `${heading}: ${name} no more`;
  // "1 s to 2 s" is a change, "1 to 2 s" a spread.
  const hasSpread = `${left} ${right}`.includes(' to ');
  return `${heading}: ${name} ${left} ${hasSpread ? '→' : 'to'} ${right}`;
}

/** What was done from one state of an effect to the next: in words where that is short, and else by the step's own name. */
export function wordsOfChange(before: Effect, after: Effect, label: string): string[] {
  const lines = changedLines(before, after);
  return lines.length === 0 || lines.length > MOST_LINES ? [label] : lines.map(lineOf);
}
