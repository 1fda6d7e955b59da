import type { Carrier, Effect, Place, Vector } from '../document/index.ts';
import { boneNamed, FigureTrack, skinMatricesInto, type Rig } from '../geometry/index.ts';
import {
  cos,
  IDENTITY,
  multiplyInto,
  rigidOf,
  sin,
  transformDirection,
  transformPoint,
  type Rigid,
  type Vec3,
} from '../maths/index.ts';

/** A step's walk along the fine grid of births (16 instants), and its two ends. */
const KEPT_POSES = 20;

/** What stands on the stage, as functions of time: the effect's own frame and the figure's pose. */
export class Scene {
  readonly rig: Rig | null;
  readonly figure: FigureTrack | null;
  readonly #carrier: Carrier;
  /** Poses sampled last, oldest overwritten first: layers that follow one figure ask for the same instants. */
  readonly #poses: readonly { time: number; readonly world: Float64Array }[];
  #oldest = 0;
  readonly #skin: Float32Array;
  readonly #matrix = new Float64Array(16);
  readonly #root = new Float64Array(16);
  #skinTime = NaN;

  constructor(stage: Effect['stage'], rigs: ReadonlyMap<string, Rig>) {
    this.rig = (stage.figure && rigs.get(stage.figure.asset)) ?? null;
    this.figure = this.rig && stage.figure ? new FigureTrack(this.rig, stage.figure) : null;
    this.#carrier = stage.carrier;
    const bones = this.rig?.bones.length ?? 0;
    this.#poses = Array.from({ length: KEPT_POSES }, () => ({ time: NaN, world: new Float64Array(bones * 16) }));
    this.#skin = new Float32Array(bones * 16);
  }

  /** World matrices of the bones at a time; valid until other poses are asked for. */
  bonesAt(time: number): Float64Array {
    for (const pose of this.#poses) if (pose.time === time) return pose.world;
    const pose = this.#poses[this.#oldest]!;
    this.#oldest = (this.#oldest + 1) % KEPT_POSES;
    this.figure?.worldInto(time, pose.world);
    pose.time = time;
    return pose.world;
  }

  /** Skin matrices at a time; valid until the next call. */
  skinAt(time: number): Float32Array {
    if (time !== this.#skinTime && this.rig) skinMatricesInto(this.rig, this.bonesAt(time), this.#skin);
    this.#skinTime = time;
    return this.#skin;
  }

  /** The matrix of the effect's own frame; valid until the next call. */
  effectAt(time: number): Float64Array {
    const m = this.#matrix;
    m.set(IDENTITY);
    if (this.#carrier.kind === 'circle') {
      const { radius, speed } = this.#carrier;
      const angle = (speed * time) / radius;
      const [c, s] = [cos(angle), sin(angle)];
      m.set([c, 0, -s], 0);
      m.set([s, 0, c], 8);
      m.set([radius * c, 0, -radius * s], 12);
    }
    return m;
  }

  #frameInto(place: Pick<Place, 'kind'> & { bone?: string }, time: number, out: Float64Array): void {
    if (place.kind === 'bone') {
      const bone = this.rig ? boneNamed(this.rig, place.bone!) : -1;
      if (bone >= 0) out.set(this.bonesAt(time).subarray(bone * 16, bone * 16 + 16));
      else out.set(IDENTITY);
    } else if (place.kind === 'figure') {
      if (this.figure) this.figure.rootInto(time, this.#root);
      else this.#root.set(IDENTITY);
      out.set(this.#root);
    } else out.set(this.effectAt(time));
  }

  readonly #placed = new Float64Array(16);

  /** Where a place is at a time, inside the groups whose matrix is `group`. */
  placeAt(place: Place, time: number, group: Float64Array | null, offset: Vector = [0, 0, 0]): PlacedFrame {
    const m = this.#placed;
    this.#frameInto(place, time, m);
    if (group && place.kind !== 'bone') multiplyInto(m, 0, Float64Array.from(m), 0, group, 0);
    const local: Vec3 = [place.offset[0] + offset[0], place.offset[1] + offset[1], place.offset[2] + offset[2]];
    const at = transformPoint(m, 0, local);
    return { rigid: { turn: rigidOf(m).turn, at }, toWorld: (direction) => transformDirection(m, 0, direction) };
  }

  hasBone(name: string): boolean {
    return this.rig !== null && boneNamed(this.rig, name) >= 0;
  }
}

export interface PlacedFrame {
  readonly rigid: Rigid;
  /** Turns a direction of the place's frame into the world's. Valid until the next place is asked for. */
  readonly toWorld: (direction: Vec3) => Vec3;
}
