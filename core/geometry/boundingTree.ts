import { CrossingSearch, HIGH, NearestSearch } from './treeSearches.ts';

/** Triangles a leaf holds at most. */
const LEAF = 4;

/** Words of a node's box: least x, y, z from its first word on, most x, y, z from word HIGH on. */
const BOX_WORDS = 6;

/** Nodes that may wait at once: two a level of a tree of many millions of triangles. */
const MOST_WAITING = 128;

/** What is looked for in a tree: which boxes are worth entering, and what is done with the triangles within. */
export interface TreeSearch {
  /** Boxes further away than this are passed over; it may become less while the search goes on. */
  readonly limit: number;
  /** How far away the box is whose words begin at `at` of `boxes`; the nearer of two is entered first. Infinity: not at all. */
  distanceTo(boxes: Float64Array, at: number): number;
  visit(triangle: number): void;
}

/**
 * A tree of boxes round a mesh's triangles, for finding those near a point, on a ray or on a way. Built once for a mesh's
 * rest shape; when its vertices move, the boxes are refitted and the tree stays. Searching and refitting allocate nothing.
 */
export class BoundingTree {
  readonly #boxes: Float64Array;
  /** The box round all: least x, y, z, then most; as it was refitted last. */
  readonly box: Float64Array;
  /** By node: its left child, which the right one follows, or of a leaf where its triangles begin in `order`. */
  readonly #first: Int32Array;
  /** By node: how many triangles a leaf has; 0 for an inner node. */
  readonly #count: Int32Array;
  readonly #order: Uint32Array;
  readonly #nearest: NearestSearch;
  readonly #crossings: CrossingSearch;
  readonly #indices: Uint32Array;
  #positions: ArrayLike<number>;
  nodes = 1;
  readonly #waiting = new Int32Array(MOST_WAITING);
  readonly #distances = new Float64Array(MOST_WAITING);

  constructor(positions: ArrayLike<number>, indices: Uint32Array) {
    const triangles = indices.length / 3;
    this.#positions = positions;
    this.#indices = indices;
    this.#nearest = new NearestSearch(indices);
    this.#crossings = new CrossingSearch(indices);
    this.#order = Uint32Array.from({ length: triangles }, (_, i) => i);
    const most = Math.max(1, 2 * triangles);
    this.#boxes = new Float64Array(most * BOX_WORDS);
    this.box = this.#boxes.subarray(0, BOX_WORDS);
    this.#first = new Int32Array(most);
    this.#count = new Int32Array(most);
    const centres = new Float64Array(triangles * 3);
    for (let t = 0; t < triangles; t++)
      for (let k = 0; k < 3; k++)
        for (let axis = 0; axis < 3; axis++) centres[t * 3 + axis]! += positions[indices[t * 3 + k]! * 3 + axis]! / 3;
    this.#build(0, 0, triangles, centres);
    this.refit(positions);
  }

  #build(node: number, from: number, to: number, centres: Float64Array): void {
    if (to - from <= LEAF) {
      this.#first[node] = from;
      this.#count[node] = to - from;
      return;
    }
    let axis = 0;
    let widest = -1;
    for (let a = 0; a < 3; a++) {
      let [low, high] = [Infinity, -Infinity];
      for (let i = from; i < to; i++) {
        const x = centres[this.#order[i]! * 3 + a]!;
        low = Math.min(low, x);
        high = Math.max(high, x);
      }
      if (high - low > widest) [axis, widest] = [a, high - low];
    }
    // Half to either side, by place and then by number: the tree hangs on the mesh alone.
    this.#order.subarray(from, to).sort((a, b) => centres[a * 3 + axis]! - centres[b * 3 + axis]! || a - b);
    const middle = (from + to) >> 1;
    const left = this.nodes;
    this.nodes += 2;
    this.#first[node] = left;
    this.#build(left, from, middle, centres);
    this.#build(left + 1, middle, to, centres);
  }

  /**
   * Takes vertices at new places: every box is made anew, from the leaves up. With `earlier`, each box also holds where
   * its triangles were then, and so every way between the two.
   */
  refit(positions: ArrayLike<number>, earlier: ArrayLike<number> = positions): void {
    this.#positions = positions;
    for (let node = this.nodes - 1; node >= 0; node--)
      if (this.isLeaf(node)) this.#fitLeaf(node, positions, earlier);
      else this.#fitInner(node);
  }

  get isEmpty(): boolean {
    return this.#order.length === 0;
  }
  /** A mesh without triangles has one leaf, which is empty. */
  isLeaf(node: number): boolean {
    return this.#count[node]! > 0 || this.#order.length === 0;
  }
  leftOf(node: number): number {
    return this.#first[node]!;
  }
  rightOf(node: number): number {
    return this.#first[node]! + 1;
  }
  /** The word of the boxes at which a node's begins. */
  #boxAt(node: number): number {
    return node * BOX_WORDS;
  }

  #fitLeaf(node: number, p: ArrayLike<number>, q: ArrayLike<number>): void {
    const indices = this.#indices;
    const order = this.#order;
    let [lowX, lowY, lowZ] = [Infinity, Infinity, Infinity];
    let [highX, highY, highZ] = [-Infinity, -Infinity, -Infinity];
    const from = this.#first[node]!;
    const to = from + this.#count[node]!;
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
    const boxes = this.#boxes;
    const o = this.#boxAt(node);
    boxes[o] = lowX;
    boxes[o + 1] = lowY;
    boxes[o + 2] = lowZ;
    boxes[o + HIGH] = highX;
    boxes[o + HIGH + 1] = highY;
    boxes[o + HIGH + 2] = highZ;
  }

  #fitInner(node: number): void {
    const boxes = this.#boxes;
    const left = this.#boxAt(this.leftOf(node));
    const right = this.#boxAt(this.rightOf(node));
    const o = this.#boxAt(node);
    for (let axis = 0; axis < 3; axis++) {
      const a = boxes[left + axis]!;
      const b = boxes[right + axis]!;
      boxes[o + axis] = a < b ? a : b;
      const c = boxes[left + HIGH + axis]!;
      const d = boxes[right + HIGH + axis]!;
      boxes[o + HIGH + axis] = c > d ? c : d;
    }
  }

  /** Goes through the tree, nearer boxes first, and visits the triangles of every leaf that is worth entering. */
  search(search: TreeSearch): void {
    if (this.isEmpty) return;
    const boxes = this.#boxes;
    const waiting = this.#waiting;
    const distances = this.#distances;
    let top = 0;
    waiting[top] = 0;
    distances[top] = search.distanceTo(boxes, 0);
    if (distances[top++] === Infinity) return;
    while (top > 0) {
      const node = waiting[--top]!;
      if (distances[top]! > search.limit) continue;
      const first = this.#first[node]!;
      const count = this.#count[node]!;
      if (count > 0) {
        for (let i = first; i < first + count; i++) search.visit(this.#order[i]!);
        continue;
      }
      const left = search.distanceTo(boxes, first * BOX_WORDS);
      const right = search.distanceTo(boxes, (first + 1) * BOX_WORDS);
      const isLeft = left <= right;
      const far = isLeft ? right : left;
      if (far !== Infinity) {
        waiting[top] = isLeft ? first + 1 : first;
        distances[top++] = far;
      }
      const near = isLeft ? left : right;
      if (near === Infinity) continue;
      waiting[top] = isLeft ? first : first + 1;
      distances[top++] = near;
    }
  }

  /**
   * Writes the point of the mesh nearest to a place: its triangle, and the weights of that triangle's second and third
   * corners, to out[0..2]; returns the squared distance, Infinity when none is nearer than `within`. Of equally near
   * triangles the lowest is taken.
   */
  nearestInto(out: Float64Array, x: number, y: number, z: number, within = Infinity): number {
    const nearest = this.#nearest;
    nearest.begin(this.#positions, x, y, z, within);
    this.search(nearest);
    if (nearest.triangle < 0) return Infinity;
    out[0] = nearest.triangle;
    out[1] = nearest.second;
    out[2] = nearest.third;
    return nearest.limit;
  }

  /**
   * How many times a ray leaves the mesh less how many times it enters it: the winding number of its start, for closed
   * shells however they overlap. The direction should be no axis of the mesh's.
   */
  crossings(x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
    this.#crossings.begin(this.#positions, x, y, z, dx, dy, dz);
    this.search(this.#crossings);
    return this.#crossings.sum;
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
