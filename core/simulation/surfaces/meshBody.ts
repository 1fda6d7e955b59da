import { MovingMesh, skinVertexInto, type MeetingSide, type Rig } from '../../geometry/index.ts';
import { AT, NORMAL, SHARE, SPOT, VELOCITY, type Body } from './body.ts';
import type { MatrixInto } from './plane.ts';
import { StageThing } from '../scene/stageThing.ts';

/** Writes the world's vertices of a mesh at a time; returns false when they are the same as at the other end of the step. */
interface Poses {
  readonly positions: Float32Array;
  readonly indices: Uint32Array;
  /** Takes the step; returns whether everything stands still in it. */
  take(from: number, to: number): boolean;
  verticesInto(out: Float32Array, isEnd: boolean): void;
}

/** Another shape of a mesh, and how far the mesh has taken it at a time: 0 not at all, 1 wholly. */
export interface OtherShape {
  readonly positions: Float32Array;
  readonly shareAt: (time: number) => number;
}

/** A mesh carried by one matrix, whose axes may be of any length; it may go over into another shape. */
export function carriedPoses(
  positions: Float32Array,
  indices: Uint32Array,
  matrixInto: MatrixInto,
  other: OtherShape | null = null,
): Poses {
  const start = new Float64Array(16);
  const end = new Float64Array(16);
  const shares = [0, 0];
  return {
    positions,
    indices,
    take(from, to) {
      matrixInto(start, from);
      matrixInto(end, to);
      if (other) [from, to].forEach((time, n) => (shares[n] = other.shareAt(time)));
      return shares[0] === shares[1] && start.every((x, i) => x === end[i]);
    },
    verticesInto(out, isEnd) {
      const m = isEnd ? end : start;
      const share = shares[isEnd ? 1 : 0]!;
      const toward = other?.positions ?? positions;
      for (let v = 0; v < positions.length; v += 3) {
        const x = positions[v]! + (toward[v]! - positions[v]!) * share;
        const y = positions[v + 1]! + (toward[v + 1]! - positions[v + 1]!) * share;
        const z = positions[v + 2]! + (toward[v + 2]! - positions[v + 2]!) * share;
        for (let axis = 0; axis < 3; axis++)
          out[v + axis] = m[axis]! * x + m[4 + axis]! * y + m[8 + axis]! * z + m[12 + axis]!;
      }
    },
  };
}

/** The skin of a thing on the stage, in the poses the stage blends between. */
export function skinPoses(thing: StageThing, positions: Float32Array): Poses {
  const rig: Rig = { ...thing.rig, mesh: { ...thing.rig.mesh, positions } };
  return {
    positions,
    indices: rig.mesh.indices,
    take: () => thing.meshFrom.matrices.every((x, i) => x === thing.meshTo.matrices[i]),
    verticesInto(out, isEnd) {
      const { matrices } = isEnd ? thing.meshTo : thing.meshFrom;
      for (let v = 0; v < positions.length / 3; v++) skinVertexInto(out, v * 3, rig, matrices, v);
    },
  };
}

/** A mesh that moves, grows or bends. */
export class MeshBody implements Body {
  readonly mesh: MovingMesh;
  readonly box: Float64Array;
  readonly #poses: Poses;
  #posedTo = NaN;
  #seconds = 1;

  constructor(poses: Poses) {
    this.#poses = poses;
    this.mesh = new MovingMesh(poses.positions, poses.indices);
    this.box = this.mesh.tree.box;
  }

  pose(from: number, to: number): void {
    const { mesh } = this;
    const isStill = this.#poses.take(from, to);
    const isKnown = from === this.#posedTo;
    this.#seconds = to - from;
    this.#posedTo = to;
    if (isStill && isKnown && mesh.isStill) return;
    if (isKnown) [mesh.start, mesh.end] = [mesh.end, mesh.start];
    else this.#poses.verticesInto(mesh.start, false);
    this.#poses.verticesInto(mesh.end, true);
    mesh.refit(isStill);
  }

  meet(
    out: Float64Array,
    from: number,
    x0: number,
    y0: number,
    z0: number,
    x1: number,
    y1: number,
    z1: number,
    side: MeetingSide,
  ): boolean {
    const { mesh } = this;
    if (!mesh.sweep(from, x0, y0, z0, x1, y1, z1, side)) return false;
    const { time, triangle, second, third, normal } = mesh.contact;
    out[SHARE] = time;
    for (let axis = 0; axis < 3; axis++) out[NORMAL + axis] = normal[axis]!;
    out[SPOT] = triangle;
    out[SPOT + 1] = second;
    out[SPOT + 2] = third;
    this.#velocityInto(out);
    mesh.placeInto(this.#place, time, triangle, second, third);
    for (let axis = 0; axis < 3; axis++) out[AT + axis] = this.#place[axis]!;
    return true;
  }

  readonly #place = new Float64Array(3);
  readonly #before = new Float64Array(3);

  /** From where the spot was to where it is; leaves the latter in `#place`. */
  #velocityInto(out: Float64Array): void {
    const { mesh } = this;
    const triangle = out[SPOT]!;
    const second = out[SPOT + 1]!;
    const third = out[SPOT + 2]!;
    mesh.placeInto(this.#before, 0, triangle, second, third);
    mesh.placeInto(this.#place, 1, triangle, second, third);
    for (let axis = 0; axis < 3; axis++)
      out[VELOCITY + axis] = (this.#place[axis]! - this.#before[axis]!) / this.#seconds;
  }

  holdInto(out: Float64Array, triangle: number, second: number, third: number): void {
    out[SPOT] = triangle;
    out[SPOT + 1] = second;
    out[SPOT + 2] = third;
    this.#velocityInto(out);
    for (let axis = 0; axis < 3; axis++) out[AT + axis] = this.#place[axis]!;
    this.mesh.normalInto(this.#before, triangle);
    for (let axis = 0; axis < 3; axis++) out[NORMAL + axis] = this.#before[axis]!;
  }

  nearestInto(out: Float64Array, x: number, y: number, z: number, within: number): number {
    const squared = this.mesh.tree.nearestInto(this.#before, x, y, z, within);
    if (squared === Infinity) return Infinity;
    this.holdInto(out, this.#before[0]!, this.#before[1]!, this.#before[2]!);
    return Math.sqrt(squared);
  }
}
