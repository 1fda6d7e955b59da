import { beforeAll, describe, expect, it } from 'vitest';
import { importGlb } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import { setNumber } from '@jinx/core/document';
import { World } from '@jinx/core/simulation';
import { effectOf, onStage, TUBE } from '../../core/testing/effects.ts';
import { kernelBytes } from '../../core/testing/kernelBytes.ts';
import { distancesToSkin } from '../../core/testing/riders.ts';
import { makeSedge } from './index.ts';

let rig: Rig;
beforeAll(async () => {
  rig = await importGlb(await makeSedge(), 'Sedge');
});

describe('particles on the skin of Sedge', () => {
  it.each([
    ['walk', 'circle'],
    ['sweep', 'spot'],
  ])('lie within a millimetre of it as it is drawn, between steps too, in her %s', (clip, way) => {
    const effect = effectOf((layer) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      setNumber(layer, 'births.rate', 600);
      setNumber(layer, 'births.life', 1.2);
      setNumber(layer, 'motion.speed', 0);
      setNumber(layer, 'motion.ride', 100);
    });
    effect.stage.things = onStage(clip, way === 'circle' ? { kind: 'circle', radius: 3 } : { kind: 'spot' });
    const world = new World(effect, new Map([[TUBE, rig]]), {}, { kernels: kernelBytes() });
    for (const step of [18, 37, 44, 61, 80]) {
      world.advance(step);
      for (const share of [0, 0.1, 0.45, 0.8, 1]) {
        const found = distancesToSkin(world, 'motes', rig, share, false);
        expect(found.length).toBeGreaterThan(150);
        expect(Math.max(...found)).toBeLessThan(0.001);
      }
      const newborn = distancesToSkin(world, 'motes', rig, 0, true);
      expect(newborn.length).toBeGreaterThan(5);
      expect(Math.max(...newborn)).toBeLessThan(0.001);
    }
  });
});
