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
  #x0 = 0;
  #y0 = 0;
  #z0 = 0;
  #x1 = 0;
  #y1 = 0;
  #z1 = 0;
  #dx = 0;
  #dy = 0;
  #dz = 0;
  #side: MeetingSide = 'outside';
  /** The part of the way that lies within the box at hand. */
  #near = 0;
  #far = 0;

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
    this.#x0 = x0;
    this.#y0 = y0;
    this.#z0 = z0;
    this.#x1 = x1;
    this.#y1 = y1;
    this.#z1 = z1;
    this.#dx = x1 - x0;
    this.#dy = y1 - y0;
    this.#dz = z1 - z0;
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
    this.#near = 0;
    this.#far = this.contact.time;
    return this.#isIn(this.#x0, this.#dx, boxes[at]!, boxes[at + HIGH]!) &&
      this.#isIn(this.#y0, this.#dy, boxes[at + 1]!, boxes[at + HIGH + 1]!) &&
      this.#isIn(this.#z0, this.#dz, boxes[at + 2]!, boxes[at + HIGH + 2]!)
      ? this.#near
      : Infinity;
  }

  /** Narrows the part of the way down to what lies between two planes across an axis; whether any is left. */
  #isIn(p: number, d: number, low: number, high: number): boolean {
    if (d === 0) return p >= low - REACH && p <= high + REACH;
    const a = (low - REACH - p) / d;
    const b = (high + REACH - p) / d;
    if (a < b) {
      if (a > this.#near) this.#near = a;
      if (b < this.#far) this.#far = b;
    } else {
      if (b > this.#near) this.#near = b;
      if (a < this.#far) this.#far = a;
    }
    return this.#near <= this.#far;
  }

  /** Meets one triangle, if the way leads through it. */
  visit(triangle: number): void {
    const from = this.#from;
    const side = this.#side;
    const { contact, indices, start, end, isStill } = this;
    const sweep = this.#sweep;
    for (let k = 0; k < 3; k++) {
      const v = indices[triangle * 3 + k]! * 3;
      const ex = end[v]!;
      const ey = end[v + 1]!;
      const ez = end[v + 2]!;
      const sx = isStill ? ex : start[v]! + (ex - start[v]!) * from;
      const sy = isStill ? ey : start[v + 1]! + (ey - start[v + 1]!) * from;
      const sz = isStill ? ez : start[v + 2]! + (ez - start[v + 2]!) * from;
      sweep.corner(k, sx - this.#x0, sy - this.#y0, sz - this.#z0, ex - this.#x1, ey - this.#y1, ez - this.#z1);
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
