import { RECORD_TO, RECORD_WORDS } from '../frame.ts';
import type { Population } from '../../run/population.ts';
import { METRES, type Curve, type Records } from './curve.ts';

/**
 * Strings particles, whose records follow one another as they live, together in the order of their births; `each` is called with every piece of strand. Along it a
 * particle counts as a metre, by its birth number, so that nothing moves along as others die.
 */
export function strandsInto(
  curve: Curve,
  records: Records,
  population: Population,
  strands: number,
  longest: number,
  each: () => void,
): void {
  for (let strand = 0; strand < strands; strand++) {
    curve.start();
    let last = -1;
    let record = -1;
    for (let i = 0; i < population.count; i++) {
      if (population.isDead(i)) continue;
      record++;
      const from = record * RECORD_WORDS;
      const number = population.number[i]!;
      if (number % strands !== strand) continue;
      if (last >= 0 && longest > 0 && apart(records.records, last, from) > longest) {
        each();
        curve.start();
      }
      last = from;
      const at = curve.addRecord(records, record);
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
