import { RECORD_BIRTH, RECORD_WORDS } from '../frame.ts';
import type { Dress } from '../dress.ts';
import type { Population } from '../../run/population.ts';
import { AGE, ARRIVES, FROM, METRES, POINT_WORDS, TO, type Curve, type Records } from './curve.ts';
import { KeyTable } from '../../run/keyTable.ts';
import { lastingOf, type Trail } from '../../run/6-lay.ts';
import type { RibbonLook } from './look.ts';
import type { DressMoment } from '../moment.ts';

/** Strings laid points together, particle by particle, each with its living particle as its head. */
export class TrailDrawer {
  readonly #look: RibbonLook;
  readonly #firsts = new KeyTable();
  readonly #heads = new KeyTable();
  /** By number of a ribbon: its last point so far. By point: the next of its ribbon, and the particle's place among points. */
  #ends = new Int32Array(64);
  #nexts = new Int32Array(64);
  #indices = new Int32Array(64);
  #starts = new Int32Array(64);
  #ribbons = 0;

  constructor(look: RibbonLook) {
    this.#look = look;
  }

  #reserve(count: number): void {
    if (count <= this.#nexts.length) return;
    const size = Math.max(count, this.#nexts.length * 2);
    this.#ends = new Int32Array(size);
    this.#nexts = new Int32Array(size);
    this.#indices = new Int32Array(size);
    this.#starts = new Int32Array(size);
  }

  /** Sorts the points by the particles that laid them; `records` are of the living, in the order of the population. */
  group({ population: points, heads: { population: heads } }: Trail): number {
    this.#reserve(points.count);
    this.#firsts.clear(points.count);
    this.#heads.clear(heads.count);
    for (let i = 0; i < heads.count; i++) if (!heads.isDead(i)) this.#heads.set(heads.key[i]!, i);
    this.#ribbons = 0;
    let record = 0;
    for (let n = 0; n < points.count; n++) {
      if (points.isDead(n)) continue;
      const known = this.#firsts.get(points.key[n]!);
      const ribbon = known >= 0 ? known : this.#ribbons++;
      if (known < 0) {
        this.#firsts.set(points.key[n]!, ribbon);
        this.#starts[ribbon] = record;
      } else this.#nexts[this.#ends[ribbon]!] = record;
      this.#ends[ribbon] = record;
      this.#nexts[record] = -1;
      this.#indices[record++] = n;
    }
    return this.#ribbons;
  }

  /** The key of the particle that a ribbon is behind. */
  keyOf(ribbon: number, { population: points }: Trail): number {
    return points.key[this.#indices[this.#starts[ribbon]!]!]!;
  }

  /** Writes the control points of a ribbon, from where it ends behind to the particle itself; returns the place of that, −1 where it lives no more. */
  write(curve: Curve, ribbon: number, trail: Trail, records: Records, dress: Dress, moment: DressMoment): number {
    const { population: points, heads, bound } = trail;
    curve.start();
    const seconds = (record: number) => points.stepsLived(this.#indices[record]!, moment.step) / moment.rate;
    const lasts = (record: number) => lastingOf(bound, points, this.#indices[record]!);
    let before = -1;
    for (let record = this.#starts[ribbon]!; record >= 0; record = this.#nexts[record]!) {
      const age = seconds(record);
      if (age <= lasts(record)) {
        if (before >= 0)
          this.#putBetween(
            curve,
            records,
            before,
            record,
            points,
            seconds(before) - lasts(before),
            age - lasts(record),
          );
        before = -1;
        this.#put(curve, records, record, points);
      } else before = record;
    }
    const i = this.#heads.get(this.keyOf(ribbon, trail));
    if (i < 0) return -1;
    const head = this.#putHead(curve, heads.population, i, dress, moment);
    if (before < 0) return i;
    // All that lies behind is past its time: the ribbon ends on the last way to the particle.
    const age = seconds(before);
    this.#put(curve, records, before, points);
    const tail = (curve.count - 1) * POINT_WORDS;
    blend(curve.points, tail, head, age > 0 ? (age - lasts(before)) / age : 1);
    curve.points[tail + AGE] = 1;
    swap(curve.points, head, tail);
    return i;
  }

  #put(curve: Curve, records: Records, record: number, points: Population): number {
    const at = curve.addRecord(records, record);
    const born = records.records[record * RECORD_WORDS + RECORD_BIRTH]!;
    if (born > 0) curve.points[at + ARRIVES] = born;
    curve.points[at + METRES] = points.travelled[this.#indices[record]!]!;
    return at;
  }

  /** The end of the ribbon: where on the way between two points it is as old as it may be. The older is `beyond` seconds past that. */
  #putBetween(
    curve: Curve,
    records: Records,
    older: number,
    younger: number,
    points: Population,
    beyond: number,
    within: number,
  ): void {
    const at = this.#put(curve, records, older, points);
    const next = this.#put(curve, records, younger, points);
    blend(curve.points, at, next, beyond > within ? beyond / (beyond - within) : 1);
    curve.points[at + AGE] = 1;
    curve.count--;
  }

  #putHead(curve: Curve, heads: Population, i: number, dress: Dress, moment: DressMoment): number {
    const at = curve.add();
    const out = curve.points;
    for (let axis = 0; axis < 3; axis++) {
      out[at + FROM + axis] = heads.from[axis]![i]!;
      out[at + TO + axis] = heads.position[axis]![i]!;
    }
    out[at + METRES] = heads.travelled[i]!;
    this.#look.dress(curve, at, 0, dress, moment, heads, i);
    return at;
  }
}

/** Moves a control point on to a share of the way to another. */
function blend(points: Float64Array, at: number, to: number, share: number): void {
  for (let word = 0; word < POINT_WORDS; word++)
    points[at + word]! += (points[to + word]! - points[at + word]!) * share;
}

function swap(points: Float64Array, a: number, b: number): void {
  for (let word = 0; word < POINT_WORDS; word++) {
    const kept = points[a + word]!;
    points[a + word] = points[b + word]!;
    points[b + word] = kept;
  }
}
