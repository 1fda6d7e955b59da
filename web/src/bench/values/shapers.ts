import {
  curveThrough,
  listed,
  stretchedCurve,
  withItem,
  type Curve,
  type NumberDeclaration,
  type NumberSetting,
  type Shaper,
  type Stop,
  type Collection,
  type KeyPlace,
  type Effect,
  type Reads,
  type ColourSetting,
} from '@jinx/core/document';

/** The first shaper by which age shapes a number: a curve, or a band between two. */
export function ageShaper(setting: NumberSetting): { id: string; shaper: Shaper } | null {
  const found = listed(setting.shapers).find(
    ({ item }) => item.reads.kind === 'age' && item.mapping.kind !== 'gradient',
  );
  return found ? { id: found.id, shaper: found.item } : null;
}
/** The curves of a shaper: one, or the lower and the upper of a band. */
export const curvesOf = ({ mapping }: Shaper): Curve[] =>
  mapping.kind === 'curve' ? [mapping.curve] : mapping.kind === 'band' ? [mapping.low, mapping.high] : [];

/** The first gradient by which age shapes a colour. */
export function ageGradient(setting: ColourSetting): { id: string; stops: Collection<Stop> } | null {
  for (const { id, item } of listed(setting.shapers))
    if (item.reads.kind === 'age' && item.mapping.kind === 'gradient') return { id, stops: item.mapping.stops };
  return null;
}

/** What a shaper reads, in words. */
export function readsText(reads: Reads, effect: Pick<Effect, 'channels' | 'dials'>): string {
  switch (reads.kind) {
    case 'age':
      return 'age';
    case 'effectTime':
      return 'the effect’s time';
    case 'stretchTime':
      return 'the stretch’s time';
    case 'speed':
      return 'speed';
    case 'distance':
      return 'distance travelled';
    case 'aimDistance':
      return 'the distance to its aim';
    case 'carrierSpeed':
      return 'the speed of what carries it';
    case 'along':
      return 'its length, from head to tail';
    case 'channel':
      return effect.channels.byId[reads.channel]?.name ?? 'a channel';
    case 'dial':
      return effect.dials.byId[reads.dial]?.name ?? 'a dial';
  }
}

/** Everything that may shape a setting of these kinds, each under a value to choose it by. */
export function readsOffered(
  kinds: readonly Reads['kind'][],
  effect: Pick<Effect, 'channels' | 'dials'>,
): { value: string; text: string; reads: Reads }[] {
  return kinds
    .flatMap((kind): Reads[] => {
      if (kind === 'channel') return effect.channels.order.map((channel) => ({ kind, channel }));
      if (kind === 'dial') return effect.dials.order.map((dial) => ({ kind, dial }));
      return [{ kind }];
    })
    .map((reads) => ({ value: JSON.stringify(reads), text: `by ${readsText(reads, effect)}`, reads }));
}

/** How far what is read usually goes: where a new curve over it ends. */
const USUAL: Partial<Record<Reads['kind'], number>> = { speed: 4, distance: 2, carrierSpeed: 4, aimDistance: 2 };

/** A shaper that multiplies by a line from nothing to all. */
export const newShaper = (reads: Reads): Shaper => ({
  reads,
  mapping: {
    kind: 'curve',
    curve: stretchedCurve(
      curveThrough([
        [0, 0],
        [1, 1],
      ]),
      USUAL[reads.kind] ?? 1,
    ),
  },
  combine: 'multiply',
  amount: 1,
  muted: false,
});

/** Units of what runs as far as one says; all else runs from 0 to 1. */
export const UNITS: Partial<Record<Reads['kind'], string>> = {
  speed: 'm/s',
  distance: 'm',
  carrierSpeed: 'm/s',
  aimDistance: 'm',
  channel: '',
};

/** A shaper that tints along a gradient, from white. */
export const newTint = (reads: Reads): Shaper => ({
  reads,
  mapping: {
    kind: 'gradient',
    stops: {
      order: ['start', 'end'],
      byId: {
        start: { at: { anchor: 'share', value: 0 }, colour: { hex: '#ffffff' } },
        end: { at: { anchor: 'share', value: USUAL[reads.kind] ?? 1 }, colour: { hex: '#ff8a3c' } },
      },
    },
  },
  combine: 'multiply',
  amount: 1,
  muted: false,
});

/** Where the last of some keys or stops stands. */
export const widthOf = ({ byId }: Collection<{ readonly at: KeyPlace }>): number =>
  Math.max(0.01, ...Object.values(byId).map(({ at }) => at.value));

/** Writes the shaper by age of a setting with `edit`, which is given the one it has or a level one; a new one stands under `newId`. */
export function shapeByAge(setting: NumberSetting, newId: string, edit: (own: Shaper) => Shaper): void {
  const found = ageShaper(setting);
  const level: Shaper = {
    reads: { kind: 'age' },
    mapping: { kind: 'curve', curve: curveThrough([[0, 1]]) },
    combine: 'multiply',
    amount: 1,
    muted: false,
  };
  const at = found ? setting.shapers.order.indexOf(found.id) : undefined;
  setting.shapers = withItem(setting.shapers, found?.id ?? newId, edit(found?.shaper ?? level), at);
}
/** Settings that rise over a life where they are shaped at all: what widens, what dissolves, what carries along. */
const RISING = /ring|radius|border|dissolve|amount|distance|turned/;

/** The name of the ready shape that suits a setting that is shaped over age for the first time. */
export const suitingShape = (name: string, { unit }: Pick<NumberDeclaration, 'unit'>): string =>
  unit === 'm/s' || RISING.test(name) ? 'rising' : 'in and out';

/** Gives a setting a shape over age, or replaces the one it has. */
export const setAgeCurve = (setting: NumberSetting, curve: Curve, newId: string): void =>
  shapeByAge(setting, newId, (own) => ({ ...own, mapping: { kind: 'curve', curve } }));

/** Gives a colour a gradient over age, or replaces the stops of the one it has. */
export function setAgeGradient(setting: ColourSetting, stops: Collection<Stop>, newId: string): void {
  const found = ageGradient(setting);
  const kept = found && setting.shapers.byId[found.id]!;
  const shaper: Shaper = {
    reads: { kind: 'age' },
    mapping: { kind: 'gradient', stops },
    combine: kept?.combine ?? 'replace',
    amount: 1,
    muted: kept?.muted ?? false,
  };
  setting.shapers = withItem(setting.shapers, found?.id ?? newId, shaper, 0);
}

/** Shapes to begin from, each a curve over a whole life. */
export const READY_SHAPES: readonly { name: string; points: readonly (readonly [number, number])[] }[] = [
  {
    name: 'level',
    points: [
      [0, 1],
      [1, 1],
    ],
  },
  {
    name: 'rising',
    points: [
      [0, 0],
      [1, 1],
    ],
  },
  {
    name: 'falling',
    points: [
      [0, 1],
      [1, 0],
    ],
  },
  {
    name: 'in and out',
    points: [
      [0, 0],
      [0.15, 1],
      [0.7, 1],
      [1, 0],
    ],
  },
  {
    name: 'swell',
    points: [
      [0, 0],
      [0.5, 1],
      [1, 0],
    ],
  },
  {
    name: 'burst',
    points: [
      [0, 0.1],
      [0.12, 1],
      [0.4, 0.35],
      [1, 0],
    ],
  },
  {
    name: 'late bloom',
    points: [
      [0, 0],
      [0.6, 0.15],
      [0.85, 1],
      [1, 0],
    ],
  },
  {
    name: 'flicker',
    points: [
      [0, 0],
      [0.1, 1],
      [0.25, 0.4],
      [0.4, 1],
      [0.6, 0.5],
      [0.75, 0.9],
      [1, 0],
    ],
  },
];
export const readyCurveOf = (points: readonly (readonly [number, number])[]): Curve => curveThrough(points);
