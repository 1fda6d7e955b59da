import {
  collectionOf,
  defaultSettings,
  emptyCollection,
  idFrom,
  settingsByName,
  type Colour,
  type Combine,
  type Curve,
  type Declaration,
  type Id,
  type Key,
  type KeyPlace,
  type NumberSetting,
  type Shaper,
  type Stop,
  type Vector,
  type PaletteEntry,
} from '../settings/index.ts';
import {
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  SURFACE_SETTINGS,
  type ForceKind,
  type LayerSettingName,
} from './declarations/index.ts';
import {
  SCHEMA,
  type DrawnAs,
  type Effect,
  type Force,
  type Front,
  type Group,
  type Layer,
  type Link,
  type Place,
  type Ribbon,
  type PlaceKey,
  type Surface,
  type Thing,
  type Burst,
  type Hit,
  type Moment,
} from './schema/index.ts';
import { drawnLook } from './look.ts';
import { newQuality } from './quality.ts';

/** 32 random bits, handed in: `crypto` in the browser, a counter in tests and demo scripts. */
export type Random32 = () => number;

/** A lens that lets what is very bright shine over a little. */
export const newLens = (): Effect['stage']['lens'] => ({
  bloom: { isOn: true, strength: 35, spread: 9 },
  exposure: 0,
});
/** Clear air, under the sky of the surround. */
export const newAir = (): Effect['stage']['air'] => ({
  surroundings: { isOn: true, picture: null, brightness: 1, turn: 0 },
  fog: { isOn: false, density: 4, height: 3, colour: null },
});

export function newEffect(name: string, seed: number): Effect {
  return {
    schema: SCHEMA,
    name,
    seed,
    stretches: { opening: 0, hold: { kind: 'continuing', seconds: 4 }, closing: 1, preRoll: 0 },
    palette: emptyCollection(),
    measures: emptyCollection(),
    dials: emptyCollection(),
    signals: emptyCollection(),
    groups: emptyCollection(),
    channels: emptyCollection(),
    layers: emptyCollection(),
    forces: emptyCollection(),
    surfaces: emptyCollection(),
    fronts: emptyCollection(),
    looks: emptyCollection(),
    stage: {
      things: emptyCollection(),
      surround: 'dusk',
      lights: emptyCollection(),
      lens: newLens(),
      air: newAir(),
      carrier: { kind: 'still' },
      cameras: emptyCollection(),
    },
    quality: newQuality(),
  };
}

export const newGroup = (name: string, parent: Id | null = null): Group => ({
  name,
  parent,
  translation: [0, 0, 0],
  rotation: [0, 0, 0],
  scale: 1,
  linked: null,
});

/** A colour of the palette. */
export const namedColour = (name: string, hex: string): PaletteEntry => ({
  name,
  colour: { kind: 'fixed', hex },
  isDial: false,
});
/** A colour of the palette that follows another: its hue turned by degrees, then lighter (toward 1) or darker (toward −1). */
export const derivedColour = (
  name: string,
  from: Id,
  { turned = 0, lighter = 0 }: { readonly turned?: number; readonly lighter?: number },
): PaletteEntry => ({ name, colour: { kind: 'derived', from, turned, lighter }, isDial: false });

/** A layer of plain soft dots, rising slowly: births and motion can be judged before any picture is chosen. */
export function newLayer(name: string, salt: number): Layer {
  const settings = defaultSettings(LAYER_SETTINGS);
  settings['births.rate'].base = { kind: 'fixed', value: 40 };
  settings['life.size'].base = { kind: 'fixed', value: 0.05 };
  settings['motion.speed'].base = { kind: 'fixed', value: 0.4 };
  settings['life.opacity'].shapers = collectionOf([
    [
      'fade',
      curveShaper([
        [0, 0],
        [0.15, 1],
        [0.7, 1],
        [1, 0],
      ]),
    ],
  ]);
  return {
    name,
    drawn: { kind: 'sprite' },
    salt,
    parent: null,
    population: { kind: 'own' },
    hidden: false,
    solo: false,
    locked: false,
    source: { kind: 'sphere', place: atEffect([0, 1, 0]) },
    aim: atEffect([0, 1, 0]),
    front: null,
    births: { from: atBorder('start'), until: null },
    bursts: emptyCollection(),
    forces: emptyCollection(),
    links: emptyCollection(),
    look: drawnLook('soft dot'),
    inside: null,
    seenBy: null,
    quality: { least: 'low', thins: true },
    channels: emptyCollection(),
    settings,
  };
}

/** A moment so many seconds after a border of the stretches. */
export const atBorder = (border: 'start' | 'hold' | 'letGo' | 'end', seconds = 0): Moment => ({
  after: { kind: 'border', border },
  seconds,
  measure: null,
});

/** One burst, at once. */
export const burst = (stretch: Burst['stretch'], at: number, count: number): Burst => ({
  signal: null,
  stretch,
  at,
  count,
  most: count,
  times: 1,
  every: 1,
  muted: false,
});

/** A blow of full strength. */
export const newHit = (stretch: Hit['stretch'], at: number, place: Place): Hit => ({
  stretch,
  at,
  place,
  strength: 100,
  muted: false,
});

/** When the first hit of a list comes, seconds into its stretch. */
const FIRST_HIT = 0.2;

/** A first hit, before the middle of the effect: in the opening if that is long enough, else in the hold. */
export function firstHit({ stretches: { opening, hold } }: Pick<Effect, 'stretches'>): Hit {
  const stretch = opening > FIRST_HIT || hold.kind === 'none' ? 'opening' : 'hold';
  return newHit(
    stretch,
    Math.min(FIRST_HIT, stretch === 'opening' ? opening : FIRST_HIT),
    atEffect([0, 1, 0.5], [90, 0, 0]),
  );
}

const hung = (offset: Vector, turn: Vector) => ({ offset, turn, keys: emptyCollection<PlaceKey>() });
export const atEffect = (offset: Vector = [0, 0, 0], turn: Vector = [0, 0, 0]): Place => ({
  kind: 'effect',
  ...hung(offset, turn),
});
export const inWorld = (offset: Vector = [0, 0, 0], turn: Vector = [0, 0, 0]): Place => ({
  kind: 'world',
  ...hung(offset, turn),
});
export const atThing = (thing: Id, offset: Vector = [0, 0, 0], turn: Vector = [0, 0, 0]): Place => ({
  kind: 'thing',
  thing,
  ...hung(offset, turn),
});
export const atBone = (thing: Id, bone: string, offset: Vector = [0, 0, 0], turn: Vector = [0, 0, 0]): Place => ({
  kind: 'bone',
  thing,
  bone,
  ...hung(offset, turn),
});

/** A figure or prop in the middle of the stage, standing at its rest until a clip is chosen. */
export const newThing = (name: string, asset: string): Thing => ({
  name,
  asset,
  clip: '',
  hidden: false,
  from: 0,
  path: { kind: 'spot' },
  at: [0, 0, 0],
  facing: 0,
  scale: 1,
});

export function newForce(kind: ForceKind, place: Place = atEffect([0, 1.5, 0])): Force {
  return { kind, muted: false, place, settings: defaultSettings(FORCE_SETTINGS[kind]) } as Force;
}

/** A surface all layers meet. */
export function newSurface<K extends Surface['kind']>(
  kind: K,
  shape: Omit<Extract<Surface, { kind: K }>, 'kind' | 'muted' | 'layers' | 'settings'>,
): Extract<Surface, { kind: K }> {
  return { kind, ...shape, muted: false, layers: [], settings: defaultSettings(SURFACE_SETTINGS[kind]) } as never;
}

/** A front that grows over the whole effect. */
export function newFront(name: string, kind: Front['kind'], place: Place): Front {
  const settings = defaultSettings(FRONT_SETTINGS);
  settings.border.shapers = collectionOf([
    [
      'grow',
      {
        ...curveShaper([
          [0, 0],
          [1, 1],
        ]),
        reads: { kind: 'effectTime' },
      },
    ],
  ]);
  return { name, kind, place, settings };
}

/** Gives a ribbon so much of its width, percent: at its head, at its tail, and in the middle as a share of what the ends make of it. */
export function setWidthAlong({ settings }: Ribbon, head: number, tail: number, middle = 100): void {
  const [a, b, swell] = [head / 100, tail / 100, middle / 100 - 1];
  const key = (at: number, value: number, slope: number): Key => ({
    at: { anchor: 'share', value: at },
    value,
    slopeIn: slope,
    slopeOut: slope,
  });
  const keys = collectionOf([
    ['head', key(0, a, b - a + 4 * a * swell)],
    ['tail', key(1, b, b - a - 4 * b * swell)],
  ]);
  const along: Shaper = {
    reads: { kind: 'along' },
    mapping: { kind: 'curve', curve: { keys } },
    combine: 'multiply',
    amount: 1,
    muted: false,
  };
  const width = settings.width as NumberSetting;
  width.base = { kind: 'fixed', value: 100 };
  width.shapers = a === 1 && b === 1 && swell === 0 ? emptyCollection() : collectionOf([['along', along]]);
  width.muted = false;
}

/** A ribbon of a kind; blades and beams lie between two places. */
export function newRibbon(kind: Ribbon['kind'], from: Place = atEffect(), to: Place = atEffect([1, 0, 0])): Ribbon {
  const settings = defaultSettings(RIBBON_SETTINGS[kind]);
  const made = (kind === 'blade' || kind === 'beam' ? { kind, from, to, settings } : { kind, settings }) as Ribbon;
  // What is laid behind runs out to nothing.
  if (kind === 'trail') setWidthAlong(made, 100, 0);
  return made;
}

/** How particles are drawn otherwise than as sprites or ribbons; a body is that of `thing`. */
export function newDrawn<K extends keyof typeof DRAWN_SETTINGS>(
  kind: K,
  thing: Id = 'figure',
): Extract<DrawnAs, { kind: K }> {
  const rest = {
    mesh: { meshes: emptyCollection(), parts: [] },
    light: {},
    haze: { picture: null },
    body: { thing, front: null },
  }[kind];
  return { kind, settings: defaultSettings(DRAWN_SETTINGS[kind]), ...rest } as never;
}

/** A link to a layer, with nothing passed on. */
export const newLink = (on: Link['on'], layer: Id, salt: number): Link => ({
  on,
  layer,
  salt,
  muted: false,
  settings: defaultSettings(LINK_SETTINGS),
});

const forceTable = (kind: ForceKind): Record<string, Declaration> => FORCE_SETTINGS[kind];

/** A force of another kind in the same place, keeping every setting both kinds have by the same name and unit. */
export function forceOfKind(force: Force, kind: ForceKind): Force {
  const made = newForce(kind, force.place);
  made.muted = force.muted;
  const [from, to] = [forceTable(force.kind), forceTable(kind)];
  const [old, settings] = [settingsByName(force), settingsByName(made)];
  for (const name of Object.keys(to)) {
    const [a, b] = [from[name], to[name]!];
    if (a && a.value === b.value && unitOf(a) === unitOf(b)) settings[name] = old[name]!;
  }
  return made;
}

const unitOf = (declaration: Declaration): string => ('unit' in declaration ? declaration.unit : '');

/** A copy with its own salt, so that its particles do not stand exactly on the original's. */
export const copiedLayer = (layer: Layer, name: string, salt: number): Layer => ({
  ...structuredCopy(layer),
  name,
  salt,
});

/** A deep copy of plain data. */
export const structuredCopy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export const newId = (random: Random32): Id => idFrom(random());

const share = (value: number): KeyPlace => ({ anchor: 'share', value });

/** A curve through points (age share, value), smooth where it passes and flat where it turns. */
export function curveThrough(points: readonly (readonly [number, number])[]): Curve {
  const keys = points.map(([x, y], index): readonly [Id, Key] => {
    const before = points[index - 1];
    const after = points[index + 1];
    let slope = 0;
    if (before && after) {
      const left = (y - before[1]) / (x - before[0]);
      const right = (after[1] - y) / (after[0] - x);
      slope = left * right > 0 ? (2 * left * right) / (left + right) : 0;
    } else if (after) slope = (after[1] - y) / (after[0] - x);
    else if (before) slope = (y - before[1]) / (x - before[0]);
    return [`k${index}`, { at: share(x), value: y, slopeIn: slope, slopeOut: slope }];
  });
  return { keys: collectionOf(keys) };
}

export function curveShaper(points: readonly (readonly [number, number])[], combine: Combine = 'multiply'): Shaper {
  return {
    reads: { kind: 'age' },
    mapping: { kind: 'curve', curve: curveThrough(points) },
    combine,
    amount: 1,
    muted: false,
  };
}

export function gradientShaper(stops: readonly (readonly [number, Colour])[], combine: Combine = 'replace'): Shaper {
  const entries = stops.map(([x, colour], index): readonly [Id, Stop] => [`s${index}`, { at: share(x), colour }]);
  return {
    reads: { kind: 'age' },
    mapping: { kind: 'gradient', stops: collectionOf(entries) },
    combine,
    amount: 1,
    muted: false,
  };
}

/** Sets a number setting's base in place: for demo scripts and tests that build documents. */
export function setNumber(layer: Layer, name: LayerSettingName, value: number | readonly [number, number]): void {
  const setting = layer.settings[name] as NumberSetting;
  setting.base =
    typeof value === 'number' ? { kind: 'fixed', value } : { kind: 'spread', low: value[0], high: value[1] };
}
