import { describe, expect, it } from 'vitest';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import { stepAbove } from '../../../docs/reading/surface.mjs';
import { surfaceVectors } from './vectors.ts';

interface Particle {
  readonly place: readonly number[];
  readonly velocity: readonly number[];
}
const step = stepAbove as (surface: object, particle: Particle, push: readonly number[]) => Particle | null;

describe('another reading of surfaces', () => {
  it.each(surfaceVectors())('lets what falls onto the ground $act', ({ steps, gravity, ...surface }) => {
    let particle: Particle | null = { place: [0.4, 1.2, -0.3], velocity: [1, -1, 0] };
    let done = 0;
    for (const { step: until, particles } of steps) {
      for (; done < until && particle; done++) particle = step(surface, particle, [0, -gravity, 0]);
      expect(particles).toHaveLength(particle ? 1 : 0);
      for (let n = 0; n < 3 && particle; n++) {
        expect(particles[0]!.place[n]).toBeCloseTo(particle.place[n]!, 4);
        expect(particles[0]!.velocity[n]).toBeCloseTo(particle.velocity[n]!, 3);
      }
    }
  });
});
