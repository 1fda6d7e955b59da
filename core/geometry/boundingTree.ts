/** Triangles a leaf holds at most. */
const LEAF = 4;

/**
 * A tree of boxes round a mesh's triangles, for finding those near a point, on a ray or in a box. Built once for a
 * mesh's rest shape; when its vertices move, the boxes are refitted and the tree stays.
 *
 * Node n: box at `boxes[6n…]` (least x, y, z, most x, y, z); `first[n]` is its left child (the right one follows it), or
 * for a leaf where its triangles begin in `order`; `count[n]` is how many, 0 for an inner node.
 */
export class BoundingTree {
  readonly boxes: Float64Array;
  readonly first: Int32Array;
  readonly count: Int32Array;
  readonly order: Uint32Array;
  readonly #indices: Uint32Array;
  #positions: ArrayLike<number>;
  nodes = 1;

  constructor(positions: ArrayLike<number>, indices: Uint32Array) {
    const triangles = indices.length / 3;
    this.#positions = positions;
    this.#indices = indices;
    this.order = Uint32Array.from({ length: triangles }, (_, i) => i);
    const most = Math.max(1, 2 * triangles);
    this.boxes = new Float64Array(most * 6);
    this.first = new Int32Array(most);
    this.count = new Int32Array(most);
    const centres = new Float64Array(triangles * 3);
    for (let t = 0; t < triangles; t++)
      for (let k = 0; k < 3; k++)
        for (let axis = 0; axis < 3; axis++) centres[t * 3 + axis]! += positions[indices[t * 3 + k]! * 3 + axis]! / 3;
    this.#build(0, 0, triangles, centres);
    this.refit(positions);
  }

  #build(node: number, from: number, to: number, centres: Float64Array): void {
    if (to - from <= LEAF) {
      this.first[node] = from;
      this.count[node] = to - from;
      return;
    }
    let axis = 0;
    let widest = -1;
    for (let a = 0; a < 3; a++) {
      let [low, high] = [Infinity, -Infinity];
      for (let i = from; i < to; i++) {
        const x = centres[this.order[i]! * 3 + a]!;
        low = Math.min(low, x);
        high = Math.max(high, x);
      }
      if (high - low > widest) [axis, widest] = [a, high - low];
    }
    // Half to either side, by place and then by number: the tree hangs on the mesh alone.
    this.order.subarray(from, to).sort((a, b) => centres[a * 3 + axis]! - centres[b * 3 + axis]! || a - b);
    const middle = (from + to) >> 1;
    const left = this.nodes;
    this.nodes += 2;
    this.first[node] = left;
    this.#build(left, from, middle, centres);
    this.#build(left + 1, middle, to, centres);
  }

  /**
   * Takes vertices at new places: every box is made anew, from the leaves up. With `earlier`, each box also holds where
   * its triangles were then, and so every way between the two.
   */
  refit(positions: ArrayLike<number>, earlier: ArrayLike<number> = positions): void {
    this.#positions = positions;
    for (let node = this.nodes - 1; node >= 0; node--) {
      if (this.count[node]! > 0 || node === 0) this.#fitLeaf(node, positions, earlier);
      if (this.count[node] === 0 && this.order.length > 0) this.#fitInner(node);
    }
  }

  #fitLeaf(node: number, p: ArrayLike<number>, q: ArrayLike<number>): void {
    const indices = this.#indices;
    const { order, boxes } = this;
    let [lowX, lowY, lowZ] = [Infinity, Infinity, Infinity];
    let [highX, highY, highZ] = [-Infinity, -Infinity, -Infinity];
    const from = this.first[node]!;
    const to = from + this.count[node]!;
    for (let i = from; i < to; i++)
      for (let k = order[i]! * 3, last = k + 3; k < last; k++) {
        const v = indices[k]! * 3;
        for (let pose = 0; pose < 2; pose++) {
          const at = pose === 0 ? p : q;
          const x = at[v]!;
          const y = at[v + 1]!;
          const z = at[v + 2]!;
          if (x < lowX) lowX = x;
          if (x > highX) highX = x;
          if (y < lowY) lowY = y;
          if (y > highY) highY = y;
          if (z < lowZ) lowZ = z;
          if (z > highZ) highZ = z;
          if (p === q) break;
        }
      }
    const o = node * 6;
    boxes[o] = lowX;
    boxes[o + 1] = lowY;
    boxes[o + 2] = lowZ;
    boxes[o + 3] = highX;
    boxes[o + 4] = highY;
    boxes[o + 5] = highZ;
  }

  #fitInner(node: number): void {
    const { boxes } = this;
    const child = this.first[node]! * 6;
    const o = node * 6;
    for (let word = 0; word < 3; word++) {
      const [a, b] = [boxes[child + word]!, boxes[child + 6 + word]!];
      boxes[o + word] = a < b ? a : b;
      const [c, d] = [boxes[child + 3 + word]!, boxes[child + 9 + word]!];
      boxes[o + 3 + word] = c > d ? c : d;
    }
  }

  readonly #stack = new Int32Array(128);

  /** Squared distance from a point to a node's box; 0 inside. */
  #toBox(node: number, x: number, y: number, z: number): number {
    const { boxes } = this;
    const o = node * 6;
    const dx = x < boxes[o]! ? boxes[o]! - x : x > boxes[o + 3]! ? x - boxes[o + 3]! : 0;
    const dy = y < boxes[o + 1]! ? boxes[o + 1]! - y : y > boxes[o + 4]! ? y - boxes[o + 4]! : 0;
    const dz = z < boxes[o + 2]! ? boxes[o + 2]! - z : z > boxes[o + 5]! ? z - boxes[o + 5]! : 0;
    return dx * dx + dy * dy + dz * dz;
  }

  readonly #near = new Float64Array(4);

  /**
   * Writes the point of the mesh nearest to a place: its triangle, and the weights of that triangle's second and third
   * corners, to out[0..2]; returns the squared distance, Infinity when none is nearer than `within`. Of equally near
   * triangles the lowest is taken.
   */
  nearestInto(out: Float64Array, x: number, y: number, z: number, within = Infinity): number {
    const { first, count, order } = this;
    const stack = this.#stack;
    let best = within * within;
    let bestTriangle = -1;
    let top = 0;
    stack[top++] = 0;
    while (top > 0) {
      const node = stack[--top]!;
      if (this.#toBox(node, x, y, z) > best) continue;
      if (count[node]! > 0) {
        for (let i = 0; i < count[node]!; i++) {
          const triangle = order[first[node]! + i]!;
          const squared = this.#onTriangle(triangle, x, y, z);
          if (squared < best || (squared === best && triangle < bestTriangle)) {
            best = squared;
            bestTriangle = triangle;
            out[0] = triangle;
            out[1] = this.#near[0]!;
            out[2] = this.#near[1]!;
          }
        }
      } else if (order.length > 0) {
        // The nearer child is looked at first.
        const left = first[node]!;
        const isLeft = this.#toBox(left, x, y, z) <= this.#toBox(left + 1, x, y, z);
        stack[top++] = isLeft ? left + 1 : left;
        stack[top++] = isLeft ? left : left + 1;
      }
    }
    return bestTriangle < 0 ? Infinity : best;
  }

  /** Nearest point of a triangle (Ericson, 2005, Real-Time Collision Detection, 5.1.5): weights to #near, squared distance. */
  #onTriangle(triangle: number, x: number, y: number, z: number): number {
    const p = this.#positions;
    const [ia, ib, ic] = [
      this.#indices[triangle * 3]! * 3,
      this.#indices[triangle * 3 + 1]! * 3,
      this.#indices[triangle * 3 + 2]! * 3,
    ];
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
    this.#near[0] = v;
    this.#near[1] = w;
    return dx * dx + dy * dy + dz * dz;
  }

  /** Calls `visit` with every triangle whose box meets a box. */
  within(
    lowX: number,
    lowY: number,
    lowZ: number,
    highX: number,
    highY: number,
    highZ: number,
    visit: (triangle: number) => void,
  ): void {
    const { boxes, first, count, order } = this;
    const stack = this.#stack;
    let top = 0;
    if (order.length > 0) stack[top++] = 0;
    while (top > 0) {
      const node = stack[--top]!;
      const o = node * 6;
      if (
        boxes[o]! > highX ||
        boxes[o + 3]! < lowX ||
        boxes[o + 1]! > highY ||
        boxes[o + 4]! < lowY ||
        boxes[o + 2]! > highZ ||
        boxes[o + 5]! < lowZ
      )
        continue;
      if (count[node]! > 0) for (let i = 0; i < count[node]!; i++) visit(order[first[node]! + i]!);
      else {
        stack[top++] = first[node]! + 1;
        stack[top++] = first[node]!;
      }
    }
  }

  /**
   * How many times a ray leaves the mesh less how many times it enters it: the winding number of its start, for closed
   * shells however they overlap. The direction should be no axis of the mesh's.
   */
  crossings(x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
    const { boxes, first, count, order } = this;
    const stack = this.#stack;
    let sum = 0;
    let top = 0;
    if (order.length > 0) stack[top++] = 0;
    while (top > 0) {
      const node = stack[--top]!;
      const o = node * 6;
      let [near, far] = [0, Infinity];
      const start = [x, y, z];
      const way = [dx, dy, dz];
      for (let axis = 0; axis < 3; axis++) {
        const a = (boxes[o + axis]! - start[axis]!) / way[axis]!;
        const b = (boxes[o + 3 + axis]! - start[axis]!) / way[axis]!;
        near = Math.max(near, Math.min(a, b));
        far = Math.min(far, Math.max(a, b));
      }
      if (near > far) continue;
      if (count[node]! > 0)
        for (let i = 0; i < count[node]!; i++) sum += this.#crossing(order[first[node]! + i]!, x, y, z, dx, dy, dz);
      else {
        stack[top++] = first[node]! + 1;
        stack[top++] = first[node]!;
      }
    }
    return sum;
  }

  /** 1 where a ray leaves through a triangle, −1 where it enters, 0 where it misses (Möller and Trumbore, 1997). */
  #crossing(triangle: number, x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
    const p = this.#positions;
    const [a, b, c] = [
      this.#indices[triangle * 3]! * 3,
      this.#indices[triangle * 3 + 1]! * 3,
      this.#indices[triangle * 3 + 2]! * 3,
    ];
    const [ex, ey, ez] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const [fx, fy, fz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    const [hx, hy, hz] = [dy * fz - dz * fy, dz * fx - dx * fz, dx * fy - dy * fx];
    const det = ex * hx + ey * hy + ez * hz;
    if (det === 0) return 0;
    const [sx, sy, sz] = [x - p[a]!, y - p[a + 1]!, z - p[a + 2]!];
    const u = (sx * hx + sy * hy + sz * hz) / det;
    if (u < 0 || u > 1) return 0;
    const [qx, qy, qz] = [sy * ez - sz * ey, sz * ex - sx * ez, sx * ey - sy * ex];
    const v = (dx * qx + dy * qy + dz * qz) / det;
    if (v < 0 || u + v > 1) return 0;
    const t = (fx * qx + fy * qy + fz * qz) / det;
    // det > 0 means the ray meets the front of the triangle: it enters.
    return t > 0 ? (det > 0 ? -1 : 1) : 0;
  }
}

const kept = new WeakMap<object, BoundingTree>();

/** The tree of a mesh's rest shape, made once. */
export function restTree(mesh: { readonly positions: Float32Array; readonly indices: Uint32Array }): BoundingTree {
  const known = kept.get(mesh);
  if (known) return known;
  const made = new BoundingTree(mesh.positions, mesh.indices);
  kept.set(mesh, made);
  return made;
}

/** Rays by which `isInside` decides: none along an axis. */
const RAYS = [
  [0.5377, 0.6731, 0.5077],
  [-0.6143, 0.3319, 0.7159],
  [0.2273, -0.8039, 0.5496],
  [-0.4421, -0.5303, -0.7234],
  [0.7919, 0.1031, -0.6019],
] as const;

/**
 * Whether a point is inside a mesh: on most of five rays it leaves more shells than it enters. Shells may overlap; small
 * holes are outvoted.
 */
export function isInside(tree: BoundingTree, x: number, y: number, z: number): boolean {
  let votes = 0;
  for (const [dx, dy, dz] of RAYS) votes += tree.crossings(x, y, z, dx, dy, dz) > 0 ? 1 : 0;
  return votes >= 3;
}
