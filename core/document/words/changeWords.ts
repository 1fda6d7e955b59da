import type { Collection, Id } from '../../settings/index.ts';
import type { Effect } from '../schema/index.ts';
import { differencesOf, wordsOf, type Difference } from './words.ts';

/** A step that changes more than this is told by its own name. */
const MOST_LINES = 3;

/** Tables whose items have names, and what one of them is called. */
const NAMED = {
  layers: 'layer',
  groups: 'group',
  palette: 'colour',
  measures: 'measure',
  dials: 'dial',
  signals: 'signal',
  channels: 'channel',
  looks: 'look',
  fronts: 'front',
} as const;

type Named = Collection<{ readonly name: string }>;

/** What came, went, was renamed or moved in the tables of an effect. */
function inTables(before: Effect, after: Effect): Difference[] {
  return Object.entries(NAMED).flatMap(([table, what]) => {
    const [was, is] = [before[table as 'layers'] as Named, after[table as 'layers'] as Named];
    if (was === is) return [];
    const line = (id: Id, heading: string, left: string | null, right: string | null): Difference => {
      return { id: `${table}.${id}.name`, heading, name: what, left, right };
    };
    const nameIn = (of: Named, id: Id) => of.byId[id]?.name ?? null;
    const ids = [...new Set([...was.order, ...is.order])];
    const lines = ids.flatMap((id) => {
      const [left, right] = [nameIn(was, id), nameIn(is, id)];
      if (left === right) return [];
      return [line(id, left === null ? 'Added' : right === null ? 'Taken away' : 'Renamed', left, right)];
    });
    const stayed = (of: Named, other: Named) => of.order.filter((id) => id in other.byId);
    if (stayed(was, is).join() === stayed(is, was).join()) return lines;
    const names = (of: Named) => of.order.map((id) => nameIn(of, id)).join(', ');
    return [
      ...lines,
      { id: `${table}.order`, heading: 'Order', name: `${what}s`, left: names(was), right: names(is) },
    ];
  });
}

/** What of two states of an effect is not the same, in words; only what is not shared by both is looked at. */
export function changedLines(before: Effect, after: Effect): Difference[] {
  if (before === after) return [];
  // A layer that came or went is told as a whole.
  const only = <T>(one: Collection<T>, other: Collection<T>): Collection<T> => ({
    order: one.order.filter((id) => id in other.byId && one.byId[id] !== other.byId[id]),
    byId: one.byId,
  });
  const [left, right] = [
    { ...before, layers: only(before.layers, after.layers) },
    { ...after, layers: only(after.layers, before.layers) },
  ];
  return [...inTables(before, after), ...differencesOf(wordsOf(left, 'all'), wordsOf(right, 'all'))];
}

/** One difference as a line, as in "Motes: lifetime 1.2 s to 1.6 s". */
export function lineOf({ heading, name, left, right }: Difference): string {
  if (left === null) return `${heading}: ${name} ${right}`;
  if (right === null) return heading === 'Taken away' ? `${heading}: ${name} ${left}` : `${heading}: ${name} no more`;
  // "1 s to 2 s" is a change, "1 to 2 s" a spread.
  const hasSpread = `${left} ${right}`.includes(' to ');
  return `${heading}: ${name} ${left} ${hasSpread ? '→' : 'to'} ${right}`;
}

/** What was done from one state of an effect to the next: in words where that is short, and else by the step's own name. */
export function wordsOfChange(before: Effect, after: Effect, label: string): string[] {
  const lines = changedLines(before, after);
  return lines.length === 0 || lines.length > MOST_LINES ? [label] : lines.map(lineOf);
}
