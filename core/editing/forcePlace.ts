import {
  atBone,
  atEffect,
  forcesOn,
  isShapeKind,
  LAYER_SETTINGS,
  measuresOf,
  newForce,
  SHAPES,
  structuredCopy,
  type Effect,
  type Force,
  type ForceKind,
  type Id,
  type NumberSetting,
  type Place,
} from '../document/index.ts';
import { nameMeasure } from './names.ts';

/**
 * Where a new force of a layer stands, and how it is turned: as another of it, else as its source, else over the
 * figure or in the middle. `bonesOf` gives the names of a thing's bones.
 */
export function placeForForce(effect: Effect, layerId: Id, bonesOf: (thing: Id) => readonly string[]): Place {
  const other = forcesOn(effect, layerId).find(({ item }) => item.kind === 'attraction' || item.kind === 'vortex');
  if (other) return structuredCopy(other.item.place);
  const { source } = effect.layers.byId[layerId]!;
  if ('place' in source) return structuredCopy(source.place);
  const [thing] = effect.stage.things.order;
  return thing !== undefined && bonesOf(thing).includes('chest')
    ? atBone(thing, 'chest', [0.35, 0.45, -0.1])
    : atEffect([0, 1.5, 0]);
}

/** Sizes of forces that are those of the source they stand about, by kind. */
const SIZES: Partial<Record<ForceKind, string>> = { orbit: 'distance' };

/** A new force of a layer: where its source stands, turned as that is, and as far out as that bears. */
export function forceForSource(
  effect: Effect,
  layerId: Id,
  kind: ForceKind,
  bonesOf: (thing: Id) => readonly string[],
): Force {
  const force = newForce(kind, placeForForce(effect, layerId, bonesOf));
  const layer = effect.layers.byId[layerId]!;
  const size = SIZES[kind];
  const shape = layer.source.kind;
  const measures: readonly string[] = isShapeKind(shape)
    ? SHAPES[shape].handles.map(({ measure }) => `source.${measure}`)
    : [];
  const bearsRound = shape === 'particles' || measures.includes('source.radius');
  if (!size || !bearsRound) return force;
  const { base } = layer.settings[shape === 'particles' ? 'source.ring' : 'source.radius'];
  const setting = (force.settings as Record<string, NumberSetting>)[size]!;
  if (base.kind === 'measure' || (base.kind === 'fixed' && base.value > 0)) setting.base = structuredCopy(base);
  return force;
}

/**
 * Makes a measure of the size that a layer's source and a force of it have in common, in a draft: changed once, it changes in
 * both. Returns the name of the measure; null where they have none in common, or share one already.
 */
export function shareSize(draft: Effect, layerId: Id, forceId: Id, measureId: Id): string | null {
  const layer = draft.layers.byId[layerId]!;
  const force = layer.forces.byId[forceId];
  const size = force && SIZES[force.kind];
  const name = layer.source.kind === 'particles' ? 'source.ring' : 'source.radius';
  const own = size ? (force.settings as Record<string, NumberSetting>)[size] : undefined;
  const radius: NumberSetting = layer.settings[name];
  const isSame = own?.base.kind === 'fixed' && radius.base.kind === 'fixed' && own.base.value === radius.base.value;
  if (!own || !isSame || !measuresOf(layer.source.kind).includes('source.radius')) return null;
  const declaration = LAYER_SETTINGS[name];
  nameMeasure(draft, radius, declaration, measureId, `${layer.name} ${declaration.name}`.slice(0, 80));
  own.base = structuredCopy(radius.base);
  return draft.measures.byId[measureId]!.name;
}
