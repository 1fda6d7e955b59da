import {
  formatAddress,
  isSameAddress,
  listed,
  ownerOf,
  placesOf,
  settingsIn,
  settingsOfLayer,
  type ColourDeclaration,
  type ColourSetting,
  type Curve,
  type Effect,
  type FoundSetting,
  type Id,
  type Key,
  type NumberDeclaration,
  type NumberSetting,
  type Shaper,
} from '../document/index.ts';
import { curveAt, readyCurve } from '../maths/index.ts';
import {
  ColourReader,
  dialShares,
  hungInto,
  newHung,
  newReading,
  NumberReader,
  type EffectClock,
  type Reading,
} from '../simulation/index.ts';
import { lifeSamples, samplesAt } from './lifeSamples.ts';
import type { Problem } from './mend.ts';
import { said } from './numbers.ts';
import { sheetClock } from './presence.ts';

/** Where the hold begins and where it ends, as shares of the whole sheet. */
interface Turn {
  readonly from: number;
  readonly to: number;
}

/** A difference of less than this share of the larger is no jump that is seen. */
const SEEN = 0.1;
/** Metres by which a place may be off at the seam. */
const SEEN_METRES = 0.02;
/** Of a particle's light at its fullest; less is taken for nothing. */
const GONE = 0.02;

const readsTime = ({ item }: { item: Shaper }): boolean =>
  !item.muted && (item.reads.kind === 'effectTime' || item.reads.kind === 'stretchTime');

/** What is read of a middling particle at the end of a turn, and at the beginning of the next. */
function readings(effect: Effect, { from, to }: Turn): readonly [end: Reading, begin: Reading] {
  const reading = { ...newReading(), age: 0.5, dials: dialShares(effect) };
  return [
    { ...reading, effectTime: to, stretchTime: 1 },
    { ...reading, effectTime: from, stretchTime: 0 },
  ];
}

/** How far a setting jumps at the seam, in words; null where it does not. */
function jumpOf({ address, declaration, setting }: FoundSetting, effect: Effect, turn: Turn): string | null {
  const isDress = 'acts' in declaration && declaration.acts === 'dress';
  if (setting.muted || !(isDress || address.kind === 'front')) return null;
  if (!listed(setting.shapers).some(readsTime)) return null;
  const [end, begin] = readings(effect, turn);
  const slot = formatAddress(address);
  if (declaration.value === 'number') {
    const reader = new NumberReader(setting as NumberSetting, declaration as NumberDeclaration, slot, effect);
    const [a, b] = [reader.read(end), reader.read(begin)];
    if (Math.abs(a - b) <= SEEN * Math.max(Math.abs(a), Math.abs(b))) return null;
    return `from ${said(a)} to ${said(b)}${declaration.unit === '%' ? '%' : declaration.unit ? ` ${declaration.unit}` : ''}`;
  }
  if (declaration.value !== 'colour') return null;
  const reader = new ColourReader(setting as ColourSetting, declaration as ColourDeclaration, slot, effect);
  const [a, b] = [new Float64Array(3), new Float64Array(3)];
  reader.readInto(end, a);
  reader.readInto(begin, b);
  const most = Math.max(...a, ...b);
  return a.some((part, c) => Math.abs(part - b[c]!) > SEEN * most) ? 'to another colour' : null;
}

const keyOf = (x: number, value: number): Key => ({
  at: { anchor: 'share', value: x },
  value,
  slopeIn: 0,
  slopeOut: 0,
});

/** A curve that is level over the hold, as high as it is in its middle, and as it was before and after. */
function levelled(curve: Curve, { from, to }: Turn): Curve {
  const middle = curveAt(readyCurve(curve), (from + to) / 2);
  const keys = listed(curve.keys);
  const [begin, end] = [keyOf(from, middle), keyOf(to, middle)];
  const all: [Id, Key][] = [
    ...keys.filter(({ item }) => item.at.value < from).map(({ id, item }): [Id, Key] => [id, item]),
    ['holdFrom', begin],
    ['holdTo', end],
    ...keys.filter(({ item }) => item.at.value > to).map(({ id, item }): [Id, Key] => [id, item]),
  ];
  return { keys: { order: all.map(([id]) => id), byId: Object.fromEntries(all) } };
}

function levelOut(draft: Effect, layerId: Id, found: FoundSetting, turn: Turn): void {
  const own = [...settingsOfLayer(draft, layerId), ...cutOf(draft, layerId)].find(({ address }) =>
    isSameAddress(address, found.address),
  );
  for (const { item } of listed(own!.setting.shapers)) {
    if (!readsTime({ item }) || item.mapping.kind !== 'curve') continue;
    const over = item.reads.kind === 'stretchTime' ? { from: 0, to: 1 } : turn;
    item.mapping = { kind: 'curve', curve: levelled(item.mapping.curve, over) };
  }
}

/** The border that cuts a layer on the skin of a figure. */
function cutOf(effect: Effect, layerId: Id): FoundSetting[] {
  const { drawn } = effect.layers.byId[layerId]!;
  if (drawn.kind !== 'body' || drawn.front === null) return [];
  return settingsIn(effect).filter(
    ({ address }) => address.kind === 'front' && address.id === drawn.front && address.setting === 'border',
  );
}

/** What of a layer's dress leaps as the hold begins anew. */
function jumps(effect: Effect, layerId: Id, turn: Turn): Problem[] {
  const { name } = effect.layers.byId[layerId]!;
  return [...settingsOfLayer(effect, layerId), ...cutOf(effect, layerId)].flatMap((found): Problem[] => {
    const jump = jumpOf(found, effect, turn);
    if (jump === null) return [];
    const canLevel = listed(found.setting.shapers).every(
      (shaper) => !readsTime(shaper) || shaper.item.mapping.kind === 'curve',
    );
    return [
      {
        id: `turn/${formatAddress(found.address)}`,
        sentence: `${name}: ${found.declaration.name} jumps ${jump} each time the hold begins anew.`,
        severity: 'doubtful',
        where: 'rulers',
        mend: canLevel
          ? {
              label: 'Keep it level while it holds',
              apply: (draft) => levelOut(draft, layerId, found, turn),
            }
          : null,
      },
    ];
  });
}

/** Places whose keys lead somewhere else than where they begin. */
function leaps(effect: Effect, layerId: Id, clock: EffectClock): Problem[] {
  const { name } = effect.layers.byId[layerId]!;
  const [begin, end] = [newHung(), newHung()];
  return placesOf(effect, layerId)
    .filter(
      ({ address, place }) => place.keys.order.length > 1 && address.kind !== 'sharedForce' && address.kind !== 'hit',
    )
    .flatMap(({ address, name: what, place }): Problem[] => {
      hungInto(begin, place, clock.opening);
      hungInto(end, place, clock.opening + clock.hold);
      const apart = begin.offset.map((x, axis) => x - end.offset[axis]!);
      const metres = Math.sqrt(apart.reduce((sum, x) => sum + x * x, 0));
      if (metres <= SEEN_METRES) return [];
      return [
        {
          id: `turn/${formatAddress(address)}`,
          sentence: `${name}: the ${what} jumps ${said(metres)} m each time the hold begins anew.`,
          severity: 'doubtful',
          where: 'rulers',
          measure: metres,
          mend: null,
        },
      ];
    });
}

/** What stands waits at the age of the hold's end until it is let go: faded out by then, it is gone while it is held. */
function gone(effect: Effect, layerId: Id, clock: EffectClock): Problem[] {
  const layer = effect.layers.byId[layerId]!;
  const { 'births.standing': standing, 'births.rate': rate } = effect.layers.byId[ownerOf(effect, layerId)]!.settings;
  const isStanding = standing.base.kind === 'fixed' && standing.base.value > 0 && !standing.muted;
  if (!isStanding || (rate.base.kind === 'fixed' && rate.base.value > 0)) return [];
  const peak = Math.max(...lifeSamples(effect, layerId, 32).map(({ energy }) => energy));
  const [waiting] = samplesAt(effect, layerId, [clock.waitingAge]);
  if (!(peak > 0) || waiting!.energy > GONE * peak) return [];
  return [
    {
      id: 'turn/gone',
      sentence: `${layer.name} has faded by the end of the hold’s first turn, and is not seen while the effect holds on.`,
      severity: 'doubtful',
      where: 'life',
      mend: null,
    },
  ];
}

/** What is seen to leap, or is gone, as the hold begins anew. */
export function turnProblems(effect: Effect, layerId: Id): Problem[] {
  const clock = sheetClock(effect);
  if (clock.hold === 0) return [];
  const turn = { from: clock.opening / clock.length, to: (clock.opening + clock.hold) / clock.length };
  return [...jumps(effect, layerId, turn), ...leaps(effect, layerId, clock), ...gone(effect, layerId, clock)];
}
