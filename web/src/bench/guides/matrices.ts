import {
  areShapedBy,
  type Effect,
  highestBase,
  type NumberSetting,
  type Place,
  type VectorSetting,
} from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { boneNamed } from '@jinx/core/geometry';
import { transformPoint, vec3At, scale as scaled } from '@jinx/core/maths';
import {
  EffectClock,
  groupFrame,
  hungInto,
  newHung,
  newReading,
  NumberReader,
  swirlsOf,
  type Swirling,
} from '@jinx/core/simulation';
import type { Point } from './lines';
import { turned } from './turns';

export const vectorOf = (setting: VectorSetting): Point =>
  setting.base.kind === 'fixed' ? [...setting.base.value] : [1, 1, 1];

/** Limits of whatever is drawn. */
const ANY = {
  value: 'number',
  chapter: 'source',
  acts: 'dress',
  name: '',
  help: '',
  reads: [],
  bases: [],
  unit: '',
  least: -1e6,
  most: 1e6,
  byDefault: 0,
} as const;

/** An instant at which guides are drawn: seconds along the time sheet, and what shapers read of them. */
export interface GuideInstant {
  readonly seconds: number;
  readonly effectTime: number;
  readonly stretchTime: number;
  /** Where the figure stands that the camera goes with: x and z. */
  readonly followed?: readonly [x: number, z: number];
}
export const AT_FIRST: GuideInstant = { seconds: 0, effectTime: 0, stretchTime: 0 };
/** What changes as the instant does. */
export const TIMES = ['effectTime', 'stretchTime'] as const;

/** Metres above the ground at which a figure is looked at. */
const BREAST = 1.2;

/** Numbers of a frame's matrices: each thing's bones, then its feet, by id; at last the effect's own frame. */
export class Matrices {
  readonly #starts = new Map<string, number>();
  readonly #rigs: StageRigs;
  readonly effect: number;
  readonly instant: GuideInstant;
  readonly #effect: Effect;

  constructor(effect: Effect, rigs: StageRigs, instant: GuideInstant = AT_FIRST) {
    this.#effect = effect;
    this.#rigs = rigs;
    this.instant = instant;
    let start = 0;
    for (const id of [...rigs.keys()].sort()) {
      this.#starts.set(id, start);
      start += rigs.get(id)!.bones.length + 1;
    }
    this.effect = start;
  }

  of(place: Place): number {
    if (place.kind === 'effect') return this.effect;
    // What dials give is put in before it is drawn.
    if (place.kind === 'world' || place.kind === 'dial') return -1;
    const rig = this.#rigs.get(place.thing);
    if (!rig) return -1;
    const start = this.#starts.get(place.thing)!;
    if (place.kind === 'thing') return start + rig.bones.length;
    return start + Math.max(0, boneNamed(rig, place.bone));
  }

  /** How a curl stirs at this instant, and about which place of the world it is drawn: its own, or what is born on a thing is drawn about that. */
  swirling(
    place: Place,
    { size, change, drift }: { readonly size: number; readonly change: number; readonly drift: Point },
    parent: string | null,
    isOnThing: boolean,
  ): { middle: Point; swirling: Swirling } {
    const clock = new EffectClock(this.#effect.stretches);
    const { scale } = groupFrame(this.#effect, parent);
    const seconds = clock.fieldTime(this.instant.seconds);
    const [x, z] = this.instant.followed ?? [0, 0];
    return {
      middle: isOnThing || 'thing' in place ? [x, BREAST, z] : [...place.offset],
      swirling: {
        size: Math.max(1e-3, scale * size),
        changes: clock.changesAt(this.instant.seconds, change),
        drifted: scaled(drift, scale * seconds),
      },
    };
  }
  get seed(): number {
    return this.#effect.seed;
  }
  swirlsOf(id: string, swirling: Swirling): (at: Point) => Point {
    return swirlsOf(this.#effect, id, swirling);
  }

  /** Turns points of a place's frame into ones of what the place hangs on, at this instant; `parent` is the group it stands in. */
  hung(place: Place, parent: string | null = null): (points: readonly number[]) => Float32Array {
    const at = newHung();
    hungInto(at, place, this.instant.seconds);
    return (points) => {
      const out = new Float32Array(points.length);
      for (let i = 0; i < points.length; i += 3) {
        const point = turned([points[i]!, points[i + 1]!, points[i + 2]!], vec3At(at.turn));
        for (let axis = 0; axis < 3; axis++) out[i + axis] = at.offset[axis]! + point[axis]!;
      }
      return this.grouped(out, place, parent);
    };
  }

  /** Turns points of a group's frame, in place, into ones of what the group's places hang on. */
  grouped(points: Float32Array, place: Place, parent: string | null): Float32Array {
    const { matrix } = groupFrame(this.#effect, place.kind === 'bone' ? null : parent);
    if (matrix)
      for (let i = 0; i < points.length; i += 3)
        points.set(transformPoint(matrix, 0, [points[i]!, points[i + 1]!, points[i + 2]!]), i);
    return points;
  }

  /** What a setting is at its highest, before anything shapes it. */
  highest({ base }: NumberSetting): number {
    return highestBase(base, this.#effect) ?? 0;
  }

  /** What a setting is at this instant, where time shapes it; its base where nothing does. */
  now(setting: NumberSetting): number {
    const value = this.highest(setting);
    if (!areShapedBy([setting], TIMES)) return value;
    const reader = new NumberReader({ ...setting, base: { kind: 'fixed', value } }, ANY, 'guide', this.#effect);
    const { effectTime, stretchTime } = this.instant;
    return reader.read({ ...newReading(), effectTime, stretchTime });
  }
}
