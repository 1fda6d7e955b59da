import { layerOf, type HolderAddress, type SettingAddress } from './address.ts';
import { listed, type Declaration, type Id, type Setting } from '../../settings/index.ts';
import { effectSchema, layerSchema, linkedSchema, placeSchema, type Effect, type Place } from '../schema/index.ts';
import { holderAt } from './parts.ts';
import { stepsOf } from '../look.ts';
import { visitorOf } from './visit.ts';

/** A setting where it stands in a document: the very object, so that a draft may be written into. */
export interface FoundSetting {
  readonly address: SettingAddress;
  readonly declaration: Declaration;
  readonly setting: Setting;
  /** The layer it belongs to; null where it is the effect's own. */
  readonly layer: Id | null;
}

/** The parts of a layer that have settings, its own first. */
export function holdersOfLayer(effect: Pick<Effect, 'layers' | 'looks'>, layerId: Id): HolderAddress[] {
  const layer = effect.layers.byId[layerId]!;
  const at = { layer: layerId };
  return [
    { kind: 'layer', ...at },
    ...layer.forces.order.map((id) => ({ kind: 'force' as const, ...at, id })),
    ...layer.links.order.map((id) => ({ kind: 'link' as const, ...at, id })),
    { kind: 'channels', ...at },
    ...(layer.drawn.kind === 'sprite' ? [] : [{ kind: 'drawn' as const, ...at }]),
    ...stepsOf(effect, layer).map(({ id }) => ({ kind: 'step' as const, ...at, id })),
  ];
}

/** The parts of the effect's own that have settings. */
export const holdersOfEffect = ({ forces, surfaces, fronts, looks }: Effect): HolderAddress[] => [
  ...forces.order.map((id) => ({ kind: 'sharedForce' as const, id })),
  ...surfaces.order.map((id) => ({ kind: 'surface' as const, id })),
  ...fronts.order.map((id) => ({ kind: 'front' as const, id })),
  ...listed(looks).flatMap(({ id: look, item }) =>
    item.steps.order.map((id) => ({ kind: 'lookStep' as const, look, id })),
  ),
];

function settingsAt(effect: Effect, address: HolderAddress): FoundSetting[] {
  const { settings, table } = holderAt(effect, address)!;
  const layer = layerOf(address);
  // Of a named look, only what a layer changes is its own.
  const own = address.kind === 'step' ? changesOf(effect, address) : null;
  return Object.entries(own ?? settings).flatMap(([name, setting]): FoundSetting[] => {
    const declaration = Object.hasOwn(table, name) ? table[name] : undefined;
    return declaration ? [{ address: { ...address, setting: name }, declaration, setting, layer }] : [];
  });
}

/** What a layer changes of a step of a named look; null where the step is its own. */
function changesOf({ layers }: Effect, { layer, id }: { readonly layer: Id; readonly id: Id }) {
  const { look } = layers.byId[layer]!;
  return look.kind === 'named' ? (look.changes[id] ?? {}) : null;
}

/** Every setting of one layer: its own, its forces', links', channels', look's, and those of what it is drawn as. */
export const settingsOfLayer = (effect: Effect, id: Id): FoundSetting[] =>
  holdersOfLayer(effect, id).flatMap((address) => settingsAt(effect, address));

/** Every setting of the effect's own parts. */
export const settingsOfEffect = (effect: Effect): FoundSetting[] =>
  holdersOfEffect(effect).flatMap((address) => settingsAt(effect, address));

/** Every setting of an effect, its layers' first. */
export const settingsIn = (effect: Effect): FoundSetting[] => [
  ...effect.layers.order.flatMap((id) => settingsOfLayer(effect, id)),
  ...settingsOfEffect(effect),
];

/** What is linked into an effect is a document of its own. */
export const isLinkedEffect = (schema: object): boolean => schema === linkedSchema.shape.effect;
const PLACES = { isFound: (schema: object) => schema === placeSchema, isClosed: isLinkedEffect };
const visitInEffect = visitorOf(effectSchema, PLACES);
const visitInLayer = visitorOf(layerSchema, PLACES);

function placesBy(visit: typeof visitInEffect, value: object): Place[] {
  const places: Place[] = [];
  visit(value, (_, place) => places.push(place as Place));
  return places;
}

/** Every place that belongs to one layer: the very objects. */
export const placesOfLayer = (effect: Pick<Effect, 'layers'>, id: Id): Place[] =>
  placesBy(visitInLayer, effect.layers.byId[id]!);

/** Every place of an effect: the very objects. */
export const placesIn = (effect: Effect): Place[] => placesBy(visitInEffect, effect);
