import {
  RECORD_AGE,
  RECORD_BIRTH,
  RECORD_COLOUR,
  RECORD_FROM,
  RECORD_NUMBER,
  RECORD_OPACITY,
  RECORD_SIZE,
  RECORD_TO,
  RECORD_WORDS,
} from '../frame.ts';
import { AGE, COLOUR, FROM, METRES, OPACITY, TO, WIDTH, type Curve } from './curve.ts';

/**
 * Strings particles together in the order of their births; `each` is called with every piece of strand. Along it a
 * particle counts as a metre, by its birth number, so that nothing moves along as others die.
 */
export function strandsInto(
  curve: Curve,
  records: Float32Array,
  words: Uint32Array,
  count: number,
  strands: number,
  longest: number,
  each: () => void,
): void {
  for (let strand = 0; strand < strands; strand++) {
    curve.start();
    let last = -1;
    for (let record = 0; record < count; record++) {
      const from = record * RECORD_WORDS;
      const number = words[from + RECORD_NUMBER]!;
      // Not born yet at the start of the step: it joins when its own first step is over.
      if (number % strands !== strand || records[from + RECORD_BIRTH]! >= 1) continue;
      if (last >= 0 && longest > 0 && apart(records, last, from) > longest) {
        each();
        curve.start();
      }
      last = from;
      const at = curve.add();
      for (let axis = 0; axis < 3; axis++) {
        curve.points[at + FROM + axis] = records[from + RECORD_FROM + axis]!;
        curve.points[at + TO + axis] = records[from + RECORD_TO + axis]!;
        curve.points[at + COLOUR + axis] = records[from + RECORD_COLOUR + axis]!;
      }
      curve.points[at + OPACITY] = records[from + RECORD_OPACITY]!;
      curve.points[at + WIDTH] = records[from + RECORD_SIZE]! / 2;
      curve.points[at + AGE] = records[from + RECORD_AGE]!;
      curve.points[at + METRES] = Math.floor(number / strands);
    }
    each();
  }
}

function apart(records: Float32Array, a: number, b: number): number {
  const [x, y, z] = [0, 1, 2].map((axis) => records[a + RECORD_TO + axis]! - records[b + RECORD_TO + axis]!) as [
    number,
    number,
    number,
  ];
  return Math.sqrt(x * x + y * y + z * z);
}
