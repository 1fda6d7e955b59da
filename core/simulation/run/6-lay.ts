import type { EffectClock } from '../time/clock.ts';
import { grown } from '../values/grown.ts';
import { newReading, setTime, type Reading } from '../values/reading.ts';
import { type Population, NEVER } from './population.ts';
import type { Running } from './running.ts';
import { KeyTable } from './keyTable.ts';
import type { BoundTrail } from '../compile/plan.ts';

/** A layer's trails as they run: the points that were laid are a population of their own. */
export interface Trail extends Running {
  bound: BoundTrail;
  readonly heads: Running;
}

export interface LayingStep {
  readonly step: number;
  readonly from: number;
  /** Steps a second. */
  readonly rate: number;
  readonly clock: EffectClock;
  readonly dials: Reading['dials'];
}

/** Corners of a particle's way within one step, at most: where it was, what it hit, where it is. */
const MOST_CORNERS = 16;

/** Points nearer than this are one, metres. */
const NEAR = 1e-5;

/** Lays the points of trails behind the particles of a layer, on the way each has come in a step. */
export class Laying {
  readonly #last = new KeyTable();
  readonly #reading = newReading();
  /** Corners of the way at hand: x, y, z and the share of the step. */
  readonly #way = new Float64Array(MOST_CORNERS * 4);
  #corners = 0;
  #end = 1;
  /** Metres on in the step at which points are due. */
  #due = new Float64Array(64);
  #dueCount = 0;

  /** To be called when the particles have moved and met surfaces, before the dead of the step are cleared away. */
  lay(heads: Running, trails: readonly Trail[], moment: LayingStep): void {
    if (trails.length === 0) return;
    for (const trail of trails) this.#layOne(heads, trail, moment);
    this.#count(heads, moment);
  }

  #layOne({ compiled, population: heads, hits }: Running, trail: Trail, moment: LayingStep): void {
    const { population: points, bound } = trail;
    this.#reading.dials = moment.dials;
    this.#reading.channels = compiled.channels;
    this.#reading.around = compiled.around;
    this.#last.clear(points.count + heads.count);
    for (let n = 0; n < points.count; n++) if (!points.isDead(n)) this.#last.set(points.key[n]!, n);
    let hit = 0;
    let hasGone = false;
    for (let i = 0; i < heads.count; i++) {
      if (heads.isDead(i) || heads.isHeld(i)) continue;
      while (hit < hits.count && hits.particle[hit]! < i) hit++;
      this.#findWay(heads, hits, hit, i, moment);
      const isNew = heads.birthStep[i] === moment.step;
      this.#findDue(bound, heads, i, moment);
      if (isNew) this.#want(0);
      this.#due.subarray(0, this.#dueCount).sort();
      for (let n = 0; n < this.#dueCount; n++)
        if (n === 0 || this.#due[n]! - this.#due[n - 1]! > NEAR) this.#put(trail, heads, i, this.#due[n]!, moment);
      if (heads.deathStep[i]! > moment.step + 1) continue;
      if (bound.goesToo) hasGone = true;
      else this.#put(trail, heads, i, this.#length(), moment, true);
    }
    if (hasGone) this.#endWithHeads(heads, points, moment);
  }

  /** Whoever's particle dies in this step dies with it. */
  #endWithHeads(heads: Population, points: Population, { step }: LayingStep): void {
    this.#last.clear(heads.count);
    for (let i = 0; i < heads.count; i++)
      if (!heads.isDead(i) && heads.deathStep[i]! <= step + 1) this.#last.set(heads.key[i]!, i);
    for (let n = 0; n < points.count; n++)
      if (this.#last.get(points.key[n]!) >= 0) points.deathStep[n] = Math.min(points.deathStep[n]!, step + 1);
  }

  /** Finds the way of particle `i` in the step: straight from corner to corner, until it dies. */
  #findWay(heads: Population, hits: Running['hits'], firstHit: number, i: number, { step, rate }: LayingStep): void {
    this.#corners = 0;
    const born = heads.birthStep[i] === step ? heads.birthFraction[i]! : 0;
    this.#corner(heads.from[0][i]!, heads.from[1][i]!, heads.from[2][i]!, born);
    for (let n = firstHit; n < hits.count && hits.particle[n] === i && this.#corners < MOST_CORNERS - 1; n++)
      this.#corner(hits.where[n * 6]!, hits.where[n * 6 + 1]!, hits.where[n * 6 + 2]!, hits.share[n]!);
    this.#corner(heads.position[0][i]!, heads.position[1][i]!, heads.position[2][i]!, 1);
    const life = heads.life[i]!;
    const natural = life > 0 ? heads.birthStep[i]! + heads.birthFraction[i]! + life * rate - step : 1;
    this.#end = heads.deathStep[i]! <= step + 1 ? Math.max(born, Math.min(1, natural)) : 1;
  }

  #corner(x: number, y: number, z: number, share: number): void {
    const at = this.#corners++ * 4;
    this.#way[at] = x;
    this.#way[at + 1] = y;
    this.#way[at + 2] = z;
    this.#way[at + 3] = share;
  }

  /** Metres from corner `c` to the next, as far as it is gone. */
  #pieceLength(c: number): number {
    const way = this.#way;
    const [a, b] = [c * 4, c * 4 + 4];
    const [from, to] = [way[a + 3]!, way[b + 3]!];
    const gone = to > from ? Math.max(0, Math.min(1, (this.#end - from) / (to - from))) : this.#end >= to ? 1 : 0;
    const [x, y, z] = [way[b]! - way[a]!, way[b + 1]! - way[a + 1]!, way[b + 2]! - way[a + 2]!];
    return Math.sqrt(x * x + y * y + z * z) * gone;
  }

  #length(): number {
    let sum = 0;
    for (let c = 0; c + 1 < this.#corners; c++) sum += this.#pieceLength(c);
    return sum;
  }

  #want(metres: number): void {
    this.#due = grown(this.#due, this.#dueCount + 1);
    this.#due[this.#dueCount++] = metres;
  }

  /** Finds where points are due: at every so-manyth metre since the particle's birth, at every hit, and by time where asked for. */
  #findDue(bound: BoundTrail, heads: Population, i: number, moment: LayingStep): void {
    this.#dueCount = 0;
    const reading = this.#reading;
    if (!bound.every.isConstant || !bound.seconds.isConstant)
      heads.readBirthInto(reading, i, moment.rate, moment.clock);
    const every = bound.every.read(reading) / bound.fineness;
    const seconds = bound.seconds.read(reading) / bound.fineness;
    const before = heads.travelled[i]!;
    const whole = this.#length();
    // What is counted is single precision: the next step begins where this one is counted to end.
    const last = Math.floor(Math.fround(before + whole) / every);
    for (let k = Math.floor(before / every) + 1; k <= last; k++) this.#want(Math.min(whole, k * every - before));
    let metres = 0;
    for (let c = 0; c + 2 < this.#corners; c++) {
      metres += this.#pieceLength(c);
      if (this.#way[c * 4 + 7]! < this.#end) this.#want(metres);
    }
    if (seconds === 0) return;
    const steps = seconds * moment.rate;
    const lived = heads.stepsLived(i, moment.step);
    const born = this.#way[3]!;
    const until = lived + this.#end - born;
    for (let k = Math.floor(lived / steps) + 1; k * steps <= until; k++)
      this.#want(this.#metresAt(born + k * steps - lived));
  }

  /** Metres gone in the step at a share of it. */
  #metresAt(share: number): number {
    const end = this.#end;
    this.#end = Math.min(share, end);
    const metres = this.#length();
    this.#end = end;
    return metres;
  }

  /** Lays a point so many metres on in the step. The one laid before it now has its end in sight. */
  #put(trail: Trail, heads: Population, i: number, metres: number, moment: LayingStep, isLast = false): void {
    const { step, rate, clock, from } = moment;
    const { population: points, bound } = trail;
    const reading = this.#reading;
    if (!bound.lasts.isConstant || !bound.drift.isConstant) {
      heads.readInto(reading, i, step, rate, clock.standingAge(from), clock.length);
      setTime(reading, clock, from);
    }
    const lasts = bound.lasts.read(reading);
    const drift = bound.drift.read(reading) / 100;
    const way = this.#way;
    let [c, left] = [0, metres];
    while (c + 2 < this.#corners && left > this.#pieceLength(c)) left -= this.#pieceLength(c++);
    const [a, b] = [c * 4, c * 4 + 4];
    const whole = Math.sqrt(
      (way[b]! - way[a]!) * (way[b]! - way[a]!) +
        (way[b + 1]! - way[a + 1]!) * (way[b + 1]! - way[a + 1]!) +
        (way[b + 2]! - way[a + 2]!) * (way[b + 2]! - way[a + 2]!),
    );
    const t = whole > 0 ? Math.min(1, left / whole) : 0;
    // A particle that stands still lays its last point where and when it dies.
    const share = isLast ? this.#end : way[a + 3]! + (way[b + 3]! - way[a + 3]!) * t;
    const key = heads.key[i]!;
    const before = this.#last.get(key);
    const instant = step + share;
    if (before >= 0 && points.deathStep[before] === NEVER)
      points.deathStep[before] = Math.max(step + 1, Math.ceil(instant + lastingOf(bound, points, before) * rate));
    if (points.living >= points.cap || points.count >= points.places) {
      points.refused++;
      return;
    }
    const n = points.count++;
    points.born++;
    this.#last.set(key, n);
    for (let axis = 0; axis < 3; axis++) {
      const velocity = heads.velocity[axis]![i]! * drift;
      points.position[axis]![n] = way[a + axis]! + (way[b + axis]! - way[a + axis]!) * t;
      points.velocity[axis]![n] = velocity;
      points.from[axis]![n] = heads.from[axis]![i]!;
      points.tint[axis]![n] = heads.tint[axis]![i]!;
    }
    points.birthStep[n] = step;
    points.birthFraction[n] = Math.min(0.99999, share);
    points.life[n] = lasts;
    points.deathStep[n] = isLast ? Math.ceil(instant + lastingOf(bound, points, n) * rate) : NEVER;
    points.key[n] = key;
    points.number[n] = points.numbered++;
    points.flags[n] = 0;
    points.spot[n] = points.spotSecond[n] = points.spotThird[n] = 0;
    points.scale[n] = heads.scale[i]!;
    points.travelled[n] = heads.travelled[i]! + metres;
  }

  /** Counts how far each has come. */
  #count({ population: heads, hits }: Running, moment: LayingStep): void {
    let hit = 0;
    for (let i = 0; i < heads.count; i++) {
      if (heads.isDead(i) || heads.isHeld(i)) continue;
      while (hit < hits.count && hits.particle[hit]! < i) hit++;
      this.#findWay(heads, hits, hit, i, moment);
      heads.travelled[i]! += this.#length();
    }
  }
}

/** How long a laid point stays, in seconds; what all share is known more precisely than what each carries. */
export const lastingOf = ({ lasts }: BoundTrail, points: Population, n: number): number =>
  lasts.isConstant ? lasts.low : points.life[n]!;
