import {
  atBone,
  atThing,
  type Effect,
  highestBase,
  type Id,
  isShapeKind,
  type Layer,
  LAYER_SETTINGS,
  measuresOf,
  type NumberSetting,
  type Place,
  structuredCopy,
  type Vector,
  type VectorSetting,
} from '../document/index.ts';
import { nameMeasure } from './names.ts';

/** What a source is fitted to. */
export type FitTarget =
  | { readonly kind: 'layer'; readonly layer: Id }
  | { readonly kind: 'thing'; readonly thing: Id }
  | { readonly kind: 'bone'; readonly thing: Id; readonly bone: string };

/** A box in the frame of what a place hangs on, metres. */
export interface FitBox {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

const tidy = (value: number): number => Number(value.toPrecision(4));
const NUMBERS = ['source.radius', 'source.length'] as const;
type SizeName = (typeof NUMBERS)[number];

/** Width, height and depth of a layer's shape, as far as its sizes are single numbers. */
function sidesOfShape({ source, settings }: Layer, effect: Effect): Vector {
  const of = (name: SizeName) => highestBase(settings[name].base, effect) ?? 0;
  const has = measuresOf(source.kind);
  const size = settings['source.size'].base;
  if (has.includes('source.size')) return size.kind === 'fixed' ? [...size.value] : [...size.high];
  const round = has.includes('source.radius') ? 2 * of('source.radius') : 0;
  const tall = has.includes('source.length') ? of('source.length') : source.kind === 'sphere' ? round : 0;
  return [round, tall, round];
}

/** The lengths that make a shape as large as a box with such sides. */
const lengthsFor = ([wide, tall, deep]: Vector, kind: Layer['source']['kind']): Record<SizeName, number> => ({
  'source.radius': tidy((kind === 'sphere' ? Math.max(wide, tall, deep) : Math.max(wide, deep)) / 2),
  'source.length': tidy(tall),
});

/** Names the size of the layer that is fitted to, and gives it to the one that is fitted: both change together from then on. */
function share(draft: Effect, own: Layer, other: Layer | null, name: SizeName, id: Id): void {
  const label = `${other?.name ?? own.name} ${LAYER_SETTINGS[name].name}`.slice(0, 80);
  const mine: NumberSetting = own.settings[name];
  const theirs: NumberSetting | null =
    other && measuresOf(other.source.kind).includes(name) ? other.settings[name] : null;
  nameMeasure(draft, theirs ?? mine, LAYER_SETTINGS[name], id, label);
  if (theirs?.base.kind === 'measure') mine.base = structuredCopy(theirs.base);
}

/**
 * Puts a layer's source where something else is, turned as that is and as large, in a draft. `box` is what a figure or a part
 * of it takes up, in its own frame. With `shared`, the ids of new measures, sizes are measures that both share.
 */
export function fitSource(
  draft: Effect,
  layerId: Id,
  target: FitTarget,
  box: FitBox | null,
  shared: readonly Id[] | null = null,
): void {
  const layer = draft.layers.byId[layerId]!;
  const other = target.kind === 'layer' ? (draft.layers.byId[target.layer] ?? null) : null;
  const place = placeOf(target, other, box);
  if (!place || !('place' in layer.source)) return;
  layer.source.place = place;
  const { kind } = layer.source;
  if (!isShapeKind(kind)) return;
  const sides: Vector =
    other && 'place' in other.source
      ? sidesOfShape(other, draft)
      : box
        ? [box.high[0] - box.low[0], box.high[1] - box.low[1], box.high[2] - box.low[2]]
        : [0, 0, 0];
  const has = measuresOf(kind);
  // Alone at a point, it is the mesh itself that is as large.
  const longest = Math.max(...sides);
  if (kind === 'point' && layer.drawn.kind === 'mesh' && longest > 0)
    (layer.settings['life.size'] as NumberSetting).base = { kind: 'fixed', value: tidy(longest) };
  if (has.includes('source.size') && sides.some((side) => side > 0))
    (layer.settings['source.size'] as VectorSetting).base = { kind: 'fixed', value: sides.map(tidy) as Vector };
  const lengths = lengthsFor(sides, kind);
  NUMBERS.forEach((name, n) => {
    if (!has.includes(name) || lengths[name] <= 0) return;
    (layer.settings[name] as NumberSetting).base = { kind: 'fixed', value: lengths[name] };
    if (shared) share(draft, layer, other, name, shared[n]!);
  });
}

/** Where a source stands that is fitted; null where that is nowhere. */
function placeOf(target: FitTarget, other: Layer | null, box: FitBox | null): Place | null {
  const middle: Vector = box ? (box.low.map((low, axis) => tidy((low + box.high[axis]!) / 2)) as Vector) : [0, 0, 0];
  if (target.kind === 'thing') return atThing(target.thing, middle);
  if (target.kind === 'bone') return atBone(target.thing, target.bone, middle);
  if (!other) return null;
  if ('place' in other.source) return structuredCopy(other.source.place);
  return 'thing' in other.source ? atThing(other.source.thing, middle) : null;
}
