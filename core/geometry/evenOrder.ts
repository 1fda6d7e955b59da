import { draw } from '../maths/index.ts';
import type { Spot } from './skin.ts';

/** Random spots from which the order is chosen, for each spot of the order. */
const CANDIDATES_EACH = 16;

/**
 * Spots in an order of which every beginning is evenly spread: each next spot is the one farthest from all before it
 * (Gonzalez, 1985; Eldar and others, 1997, The Farthest Point Strategy for Progressive Image Sampling), among many
 * random ones. `place` writes a spot's rest place.
 */
export function evenOrder(
  count: number,
  candidate: (n: number) => Spot,
  place: (spot: Spot, out: Float64Array, o: number) => void,
): Spot[] {
  const total = count * CANDIDATES_EACH;
  const spots = Array.from({ length: total }, (_, n) => candidate(n));
  const at = new Float64Array(total * 3);
  spots.forEach((spot, n) => place(spot, at, n * 3));
  const distances = new Float64Array(total).fill(Infinity);
  const heap = new FarHeap(distances);
  const chosen: Spot[] = [];
  let grid: Grid | null = null;
  let cell = 0;
  let next = bestStart(at);
  while (chosen.length < count) {
    chosen.push(spots[next]!);
    const reach = Math.sqrt(distances[next]!);
    distances[next] = -1;
    if (chosen.length === 1) {
      for (let n = 0; n < total; n++) distances[n] = Math.min(distances[n]!, squaredDistance(at, n, next));
      heap.fill();
    } else {
      // Between half the reach and all of it: few points are looked at in vain.
      if (!grid || reach < cell) {
        cell = reach / 2;
        grid = new Grid(at, cell);
      }
      grid.bringNearer(distances, next, reach);
    }
    next = heap.farthest();
  }
  return chosen;
}

function squaredDistance(at: Float64Array, a: number, b: number): number {
  const x = at[a * 3]! - at[b * 3]!;
  const y = at[a * 3 + 1]! - at[b * 3 + 1]!;
  const z = at[a * 3 + 2]! - at[b * 3 + 2]!;
  return x * x + y * y + z * z;
}

/** Starts that are tried, candidates each is tried on, and points it is judged by. */
const STARTS = 24;
const TRIED_ON = 1500;
const JUDGED_BY = 16;

/**
 * The first few points depend on where the order begins, the rest hardly: of several beginnings, the one whose first
 * points lie farthest apart on the mean, for their number.
 */
function bestStart(at: Float64Array): number {
  const count = Math.min(TRIED_ON, at.length / 3);
  const squared = (a: number, b: number) => squaredDistance(at, a, b);
  let best = 0;
  let bestScore = -1;
  for (let start = 0; start < Math.min(STARTS, count); start++) {
    const distances = Float64Array.from({ length: count }, (_, n) => squared(n, start));
    const chosen = [start];
    const nearest = [Infinity];
    let score = Infinity;
    while (chosen.length < Math.min(JUDGED_BY, count)) {
      let next = 0;
      for (let n = 1; n < count; n++) if (distances[n]! > distances[next]!) next = n;
      chosen.forEach((other, i) => (nearest[i] = Math.min(nearest[i]!, Math.sqrt(squared(other, next)))));
      nearest.push(Math.sqrt(distances[next]!));
      chosen.push(next);
      for (let n = 0; n < count; n++) distances[n] = Math.min(distances[n]!, squared(n, next));
      const mean = nearest.reduce((sum, d) => sum + d, 0) / chosen.length;
      score = Math.min(score, mean * Math.sqrt(chosen.length));
    }
    if (score > bestScore) [best, bestScore] = [start, score];
  }
  return best;
}

/** Candidates by their distance to what was chosen, farthest first; distances only shrink, so entries sink when looked at. */
class FarHeap {
  readonly #distances: Float64Array;
  readonly #heap: Int32Array;
  /** What was known last of the distance of each, in the order of the heap. */
  readonly #known: Float64Array;

  constructor(distances: Float64Array) {
    this.#distances = distances;
    this.#heap = Int32Array.from(distances, (_, i) => i);
    this.#known = new Float64Array(distances.length);
  }

  fill(): void {
    for (let i = 0; i < this.#heap.length; i++) this.#known[i] = this.#distances[this.#heap[i]!]!;
    for (let i = this.#heap.length >> 1; i >= 0; i--) this.#sink(i);
  }

  /** Whether the entry at `a` comes before one at `distance` of the candidate `n`: of the same distance, the lower number. */
  #isBefore(a: number, distance: number, n: number): boolean {
    const known = this.#known[a]!;
    return known > distance || (known === distance && this.#heap[a]! < n);
  }

  #sink(start: number): void {
    const [heap, known] = [this.#heap, this.#known];
    const [candidate, distance] = [heap[start]!, known[start]!];
    let i = start;
    for (;;) {
      let child = 2 * i + 1;
      if (child >= heap.length) break;
      if (child + 1 < heap.length && this.#isBefore(child + 1, known[child]!, heap[child]!)) child++;
      if (!this.#isBefore(child, distance, candidate)) break;
      heap[i] = heap[child]!;
      known[i] = known[child]!;
      i = child;
    }
    heap[i] = candidate;
    known[i] = distance;
  }

  farthest(): number {
    for (;;) {
      const top = this.#heap[0]!;
      if (this.#known[0] === this.#distances[top]) return top;
      this.#known[0] = this.#distances[top]!;
      this.#sink(0);
    }
  }
}

/** Cells that a grid has at most: where more would be needed, they are larger. */
const MOST_CELLS = 1 << 21;

/** Points by the cells that they lie in, cell after cell. */
class Grid {
  readonly #at: Float64Array;
  readonly #cell: number;
  readonly #low = [Infinity, Infinity, Infinity];
  readonly #across: readonly number[];
  /** Where the points of a cell begin; those of a cell end where those of the next begin. */
  readonly #starts: Int32Array;
  /** The points, and their places in the same order. */
  readonly #points: Int32Array;
  readonly #places: Float64Array;

  constructor(at: Float64Array, cell: number) {
    const count = at.length / 3;
    const high = [-Infinity, -Infinity, -Infinity];
    for (let n = 0; n < count; n++)
      for (let axis = 0; axis < 3; axis++) {
        this.#low[axis] = Math.min(this.#low[axis]!, at[n * 3 + axis]!);
        high[axis] = Math.max(high[axis]!, at[n * 3 + axis]!);
      }
    const sizes = high.map((value, axis) => value - this.#low[axis]!);
    const cellsOf = (size: number) => sizes.map((length) => Math.floor(length / size) + 1);
    let fitting = Math.max(cell, 1e-12);
    while (cellsOf(fitting).reduce((product, cells) => product * cells, 1) > MOST_CELLS) fitting *= 2;
    this.#at = at;
    this.#cell = fitting;
    this.#across = cellsOf(fitting);
    const cells = this.#across[0]! * this.#across[1]! * this.#across[2]!;
    const cellOf = new Int32Array(count);
    for (let n = 0; n < count; n++)
      cellOf[n] = this.#number(
        this.#along(0, at[n * 3]!),
        this.#along(1, at[n * 3 + 1]!),
        this.#along(2, at[n * 3 + 2]!),
      );
    this.#starts = new Int32Array(cells + 1);
    for (let n = 0; n < count; n++) this.#starts[cellOf[n]! + 1]!++;
    for (let n = 0; n < cells; n++) this.#starts[n + 1]! += this.#starts[n]!;
    const next = this.#starts.slice();
    this.#points = new Int32Array(count);
    for (let n = 0; n < count; n++) this.#points[next[cellOf[n]!]!++] = n;
    this.#places = new Float64Array(count * 3);
    for (let i = 0; i < count; i++)
      for (let axis = 0; axis < 3; axis++) this.#places[i * 3 + axis] = at[this.#points[i]! * 3 + axis]!;
  }

  #along(axis: number, value: number): number {
    const at = Math.floor((value - this.#low[axis]!) / this.#cell);
    return Math.min(this.#across[axis]! - 1, Math.max(0, at));
  }
  #number(x: number, y: number, z: number): number {
    return (x * this.#across[1]! + y) * this.#across[2]! + z;
  }

  /** Lowers the squared distances of all points to those from point `n`, where these are less; they are at most `reach`. */
  bringNearer(distances: Float64Array, n: number, reach: number): void {
    const [x, y, z] = [this.#at[n * 3]!, this.#at[n * 3 + 1]!, this.#at[n * 3 + 2]!];
    const [lowX, highX] = [this.#along(0, x - reach), this.#along(0, x + reach)];
    const [lowY, highY] = [this.#along(1, y - reach), this.#along(1, y + reach)];
    const [lowZ, highZ] = [this.#along(2, z - reach), this.#along(2, z + reach)];
    for (let cellX = lowX; cellX <= highX; cellX++)
      for (let cellY = lowY; cellY <= highY; cellY++) {
        // Cells that follow each other along the last axis lie one after another.
        const from = this.#starts[this.#number(cellX, cellY, lowZ)]!;
        const to = this.#starts[this.#number(cellX, cellY, highZ) + 1]!;
        lowerDistances(distances, this.#points, this.#places, from, to, x, y, z);
      }
  }
}

function lowerDistances(
  distances: Float64Array,
  points: Int32Array,
  places: Float64Array,
  from: number,
  to: number,
  x: number,
  y: number,
  z: number,
): void {
  for (let i = from; i < to; i++) {
    const dx = places[i * 3]! - x;
    const dy = places[i * 3 + 1]! - y;
    const dz = places[i * 3 + 2]! - z;
    const squared = dx * dx + dy * dy + dz * dz;
    if (squared < distances[points[i]!]!) distances[points[i]!] = squared;
  }
}

/** Three random numbers for candidate `n`: the same for a mesh wherever it is used. */
export const candidateDraws = (n: number): [number, number, number] => [draw(n, 1), draw(n, 2), draw(n, 3)];
