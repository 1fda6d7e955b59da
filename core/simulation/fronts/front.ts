import { FRONT_SETTINGS, type Effect, type Front, type NumberSetting, type Place } from '../../document/index.ts';
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

/** A release front at the start and at the end of a step. */
export class FrontReader {
  readonly #front: Front;
  readonly #around: FrontSurroundings;
  readonly #border: NumberReader;
  readonly #noise: number;
  readonly #noiseSize: number;
  readonly #size: readonly number[];
  readonly #seed: number;
  readonly #start = new Float64Array(16);
  readonly #end = new Float64Array(16);
  readonly #reading: Reading;
  #borders = [0, 0];
  readonly #furthest: number[] = [];
  #posedFrom = NaN;
  #posedTo = NaN;

  constructor(id: string, front: Front, around: FrontSurroundings) {
    this.#front = front;
    this.#around = around;
    const number = (name: 'border' | 'noise' | 'noiseSize') =>
      new NumberReader(
        front.settings[name] as NumberSetting,
        FRONT_SETTINGS[name],
        `front/${id}/${name}`,
        around.effect,
      );
    this.#border = number('border');
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

  /** Metres from a place in the front's own axes to the border, before noise: at or below 0 it has been passed. */
  distance(local: Float64Array, isEnd: boolean): number {
    const [x, y, z] = [local[0]!, local[1]!, local[2]!];
    const border = this.#borders[isEnd ? 1 : 0]!;
    if (this.#front.kind === 'plane') return y - border;
    if (this.#front.kind === 'sphere') return Math.sqrt(x * x + y * y + z * z) - border;
    const [wide, tall, deep] = this.#size as [number, number, number];
    return Math.max(Math.abs(x) - wide / 2, Math.abs(y) - tall / 2, Math.abs(z) - deep / 2) - border;
  }

  /** The furthest the border has come by a time, step by step from the effect's beginning: what was freed stays free. */
  furthestBy(time: number): number {
    const { clock } = this.#around;
    const steps = Math.max(0, Math.floor((time - clock.beginsAt) * FURTHEST_RATE + 1e-6));
    const known = this.#furthest;
    while (known.length <= steps) {
      setTime(this.#reading, clock, clock.beginsAt + known.length / FURTHEST_RATE);
      known.push(Math.max(known[known.length - 1] ?? -Infinity, this.#border.read(this.#reading)));
    }
    setTime(this.#reading, clock, time);
    return Math.max(known[steps]!, this.#border.read(this.#reading));
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
