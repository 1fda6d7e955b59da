import {
  type Burst,
  curveShaper,
  type Dial,
  type Effect,
  freeName,
  type Id,
  listed,
  type Measure,
  middleBase,
  type Moment,
  type NumberDeclaration,
  type NumberSetting,
  refsTo,
  settingsIn,
  type Shaper,
  withItem,
  withoutItem,
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
  const value = middleBase(setting.base, draft) ?? 0;
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

/** Takes a measure away: what used it keeps what it had, as a number of its own. */
export function dropMeasure(draft: Effect, id: Id): void {
  const value = draft.measures.byId[id]?.value ?? 0;
  for (const found of refsTo(draft, 'measures', id)) {
    const holder = found.holder as NumberSetting['base'] | Moment;
    if ('after' in holder) Object.assign(holder, { measure: null, seconds: holder.seconds < 0 ? -value : value });
    else found.become({ kind: 'fixed', value });
  }
  draft.measures = withoutItem(draft.measures, id);
}

/** Takes a colour out of the palette: what used it keeps the colour it had, as its own. */
export function dropColour(draft: Effect, id: Id): void {
  const hexBy = (entry: Id) => hexOfLinear(paletteColour(draft.palette, entry));
  const hex = hexBy(id);
  // What was derived of it stays as it is seen, by itself.
  const kept = refsTo(draft, 'palette', id).map((found) => {
    const isDerived = 'from' in found.holder;
    return { found, is: isDerived ? { kind: 'fixed', hex: hexBy(found.itemId!) } : { hex } };
  });
  for (const { found, is } of kept) found.become(is);
  draft.palette = withoutItem(draft.palette, id);
}

/** What a number is where a dial shapes it no more: where the dial replaced it or added to it, as the dial had it. */
function shapedBy({ mapping, combine, amount, muted }: Shaper, share: number): (value: number) => number {
  if (mapping.kind !== 'curve' || muted) return (value) => value;
  const by = curveAt(readyCurve(mapping.curve), share);
  return (value) =>
    combine === 'multiply'
      ? value * by
      : combine === 'add'
        ? value + by
        : combine === 'replace'
          ? by
          : value + (by - value) * amount;
}

/** Takes a dial away. What it shaped is shaped by it no more: where it stood by itself, the number stays as the dial had it. */
export function dropDial(draft: Effect, id: Id): void {
  putIn(draft, id);
  const share = dialShares(draft)[id] ?? 0;
  for (const { setting } of settingsIn(draft))
    for (const { id: shaperId, item } of listed(setting.shapers)) {
      if (item.reads.kind !== 'dial' || item.reads.dial !== id) continue;
      const { base } = setting;
      const kept = shapedBy(item, share);
      if (base.kind === 'fixed' && typeof base.value === 'number') base.value = kept(base.value);
      else if (base.kind === 'spread' && typeof base.low === 'number' && typeof base.high === 'number')
        [base.low, base.high] = [kept(base.low), kept(base.high)];
      setting.shapers = withoutItem(setting.shapers, shaperId);
    }
  for (const found of refsTo(draft, 'dials', id)) found.letGo();
  draft.dials = withoutItem(draft.dials, id);
}

/** Takes a signal away. What waited for it comes where it came on the stage, so that nothing changes there. */
export function dropSignal(draft: Effect, id: Id): void {
  const { tried } = draft.signals.byId[id]!;
  for (const found of refsTo(draft, 'signals', id)) {
    const burst = found.holder as Burst;
    if (tried) Object.assign(burst, { signal: null, stretch: tried.stretch, at: tried.at + burst.at });
    else found.letGo('item');
  }
  draft.signals = withoutItem(draft.signals, id);
}
