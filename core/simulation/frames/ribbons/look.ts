import type { Dress } from '../dress.ts';
import type { Population } from '../../run/population.ts';
import { newReading, setTime } from '../../values/reading.ts';
import { AGE, COLOUR, LOT, OPACITY, OWN, WIDTH, type Curve } from './curve.ts';
import type { DressMoment } from '../moment.ts';

/** How a layer's settings dress a control point of a ribbon, read as they would be for a particle of some age. */
export class RibbonLook {
  readonly #reading = newReading();
  readonly #rgb = new Float64Array(3);

  /** Writes the colour, opacity, age and half width of the point at word `at`; returns the width before shapers, metres. */
  dress(
    curve: Curve,
    at: number,
    age: number,
    dress: Dress,
    moment: DressMoment,
    population: Population,
    i: number,
  ): number {
    const { numbers, colour, channels, around, look } = dress;
    const reading = this.#reading;
    const { step, rate, clock } = moment;
    const time = clock.timeOf(step);
    reading.dials = moment.dials;
    reading.channels = channels;
    reading.around = around;
    setTime(reading, clock, time);
    population.readInto(reading, i, step, rate, clock.standingAge(time), clock.length);
    reading.age = age;
    const intensity = numbers['life.intensity'].read(reading);
    colour.readInto(reading, this.#rgb, population.tint, i);
    const { points } = curve;
    for (let c = 0; c < 3; c++) points[at + COLOUR + c] = this.#rgb[c]! * intensity;
    points[at + OPACITY] = numbers['life.opacity'].read(reading) / 100;
    points[at + WIDTH] = (numbers['life.size'].read(reading) * population.scale[i]!) / 2;
    points[at + AGE] = age;
    points[at + LOT] = reading.key >>> 8;
    look.writeAt(points, at + OWN, age, population, i, dress, moment);
    return numbers['life.size'].base(reading.key) * population.scale[i]!;
  }

  /** The age that a particle has, 0 to 1. */
  ageOf(population: Population, i: number, { step, rate, clock }: DressMoment): number {
    const reading = this.#reading;
    population.readInto(reading, i, step, rate, clock.standingAge(clock.timeOf(step)), clock.length);
    return reading.age;
  }
}
