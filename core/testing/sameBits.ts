import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseEffect } from '../document/index.ts';
import { BIT_STEPS, differenceOf, hashesOn, noNumberIn, travel, worldOf } from './bits.ts';
import { kernelBytes } from './kernelBytes.ts';
import { randomEffect } from './randomEffect.ts';
import { Helper } from './startHelper.ts';
import { stopCrew } from '../simulation/run/crew.ts';
import { Instance } from '../simulation/world/instance.ts';

/**
 * Tests that random effects of some seeds have the same bits by every route, by twins and on several threads. Files share
 * the modules of their worker: helpers belong to the call, so that no file stops those of another.
 */
export function testSameBits(first: number, count: number): void {
  const seeds = Array.from({ length: count }, (_, n) => first + n);
  const options = { kernels: kernelBytes(), worthSharing: 1 };
  const helpers: Helper[] = [];

  beforeAll(() => {
    for (let n = 0; n < 2; n++) helpers.push(new Helper());
  });
  afterAll(() => Promise.all(helpers.map((helper) => helper.stop())));

  describe.each(seeds)('random effect %i', (seed) => {
    let played: Instance;
    let expected: Record<number, string | null>;
    beforeAll(() => {
      played = worldOf(seed, options);
      expected = hashesOn(played, 'played');
    });
    /** The same hashes at every step; where not, what differs first at the last. */
    const same = (world: Instance, hashes: Record<number, string | null>) => {
      if (world.step === played.step) expect(differenceOf(world, played)).toBeNull();
      expect(hashes).toEqual(expected);
    };

    it('is valid, and holds nothing that is no number', () => {
      expect(() => parseEffect(randomEffect(seed).effect)).not.toThrow();
      expect(noNumberIn(played)).toBeNull();
      expect(new Set(Object.values(expected)).size).toBe(BIT_STEPS.length);
    });

    it.each(['scrubbed', 'undone'] as const)('is the same bits %s', (route) => {
      const world = worldOf(seed, options);
      const hashes: Record<number, string | null> = {};
      travel(world, route, (step) => (hashes[step] = world.hash()));
      same(world, hashes);
    });

    // Every kernel is held against its twin by itself too: a part of the effects is enough here.
    it.runIf(seed % 4 === 0)('is the same bits by twins', () => {
      const twin = worldOf(seed, {});
      same(twin, hashesOn(twin, 'played'));
    });

    it('is the same bits on two or three threads', async () => {
      const count = 1 + (seed % 2);
      const world = worldOf(seed, { ...options, shared: true, helpers: count });
      const crew = helpers.slice(0, count);
      await Promise.all(crew.map((helper, n) => helper.join(world.memory, n + 1)));
      const hashes = hashesOn(world, 'played');
      const left = Promise.all(crew.map((helper) => helper.left()));
      stopCrew(world.memory.buffer);
      await left;
      same(world, hashes);
    });
  });
}
