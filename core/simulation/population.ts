import { layout } from '../kernels/index.ts';

/** The living particles of one layer: structure of arrays in the world's memory, in order of birth. */
export class Population {
  readonly base: number;
  readonly capacity: number;
  readonly stride: number;
  count = 0;
  /** Birth numbers given so far, refused ones included. */
  numbered = 0;
  born = 0;
  refused = 0;
  dead = 0;

  readonly position: readonly [Float32Array, Float32Array, Float32Array];
  readonly velocity: readonly [Float32Array, Float32Array, Float32Array];
  /** Where each is drawn from at the start of the step. */
  readonly from: readonly [Float32Array, Float32Array, Float32Array];
  readonly birthFraction: Float32Array;
  readonly life: Float32Array;
  readonly birthStep: Uint32Array;
  readonly key: Uint32Array;
  readonly number: Uint32Array;
  readonly spot: Uint32Array;
  readonly spotSecond: Float32Array;
  readonly spotThird: Float32Array;
  readonly #kept: readonly (Float32Array | Uint32Array)[];

  static bytes(capacity: number): number {
    return capacity * 4 * layout.FIELDS;
  }

  constructor(buffer: ArrayBufferLike, base: number, capacity: number) {
    this.base = base;
    this.capacity = capacity;
    this.stride = capacity * 4;
    const f32 = (field: number) => new Float32Array(buffer, base + field * this.stride, capacity);
    const u32 = (field: number) => new Uint32Array(buffer, base + field * this.stride, capacity);
    this.position = [f32(layout.PX), f32(layout.PY), f32(layout.PZ)];
    this.velocity = [f32(layout.VX), f32(layout.VY), f32(layout.VZ)];
    this.from = [f32(layout.FX), f32(layout.FY), f32(layout.FZ)];
    this.birthFraction = f32(layout.BIRTH_FRACTION);
    this.life = f32(layout.LIFE);
    this.birthStep = u32(layout.BIRTH_STEP);
    this.key = u32(layout.KEY);
    this.number = u32(layout.NUMBER);
    this.spot = u32(layout.SPOT);
    this.spotSecond = f32(layout.SPOT_1);
    this.spotThird = f32(layout.SPOT_2);
    this.#kept = [
      ...this.position,
      ...this.velocity,
      ...this.from,
      this.birthFraction,
      this.life,
      this.birthStep,
      this.key,
      this.number,
      this.spot,
      this.spotSecond,
      this.spotThird,
    ];
  }

  empty(): void {
    this.count = this.numbered = this.born = this.refused = this.dead = 0;
  }

  /** Steps lived by particle `i` at the start of step `step`, 0 for one born within it. */
  stepsLived(i: number, step: number): number {
    return Math.max(0, step - this.birthStep[i]! - this.birthFraction[i]!);
  }

  /** Keeps each present place as where the coming step is drawn from. */
  keepPlaces(): void {
    for (let axis = 0; axis < 3; axis++) this.from[axis]!.set(this.position[axis]!.subarray(0, this.count));
  }

  /** Removes particles for which `isOver` holds; the others keep their order. They move up a run at a time. */
  remove(isOver: (i: number) => boolean): void {
    const { count } = this;
    let kept = 0;
    let from = 0;
    while (from < count) {
      while (from < count && isOver(from)) from++;
      let to = from;
      while (to < count && !isOver(to)) to++;
      if (kept !== from && to > from) for (const field of this.#kept) field.copyWithin(kept, from, to);
      kept += to - from;
      from = to;
    }
    this.dead += count - kept;
    this.count = kept;
  }
}
