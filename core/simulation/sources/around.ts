import type { Place } from '../../document/index.ts';
import type { GroupFrame } from '../scene/groups.ts';
import type { Scene } from '../scene/scene.ts';
import type { SourceReader } from './source.ts';
import type { ReadingAround } from '../values/reading.ts';

/** Seconds over which the speed of a carrier is measured. */
const LOOK_BACK_SECONDS = 1 / 960;

/** What shapers of one layer may read of what is about its particles. Each answer is kept until another time is asked for. */
export class Around implements ReadingAround {
  readonly #source: SourceReader;
  readonly #aim: Place;
  readonly #scene: Scene;
  readonly #group: GroupFrame;
  readonly #matrix = new Float64Array(16);
  readonly #before = new Float64Array(3);
  readonly #now = new Float64Array(3);
  #aimedAt = NaN;
  #measuredAt = NaN;
  #speed = 0;

  constructor(source: SourceReader, aim: Place, scene: Scene, group: GroupFrame) {
    [this.#source, this.#aim, this.#scene, this.#group] = [source, aim, scene, group];
  }

  carrierSpeed(time: number): number {
    if (time === this.#measuredAt) return this.#speed;
    this.#source.originInto(this.#before, time - LOOK_BACK_SECONDS);
    this.#source.originInto(this.#now, time);
    this.#measuredAt = time;
    return (this.#speed = length(this.#now, this.#before) / LOOK_BACK_SECONDS);
  }

  aimDistance(x: number, y: number, z: number, time: number): number {
    const m = this.#matrix;
    if (time !== this.#aimedAt) this.#scene.placeInto(m, this.#aim, time, this.#group.matrix);
    this.#aimedAt = time;
    const [dx, dy, dz] = [x - m[12]!, y - m[13]!, z - m[14]!];
    return Math.sqrt(dx * dx + dy * dy + dz * dz);
  }
}

function length(a: Float64Array, b: Float64Array): number {
  const [x, y, z] = [a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!];
  return Math.sqrt(x * x + y * y + z * z);
}
