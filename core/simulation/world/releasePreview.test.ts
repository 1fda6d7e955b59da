import { describe, expect, it } from 'vitest';
import { climbed, TUBE } from '../../testing/effects.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { releasePreview } from '../index.ts';
import { playAlone } from './world.ts';

const rigs = new Map([[TUBE, bendingTube()]]);

describe('a preview of a release', () => {
  it('tells what is freed, and when, as a simulation then does', () => {
    const effect = climbed(0.6);
    const preview = releasePreview(effect, 'motes', rigs)!;
    const world = playAlone(effect, rigs);
    world.advance(119);
    const population = world.population('motes')!;
    const free = Array.from({ length: population.count }, (_, i) => i).filter((i) => !population.isHeld(i));
    expect(preview.freed).toBeGreaterThan(0.3);
    expect(Math.abs(preview.freed - free.length / population.count)).toBeLessThan(0.06);
    const times = free.map((i) => (population.birthStep[i]! + population.birthFraction[i]!) / 60);
    // The preview looks thirty times a second, at 300 of them.
    expect(Math.abs(preview.first - Math.min(...times))).toBeLessThan(0.06);
    expect(Math.abs(preview.last - Math.max(...times))).toBeLessThan(0.06);
    expect(preview.never.length / 3).toBe(Math.floor((1 - preview.freed) * 300 + 0.5));
  });

  it('has nothing to say where no front is', () => {
    const effect = climbed(1);
    effect.layers.byId['motes']!.front = null;
    expect(releasePreview(effect, 'motes', rigs)).toBeNull();
  });
});
