import {
  type ChoiceSetting,
  type Effect,
  FORCES,
  highestBase,
  type Holder,
  type HolderAddress,
  holderAt,
  type Id,
  isShapeKind,
  type NumberDeclaration,
  type NumberSetting,
  type PartAddress,
  SHAPES,
  type Vector,
  type VectorDeclaration,
  type VectorSetting,
} from '@jinx/core/document';
import { across, type Point } from '../guides/lines';
import { tidy } from '../rulers/keyPlaces';
import { changeBase } from '../values/measured';
import { mapAxes, AXES, scale } from '@jinx/core/maths';
import type { ForceHandle, MeasureName } from '@jinx/core/simulation';

/** A size that can be pulled on the stage: a length along one direction of a place's own frame, or an angle round one. */
export interface Knob {
  /** Tells it from the others of the same place. */
  readonly id: string;
  readonly name: string;
  /** Where it is in the place's own frame. */
  readonly at: Point;
  /** Direction in which it is pulled; as long as it goes for a value of 1. Of an angle: the axis it is turned round, by the right hand. */
  readonly way: Point;
  readonly isAngle: boolean;
  readonly value: number;
  /** The value once it was pulled so far along its way, or was turned by so many degrees. */
  readonly valueAfter: (by: number) => number;
  /** Writes a value, brought within its limits, into a document. */
  readonly write: (draft: Effect, value: number) => void;
}

/** The part that has the sizes of what stands at one of `placesOf`: those of a source are its layer's. */
export function holderOfPlace(place: PartAddress, layerId: Id): HolderAddress {
  const hasItsOwn =
    place.kind === 'force' || place.kind === 'sharedForce' || place.kind === 'surface' || place.kind === 'front';
  return hasItsOwn ? place : { kind: 'layer', layer: layerId };
}

const within = (value: number, { least, most }: { least: number; most: number }) =>
  tidy(Math.min(most, Math.max(least, value)));

/** How many times as large a group may be. */
export const GROUP_SCALE = { least: 0.001, most: 1000 } as const;

function setHighest(draft: Effect, setting: NumberSetting, value: number, declaration: NumberDeclaration): void {
  const high = within(value, declaration);
  changeBase(draft, setting, (base) => {
    if (base.kind === 'fixed') return { kind: 'fixed', value: high };
    if (base.kind !== 'spread') return base;
    // The spread grows as a whole, so that it stays as wide as it was beside its size.
    const low = within(base.high === 0 ? value : (base.low * value) / base.high, declaration);
    return { kind: 'spread', low, high };
  });
}

/** How large a group is beside what it was made as. */
function groupKnob({ groups }: Pick<Effect, 'groups'>, id: string): Knob[] {
  const group = groups.byId[id];
  if (!group) return [];
  const write = (draft: Effect, to: number) => {
    const found = draft.groups.byId[id];
    if (found) found.scale = within(to, GROUP_SCALE);
  };
  const knob = { id: 'scale', name: 'size', value: group.scale, write };
  return [{ ...knob, ...straight([0.5, 0, 0], group.scale) }];
}

/** A length from the middle of the place on, or from another point of it. */
const straight = (way: Point, value: number, from: Point = [0, 0, 0]) => ({
  at: mapAxes(AXES, (axis) => from[axis]! + way[axis]! * value),
  way,
  isAngle: false,
  valueAfter: (by: number) => value + by,
});
const RADIANS = Math.PI / 180;

type NumberKnob = Pick<Knob, 'at' | 'way' | 'isAngle' | 'valueAfter'>;

/** How measures are pulled that are more than a length from the middle, by the shape's other measures. */
const KNOBS: Partial<Record<MeasureName, (value: number, of: (measure: MeasureName) => number) => NumberKnob>> = {
  thickness: (value, of) => straight([0, 1, 0], value, [0, 0, of('radius')]),
  arc: (value, of) => {
    const turn = value * RADIANS;
    const round = ARC_SHARE * of('radius');
    const at: Point = [round * Math.cos(turn), 0, round * Math.sin(turn)];
    return { at, way: [0, -1, 0], isAngle: true, valueAfter: (by) => value + by };
  },
  rise: (value, of) => {
    const turn = value * RADIANS;
    const at: Point = [of('radius') * Math.sin(turn), of('radius') * Math.cos(turn), 0];
    return { at, way: [0, 0, -1], isAngle: true, valueAfter: (by) => value + by };
  },
  angle: (value, of) => {
    const tall = of('length') || LEAST_TALL;
    const wide = tall * Math.tan(value * RADIANS);
    return {
      at: [of('radius') + wide, tall, 0],
      way: [1, 0, 0],
      isAngle: false,
      valueAfter: (by) => Math.atan((wide + by) / tall) / RADIANS,
    };
  },
};
/** A little within the radius, whose own handle stands where a full turn ends. */
const ARC_SHARE = 0.8;
/** As tall a cone without any length is drawn. */
const LEAST_TALL = 0.3;

/** The sizes of a place's source, force, surface or front that can be pulled on the stage. */
export function knobsOf(effect: Effect, layerId: Id, place: PartAddress): Knob[] {
  if (place.kind === 'group') return groupKnob(effect, place.id);
  const address = holderOfPlace(place, layerId);
  const holder = holderAt(effect, address);
  if (!holder) return [];
  const same = (draft: Effect): Holder => holderAt(draft, address)!;

  const number = (name: string, way: Point, label = ''): Knob[] => {
    const setting = holder.settings[name] as NumberSetting | undefined;
    const value = setting ? highestBase(setting.base, effect) : null;
    if (value === null) return [];
    const declaration = holder.table[name] as NumberDeclaration;
    const write = (draft: Effect, to: number) =>
      setHighest(draft, same(draft).settings[name] as NumberSetting, to, declaration);
    return [{ id: name, name: label || declaration.name, value, write, ...straight(way, value) }];
  };
  const sides = (name: string, stretch: Point): Knob[] => {
    const setting = holder.settings[name] as VectorSetting;
    const declaration = holder.table[name] as VectorDeclaration;
    if (setting.base.kind !== 'fixed') return [];
    const { value } = setting.base;
    return ['width', 'height', 'depth'].map((label, axis) => ({
      id: `${name}/${axis}`,
      name: label,
      ...straight(
        mapAxes(AXES, (other) => (other === axis ? stretch[axis]! / 2 : 0)),
        value[axis]!,
      ),
      value: value[axis]!,
      write: (draft: Effect, to: number) => {
        const { base } = same(draft).settings[name] as VectorSetting;
        if (base.kind === 'fixed') (base.value as Vector)[axis] = within(to, declaration);
      },
    }));
  };
  const axis = (): Point => {
    const setting = holder.settings['axis'] as VectorSetting | undefined;
    const way: Point = setting?.base.kind === 'fixed' ? setting.base.value : [0, 1, 0];
    const size = Math.hypot(...way) || 1;
    return scale(way, 1 / size);
  };

  const layer = effect.layers.byId[layerId]!;
  if (place.kind === 'source') {
    const { kind } = layer.source;
    if (!isShapeKind(kind)) return [];
    const { base } = layer.settings['source.stretch'];
    const stretch: Point = base.kind === 'fixed' ? base.value : [1, 1, 1];
    const stretched = (point: Point): Point => mapAxes(point, (metres, axis) => metres * stretch[axis]!);
    const measured = (measure: MeasureName) =>
      highestBase((holder.settings[`source.${measure}`] as NumberSetting).base, effect) ?? 0;
    return [
      ...SHAPES[kind].handles.flatMap(({ measure, way }) =>
        way ? number(`source.${measure}`, stretched(way)) : sides(`source.${measure}`, stretch),
      ),
      ...SHAPES[kind].measures.flatMap((measure) =>
        number(`source.${measure}`, [0, 0, 0]).flatMap((knob): Knob[] => {
          const made = KNOBS[measure]?.(knob.value, measured);
          return made ? [{ ...knob, ...made, at: stretched(made.at) }] : [];
        }),
      ),
    ];
  }
  if (place.kind === 'force' || place.kind === 'sharedForce') {
    const { kind } = place.kind === 'force' ? layer.forces.byId[place.id]! : effect.forces.byId[place.id]!.force;
    const ways = { along: axis(), across: across(axis())[0] };
    const isPulled = ({ when }: ForceHandle) =>
      !when || (holder.settings[when[0]] as ChoiceSetting).base.value === when[1];
    const own = (FORCES[kind].handles ?? []).filter(isPulled);
    return [
      ...number('reach', [-1, 0, 0]),
      ...own.flatMap((handle) => number(handle.number, scale(ways[handle.way], handle.metres ?? 1))),
    ];
  }
  if (place.kind === 'surface')
    return [
      ...number('radius', [1, 0, 0]),
      ...number('wide', [0.5, 0, 0]),
      ...number('tall', [0, 0.5, 0]),
      ...number('deep', [0, 0, 0.5]),
    ];
  if (place.kind === 'front') {
    const front = effect.fronts.byId[place.id]!;
    if (front.kind === 'plane') return number('border', [0, 1, 0]);
    return front.kind === 'sphere' ? number('border', [1, 0, 0]) : sides('size', [1, 1, 1]);
  }
  return [];
}
