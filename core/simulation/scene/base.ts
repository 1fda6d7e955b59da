import type { Vector } from '../../document/index.ts';
import { composeInto, IDENTITY, invertAffine, multiplyInto, rigidOf, type Rigid } from '../../maths/index.ts';
import { rotationInto } from './groups.ts';

/** Where a whole effect stands from a step on: metres of the world, degrees round X, then Y, then Z. */
export interface Placed {
  readonly step: number;
  readonly at: Vector;
  readonly turn: Vector;
}

/** The matrix of a place; null in the middle of the world. */
export function matrixOf(at: Vector, turn: Vector): Float64Array | null {
  if ([...at, ...turn].every((number) => number === 0)) return null;
  const matrix = new Float64Array(16);
  rotationInto(matrix, ...turn);
  for (let axis = 0; axis < 3; axis++) matrix[12 + axis] = at[axis]!;
  return matrix;
}

/** Nothing was put anywhere. */
export const NOWHERE: readonly Placed[] = [];

const MIDDLE: Rigid = { at: [0, 0, 0], turn: [0, 0, 0, 1] };
const rigidAt = (matrix: Float64Array | null): Rigid => (matrix ? rigidOf(matrix) : MIDDLE);

/**
 * Where a whole effect stands, before what carries it moves it, as a function of time: where it was put at first, and then
 * where it was put last. It goes from one place to the next in the step before that.
 */
export class Base {
  /** Where it was put at first, with all that its stage has in the world; null in the middle of that. */
  readonly first: Float64Array | null;
  readonly #places: () => readonly Placed[];
  readonly #rigid = new WeakMap<Placed, Rigid>();
  readonly #numbers = new Float64Array(10);
  readonly #copy = new Float64Array(16);
  #back: Float64Array | null = null;

  constructor(first: Float64Array | null = null, places: () => readonly Placed[] = () => NOWHERE) {
    [this.first, this.#places] = [first, places];
    this.#numbers.fill(1, 7);
  }

  /** Whether it is ever put elsewhere. */
  get moves(): boolean {
    return this.#places().length > 0;
  }

  /** Whether it stands in the middle of the world, unturned, for good. */
  get isMiddle(): boolean {
    return this.first === null && !this.moves;
  }

  /** What was put where so far: another list wherever that is not the same any more. */
  get places(): readonly Placed[] {
    return this.#places();
  }

  /** Writes what has moved it since the beginning, at a step, between two of them too. */
  movedInto(m: Float64Array, step: number): void {
    this.into(m, step);
    if (!this.first) return;
    this.#back ??= invertAffine(this.first, 0);
    this.#copy.set(m);
    multiplyInto(m, 0, this.#copy, 0, this.#back, 0);
  }

  /** Writes its matrix at a step, between two of them too. */
  into(m: Float64Array, step: number): void {
    const places = this.#places();
    let next = places.length;
    while (next > 0 && places[next - 1]!.step > step) next--;
    const share = next < places.length ? step - (places[next]!.step - 1) : 0;
    if (next === 0 && share <= 0) return m.set(this.first ?? IDENTITY);
    const from = next === 0 ? rigidAt(this.first) : this.#rigidOf(places[next - 1]!);
    this.#between(from, share > 0 ? this.#rigidOf(places[next]!) : from, share > 0 ? share : 0, m);
  }

  #rigidOf(placed: Placed): Rigid {
    const known = this.#rigid.get(placed) ?? rigidAt(matrixOf(placed.at, placed.turn));
    this.#rigid.set(placed, known);
    return known;
  }

  #between(a: Rigid, b: Rigid, share: number, m: Float64Array): void {
    const numbers = this.#numbers;
    let dot = 0;
    for (let n = 0; n < 4; n++) dot += a.turn[n]! * b.turn[n]!;
    const sign = dot < 0 ? -1 : 1;
    let squared = 0;
    for (let n = 0; n < 4; n++) {
      const value = a.turn[n]! + (sign * b.turn[n]! - a.turn[n]!) * share;
      numbers[3 + n] = value;
      squared += value * value;
    }
    const inverse = 1 / Math.sqrt(squared);
    for (let n = 0; n < 4; n++) numbers[3 + n]! *= inverse;
    for (let n = 0; n < 3; n++) numbers[n] = a.at[n]! + (b.at[n]! - a.at[n]!) * share;
    composeInto(m, 0, numbers, 0, numbers, 3, numbers, 7);
  }
}
