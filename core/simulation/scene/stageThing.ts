import { posedSpotInto, type PosedMesh, type Rig } from '../../geometry/index.ts';
import type { EffectClock } from '../time/clock.ts';
import type { ThingPoses } from './posing.ts';

/** A figure or prop on the stage, as functions of time. */
export class StageThing {
  readonly id: string;
  readonly rig: Rig;
  /** Where its bones begin among those of all things. */
  readonly boneStart: number;
  readonly #poses: ThingPoses;
  readonly #clock: () => EffectClock;
  /** The mesh at the start and at the end of the step being computed; none before it is posed. */
  #meshFrom: PosedMesh | null = null;
  #meshTo: PosedMesh | null = null;
  #posedFrom = NaN;
  #posedTo = NaN;

  constructor(id: string, poses: ThingPoses, boneStart: number, clock: () => EffectClock) {
    [this.id, this.rig, this.boneStart] = [id, poses.rig, boneStart];
    [this.#poses, this.#clock] = [poses, clock];
  }

  get meshFrom(): PosedMesh {
    return (this.#meshFrom ??= this.#poses.hold(0));
  }
  get meshTo(): PosedMesh {
    return (this.#meshTo ??= this.#poses.hold(0));
  }

  /** World matrices of the bones at a time; valid until other poses are asked for. */
  bonesAt(time: number): Float64Array {
    return this.#poses.bonesAt(this.#clock().fieldTime(time));
  }

  /** Writes the matrix of its feet at a time. */
  rootInto(time: number, m: Float64Array): void {
    this.#poses.rootInto(this.#clock().fieldTime(time), m);
  }

  /** Skin matrices at a time; valid until the next call. */
  skinAt(time: number): Float32Array {
    return this.#poses.skinAt(this.#clock().fieldTime(time));
  }

  /** Writes the packed rigid place of a spot of its skin at a time. */
  spotInto(out: Float64Array, o: number, time: number, triangle: number, second: number, third: number): void {
    if (time === this.#posedTo) this.meshTo.spotInto(out, o, triangle, second, third);
    else if (time === this.#posedFrom) this.meshFrom.spotInto(out, o, triangle, second, third);
    else posedSpotInto(out, o, this.rig, this.skinAt(time), triangle, second, third);
  }

  /** Forgets how it is posed: time runs otherwise from now on. */
  forget(): void {
    this.#posedFrom = this.#posedTo = NaN;
  }

  /** Lets go of the poses it holds. */
  leave(): void {
    for (const mesh of [this.#meshFrom, this.#meshTo]) if (mesh) this.#poses.release(mesh);
    this.#meshFrom = this.#meshTo = null;
    this.forget();
  }

  /** Poses the mesh at a step's start and end. What was the end of the step before is this one's start. */
  pose(from: number, to: number): void {
    if (from === this.#posedFrom && to === this.#posedTo) return;
    const [meshFrom, meshTo] = [this.#meshFrom, this.#meshTo];
    const clock = this.#clock();
    this.#meshFrom = this.#poses.hold(clock.fieldTime(from));
    this.#meshTo = this.#poses.hold(clock.fieldTime(to));
    if (meshFrom) this.#poses.release(meshFrom);
    if (meshTo) this.#poses.release(meshTo);
    this.#posedFrom = from;
    this.#posedTo = to;
  }
}
