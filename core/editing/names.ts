import {
  curveShaper,
  listed,
  settingsIn,
  stepsOf,
  waitingFor,
  withItem,
  withoutItem,
  type Colour,
  type Collection,
  type Dial,
  type Effect,
  type Id,
  type Measure,
  type NumberDeclaration,
  type NumberSetting,
  type Setting,
  type Stop,
  freeName,
} from '../document/index.ts';
import { curveAt, hexOfLinear, paletteColour, readyCurve } from '../maths/index.ts';
import { putIn } from './dialled.ts';
import { dialShares } from '../simulation/index.ts';

/** What of units a measure may stand for. */
export const QUANTITY_OF: Partial<Record<NumberDeclaration['unit'], Measure['quantity']>> = {
  m: 'length',
  s: 'time',
  count: 'count',
};

/** Names what a setting has as a measure, and lets the setting use it: nothing changes. Only one fixed number can be named. */
export function nameMeasure(
  draft: Effect,
  setting: NumberSetting,
  declaration: NumberDeclaration,
  id: Id,
  name: string,
): void {
  const quantity = QUANTITY_OF[declaration.unit];
  if (!quantity || setting.base.kind !== 'fixed') return;
  const { value } = setting.base;
  draft.measures = withItem(draft.measures, id, { name: freeName(draft.measures, name), quantity, value });
  setting.base = { kind: 'measure', measure: id };
}

/** How far a dial that is made of a number goes to either side of it. */
const LESS = 0.5;
const MORE = 2;

function middleOf({ base }: NumberSetting, { measures }: Effect): number {
  if (base.kind === 'fixed') return base.value;
  if (base.kind === 'spread') return (base.low + base.high) / 2;
  return base.kind === 'measure' ? (measures.byId[base.measure]?.value ?? 0) : 0;
}

/** A dial as a number would have it: from half of it to twice as much, as far as its limits let it; of nothing, up to 1. */
function dialOf(value: number, { least, most }: NumberDeclaration, name: string): Extract<Dial, { kind: 'number' }> {
  const fit = (x: number) => Math.min(most, Math.max(least, x));
  const ends = value === 0 ? [fit(0), fit(1)] : [fit(value * LESS), fit(value * MORE)];
  return { kind: 'number', name, least: Math.min(...ends), most: Math.max(...ends), value };
}

/**
 * Brings a number out as a dial, which stands where the number is, so that nothing changes. Where the dial is there
 * already, this number goes with it too, in the same proportion.
 */
export function bringOut(
  draft: Effect,
  setting: NumberSetting,
  declaration: NumberDeclaration,
  ids: { readonly dial: Id; readonly shaper: Id },
  name: string,
): void {
  if (setting.base.kind === 'taken') return;
  const value = middleOf(setting, draft);
  const known = draft.dials.byId[ids.dial];
  const dial = known?.kind === 'number' ? known : dialOf(value, declaration, freeName(draft.dials, name));
  if (!known) draft.dials = withItem(draft.dials, ids.dial, dial);
  // A spread goes with the dial as a whole; one number is replaced by what the dial says.
  const isSpread = setting.base.kind === 'spread' && value !== 0;
  const times = isSpread ? 1 : value;
  const ends =
    dial.value === 0 ? [dial.least, dial.most] : [dial.least, dial.most].map((end) => (end / dial.value) * times);
  const shaper = curveShaper(
    ends.map((end, n) => [n, end] as const),
    isSpread ? 'multiply' : 'replace',
  );
  setting.shapers = withItem(setting.shapers, ids.shaper, { ...shaper, reads: { kind: 'dial', dial: ids.dial } });
}

type Base = { kind: string; value?: unknown; values?: unknown };

const each = (draft: Effect, act: (setting: Setting) => void): void =>
  settingsIn(draft).forEach(({ setting }) => act(setting));

/** Takes a measure away: what used it keeps what it had, as a number of its own. */
export function dropMeasure(draft: Effect, id: Id): void {
  const value = draft.measures.byId[id]?.value ?? 0;
  each(draft, (setting) => {
    if (setting.base.kind === 'measure' && setting.base.measure === id)
      (setting as NumberSetting).base = { kind: 'fixed', value };
  });
  for (const { item } of listed(draft.layers))
    for (const moment of [item.births.from, item.births.until])
      if (moment?.measure === id)
        Object.assign(moment, { measure: null, seconds: moment.seconds < 0 ? -value : value });
  draft.measures = withoutItem(draft.measures, id);
}

/** Takes a colour out of the palette: what used it keeps the colour it had, as its own. */
export function dropColour(draft: Effect, id: Id): void {
  const hexBy = (entry: Id) => hexOfLinear(paletteColour(draft.palette, entry));
  const hex = hexBy(id);
  const own = (colour: Colour): Colour => ('palette' in colour && colour.palette === id ? { hex } : colour);
  const recolour = (stops: Collection<Stop>) => listed(stops).forEach(({ item }) => (item.colour = own(item.colour)));
  each(draft, (setting) => {
    const base = setting.base as Base;
    if (base.kind === 'set') base.values = (base.values as Colour[]).map(own);
    else if (base.kind === 'fixed' && typeof base.value === 'object' && !Array.isArray(base.value))
      base.value = own(base.value as Colour);
    for (const { item } of listed(setting.shapers))
      if (item.mapping.kind === 'gradient') recolour(item.mapping.stops);
  });
  const steps = [
    ...listed(draft.layers).flatMap(({ item }) => stepsOf(draft, item)),
    ...listed(draft.looks).flatMap(({ item }) => listed(item.steps)),
  ];
  for (const { item } of steps) if (item.kind === 'gradient') recolour(item.stops);
  // What was derived of it stays as it is seen, by itself.
  const derived = listed(draft.palette).filter(
    ({ item }) => item.colour.kind === 'derived' && item.colour.from === id,
  );
  const seen = derived.map(({ id: other }) => hexBy(other));
  derived.forEach(({ item }, n) => (item.colour = { kind: 'fixed', hex: seen[n]! }));
  draft.palette = withoutItem(draft.palette, id);
}

/** Takes a dial away. What it shaped is shaped by it no more: where it stood by itself, the number stays as the dial had it. */
export function dropDial(draft: Effect, id: Id): void {
  putIn(draft, id);
  const share = dialShares(draft)[id] ?? 0;
  each(draft, (setting) => {
    for (const { id: shaperId, item } of listed(setting.shapers)) {
      if (item.reads.kind !== 'dial' || item.reads.dial !== id) continue;
      const { base } = setting as NumberSetting;
      const by = item.mapping.kind === 'curve' && !item.muted ? curveAt(readyCurve(item.mapping.curve), share) : null;
      const kept = (value: number) =>
        by === null
          ? value
          : item.combine === 'multiply'
            ? value * by
            : item.combine === 'add'
              ? value + by
              : item.combine === 'replace'
                ? by
                : value + (by - value) * item.amount;
      if (base.kind === 'fixed' && typeof base.value === 'number') base.value = kept(base.value);
      else if (base.kind === 'spread' && typeof base.low === 'number')
        [base.low, base.high] = [kept(base.low), kept(base.high)];
      setting.shapers = withoutItem(setting.shapers, shaperId);
    }
  });
  for (const { item } of listed(draft.layers)) if (item.seenBy === id) item.seenBy = null;
  draft.dials = withoutItem(draft.dials, id);
}

/** Takes a signal away. What waited for it comes where it came on the stage, so that nothing changes there. */
export function dropSignal(draft: Effect, id: Id): void {
  const { tried } = draft.signals.byId[id]!;
  for (const layer of waitingFor(draft, id).map((one) => draft.layers.byId[one]!))
    for (const { id: burst, item } of listed(layer.bursts)) {
      if (item.signal !== id) continue;
      if (tried) Object.assign(item, { signal: null, stretch: tried.stretch, at: tried.at + item.at });
      else layer.bursts = withoutItem(layer.bursts, burst);
    }
  draft.signals = withoutItem(draft.signals, id);
}
