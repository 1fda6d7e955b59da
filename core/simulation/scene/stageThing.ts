import { PosedMesh, posedSpotInto, type Rig } from '../../geometry/index.ts';
import { multiplyInto } from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import type { Base } from './base.ts';
import type { ThingPoses } from './posing.ts';

/** Its poses where the whole effect is put elsewhere: they are its own, and are shared with no other scene. */
interface MovedPoses {
  readonly bones: Float64Array;
  readonly skin: Float32Array;
  /** What has moved it at a time. */
  readonly by: Float64Array;
  readonly from: PosedMesh;
  readonly to: PosedMesh;
}

/** A figure or prop on the stage, as functions of time. */
export class StageThing {
  readonly id: string;
  readonly rig: Rig;
  /** Where its bones begin among those of all things. */
  readonly boneStart: number;
  readonly #poses: ThingPoses;
  readonly #clock: () => EffectClock;
  /** The mesh at the start and at the end of the step being computed; none before it is posed. */
  #from: PosedMesh | null = null;
  #to: PosedMesh | null = null;
  /** Whether those are shared with other scenes. */
  #areShared = false;
  #posedFrom = NaN;
  #posedTo = NaN;
  readonly #base: Base;
  /** Made where the effect is put elsewhere; and what was put where when it was posed last. */
  #moved: MovedPoses | null = null;
  #places: Base['places'] | null = null;

  constructor(id: string, poses: ThingPoses, boneStart: number, clock: () => EffectClock, base: Base) {
    [this.id, this.rig, this.boneStart] = [id, poses.rig, boneStart];
    [this.#poses, this.#clock, this.#base] = [poses, clock, base];
  }

  get meshFrom(): PosedMesh {
    this.#keepUp();
    return this.#from!;
  }
  get meshTo(): PosedMesh {
    this.#keepUp();
    return this.#to!;
  }

  /** It was not posed yet, or the effect was put elsewhere since: it is posed anew for the same instants. */
  #keepUp(): void {
    if (this.#to && this.#base.places === this.#places) return;
    const isPosed = !Number.isNaN(this.#posedTo);
    this.pose(isPosed ? this.#posedFrom : 0, isPosed ? this.#posedTo : 0);
  }

  get #movedPoses(): MovedPoses {
    const { rig } = this;
    return (this.#moved ??= {
      bones: new Float64Array(rig.bones.length * 16),
      skin: new Float32Array(rig.bones.length * 16),
      by: new Float64Array(16),
      from: new PosedMesh(rig),
      to: new PosedMesh(rig),
    });
  }

  /** Writes matrices as they are once the whole effect was put elsewhere; `out` may be those. */
  #moveInto(out: Float64Array | Float32Array, matrices: Float64Array | Float32Array, time: number): void {
    const { by } = this.#movedPoses;
    this.#base.movedInto(by, this.#clock().stepsTo(time));
    for (let at = 0; at < matrices.length; at += 16) multiplyInto(out, at, by, 0, matrices, at);
  }

  /** World matrices of the bones at a time; valid until other poses are asked for. */
  bonesAt(time: number): Float64Array {
    const bones = this.#poses.bonesAt(this.#clock().fieldTime(time));
    if (!this.#base.moves) return bones;
    this.#moveInto(this.#movedPoses.bones, bones, time);
    return this.#movedPoses.bones;
  }

  /** Writes the matrix of its feet at a time. */
  rootInto(time: number, m: Float64Array): void {
    this.#poses.rootInto(this.#clock().fieldTime(time), m);
    if (this.#base.moves) this.#moveInto(m, m, time);
  }

  /** Skin matrices at a time; valid until the next call. */
  skinAt(time: number): Float32Array {
    const skin = this.#poses.skinAt(this.#clock().fieldTime(time));
    if (!this.#base.moves) return skin;
    this.#moveInto(this.#movedPoses.skin, skin, time);
    return this.#movedPoses.skin;
  }

  /** Writes the packed rigid place of a spot of its skin at a time. */
  spotInto(out: Float64Array, o: number, time: number, triangle: number, second: number, third: number): void {
    if (time === this.#posedTo) this.#to!.spotInto(out, o, triangle, second, third);
    else if (time === this.#posedFrom) this.#from!.spotInto(out, o, triangle, second, third);
    else posedSpotInto(out, o, this.rig, this.skinAt(time), triangle, second, third);
  }

  /** Forgets how it is posed: time runs otherwise from now on. */
  forget(): void {
    this.#posedFrom = this.#posedTo = NaN;
  }

  /** Lets go of the poses it holds. */
  leave(): void {
    this.#release();
    this.forget();
  }

  #release(): void {
    if (this.#areShared) for (const mesh of [this.#from, this.#to]) if (mesh) this.#poses.release(mesh);
    this.#from = this.#to = null;
  }

  /** Poses the mesh at a step's start and end. What was the end of the step before is this one's start. */
  pose(from: number, to: number): void {
    const { places } = this.#base;
    if (from === this.#posedFrom && to === this.#posedTo && places === this.#places) return;
    const isMoved = places.length > 0;
    const next = isMoved ? this.#movedMeshes(from, to) : this.#sharedMeshes(from, to);
    this.#release();
    [this.#from, this.#to] = next;
    this.#areShared = !isMoved;
    this.#places = places;
    this.#posedFrom = from;
    this.#posedTo = to;
  }

  #sharedMeshes(from: number, to: number): [PosedMesh, PosedMesh] {
    const clock = this.#clock();
    return [this.#poses.hold(clock.fieldTime(from)), this.#poses.hold(clock.fieldTime(to))];
  }

  #movedMeshes(start: number, end: number): [PosedMesh, PosedMesh] {
    const { from, to } = this.#movedPoses;
    from.setPose(this.skinAt(start));
    to.setPose(this.skinAt(end));
    return [from, to];
  }
}
