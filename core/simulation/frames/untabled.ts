import { radians } from '../../maths/index.ts';
import type { Population } from '../run/population.ts';
import type { NumberReader } from '../values/numberReader.ts';
import type { Reading } from '../values/reading.ts';
import { degreesIn, SHAPED, type Dress } from './dress.ts';

/** A number that no table serves: the array it goes to, and what it is for particle `i`, `seconds` after its birth. */
interface UntabledNumber {
  readonly array: number;
  read(reading: Reading, seconds: number, population: Population, i: number, waitingAge: number): number;
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
  const [size, opacity, intensity, turning] = SHAPED.map(([name]) =>
    numbers[name].tableInput(life) === 'age' ? null : numbers[name],
  );
  const each: UntabledNumber[] = [];
  if (holds) {
    // What is held has its own size and opacity, whatever a newborn has.
    const heldSize = numbers['release.heldSize'].low / 100;
    const heldOpacity = numbers['release.heldOpacity'].low / 100;
    const [plainSize, plainOpacity] = [numbers['life.size'], numbers['life.opacity']];
    each.push({
      array: 0,
      read: (reading, _, population, i) =>
        population.isHeld(i) ? plainSize.base(reading.key) * heldSize : plainSize.read(reading),
    });
    each.push({
      array: 1,
      read: (reading, _, population, i) => (population.isHeld(i) ? heldOpacity : plainOpacity.read(reading) / 100),
    });
  }
  if (size && !holds) each.push({ array: 0, read: (reading) => size.read(reading) });
  if (opacity && !holds) each.push({ array: 1, read: (reading) => opacity.read(reading) / 100 });
  if (intensity) each.push({ array: 2, read: (reading) => intensity.read(reading) });
  if (turning) {
    const lives = (reading: Reading) => (dress.turnsInLives ? reading.life : 1);
    const degrees = degreesIn(dress);
    each.push({ array: 3, read: (reading) => radians((turning.read(reading) * degrees) / lives(reading)) });
    each.push({
      array: 4,
      read: (reading, seconds, _population, _i, waitingAge) =>
        radians((turnSummed(turning, reading, seconds, waitingAge) * degrees) / lives(reading)),
    });
  }
  return { each, hasColour: !colour.isTabulated(life) };
}

/** How much is turned since birth by a turning that is shaped over age; beyond it, standing particles turn on as they wait. */
function turnSummed(turning: NumberReader, reading: Reading, seconds: number, waitingAge: number): number {
  const age = reading.age;
  const aged = Math.min(seconds, age * reading.life);
  let sum = 0;
  for (let k = 0; k < TURN_PARTS; k++) {
    reading.age = (age * (k + 0.5)) / TURN_PARTS;
    sum += turning.read(reading);
  }
  reading.age = waitingAge;
  const waited = seconds > aged ? turning.read(reading) * (seconds - aged) : 0;
  reading.age = age;
  return (sum / TURN_PARTS) * aged + waited;
}
