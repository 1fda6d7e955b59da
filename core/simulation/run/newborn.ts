import type { CompiledLayer } from '../compile/plan.ts';
import type { Reading } from '../values/reading.ts';
import type { Population } from './population.ts';

/** Where no channel is kept. */
export const NO_FIELDS: readonly Float32Array[] = [];

/** The first step at whose start particle `i` has lived its life. */
export function deathStep({ birthStep, birthFraction, life }: Population, i: number, rate: number): number {
  const seconds = life[i]!;
  const fraction = birthFraction[i]!;
  let steps = Math.ceil(seconds * rate + fraction);
  while (steps > 1 && (steps - 1 - fraction) / rate >= seconds) steps--;
  while ((steps - fraction) / rate < seconds) steps++;
  return birthStep[i]! + Math.max(1, steps);
}

/** Sets a reading to a layer's newborn, but for its time, its key and its place. */
export function beginReading(reading: Reading, { channels, around }: CompiledLayer): void {
  reading.channels = channels;
  reading.around = around;
  reading.age = reading.speed = reading.distance = reading.along = 0;
  reading.life = 1;
  reading.begun = NO_FIELDS;
  reading.place = 0;
}

/** Writes the quaternion that turns up into a normal; no turn where it has no length. */
export function uprightInto(out: Float64Array, x: number, y: number, z: number): void {
  // Half-way between up and the normal (as a quaternion: their sum); straight down is a half turn about X.
  const isDown = y < -0.999999;
  const w = 1 + y;
  const size = isDown ? 1 : Math.sqrt(z * z + x * x + w * w);
  out[0] = isDown ? 1 : z / size;
  out[1] = 0;
  out[2] = isDown ? 0 : -x / size;
  out[3] = isDown ? 0 : w / size;
}
