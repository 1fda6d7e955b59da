/** Words from a box's least corner to its most (boundingTree.ts). */
export const HIGH = 3;

/** Looks for the triangle nearest to a place. Keeps its own room. */
export class NearestSearch {
  readonly #indices: Uint32Array;
  #positions: ArrayLike<number> = [];
  #x = 0;
  #y = 0;
  #z = 0;
  #v = 0;
  #w = 0;
  /** Squared distance of the nearest so far. */
  limit = Infinity;
  /** The nearest so far, −1 before any; and the weights of its second and third corner. */
  triangle = -1;
  second = 0;
  third = 0;

  constructor(indices: Uint32Array) {
    this.#indices = indices;
  }

  begin(positions: ArrayLike<number>, x: number, y: number, z: number, within: number): void {
    this.#positions = positions;
    this.#x = x;
    this.#y = y;
    this.#z = z;
    this.limit = within * within;
    this.triangle = -1;
  }

  /** Squared distance to a box; 0 inside. */
  distanceTo(boxes: Float64Array, at: number): number {
    const x = this.#x;
    const y = this.#y;
    const z = this.#z;
    const dx = x < boxes[at]! ? boxes[at]! - x : x > boxes[at + HIGH]! ? x - boxes[at + HIGH]! : 0;
    const dy = y < boxes[at + 1]! ? boxes[at + 1]! - y : y > boxes[at + HIGH + 1]! ? y - boxes[at + HIGH + 1]! : 0;
    const dz = z < boxes[at + 2]! ? boxes[at + 2]! - z : z > boxes[at + HIGH + 2]! ? z - boxes[at + HIGH + 2]! : 0;
    return dx * dx + dy * dy + dz * dz;
  }

  visit(triangle: number): void {
    const squared = this.#onTriangle(triangle, this.#x, this.#y, this.#z);
    if (!(squared < this.limit || (squared === this.limit && triangle < this.triangle))) return;
    this.limit = squared;
    this.triangle = triangle;
    this.second = this.#v;
    this.third = this.#w;
  }

  /** Nearest point of a triangle (Ericson, 2005, Real-Time Collision Detection, 5.1.5): weights to #v and #w, squared distance. */
  #onTriangle(triangle: number, x: number, y: number, z: number): number {
    const p = this.#positions;
    const ia = this.#indices[triangle * 3]! * 3;
    const ib = this.#indices[triangle * 3 + 1]! * 3;
    const ic = this.#indices[triangle * 3 + 2]! * 3;
    const ax = p[ia]!;
    const ay = p[ia + 1]!;
    const az = p[ia + 2]!;
    const abx = p[ib]! - ax;
    const aby = p[ib + 1]! - ay;
    const abz = p[ib + 2]! - az;
    const acx = p[ic]! - ax;
    const acy = p[ic + 1]! - ay;
    const acz = p[ic + 2]! - az;
    const apx = x - ax;
    const apy = y - ay;
    const apz = z - az;
    const d1 = abx * apx + aby * apy + abz * apz;
    const d2 = acx * apx + acy * apy + acz * apz;
    let v = 0;
    let w = 0;
    if (!(d1 <= 0 && d2 <= 0)) {
      const d3 = d1 - (abx * abx + aby * aby + abz * abz);
      const d4 = d2 - (abx * acx + aby * acy + abz * acz);
      const d5 = d1 - (acx * abx + acy * aby + acz * abz);
      const d6 = d2 - (acx * acx + acy * acy + acz * acz);
      const vc = d1 * d4 - d3 * d2;
      const vb = d5 * d2 - d1 * d6;
      const va = d3 * d6 - d5 * d4;
      if (d3 >= 0 && d4 <= d3) v = 1;
      else if (vc <= 0 && d1 >= 0 && d3 <= 0) v = d1 - d3 !== 0 ? d1 / (d1 - d3) : 0;
      else if (d6 >= 0 && d5 <= d6) w = 1;
      else if (vb <= 0 && d2 >= 0 && d6 <= 0) w = d2 - d6 !== 0 ? d2 / (d2 - d6) : 0;
      else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
        const sum = d4 - d3 + (d5 - d6);
        w = sum !== 0 ? (d4 - d3) / sum : 0;
        v = 1 - w;
      } else {
        const sum = va + vb + vc;
        v = sum !== 0 ? vb / sum : 0;
        w = sum !== 0 ? vc / sum : 0;
      }
    }
    const dx = apx - abx * v - acx * w;
    const dy = apy - aby * v - acy * w;
    const dz = apz - abz * v - acz * w;
    this.#v = v;
    this.#w = w;
    return dx * dx + dy * dy + dz * dz;
  }
}

/** Counts how often a ray leaves a mesh and enters it. Keeps its own room. */
export class CrossingSearch {
  readonly #indices: Uint32Array;
  #positions: ArrayLike<number> = [];
  #x = 0;
  #y = 0;
  #z = 0;
  #dx = 0;
  #dy = 0;
  #dz = 0;
  readonly limit = Infinity;
  /** Times left, less times entered. */
  sum = 0;

  constructor(indices: Uint32Array) {
    this.#indices = indices;
  }

  begin(positions: ArrayLike<number>, x: number, y: number, z: number, dx: number, dy: number, dz: number): void {
    this.#positions = positions;
    this.#x = x;
    this.#y = y;
    this.#z = z;
    this.#dx = dx;
    this.#dy = dy;
    this.#dz = dz;
    this.sum = 0;
  }

  /** How far along the ray a box begins; Infinity where the ray misses it. */
  distanceTo(boxes: Float64Array, at: number): number {
    let near = 0;
    let far = Infinity;
    for (let axis = 0; axis < 3; axis++) {
      const start = axis === 0 ? this.#x : axis === 1 ? this.#y : this.#z;
      const way = axis === 0 ? this.#dx : axis === 1 ? this.#dy : this.#dz;
      const a = (boxes[at + axis]! - start) / way;
      const b = (boxes[at + HIGH + axis]! - start) / way;
      near = Math.max(near, Math.min(a, b));
      far = Math.min(far, Math.max(a, b));
    }
    return near > far ? Infinity : near;
  }

  visit(triangle: number): void {
    this.sum += this.#crossing(triangle);
  }

  /** 1 where the ray leaves through a triangle, −1 where it enters, 0 where it misses (Möller and Trumbore, 1997). */
  #crossing(triangle: number): number {
    const p = this.#positions;
    const a = this.#indices[triangle * 3]! * 3;
    const b = this.#indices[triangle * 3 + 1]! * 3;
    const c = this.#indices[triangle * 3 + 2]! * 3;
    const dx = this.#dx;
    const dy = this.#dy;
    const dz = this.#dz;
    const ex = p[b]! - p[a]!;
    const ey = p[b + 1]! - p[a + 1]!;
    const ez = p[b + 2]! - p[a + 2]!;
    const fx = p[c]! - p[a]!;
    const fy = p[c + 1]! - p[a + 1]!;
    const fz = p[c + 2]! - p[a + 2]!;
    const hx = dy * fz - dz * fy;
    const hy = dz * fx - dx * fz;
    const hz = dx * fy - dy * fx;
    const det = ex * hx + ey * hy + ez * hz;
    if (det === 0) return 0;
    const sx = this.#x - p[a]!;
    const sy = this.#y - p[a + 1]!;
    const sz = this.#z - p[a + 2]!;
    const u = (sx * hx + sy * hy + sz * hz) / det;
    if (u < 0 || u > 1) return 0;
    const qx = sy * ez - sz * ey;
    const qy = sz * ex - sx * ez;
    const qz = sx * ey - sy * ex;
    const v = (dx * qx + dy * qy + dz * qz) / det;
    if (v < 0 || u + v > 1) return 0;
    const t = (fx * qx + fy * qy + fz * qz) / det;
    // det > 0 means the ray meets the front of the triangle: it enters.
    return t > 0 ? (det > 0 ? -1 : 1) : 0;
  }
}
