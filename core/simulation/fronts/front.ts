import {
  actingValue,
  FRONT_SETTINGS,
  type Effect,
  type Front,
  type NumberSetting,
  type Place,
} from '../../document/index.ts';
import { slotOf, valueNoise } from '../../maths/index.ts';
import type { EffectClock } from '../time/clock.ts';
import { newReading, type Reading, setTime } from '../values/reading.ts';
import { NumberReader } from '../values/numberReader.ts';
import { VectorReader } from '../values/vectorReader.ts';

/** What a front needs to know of the stage: where places are. */
export interface FrontSurroundings {
  readonly effect: Pick<Effect, 'measures' | 'seed'>;
  readonly scene: { placeInto(m: Float64Array, place: Place, time: number, group: Float64Array | null): void };
  readonly clock: EffectClock;
  readonly dials: Reading['dials'];
}

/** Steps a second in which it is noted how far a border has come. */
const FURTHEST_RATE = 60;
/** Farther than anything, metres. */
const ALL = 1e6;

/** A release front at the start and at the end of a step. */
export class FrontReader {
  readonly #front: Front;
  readonly #around: FrontSurroundings;
  readonly #border: NumberReader;
  readonly #band: NumberReader;
  readonly #frees: 'within' | 'beyond' | 'band';
  readonly #noise: number;
  readonly #noiseSize: number;
  readonly #size: readonly number[];
  readonly #seed: number;
  readonly #start = new Float64Array(16);
  readonly #end = new Float64Array(16);
  readonly #reading: Reading;
  #borders = [0, 0];
  /** Half the width of the band, at both ends of the step. */
  #halves = [0, 0];
  /** Between which borders all has been freed by each step: least and most. */
  readonly #reached: (readonly [number, number])[] = [];
  #posedFrom = NaN;
  #posedTo = NaN;

  constructor(id: string, front: Front, around: FrontSurroundings) {
    this.#front = front;
    this.#around = around;
    const number = (name: 'border' | 'band' | 'noise' | 'noiseSize') =>
      new NumberReader(
        front.settings[name] as NumberSetting,
        FRONT_SETTINGS[name],
        `front/${id}/${name}`,
        around.effect,
      );
    this.#frees = actingValue(front.settings.frees, FRONT_SETTINGS.frees) as 'within' | 'beyond' | 'band';
    this.#border = number('border');
    this.#band = number('band');
    this.#noise = number('noise').atDials(around.dials);
    this.#noiseSize = number('noiseSize').atDials(around.dials);
    const size = new VectorReader(front.settings.size, FRONT_SETTINGS.size, `front/${id}/size`, around.effect);
    this.#size = size.atDials(around.dials);
    this.#seed = slotOf(`front/${id}/${around.effect.seed}`);
    this.#reading = { ...newReading(), dials: around.dials };
  }

  /** Takes a step, seconds of the effect's time. */
  pose(from: number, to: number): void {
    if (from === this.#posedFrom && to === this.#posedTo) return;
    const { scene, clock } = this.#around;
    [from, to].forEach((time, n) => {
      scene.placeInto(n === 0 ? this.#start : this.#end, this.#front.place, time, null);
      setTime(this.#reading, clock, time);
      this.#borders[n] = this.#border.read(this.#reading);
      this.#halves[n] = this.#frees === 'band' ? this.#band.read(this.#reading) / 2 : 0;
    });
    this.#posedFrom = from;
    this.#posedTo = to;
  }

  /** How far inward noise pushes the border at a place of rest: the same as long as the front is. */
  raggednessAt(x: number, y: number, z: number): number {
    if (this.#noise === 0) return 0;
    const size = this.#noiseSize;
    return this.#noise * valueNoise(x / size, y / size, z / size, this.#seed);
  }

  /** Writes a place of the world, at the start or the end of the step, in the front's own axes. */
  localInto(out: Float64Array, isEnd: boolean, x: number, y: number, z: number): void {
    const m = isEnd ? this.#end : this.#start;
    const [dx, dy, dz] = [x - m[12]!, y - m[13]!, z - m[14]!];
    for (let axis = 0; axis < 3; axis++)
      out[axis] = dx * m[axis * 4]! + dy * m[axis * 4 + 1]! + dz * m[axis * 4 + 2]!;
  }

  /** Metres from a place in the front's own axes out to the border, before noise: below 0 it lies within. */
  distance(local: Float64Array, isEnd: boolean): number {
    const [x, y, z] = [local[0]!, local[1]!, local[2]!];
    const border = this.#borders[isEnd ? 1 : 0]!;
    if (this.#front.kind === 'plane') return y - border;
    if (this.#front.kind === 'sphere') return Math.sqrt(x * x + y * y + z * z) - border;
    const [wide, tall, deep] = this.#size as [number, number, number];
    return Math.max(Math.abs(x) - wide / 2, Math.abs(y) - tall / 2, Math.abs(z) - deep / 2) - border;
  }

  /** Metres from what is free, of a place so far from the border at the start or the end of the step: at or below 0 it is. */
  apart(far: number, isEnd: boolean): number {
    if (this.#frees === 'within') return far;
    return this.#frees === 'beyond' ? -far : Math.abs(far) - this.#halves[isEnd ? 1 : 0]!;
  }

  /**
   * Share of the step at which what is freed reaches a place that lies `start` and `end` metres from the border: 0 where it
   * is there from the start, −1 where it does not come to it. A band that goes by within the step reaches it too.
   */
  reaches(start: number, end: number): number {
    const before = this.apart(start, false);
    if (before <= 0) return 0;
    // On its other side at the end, a place was passed by the nearer edge of the band.
    const isPassed = this.#frees === 'band' && start > 0 !== end > 0;
    const after = isPassed ? -Math.abs(end) - this.#halves[1]! : this.apart(end, true);
    return after <= 0 ? before / (before - after) : -1;
  }
  /** Whether a place so far from the border at the end of the step cannot be reached in it, wherever it was. */
  isOutOfReach(end: number): boolean {
    return this.#frees === 'within' && end > this.#noise;
  }

  /** Between which distances from a border at 0 all has been freed by a time, step by step from the effect's beginning: what was freed stays free. */
  freedBy(time: number): readonly [number, number] {
    const { clock } = this.#around;
    const steps = Math.max(0, Math.floor((time - clock.beginsAt) * FURTHEST_RATE + 1e-6));
    const known = this.#reached;
    while (known.length <= steps) {
      const before = known[known.length - 1] ?? [Infinity, -Infinity];
      known.push(this.#wider(before, clock.beginsAt + known.length / FURTHEST_RATE));
    }
    return this.#wider(known[steps]!, time);
  }
  #wider([low, high]: readonly [number, number], time: number): readonly [number, number] {
    setTime(this.#reading, this.#around.clock, time);
    const border = this.#border.read(this.#reading);
    if (this.#frees === 'within') return [-ALL, Math.max(high, border)];
    if (this.#frees === 'beyond') return [Math.min(low, border), ALL];
    const half = this.#band.read(this.#reading) / 2;
    return [Math.min(low, border - half), Math.max(high, border + half)];
  }

  /** The most that noise can push the border. */
  get mostRagged(): number {
    return this.#noise;
  }
  /** Metres a rag. */
  get ragSize(): number {
    return this.#noiseSize;
  }
  /** What the noise begins with, an integer. */
  get seed(): number {
    return this.#seed;
  }
  get kind(): Front['kind'] {
    return this.#front.kind;
  }
  /** Width, height and depth of a box at a border of 0, metres. */
  get size(): readonly number[] {
    return this.#size;
  }
  /** Where it stands at the start and the end of the step that was taken last. */
  get from(): Float64Array {
    return this.#start;
  }
  get to(): Float64Array {
    return this.#end;
  }
}
