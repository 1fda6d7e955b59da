import { hash2, mixVec, subtract, unit, type Vec3 } from '../../maths/index.ts';
import { AT, CONTACT_WORDS, NORMAL, SHARE, type Body } from './body.ts';
import { Flight, type FlightShape } from '../scene/flight.ts';

/** The end of a flight: which one, when (seconds of the effect's time), where, and the way out of what it met. */
export interface FlightHit {
  readonly flight: number;
  readonly time: number;
  readonly at: Vec3;
  readonly normal: Vec3;
  /** Whether it came to its target, and met nothing before. */
  readonly isTarget: boolean;
}

/** Several flights thrown at once, each by its own way, until each has hit something. */
export class Volley {
  readonly flights: readonly Flight[];
  readonly #launchedAt: number;
  readonly #ended: boolean[];
  readonly #found = new Float64Array(CONTACT_WORDS);
  readonly #a = new Float64Array(3);
  readonly #b = new Float64Array(3);

  /** `count` flights from one place at one instant; `key` draws the way of each. */
  constructor(shape: FlightShape, from: Vec3, target: Vec3, count: number, key: number, launchedAt: number) {
    this.flights = Array.from({ length: count }, (_, n) => new Flight(shape, from, target, hash2(key, n)));
    this.#launchedAt = launchedAt;
    this.#ended = this.flights.map(() => false);
  }

  get isOver(): boolean {
    return this.#ended.every((ended) => ended);
  }

  isFlying(flight: number): boolean {
    return !this.#ended[flight]!;
  }

  /**
   * Goes through a step (seconds of the effect's time), in which the target goes from one place to another and `bodies` have
   * been posed. Returns the ends of those that meet something, in order of time.
   */
  advance(from: number, to: number, targets: readonly [Vec3, Vec3], bodies: readonly Body[]): FlightHit[] {
    const hits: FlightHit[] = [];
    this.flights.forEach((flight, n) => {
      if (this.#ended[n] || to <= this.#launchedAt) return;
      const hit = this.#hitOf(flight, n, from, to, targets, bodies);
      if (!hit) return;
      this.#ended[n] = true;
      hits.push(hit);
    });
    return hits.sort((a, b) => a.time - b.time || a.flight - b.flight);
  }

  #hitOf(
    flight: Flight,
    n: number,
    from: number,
    to: number,
    [was, is]: readonly [Vec3, Vec3],
    bodies: readonly Body[],
  ): FlightHit | null {
    const [a, b, found] = [this.#a, this.#b, this.#found];
    const begins = Math.max(from, this.#launchedAt);
    const arrives = this.#launchedAt + flight.seconds;
    flight.placeInto(a, begins - this.#launchedAt, was);
    flight.placeInto(b, to - this.#launchedAt, is);
    const share = (begins - from) / (to - from);
    // One that arrives within the step goes on as fast in thought, and what it would meet beyond does not count.
    const last = Math.min(1, (arrives - from) / (to - from));
    if (last < 1 && last > share)
      for (let axis = 0; axis < 3; axis++)
        b[axis] = a[axis]! + ((b[axis]! - a[axis]!) * (1 - share)) / (last - share);
    let first = Infinity;
    let hit: FlightHit | null = null;
    for (const body of bodies) {
      if (!body.meet(found, share, a[0]!, a[1]!, a[2]!, b[0]!, b[1]!, b[2]!, 'both')) continue;
      const time = from + (to - from) * found[SHARE]!;
      if (time >= first || time > arrives) continue;
      first = time;
      hit = { flight: n, time, at: three(found, AT), normal: three(found, NORMAL), isTarget: false };
    }
    if (hit || arrives > to) return hit;
    const t = Math.max(0, Math.min(1, (arrives - from) / (to - from)));
    const target = mixVec(was, is, t);
    flight.placeInto(b, flight.seconds, target);
    const normal = unit(subtract(three(a, 0), three(b, 0)));
    return { flight: n, time: arrives, at: three(b, 0), normal, isTarget: true };
  }
}

const three = (words: Float64Array, o: number): Vec3 => [words[o]!, words[o + 1]!, words[o + 2]!];
