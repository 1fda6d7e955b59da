import type { Thing } from '../../document/index.ts';
import { FigureTrack, PosedMesh, skinMatricesInto, type Rig } from '../../geometry/index.ts';

/** A step's walk along the fine grid of births (16 instants), and its two ends. */
const KEPT_POSES = 20;

interface KeptMesh {
  time: number;
  /** How many hold it: it keeps its pose as long as any does. */
  users: number;
  readonly mesh: PosedMesh;
}

/** The poses of a thing that moves in one way, by time: what stands in several scenes is posed once for all of them. */
export class ThingPoses {
  readonly rig: Rig;
  readonly #track: FigureTrack;
  /** Poses sampled last, oldest overwritten first: layers that follow one figure ask for the same instants. */
  readonly #poses: { time: number; readonly world: Float64Array }[] = [];
  #oldest = 0;
  readonly #skin: Float32Array;
  #skinTime = NaN;
  readonly #meshes: KeptMesh[] = [];

  constructor(thing: Thing, rig: Rig, base: Float64Array | null) {
    this.rig = rig;
    this.#track = new FigureTrack(rig, thing, base);
    this.#skin = new Float32Array(rig.bones.length * 16);
  }

  /** World matrices of the bones at a time; valid until other poses are asked for. */
  bonesAt(time: number): Float64Array {
    for (const pose of this.#poses) if (pose.time === time) return pose.world;
    if (this.#poses.length < KEPT_POSES)
      this.#poses.push({ time: NaN, world: new Float64Array(this.rig.bones.length * 16) });
    this.#oldest = (this.#oldest + 1) % this.#poses.length;
    const pose = this.#poses[this.#oldest]!;
    this.#track.worldInto(time, pose.world);
    pose.time = time;
    return pose.world;
  }

  /** Writes the matrix of its feet at a time. */
  rootInto(time: number, m: Float64Array): void {
    this.#track.rootInto(time, m);
  }

  /** Skin matrices at a time; valid until the next call. */
  skinAt(time: number): Float32Array {
    if (time !== this.#skinTime) skinMatricesInto(this.rig, this.bonesAt(time), this.#skin);
    this.#skinTime = time;
    return this.#skin;
  }

  /** The mesh as it is at a time, kept so until it is released. */
  hold(time: number): PosedMesh {
    let kept = this.#meshes.find((one) => one.time === time);
    if (!kept) {
      kept = this.#meshes.find(({ users }) => users === 0);
      if (!kept) this.#meshes.push((kept = { time: NaN, users: 0, mesh: new PosedMesh(this.rig) }));
      kept.mesh.setPose(this.skinAt(time));
      kept.time = time;
    }
    kept.users++;
    return kept.mesh;
  }

  release(mesh: PosedMesh): void {
    const kept = this.#meshes.find((one) => one.mesh === mesh);
    if (kept) kept.users--;
  }
}

/** The poses that the scenes of a world share. */
export class PoseCache {
  readonly #byRig = new Map<Rig, Map<string, WeakRef<ThingPoses>>>();

  /** The poses of a thing on a stage that stands there; the same for all that move alike. */
  of(thing: Thing, rig: Rig, base: Float64Array | null = null): ThingPoses {
    const known = this.#byRig.get(rig) ?? new Map<string, WeakRef<ThingPoses>>();
    this.#byRig.set(rig, known);
    const key = JSON.stringify([thing, base && [...base]]);
    const poses = known.get(key)?.deref() ?? new ThingPoses(thing, rig, base);
    known.set(key, new WeakRef(poses));
    return poses;
  }
}
