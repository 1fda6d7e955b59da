import { radians } from '../maths/index.ts';
import type { EffectClock } from './clock.ts';
import type { ColourReader, Reading } from './reader.ts';
import type { Numbers } from './compiled.ts';
import type { Population } from './population.ts';
import {
  RECORD_AGE,
  RECORD_ANGLE,
  RECORD_BIRTH,
  RECORD_COLOUR,
  RECORD_FROM,
  RECORD_NUMBER,
  RECORD_OPACITY,
  RECORD_SIZE,
  RECORD_TO,
  RECORD_TURNED,
  RECORD_WORDS,
  type Frame,
} from './frame.ts';

/** The settings of a layer that only dress its particles. */
export interface Dress {
  readonly numbers: Numbers;
  readonly colour: ColourReader;
}

const rgb = new Float64Array(3);

/**
 * Writes the records of a population as it stands at the end of step `step − 1`, dressed: functions of what each
 * particle carries and of the time, never kept in state.
 */
export function dressInto(
  frame: Frame,
  at: number,
  population: Population,
  dress: Dress,
  reading: Reading,
  step: number,
  rate: number,
  clock: EffectClock,
): void {
  const { f32, u32 } = frame;
  const { position, velocity, from } = population;
  const { numbers, colour } = dress;
  const time = step / rate;
  reading.effectTime = clock.share(time);
  const standingAge = clock.standingAge(time);
  for (let i = 0; i < population.count; i++) {
    const seconds = population.stepsLived(i, step) / rate;
    const life = population.life[i]!;
    const isStanding = life === 0;
    reading.key = population.key[i]!;
    reading.life = isStanding ? Math.max(clock.length, 0.02) : life;
    reading.age = isStanding ? standingAge : Math.min(1, seconds / life);
    const [vx, vy, vz] = [velocity[0][i]!, velocity[1][i]!, velocity[2][i]!];
    reading.speed = Math.sqrt(vx * vx + vy * vy + vz * vz);

    const o = at + i * RECORD_WORDS;
    for (let axis = 0; axis < 3; axis++) {
      f32[o + RECORD_FROM + axis] = from[axis]![i]!;
      f32[o + RECORD_TO + axis] = position[axis]![i]!;
    }
    f32[o + RECORD_BIRTH] = population.birthStep[i] === step - 1 ? population.birthFraction[i]! : 0;
    const turned = radians(numbers['life.turning'].read(reading));
    f32[o + RECORD_ANGLE] = radians(numbers['life.angle'].read(reading)) + turned * seconds;
    f32[o + RECORD_TURNED] = turned / rate;
    colour.readInto(reading, rgb);
    const intensity = numbers['life.intensity'].read(reading);
    for (let c = 0; c < 3; c++) f32[o + RECORD_COLOUR + c] = rgb[c]! * intensity;
    f32[o + RECORD_OPACITY] = numbers['life.opacity'].read(reading) / 100;
    f32[o + RECORD_SIZE] = numbers['life.size'].read(reading);
    f32[o + RECORD_AGE] = reading.age;
    u32[o + RECORD_NUMBER] = population.number[i]!;
  }
}
