import { setThree } from '../maths/index.ts';
import { BoundingTree, type TreeSearch } from './boundingTree.ts';
import { HIGH } from './treeSearches.ts';
import { TriangleSweep } from './sweep.ts';

/** From which side a mesh is met: from outside (the front of its triangles), from inside, or from both. */
export type MeetingSide = 'outside' | 'inside' | 'both';

/** Where and when a point met a mesh. */
export interface MeshContact {
  /** Share of the sweep. */
  time: number;
  triangle: number;
  /** Weights of the triangle's second and third corner. */
  second: number;
  third: number;
  /** Of length 1, toward the side the point came from. */
  readonly normal: Float64Array;
}

/** A mesh between two poses: every vertex goes evenly from its place at the start of a step to that at its end. */
export class MovingMesh implements TreeSearch {
  readonly indices: Uint32Array;
  readonly tree: BoundingTree;
  /** Vertices at the start and at the end, metres of the world. */
  start: Float32Array;
  end: Float32Array;
  /** Whether start and end are the same. */
  isStill = true;
  readonly contact: MeshContact = { time: 0, triangle: -1, second: 0, third: 0, normal: new Float64Array(3) };
  readonly #sweep = new TriangleSweep();
  /** The way that is swept: from which share of the step, from where to where, met from which side. */
  #from = 0;
  readonly #start = new Float64Array(3);
  readonly #end = new Float64Array(3);
  /** One by each part of the way; Infinity along an axis on which it does not lead. */
  readonly #inverse = new Float64Array(3);
  #side: MeetingSide = 'outside';

  constructor(positions: Float32Array, indices: Uint32Array) {
    this.indices = indices;
    this.start = Float32Array.from(positions);
    this.end = Float32Array.from(positions);
    this.tree = new BoundingTree(positions, indices);
  }

  /** To be called after `start` or `end` were written to. */
  refit(isStill: boolean): void {
    this.isStill = isStill;
    this.tree.refit(this.end, isStill ? this.end : this.start);
  }

  /**
   * Finds where a point going straight from (x0, y0, z0) at `from` (share of the step) to (x1, y1, z1) at its end first
   * meets the mesh; of triangles met at the same instant the lowest. Fills `contact`, whose time is a share of the step.
   */
  sweep(
    from: number,
    x0: number,
    y0: number,
    z0: number,
    x1: number,
    y1: number,
    z1: number,
    side: MeetingSide,
  ): boolean {
    const { contact } = this;
    contact.triangle = -1;
    contact.time = BEYOND;
    this.#from = from;
    setThree(this.#start, x0, y0, z0);
    setThree(this.#end, x1, y1, z1);
    setThree(this.#inverse, 1 / (x1 - x0), 1 / (y1 - y0), 1 / (z1 - z0));
    this.#side = side;
    this.tree.search(this);
    if (contact.triangle < 0) return false;
    contact.time = from + contact.time * (1 - from);
    return true;
  }

  /** What is met later than this is of no matter any more. */
  get limit(): number {
    return this.contact.time;
  }

  /** The share of the way at which it comes into a box; Infinity where it does not, before what was met. */
  distanceTo(boxes: Float64Array, at: number): number {
    let near = 0;
    let far = this.contact.time;
    for (let axis = 0; axis < 3; axis++) {
      const p = this.#start[axis]!;
      const inverse = this.#inverse[axis]!;
      const low = boxes[at + axis]! - REACH - p;
      const high = boxes[at + HIGH + axis]! + REACH - p;
      if (inverse === Infinity || inverse === -Infinity) {
        if (low > 0 || high < 0) return Infinity;
        continue;
      }
      const a = low * inverse;
      const b = high * inverse;
      const enters = a < b ? a : b;
      const leaves = a < b ? b : a;
      if (enters > near) near = enters;
      if (leaves < far) far = leaves;
      if (near > far) return Infinity;
    }
    return near;
  }

  /** Meets one triangle, if the way leads through it. */
  visit(triangle: number): void {
    const from = this.#from;
    const side = this.#side;
    const { contact, indices, start, end, isStill } = this;
    const sweep = this.#sweep;
    const x0 = this.#start[0]!;
    const y0 = this.#start[1]!;
    const z0 = this.#start[2]!;
    const x1 = this.#end[0]!;
    const y1 = this.#end[1]!;
    const z1 = this.#end[2]!;
    for (let k = 0; k < 3; k++) {
      const v = indices[triangle * 3 + k]! * 3;
      const ex = end[v]!;
      const ey = end[v + 1]!;
      const ez = end[v + 2]!;
      const sx = isStill ? ex : start[v]! + (ex - start[v]!) * from;
      const sy = isStill ? ey : start[v + 1]! + (ey - start[v + 1]!) * from;
      const sz = isStill ? ez : start[v + 2]! + (ez - start[v + 2]!) * from;
      sweep.corner(k, sx - x0, sy - y0, sz - z0, ex - x1, ey - y1, ez - z1);
    }
    const isBoth = side === 'both';
    if (side !== 'inside' && sweep.meets(contact.time, false, isBoth, isStill)) this.#take(triangle, 1);
    else if (side !== 'outside' && sweep.meets(contact.time, true, isBoth, isStill)) this.#take(triangle, -1);
  }

  #take(triangle: number, sign: number): void {
    const { contact } = this;
    const { time, second, third, normal } = this.#sweep;
    if (time === contact.time && triangle > contact.triangle) return;
    const size = sign / Math.sqrt(normal[0]! * normal[0]! + normal[1]! * normal[1]! + normal[2]! * normal[2]!);
    contact.time = time;
    contact.triangle = triangle;
    contact.second = second;
    contact.third = third;
    for (let axis = 0; axis < 3; axis++) contact.normal[axis] = normal[axis]! * size;
  }

  /** Writes where a spot is, to out[0..2], at the start (`share` 0), at the end (1) or between. */
  placeInto(out: Float64Array, share: number, triangle: number, second: number, third: number): void {
    const { indices, start, end } = this;
    const a = indices[triangle * 3]! * 3;
    const b = indices[triangle * 3 + 1]! * 3;
    const c = indices[triangle * 3 + 2]! * 3;
    const first = 1 - second - third;
    for (let axis = 0; axis < 3; axis++) {
      const from = start[a + axis]! * first + start[b + axis]! * second + start[c + axis]! * third;
      const to = end[a + axis]! * first + end[b + axis]! * second + end[c + axis]! * third;
      out[axis] = from + (to - from) * share;
    }
  }

  /** Writes the normal of a triangle at the end, of length 1; upward where it has no area. */
  normalInto(out: Float64Array, triangle: number): void {
    const { indices, end } = this;
    const a = indices[triangle * 3]! * 3;
    const b = indices[triangle * 3 + 1]! * 3;
    const c = indices[triangle * 3 + 2]! * 3;
    const ex = end[b]! - end[a]!;
    const ey = end[b + 1]! - end[a + 1]!;
    const ez = end[b + 2]! - end[a + 2]!;
    const gx = end[c]! - end[a]!;
    const gy = end[c + 1]! - end[a + 1]!;
    const gz = end[c + 2]! - end[a + 2]!;
    const nx = ey * gz - ez * gy;
    const ny = ez * gx - ex * gz;
    const nz = ex * gy - ey * gx;
    const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
    out[0] = size > 0 ? nx / size : 0;
    out[1] = size > 0 ? ny / size : 1;
    out[2] = size > 0 ? nz / size : 0;
  }
}

/** A share of a sweep that no contact has. */
const BEYOND = 1.0000001;

/** Metres by which boxes are taken larger, for a point that lies on a face of the box or just behind. */
const REACH = 2e-5;
