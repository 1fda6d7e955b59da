import type { z } from 'zod';
import type { HolderAddress, PartAddress, PartKind, SettingAddress } from './address.ts';
import {
  paletteEntrySchema,
  settingsByName,
  type PaletteEntry,
  type Collection,
  type Declaration,
  type Id,
  type NumberSetting,
  type RefTable,
  type Setting,
} from '../../settings/index.ts';
import {
  CHANNEL_SETTING,
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  SURFACE_SETTINGS,
} from '../declarations/index.ts';
import * as schemas from '../schema/index.ts';
import {
  isRibbon,
  type DrawnAs,
  type Effect,
  type Layer,
  type Look,
  type Place,
  type Step,
} from '../schema/index.ts';
import { stepsOf, stepTable } from '../look.ts';

/** What each kind of part is in a document. */
export interface PartItems {
  effect: Effect;
  stage: Effect['stage'];
  quality: schemas.Quality;
  layer: Layer;
  source: schemas.Source;
  aim: Place;
  from: Place;
  to: Place;
  force: schemas.Force;
  link: schemas.Link;
  burst: schemas.Burst;
  hit: schemas.Hit;
  channels: Collection<NumberSetting>;
  drawn: DrawnAs;
  step: Step;
  lookStep: Step;
  sharedForce: schemas.SharedForce;
  surface: schemas.Surface;
  front: schemas.Front;
  look: Look;
  group: schemas.Group;
  thing: schemas.Thing;
  camera: schemas.Camera;
  dial: schemas.Dial;
  signal: schemas.Signal;
  channel: schemas.Channel;
  palette: PaletteEntry;
  measure: schemas.Measure;
}

/**
 * What a change of a field reaches: nothing that is computed; `dress`, only how particles are drawn; the state of its own
 * `layer`; of the layers it is `listed` for; of `all`; what the `declared` setting acts on; what the item of a
 * collection says of its own fields (`items`). The others depend on the rest of the document: see core/simulation/world/reach.ts.
 */
export type Reaches =
  | 'nothing'
  | 'dress'
  | 'layer'
  | 'listed'
  | 'all'
  | 'declared'
  | 'items'
  | 'whereColourIsPassed'
  | 'whereDialled'
  | 'whereAwaited'
  | 'whereFelt'
  | 'whereFreed'
  | 'whereLaid'
  | 'whereSeen';

/** A kind of part: where its parts stand in a document, what each is, what one is called, and what its fields reach. */
export interface PartDefinition<T> {
  /** Keys from the document's root; a key that begins with a colon is an id of the address. */
  readonly path: readonly string[];
  readonly schema: z.ZodType;
  /** What one is called, in the middle of a sentence. */
  readonly word: string;
  /** What tells one from the others, for people: its name or its kind. */
  readonly nameOf?: (part: T) => string;
  /** The settings it has, and the table that declares them. */
  readonly holds?: (part: T, effect: Effect) => Holder | null;
  readonly reaches?: { readonly [F in keyof T]: Reaches };
}

/** Settings by name, and the table that declares them. */
export interface Holder {
  readonly settings: Record<string, Setting>;
  readonly table: Record<string, Declaration>;
}

const inCollection = (...keys: readonly string[]) => [...keys, 'byId', ':id'];
const LAYER = ['layers', 'byId', ':layer'];
const named = ({ name }: { readonly name: string }) => name;
const kindOf = ({ kind }: { readonly kind: string }) => kind;
const holding = (part: { readonly settings: object }, table: object): Holder => ({
  settings: settingsByName(part),
  table: table as Holder['table'],
});

function channelsHeld(channels: Collection<NumberSetting>, effect: Effect): Holder {
  const table = channels.order.map((id) => [id, { ...CHANNEL_SETTING, name: effect.channels.byId[id]?.name ?? '' }]);
  return { settings: channels.byId, table: Object.fromEntries(table) as Holder['table'] };
}

function drawnHeld(drawn: DrawnAs): Holder | null {
  if (drawn.kind === 'sprite') return null;
  return holding(drawn, isRibbon(drawn) ? RIBBON_SETTINGS[drawn.kind] : DRAWN_SETTINGS[drawn.kind]);
}

/** A thing that is hidden is only not drawn. */
const THING_REACHES: { readonly [F in keyof PartItems['thing']]: Reaches } = {
  ...{ name: 'nothing', asset: 'all', clip: 'all', from: 'all', path: 'all', at: 'all', facing: 'all', scale: 'all' },
  hidden: 'nothing',
};

/** Every kind of part. A new one is declared here and in the schema of what holds it; no feature lists kinds of its own. */
export const PARTS: { readonly [K in PartKind]: PartDefinition<PartItems[K]> } = {
  effect: {
    path: [],
    schema: schemas.effectSchema,
    word: 'effect',
    nameOf: named,
    reaches: {
      schema: 'nothing',
      name: 'nothing',
      seed: 'all',
      stretches: 'all',
      palette: 'whereColourIsPassed',
      measures: 'all',
      dials: 'whereDialled',
      signals: 'items',
      channels: 'items',
      layers: 'items',
      forces: 'listed',
      surfaces: 'listed',
      fronts: 'whereFreed',
      looks: 'dress',
      stage: 'items',
      quality: 'items',
      groups: 'all',
    },
  },
  stage: {
    path: ['stage'],
    schema: schemas.stageSchema,
    word: 'stage',
    reaches: {
      things: 'all',
      surround: 'nothing',
      lights: 'nothing',
      lens: 'nothing',
      air: 'nothing',
      carrier: 'all',
      cameras: 'all',
    },
  },
  quality: {
    path: ['quality'],
    schema: schemas.qualitySchema,
    word: 'quality',
    reaches: { shown: 'all', tiers: 'whereSeen', distances: 'nothing', bounds: 'nothing' },
  },
  layer: {
    path: LAYER,
    schema: schemas.layerSchema,
    word: 'layer',
    nameOf: named,
    holds: (layer) => holding(layer, LAYER_SETTINGS),
    reaches: {
      name: 'nothing',
      hidden: 'nothing',
      solo: 'nothing',
      locked: 'nothing',
      inside: 'nothing',
      drawn: 'whereLaid',
      look: 'dress',
      salt: 'layer',
      parent: 'layer',
      population: 'layer',
      source: 'layer',
      aim: 'layer',
      front: 'layer',
      // Others may begin with it or end with it.
      births: 'all',
      bursts: 'layer',
      forces: 'layer',
      links: 'layer',
      seenBy: 'layer',
      quality: 'layer',
      channels: 'whereFelt',
      settings: 'declared',
    },
  },
  source: { path: [...LAYER, 'source'], schema: schemas.sourceSchema, word: 'source', nameOf: kindOf },
  aim: { path: [...LAYER, 'aim'], schema: schemas.placeSchema, word: 'aim of the launch' },
  from: { path: [...LAYER, 'drawn', 'from'], schema: schemas.placeSchema, word: 'beginning' },
  to: { path: [...LAYER, 'drawn', 'to'], schema: schemas.placeSchema, word: 'end' },
  force: {
    path: inCollection(...LAYER, 'forces'),
    schema: schemas.anyForceSchema,
    word: 'force',
    nameOf: kindOf,
    holds: (force) => holding(force, FORCE_SETTINGS[force.kind]),
  },
  link: {
    path: inCollection(...LAYER, 'links'),
    schema: schemas.linkSchema,
    word: 'link',
    holds: (link) => holding(link, LINK_SETTINGS),
  },
  burst: { path: inCollection(...LAYER, 'bursts'), schema: schemas.burstSchema, word: 'burst' },
  hit: { path: inCollection(...LAYER, 'source', 'hits'), schema: schemas.hitSchema, word: 'hit' },
  channels: {
    path: [...LAYER, 'channels'],
    schema: schemas.layerSchema.shape.channels,
    word: 'channels',
    holds: channelsHeld,
  },
  drawn: {
    path: [...LAYER, 'drawn'],
    schema: schemas.drawnSchema,
    word: 'what it is drawn as',
    nameOf: kindOf,
    holds: drawnHeld,
  },
  step: {
    path: inCollection(...LAYER, 'look', 'steps'),
    schema: schemas.stepSchema,
    word: 'look',
    nameOf: kindOf,
    holds: (step) => holding(step, stepTable(step.kind)),
  },
  lookStep: {
    path: inCollection('looks', 'byId', ':look', 'steps'),
    schema: schemas.stepSchema,
    word: 'look',
    nameOf: kindOf,
    holds: (step) => holding(step, stepTable(step.kind)),
  },
  sharedForce: {
    path: inCollection('forces'),
    schema: schemas.sharedForceSchema,
    word: 'force',
    nameOf: ({ force }) => force.kind,
    holds: ({ force }) => holding(force, FORCE_SETTINGS[force.kind]),
  },
  surface: {
    path: inCollection('surfaces'),
    schema: schemas.surfaceSchema,
    word: 'surface',
    nameOf: kindOf,
    holds: (surface) => holding(surface, SURFACE_SETTINGS[surface.kind]),
  },
  front: {
    path: inCollection('fronts'),
    schema: schemas.frontSchema,
    word: 'release front',
    nameOf: named,
    holds: (front) => holding(front, FRONT_SETTINGS),
  },
  look: { path: inCollection('looks'), schema: schemas.lookSchema, word: 'look', nameOf: named },
  group: { path: inCollection('groups'), schema: schemas.groupSchema, word: 'group', nameOf: named },
  thing: {
    path: inCollection('stage', 'things'),
    schema: schemas.thingSchema,
    word: 'thing',
    nameOf: named,
    reaches: THING_REACHES,
  },
  camera: { path: inCollection('stage', 'cameras'), schema: schemas.cameraSchema, word: 'camera', nameOf: named },
  dial: { path: inCollection('dials'), schema: schemas.dialSchema, word: 'dial', nameOf: named },
  signal: {
    path: inCollection('signals'),
    schema: schemas.signalSchema,
    word: 'signal',
    nameOf: named,
    reaches: { name: 'nothing', tried: 'whereAwaited' },
  },
  channel: {
    path: inCollection('channels'),
    schema: schemas.channelSchema,
    word: 'channel',
    nameOf: named,
    reaches: { name: 'nothing' },
  },
  palette: { path: inCollection('palette'), schema: paletteEntrySchema, word: 'colour', nameOf: named },
  measure: { path: inCollection('measures'), schema: schemas.measureSchema, word: 'measure', nameOf: named },
};
const KINDS = Object.keys(PARTS) as PartKind[];

/** The kind of part that the items of a table are. */
export const PART_OF_TABLE = {
  palette: 'palette',
  measures: 'measure',
  dials: 'dial',
  signals: 'signal',
  channels: 'channel',
  layers: 'layer',
  looks: 'look',
  fronts: 'front',
  groups: 'group',
  things: 'thing',
} as const satisfies Record<RefTable, PartKind>;

/** What an address names; null when it is gone. A step is as its layer shows it, with what the layer changes of a named look. */
export function findPart<A extends PartAddress>(effect: Effect, address: A): PartItems[A['kind']] | null {
  if (address.kind === 'step') return stepIn(effect, address as { layer: Id; id: Id }) as PartItems[A['kind']] | null;
  const ids = address as unknown as Record<string, string>;
  let value: unknown = effect;
  for (const key of PARTS[address.kind].path) {
    const own = key.startsWith(':') ? ids[key.slice(1)]! : key;
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, own)) return null;
    value = (value as Record<string, unknown>)[own];
  }
  return value as PartItems[A['kind']];
}

function stepIn(effect: Effect, { layer, id }: { readonly layer: Id; readonly id: Id }): Step | null {
  const found = effect.layers.byId[layer];
  return (found && stepsOf(effect, found).find((step) => step.id === id)?.item) ?? null;
}

/** The settings of a part, and the table that declares them; null when it is gone or has none. What is written into them is written into the document. */
export function holderAt(effect: Effect, address: HolderAddress): Holder | null {
  const part = findPart(effect, address);
  const { holds } = PARTS[address.kind] as PartDefinition<unknown>;
  return part === null ? null : (holds?.(part, effect) ?? null);
}

/** What tells a part from others, for people: its name or its kind, else what such a part is called; "" when it is gone. */
export function nameOfPart(effect: Effect, address: PartAddress): string {
  const part = findPart(effect, address);
  const { nameOf, word } = PARTS[address.kind] as PartDefinition<unknown>;
  return part === null ? '' : (nameOf?.(part) ?? word);
}

type Path = readonly (string | number)[];

/** What a layer changes of a step of a named look belongs to the step that it shows. */
const CHANGES = ['layers', 'byId', ':layer', 'look', 'changes', ':id'];
const TEMPLATES: readonly (readonly [PartKind, readonly string[]])[] = [
  ...KINDS.map((kind) => [kind, PARTS[kind].path] as const),
  ['step', CHANGES] as const,
];

/** The innermost part that has an address and holds a path of a document, and how many keys lead to it. */
function partAt(path: Path): { readonly address: PartAddress; readonly template: readonly string[] } {
  let found: ReturnType<typeof partAt> = { address: { kind: 'effect' }, template: [] };
  for (const [kind, template] of TEMPLATES) {
    if (template.length <= found.template.length || template.length > path.length) continue;
    const address = matched(kind, template, path);
    if (address) found = { address, template };
  }
  return found;
}

function matched(kind: PartKind, template: readonly string[], path: Path): PartAddress | null {
  const ids: Record<string, string> = {};
  for (const [n, key] of template.entries())
    if (key.startsWith(':')) ids[key.slice(1)] = String(path[n]);
    else if (key !== path[n]) return null;
  return { kind, ...ids } as unknown as PartAddress;
}

/** The part in which a path of a document lies: the innermost that has an address. */
export const addressAt = (path: Path): PartAddress => partAt(path).address;

/** Keys from a part down to the settings it has. */
const KEYS_TO_SETTINGS: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  channels: ['byId'],
  sharedForce: ['force', 'settings'],
};

/** The setting in which a path of a document lies; null where it lies in none. */
export function settingAddressAt(path: Path): SettingAddress | null {
  const { address, template } = partAt(path);
  const keys = template === CHANGES ? [] : (KEYS_TO_SETTINGS[address.kind] ?? ['settings']);
  const own = path.slice(template.length);
  const name = own[keys.length];
  const isSetting = name !== undefined && keys.every((key, n) => own[n] === key);
  return isSetting ? ({ ...address, setting: String(name) } as SettingAddress) : null;
}
