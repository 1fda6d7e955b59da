import { curveThrough, type Curve, type Key, type KeyPlace } from '@jinx/core/document';
import { percentIn, readNumber } from '../entry/numbers';

/** A value of a list, and where on the ruler it was put; null where it takes its place among the others. */
export interface Listed {
  readonly text: string;
  readonly at: KeyPlace | null;
}

const AT = /^(.*?)\s+at\s+(.+)$/i;

/** A place on a life: `33%`, `0.5 s` after birth, `-1.5 s` before death; of other rulers a number or a share. @throws an error with a sentence. */
function readPlace(text: string): KeyPlace {
  const share = percentIn(text);
  if (share !== null) return { anchor: 'share', value: share };
  const value = readNumber(text, { unit: 's' });
  return value < 0 || Object.is(value, -0)
    ? { anchor: 'beforeDeath', value: Math.abs(value) }
    : { anchor: 'afterBirth', value };
}

/** Splits `25%, 100% at 33%, 0` or `red to blue` into its values and their places. @throws an error with a sentence. */
export function readList(text: string): Listed[] {
  const parts = text
    .split(/\s*,\s*|\s+to\s+/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  return parts.map((part) => {
    const at = AT.exec(part);
    return at ? { text: at[1]!.trim(), at: readPlace(at[2]!) } : { text: part, at: null };
  });
}

/** Places of a list: those that were put, and the others evenly between their neighbours. */
export function placesOf(list: readonly Listed[]): KeyPlace[] {
  const last = list.length - 1;
  const known = list.map(({ at }, n): number | null =>
    at?.anchor === 'share' ? at.value : at ? null : n === 0 ? 0 : n === last ? 1 : null,
  );
  return list.map(({ at }, n) => {
    if (at) return at;
    if (known[n] !== null) return { anchor: 'share', value: known[n]! };
    let before = n - 1;
    while (known[before] === null && before > 0) before--;
    const after = n + 1 + known.slice(n + 1).findIndex((value) => value !== null);
    const share = (n - before) / (after - before);
    const from = known[before] ?? 0;
    const value = from + share * ((known[after] ?? 1) - from);
    return { anchor: 'share', value: Number(value.toFixed(4)) };
  });
}

/** About where a place lies on a life of so many seconds. */
const shareOf = ({ anchor, value }: KeyPlace, life: number): number =>
  anchor === 'share' ? value : anchor === 'afterBirth' ? value / life : 1 - value / life;

/** A curve through numbers of a list; `readValue` reads each. Keys by seconds are level: how steep they are depends on the life. */
export function curveOf(list: readonly Listed[], life: number, readValue: (text: string) => number): Curve {
  if (list.length < 2) throw new Error('A curve takes two numbers or more, with commas between');
  const places = placesOf(list);
  const points = list.map(({ text }, n): [number, number] => [shareOf(places[n]!, life), readValue(text)]);
  if (points.some(([x], n) => n > 0 && x <= points[n - 1]![0]))
    throw new Error('The places of a curve come one after another, from birth to death');
  const { keys } = curveThrough(points);
  const byId = Object.fromEntries(
    keys.order.map((id, n): [string, Key] => {
      const bySeconds = places[n]!.anchor !== 'share';
      const key = keys.byId[id]!;
      return [id, { ...key, at: places[n]!, ...(bySeconds ? { slopeIn: 0, slopeOut: 0 } : {}) }];
    }),
  );
  return { keys: { order: keys.order, byId } };
}
