import { beforeAll, describe, expect, it } from 'vitest';
import { importGlb } from '@jinx/core/formats';
import { meshSites, type Rig } from '@jinx/core/geometry';
import { setNumber } from '@jinx/core/document';
import { playAlone } from '@jinx/core/simulation';
import { effectOf, onStage, TUBE } from '../../core/testing/effects.ts';
import { kernelBytes } from '../../core/testing/kernelBytes.ts';
import { distancesToSkin } from '../../core/testing/riders.ts';
import { evenPlaces, spacingOf } from '../../core/testing/spacing.ts';
import { makeFigure, SEDGE } from './index.ts';

let rig: Rig;
beforeAll(async () => {
  rig = await importGlb(await makeFigure(SEDGE), 'Sedge');
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
    const world = playAlone(effect, new Map([[TUBE, rig]]), {}, { kernels: kernelBytes() });
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

describe('births spread evenly over Sedge', () => {
  it('keep their distance for every count', () => {
    const { least, mean } = spacingOf(evenPlaces(rig, 1500), meshSites(rig, [], 'surface').area);
    expect(least).toBeGreaterThan(0.57);
    expect(mean).toBeGreaterThan(0.75);
  });

  it('keep every old place at ten times the density', () => {
    const at = (perArea: number) => {
      const effect = effectOf((layer) => {
        layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
        layer.settings['source.order'].base = { kind: 'fixed', value: 'even' };
        setNumber(layer, 'births.rate', 0);
        setNumber(layer, 'births.perArea', perArea);
        setNumber(layer, 'motion.speed', 0);
      });
      effect.stage.things = onStage('idle');
      const world = playAlone(effect, new Map([[TUBE, rig]]));
      world.advance(1);
      const { count, position } = world.population('motes')!;
      return Array.from({ length: count }, (_, i) => position.map((axis) => axis[i]!));
    };
    const [few, many] = [at(40), at(400)];
    expect(few.length).toBeGreaterThan(60);
    expect(many.length / few.length).toBeCloseTo(10, 0);
    expect(many.slice(0, few.length)).toEqual(few);
  });
});
