import { describe, expect, it } from 'vitest';
import { hash2, keyOf } from '../../maths/index.ts';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import { stepUnder } from '../../../docs/reading/forces.mjs';
import { forceVectors } from './vectors.ts';

interface Particle {
  readonly place: readonly number[];
  readonly velocity: readonly number[];
  readonly key: number;
}
const step = stepUnder as (force: object, particle: Particle, about: object) => Particle;

describe('another reading of forces', () => {
  it.each(forceVectors())('moves a particle under $kind to the same place, as fast', (force) => {
    let particle: Particle = { place: [0.4, 1.2, -0.3], velocity: [0, 1, 0], key: keyOf(hash2(7, 1234), 0) };
    const free = particle.place.map((x, n) => x + (particle.velocity[n]! * force.step) / 60);
    for (let n = 0; n < force.step; n++)
      particle = step(force, particle, { id: force.id, seed: force.seed, step: n });
    for (let n = 0; n < 3; n++) {
      expect(force.place[n]).toBeCloseTo(particle.place[n]!, 5);
      expect(force.velocity[n]).toBeCloseTo(particle.velocity[n]!, 4);
    }
    // A way that is moved by once it stands still leads nowhere.
    if (force.kind === 'displacement') expect(force.velocity).toEqual([0, 1, 0]);
    else expect(force.place.some((x, n) => Math.abs(x - free[n]!) > 1e-4)).toBe(true);
  });
});
