import type { Vector3 } from 'three';

/** Steps of depth between the nearest and the furthest particle. */
const DEPTHS = 65_536;
const DIGITS = 256;

/** The order in which a layer's particles are drawn: the last is in front. Sorted by counting (radix), without allocating. */
export class Order {
  #indices = new Uint32Array(0);
  #other = new Uint32Array(0);
  #depths = new Float32Array(0);
  #digits = new Uint16Array(0);
  readonly #counts = new Uint32Array(DIGITS);
  #isPlain = true;

  #reserve(count: number): void {
    if (count <= this.#indices.length) return;
    const size = Math.max(256, 2 ** Math.ceil(Math.log2(count)));
    this.#indices = new Uint32Array(size);
    this.#other = new Uint32Array(size);
    this.#depths = new Float32Array(size);
    this.#digits = new Uint16Array(size);
  }

  /** As they were born, the newest in front, or the other way round. */
  plain(count: number, isReversed: boolean): void {
    this.#isPlain = !isReversed;
    if (!isReversed) return;
    this.#reserve(count);
    for (let n = 0; n < count; n++) this.#indices[n] = count - 1 - n;
  }

  /**
   * The nearest in front: `count` places of three numbers from word `at` on, `stride` words apart, seen from `eye` along
   * `way`. Those equally far stay as they were born. Returns whether there is an order.
   */
  byDepth(words: Float32Array, at: number, stride: number, count: number, eye: Vector3, way: Vector3): boolean {
    this.#reserve(count);
    this.#isPlain = false;
    let [nearest, furthest] = [Infinity, -Infinity];
    for (let n = 0; n < count; n++) {
      const o = at + n * stride;
      // Rounded as it is kept: a furthest kept a hair further than the furthest found would count as the nearest.
      const depth = Math.fround(
        (words[o]! - eye.x) * way.x + (words[o + 1]! - eye.y) * way.y + (words[o + 2]! - eye.z) * way.z,
      );
      this.#depths[n] = depth;
      if (depth < nearest) nearest = depth;
      if (depth > furthest) furthest = depth;
    }
    const scale = furthest > nearest ? (DEPTHS - 1) / (furthest - nearest) : 0;
    for (let n = 0; n < count; n++) {
      this.#digits[n] = (furthest - this.#depths[n]!) * scale;
      this.#other[n] = n;
    }
    this.#pass(this.#other, this.#indices, 0, count);
    this.#pass(this.#indices, this.#other, 8, count);
    [this.#indices, this.#other] = [this.#other, this.#indices];
    return true;
  }

  #pass(from: Uint32Array, to: Uint32Array, shift: number, count: number): void {
    const counts = this.#counts.fill(0);
    for (let n = 0; n < count; n++) counts[(this.#digits[n]! >> shift) & 255]!++;
    let sum = 0;
    for (let d = 0; d < DIGITS; d++) {
      const here = counts[d]!;
      counts[d] = sum;
      sum += here;
    }
    for (let n = 0; n < count; n++) {
      const index = from[n]!;
      to[counts[(this.#digits[index]! >> shift) & 255]!++] = index;
    }
  }

  /** Copies `count` records of `width` words from word `at` on into `out`, in this order. */
  copy(words: Float32Array, at: number, width: number, count: number, out: Float32Array): void {
    if (this.#isPlain) {
      out.set(words.subarray(at, at + count * width));
      return;
    }
    for (let n = 0; n < count; n++) {
      const from = at + this.#indices[n]! * width;
      const to = n * width;
      for (let w = 0; w < width; w++) out[to + w] = words[from + w]!;
    }
  }
}
