import { draw } from '../../maths/index.ts';

/** Several values to draw one of, each as likely as its weight among all. */
export class Weighted<T> {
  readonly values: readonly T[];
  /** Whether all are equally likely. */
  readonly isEven: boolean;
  readonly #upTo: Float64Array;

  constructor(values: readonly { readonly value: T; readonly weight: number }[]) {
    this.values = values.map(({ value }) => value);
    this.isEven = values.every(({ weight }) => weight === values[0]!.weight);
    const sum = values.reduce((all, { weight }) => all + weight, 0);
    let before = 0;
    this.#upTo = Float64Array.from(values, ({ weight }) => (before += weight) / sum);
  }

  /** The number of the value that a key draws. */
  indexOf(key: number, slot: number): number {
    const thrown = draw(key, slot);
    const { length } = this.values;
    if (this.isEven) return Math.floor(thrown * length);
    let n = 0;
    while (n + 1 < length && thrown >= this.#upTo[n]!) n++;
    return n;
  }
}
