import { draw, hash2 } from '../maths/index.ts';
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
  let grid = new Grid(at, Infinity);
  let next = bestStart(at);
  while (chosen.length < count) {
    chosen.push(spots[next]!);
    const reach = Math.sqrt(distances[next]!);
    distances[next] = -1;
    const radius = chosen.length === 1 ? Infinity : reach;
    if (radius < grid.cell / 2) grid = new Grid(at, radius);
    const [x, y, z] = [at[next * 3]!, at[next * 3 + 1]!, at[next * 3 + 2]!];
    grid.near(x, y, z, radius, (n) => {
      const [dx, dy, dz] = [at[n * 3]! - x, at[n * 3 + 1]! - y, at[n * 3 + 2]! - z];
      const squared = dx * dx + dy * dy + dz * dz;
      if (squared < distances[n]!) distances[n] = squared;
    });
    if (chosen.length === 1) heap.fill();
    next = heap.farthest();
  }
  return chosen;
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
  const squared = (a: number, b: number) => {
    const [x, y, z] = [at[a * 3]! - at[b * 3]!, at[a * 3 + 1]! - at[b * 3 + 1]!, at[a * 3 + 2]! - at[b * 3 + 2]!];
    return x * x + y * y + z * z;
  };
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
  readonly #known: Float64Array;

  constructor(distances: Float64Array) {
    this.#distances = distances;
    this.#heap = Int32Array.from(distances, (_, i) => i);
    this.#known = new Float64Array(distances.length);
  }

  fill(): void {
    this.#known.set(this.#distances);
    for (let i = this.#heap.length >> 1; i >= 0; i--) this.#sink(i);
  }

  #isBefore(a: number, b: number): boolean {
    return this.#known[a]! > this.#known[b]! || (this.#known[a] === this.#known[b] && a < b);
  }

  #sink(start: number): void {
    const heap = this.#heap;
    let i = start;
    for (;;) {
      let largest = i;
      for (const child of [2 * i + 1, 2 * i + 2])
        if (child < heap.length && this.#isBefore(heap[child]!, heap[largest]!)) largest = child;
      if (largest === i) return;
      [heap[i], heap[largest]] = [heap[largest]!, heap[i]!];
      i = largest;
    }
  }

  farthest(): number {
    for (;;) {
      const top = this.#heap[0]!;
      if (this.#known[top] === this.#distances[top]) return top;
      this.#known[top] = this.#distances[top]!;
      this.#sink(0);
    }
  }
}

/** Points in cells of a size, for those near a place. */
class Grid {
  readonly cell: number;
  readonly #cells = new Map<number, number[]>();
  readonly #count: number;

  constructor(at: Float64Array, cell: number) {
    this.cell = cell;
    this.#count = at.length / 3;
    if (cell === Infinity) return;
    for (let n = 0; n < this.#count; n++) {
      const key = this.#key(
        ...(this.#cellOf(at[n * 3]!, at[n * 3 + 1]!, at[n * 3 + 2]!) as [number, number, number]),
      );
      const list = this.#cells.get(key);
      if (list) list.push(n);
      else this.#cells.set(key, [n]);
    }
  }

  #cellOf(x: number, y: number, z: number): number[] {
    return [Math.floor(x / this.cell), Math.floor(y / this.cell), Math.floor(z / this.cell)];
  }

  #key(x: number, y: number, z: number): number {
    return hash2(hash2(x, y), z);
  }

  near(x: number, y: number, z: number, radius: number, visit: (n: number) => void): void {
    if (this.cell === Infinity) {
      for (let n = 0; n < this.#count; n++) visit(n);
      return;
    }
    const low = this.#cellOf(x - radius, y - radius, z - radius);
    const high = this.#cellOf(x + radius, y + radius, z + radius);
    for (let i = low[0]!; i <= high[0]!; i++)
      for (let j = low[1]!; j <= high[1]!; j++)
        for (let k = low[2]!; k <= high[2]!; k++) this.#cells.get(this.#key(i, j, k))?.forEach(visit);
  }
}

/** Three random numbers for candidate `n`: the same for a mesh wherever it is used. */
export const candidateDraws = (n: number): [number, number, number] => [draw(n, 1), draw(n, 2), draw(n, 3)];
