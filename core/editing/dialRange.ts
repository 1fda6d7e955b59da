import {
  listed,
  settingsIn,
  withoutDust,
  type Collection,
  type Curve,
  type Effect,
  type Id,
  type Key,
  type Mapping,
  type NumberDeclaration,
  type Shaper,
  type Stop,
} from '../document/index.ts';
import { curveAt, gradientInto, hexOfLinear, readyCurve, readyGradient, type ReadyCurve } from '../maths/index.ts';

/** A stretch of an old range that becomes a whole new one: from 0 to 1 it was what it was from `from` to `to`. */
interface Window {
  readonly from: number;
  readonly to: number;
}
const placeIn = (x: number, { from, to }: Window): number => withoutDust((x - from) / (to - from));
/** Twelve digits are kept of a place. */
const DUST = 1e-12;
/** A key at which a step comes stands no later than it did, so that a dial which stands on the step is still past it. */
function stepIn(x: number, window: Window): number {
  const place = placeIn(x, window);
  return place > (x - window.from) / (window.to - window.from) - DUST / 1000 ? place - DUST : place;
}

/** The slope of a curve at `x`, which is no key of it. */
function slopeAt({ x: xs, y: ys, slopeIn, slopeOut }: ReadyCurve, x: number): number {
  const last = xs.length - 1;
  if (last < 1 || x <= xs[0]! || x >= xs[last]!) return 0;
  let i = 0;
  while (x >= xs[i + 1]!) i++;
  const width = xs[i + 1]! - xs[i]!;
  const t = (x - xs[i]!) / width;
  return (
    (6 * t * (t - 1) * (ys[i]! - ys[i + 1]!)) / width +
    slopeOut[i]! * (1 - t) * (1 - 3 * t) +
    slopeIn[i + 1]! * t * (3 * t - 2)
  );
}

type Placed = { readonly id: Id; readonly item: Key };

/** Whether the way from one key to the next is a straight line. */
function isStraight(a: Key, b: Key): boolean {
  const chord = (b.value - a.value) / (b.at.value - a.at.value);
  const isNear = (slope: number) => Math.abs(slope - chord) <= 1e-6 * Math.max(1, Math.abs(chord));
  return !a.held && isNear(a.slopeOut) && isNear(b.slopeIn);
}

/** Where a curve ends at an old border in a straight line, it goes on in it up to a border that is further out. */
function extended(end: Placed, next: Placed | undefined, border: number, limits: Limits): Placed {
  const { item } = end;
  if (!next || item.at.value === next.item.at.value) return end;
  const [a, b] = item.at.value < next.item.at.value ? [item, next.item] : [next.item, item];
  if (!isStraight(a, b)) return end;
  const slope = (b.value - a.value) / (b.at.value - a.at.value);
  const value = item.value + slope * (border - item.at.value);
  if (value < limits.least || value > limits.most) return end;
  return {
    id: end.id,
    item: { ...item, at: { anchor: 'share', value: border }, value, slopeIn: slope, slopeOut: slope },
  };
}

/**
 * A stretch of a curve as a whole curve: every place in both has the same value. What lies outside is cut off exactly;
 * beyond an end in a straight line the line goes on.
 */
export function curveIn(curve: Curve, window: Window, limits: Limits): Curve {
  const { from, to } = window;
  const ready = readyCurve(curve);
  let keys: Placed[] = listed(curve.keys).sort((a, b) => a.item.at.value - b.item.at.value);
  if (keys.length === 0 || keys.some(({ item }) => item.at.anchor !== 'share')) return curve;
  if (from < 0 && keys[0]!.item.at.value === 0) keys[0] = extended(keys[0]!, keys[1], from, limits);
  if (to > 1 && keys.at(-1)!.item.at.value === 1)
    keys[keys.length - 1] = extended(keys.at(-1)!, keys.at(-2), to, limits);
  keys = [...cutBefore(keys, ready, from), ...keys.filter(({ item: { at } }) => at.value > from)];
  const end = cutAfter(keys, ready, to);
  keys = [...keys.filter(({ item: { at } }) => at.value < to), ...end];
  const times = to - from;
  const placed = keys.map(({ id, item }, n): [Id, Key] => [
    id,
    {
      ...item,
      at: {
        anchor: 'share',
        value: Math.min(1, Math.max(0, (keys[n - 1]?.item.held ? stepIn : placeIn)(item.at.value, window))),
      },
      value: withoutDust(item.value),
      slopeIn: withoutDust(item.slopeIn * times),
      slopeOut: withoutDust(item.slopeOut * times),
    },
  ]);
  return { keys: { order: placed.map(([id]) => id), byId: Object.fromEntries(placed) } };
}

/** The key at the first border, in place of all before it. */
function cutBefore(keys: readonly Placed[], ready: ReadyCurve, from: number): Placed[] {
  const before = keys.filter(({ item: { at } }) => at.value <= from).at(-1);
  if (!before) return [];
  if (before.item.at.value === from) return [before];
  return [{ id: before.id, item: keyAt(before.item, ready, from) }];
}
/** What stands at the last border, in place of all after it. */
function cutAfter(keys: readonly Placed[], ready: ReadyCurve, to: number): Placed[] {
  const there = keys.filter(({ item: { at } }) => at.value === to);
  const after = keys.find(({ item: { at } }) => at.value > to);
  if (there.length > 0 || !after) return there;
  const item = keyAt(after.item, ready, to);
  delete item.held;
  return [{ id: after.id, item }];
}

function keyAt(key: Key, ready: ReadyCurve, x: number): Key {
  const slope = slopeAt(ready, x);
  return { ...key, at: { anchor: 'share', value: x }, value: curveAt(ready, x), slopeIn: slope, slopeOut: slope };
}

/** The same of a gradient; where it is cut its colour is written in eight bits. */
function stopsIn(stops: Collection<Stop>, window: Window, { palette }: Pick<Effect, 'palette'>): Collection<Stop> {
  const { from, to } = window;
  const all = listed(stops).sort((a, b) => a.item.at.value - b.item.at.value);
  if (all.length === 0 || all.some(({ item }) => item.at.anchor !== 'share')) return stops;
  const ready = readyGradient(stops, palette);
  const rgb = new Float64Array(3);
  const cut = (stop: (typeof all)[number] | undefined, at: number) => {
    if (!stop || stop.item.at.value === at) return stop ? [stop] : [];
    gradientInto(ready, at, 1, rgb);
    return [
      { id: stop.id, item: { at: { anchor: 'share' as const, value: at }, colour: { hex: hexOfLinear([...rgb]) } } },
    ];
  };
  const kept = [
    ...cut(all.filter(({ item }) => item.at.value <= from).at(-1), from),
    ...all.filter(({ item }) => item.at.value > from && item.at.value < to),
    ...cut(
      all.find(({ item }) => item.at.value >= to),
      to,
    ),
  ];
  const placed = kept.map(({ id, item }): [Id, Stop] => [
    id,
    { ...item, at: { anchor: 'share', value: Math.min(1, Math.max(0, placeIn(item.at.value, window))) } },
  ]);
  return { order: placed.map(([id]) => id), byId: Object.fromEntries(placed) };
}

type Limits = Pick<NumberDeclaration, 'least' | 'most'>;
/** Of what is no number, as a colour. */
const ANY: Limits = { least: -1e6, most: 1e6 };

function mappingIn(mapping: Mapping, window: Window, limits: Limits, effect: Pick<Effect, 'palette'>): Mapping {
  if (mapping.kind === 'curve') return { kind: 'curve', curve: curveIn(mapping.curve, window, limits) };
  if (mapping.kind === 'band')
    return { kind: 'band', low: curveIn(mapping.low, window, limits), high: curveIn(mapping.high, window, limits) };
  return { kind: 'gradient', stops: stopsIn(mapping.stops, window, effect) };
}

/**
 * Gives a dial of a number another range. Whatever it shapes is the same as before at every value that is in both ranges.
 * `before` is the effect as it was when a drag began: what is cut off on the way comes back with the range.
 */
export function setDialRange(
  draft: Effect,
  id: Id,
  range: { readonly least: number; readonly most: number },
  before: Effect = draft,
): void {
  const dial = draft.dials.byId[id];
  const old = before.dials.byId[id];
  if (dial?.kind !== 'number' || old?.kind !== 'number' || !(range.most > range.least)) return;
  const width = old.most - old.least;
  // A range without width stood at its beginning, whatever it is now.
  const window =
    width > 0
      ? { from: (range.least - old.least) / width, to: (range.most - old.least) / width }
      : { from: 0, to: 1 };
  const were = settingsIn(before);
  settingsIn(draft).forEach(({ setting, declaration }, n) => {
    const limits = declaration.value === 'number' ? declaration : ANY;
    for (const { id: shaperId, item } of listed(setting.shapers)) {
      if (item.reads.kind !== 'dial' || item.reads.dial !== id) continue;
      const was = were[n]?.setting.shapers.byId[shaperId] ?? item;
      const by = item.combine === 'replace' ? limits : ANY;
      (item as Shaper).mapping = mappingIn(was.mapping, window, by, draft);
    }
  });
  dial.least = range.least;
  dial.most = range.most;
  dial.value = Math.min(range.most, Math.max(range.least, old.value));
}
