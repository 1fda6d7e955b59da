import { radians } from '../../maths/index.ts';
import type { Population } from '../run/population.ts';
import type { NumberReader } from '../values/numberReader.ts';
import type { EffectClock } from '../time/clock.ts';
import { setTime, type Reading } from '../values/reading.ts';
import { degreesIn, SHAPED, type Dress } from './dress.ts';

/** A number that no table serves: the array it goes to, and what it is for particle `i`, `seconds` after its birth. */
interface UntabledNumber {
  readonly array: number;
  read(reading: Reading, seconds: number, population: Population, i: number, clock: EffectClock): number;
}

/** What of a dress is read for each particle of every frame. */
export interface Untabled {
  readonly each: readonly UntabledNumber[];
  readonly hasColour: boolean;
}

/** Parts of a life over which a turn is summed where no table serves. */
const TURN_PARTS = 32;

export function untabledOf(dress: Dress): Untabled {
  const { numbers, colour, life, holds } = dress;
  const [size, opacity, intensity] = SHAPED.map(([name]) =>
    numbers[name].tableInput(life) === 'age' ? null : numbers[name],
  );
  const turning = numbers['life.turning'];
  const angle = numbers['life.angle'];
  const isTurnRead = isReadTurning(turning, life) || isReadAngle(angle);
  const each: UntabledNumber[] = [];
  if (holds) {
    // What is held has its own size and opacity, whatever a newborn has.
    const [heldSize, heldOpacity] = [numbers['release.heldSize'], numbers['release.heldOpacity']];
    const [plainSize, plainOpacity] = [numbers['life.size'], numbers['life.opacity']];
    each.push({
      array: 0,
      read: (reading, _, population, i) =>
        population.isHeld(i) ? (plainSize.base(reading.key) * heldSize.read(reading)) / 100 : plainSize.read(reading),
    });
    each.push({
      array: 1,
      read: (reading, _, population, i) => (population.isHeld(i) ? heldOpacity : plainOpacity).read(reading) / 100,
    });
  }
  if (size && !holds) each.push({ array: 0, read: (reading) => size.read(reading) });
  if (opacity && !holds) each.push({ array: 1, read: (reading) => opacity.read(reading) / 100 });
  if (intensity) each.push({ array: 2, read: (reading) => intensity.read(reading) });
  if (isTurnRead) {
    const lives = (reading: Reading) => (dress.turnsInLives ? reading.life : 1);
    const degrees = degreesIn(dress);
    each.push({ array: 3, read: (reading) => radians((turning.read(reading) * degrees) / lives(reading)) });
    each.push({
      array: 4,
      read: (reading, seconds, _population, _i, clock) => {
        const turned = radians((turnSummed(turning, reading, seconds, clock) * degrees) / lives(reading));
        return isReadAngle(angle) ? turned + radians(angle.read(reading)) : turned;
      },
    });
  }
  return { each, hasColour: !colour.isTabulated(life) };
}

/** Whether a starting angle is read for each particle: it is shaped, or one of a set. */
export const isReadAngle = (angle: NumberReader): boolean => angle.isShaped || angle.isSet;

/** Whether a turning is read for each: a table sums it over age alone, by what dials make of it. */
const isReadTurning = (turning: NumberReader, life: number | null): boolean =>
  turning.tableInput(life) !== 'age' ||
  turning.reads('effectTime') ||
  turning.reads('stretchTime') ||
  turning.reads('carrierSpeed');

/**
 * How much is turned since birth by a turning that is shaped: summed over the life so far, each part at the time and the age
 * it was lived. Beyond its age, what stands turns on as it waits.
 */
function turnSummed(turning: NumberReader, reading: Reading, seconds: number, clock: EffectClock): number {
  if (turning.isConstant) return turning.low * seconds;
  const { age, time, effectTime, stretchTime } = reading;
  const aged = Math.min(seconds, age * reading.life);
  let sum = 0;
  for (let k = 0; k < TURN_PARTS; k++) {
    const share = (k + 0.5) / TURN_PARTS;
    reading.age = age * share;
    if (turning.isTimed) setTime(reading, clock, time - seconds + aged * share);
    sum += turning.read(reading);
  }
  reading.age = clock.waitingAge;
  if (turning.isTimed) setTime(reading, clock, time);
  const waited = seconds > aged ? turning.read(reading) * (seconds - aged) : 0;
  [reading.age, reading.time, reading.effectTime, reading.stretchTime] = [age, time, effectTime, stretchTime];
  return (sum / TURN_PARTS) * aged + waited;
}
