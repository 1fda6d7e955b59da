import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  burst,
  collectionOf,
  newLayer,
  setNumber,
  withItem,
  type Layer,
} from '../../document/index.ts';
import { effectOf, onStage } from '../../testing/effects.ts';
import { playAlone } from '../world/world.ts';
import { born, size, choose } from '../../testing/births.ts';

describe('sources', () => {
  it('a sphere gives births on its surface, all round', () => {
    const { places } = born((layer) => {
      layer.source = { kind: 'sphere', place: atEffect() };
      setNumber(layer, 'source.radius', 2);
    });
    for (const p of places) expect(size(p)).toBeCloseTo(2, 5);
    for (const axis of [0, 1, 2])
      expect(Math.abs(places.reduce((sum, p) => sum + p[axis]!, 0) / 1000)).toBeLessThan(0.15);
  });

  it('a filled sphere has half its births in the inner half of its volume', () => {
    const { places } = born((layer) => {
      layer.source = { kind: 'sphere', place: atEffect() };
      setNumber(layer, 'source.radius', 2);
      layer.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
    });
    const inner = places.filter((p) => size(p) < 2 * Math.cbrt(0.5)).length;
    expect(inner).toBeGreaterThan(440);
    expect(inner).toBeLessThan(560);
  });

  it('a disc lies flat, and half filled keeps its hole', () => {
    const { places } = born((layer) => {
      layer.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
      layer.source = { kind: 'disc', place: atEffect([0, 1, 0]) };
      setNumber(layer, 'source.radius', 1);
      setNumber(layer, 'source.depth', 50);
    });
    for (const [x, y, z] of places as [number, number, number][]) {
      expect(y).toBeCloseTo(1, 6);
      expect(Math.hypot(x, z)).toBeGreaterThan(0.4999);
      expect(Math.hypot(x, z)).toBeLessThan(1.0001);
    }
  });

  it('a point lets particles leave in every direction at the speed it is given', () => {
    const { speeds } = born((layer) => {
      layer.source = { kind: 'point', place: atEffect() };
      setNumber(layer, 'motion.speed', [2, 4]);
    });
    for (const v of speeds) {
      expect(size(v)).toBeGreaterThan(1.999);
      expect(size(v)).toBeLessThan(4.001);
    }
    expect(Math.abs(speeds.reduce((sum, v) => sum + v[1]!, 0) / 1000)).toBeLessThan(0.2);
  });

  it('an axis launch keeps within its opening angle', () => {
    const { speeds } = born((layer) => {
      layer.source = { kind: 'point', place: atEffect() };
      setNumber(layer, 'motion.speed', 3);
      setNumber(layer, 'motion.opening', 30);
      layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
      layer.settings['motion.axis'].base = { kind: 'fixed', value: [1, 0, 0] };
    });
    const angles = speeds.map((v) => (Math.acos(v[0]! / size(v)) * 180) / Math.PI);
    expect(Math.max(...angles)).toBeLessThan(30.01);
    expect(Math.max(...angles)).toBeGreaterThan(28);
  });

  it('skin lets particles leave along its normal', () => {
    const { places, speeds } = born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: ['low'] };
      setNumber(layer, 'motion.speed', 1);
      effect.stage.things = onStage('');
    });
    places.forEach(([x, , z], i) => expect(x! * speeds[i]![0]! + z! * speeds[i]![2]!).toBeGreaterThan(0.15));
  });

  it('hand on their own speed when told to', () => {
    const shape = (kept: number) =>
      born((layer, effect) => {
        layer.source = { kind: 'point', place: atEffect() };
        setNumber(layer, 'motion.inherit', kept);
        effect.stage.carrier = { kind: 'circle', radius: 1, speed: 6 };
      }).speeds;
    for (const v of shape(100)) expect(size(v)).toBeCloseTo(6, 2);
    for (const v of shape(50)) expect(size(v)).toBeCloseTo(3, 2);
    for (const v of shape(0)) expect(size(v)).toBe(0);
  });

  it.each<[string, (layer: Layer) => void]>([
    ['a missing figure', (layer) => (layer.source = { kind: 'mesh', thing: 'gone', bones: [] })],
    ['a missing bone', (layer) => (layer.source = { kind: 'point', place: atBone('figure', 'tail') })],
  ])('with %s give no births and do no harm', (_name, shape) => expect(born(shape).places).toHaveLength(0));
});

describe('bones', () => {
  const on = (along: string, bones: string[] = []) =>
    born((layer, effect) => {
      layer.source = { kind: 'bones', thing: 'figure', bones };
      choose(layer, 'source.along', along);
      effect.stage.things = onStage('');
    }).places;
  it('bear at their joints, along them, or between two of them', () => {
    for (const p of on('joints', ['high'])) p.forEach((x, axis) => expect(x).toBeCloseTo([0, 0.5, 0][axis]!, 5));
    expect(new Set(on('joints').map((p) => p[1]!.toFixed(2)))).toEqual(new Set(['0.00', '0.50']));
    for (const places of [on('along', ['low']), on('between', ['low', 'high'])]) {
      for (const p of places) expect(Math.abs(p[0]!) + Math.abs(p[2]!)).toBeLessThan(1e-6);
      expect(places.filter((p) => p[1]! < 0.25).length / 1000).toBeCloseTo(0.5, 1);
    }
  });
});

describe('a place with keys', () => {
  const keyed = (ease: 'smooth' | 'straight' | 'step') => {
    const place = atEffect();
    place.keys = collectionOf([
      ['b', { at: 1, offset: [4, 0, 0], turn: [0, 0, 0], ease }],
      ['a', { at: 0, offset: [0, 0, 0], turn: [0, 0, 0], ease }],
    ]);
    const effect = effectOf((layer) => {
      layer.source = { kind: 'point', place };
      setNumber(layer, 'births.rate', 240);
      setNumber(layer, 'births.life', 30);
      setNumber(layer, 'motion.speed', 0);
    });
    const world = playAlone(effect, new Map());
    world.advance(120);
    const { position, count } = world.population('motes')!;
    return Array.from({ length: count }, (_, i) => position[0][i]!);
  };

  it('moves through them in the effect’s time: straight, eased or by steps', () => {
    const straight = keyed('straight');
    straight.forEach((x, i) => expect(x).toBeCloseTo(Math.min(4, (4 * i) / 240), 4));
    const smooth = keyed('smooth');
    expect(smooth[120]!).toBeCloseTo(2, 2);
    expect(smooth[24]!).toBeLessThan(0.2);
    expect(new Set(keyed('step'))).toEqual(new Set([0, 4]));
  });
});

describe('a layer born on the particles of another', () => {
  it('counts the births for which none lived, also after going back and on again', () => {
    const effect = effectOf((layer, whole) => {
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.life', 0.5);
      layer.bursts = collectionOf([['b', burst('opening', 0, 20)]]);
      const buds = newLayer('Buds', 8);
      buds.source = { kind: 'particles', layer: 'motes' };
      setNumber(buds, 'births.rate', 60);
      whole.layers = withItem(whole.layers, 'buds', buds);
    });
    const world = playAlone(effect, new Map());
    const counts = () => world.counts().find(({ salt }) => salt === 8)!;
    world.advance(29);
    expect(counts()).toMatchObject({ lost: 0, refused: 0 });
    world.advance(90);
    const { born, lost } = counts();
    expect([born + lost, lost > 50]).toEqual([90, true]);
    world.advance(40);
    world.advance(90);
    expect(counts()).toMatchObject({ born, lost });
  });
});
