import { describe, expect, it } from 'vitest';
import { atEffect, setNumber, type Layer } from '../../document/index.ts';
import { born, size, choose, vector } from '../../testing/births.ts';

describe('launches', () => {
  const from = (launch: string, shape: (layer: Layer) => void = () => undefined) =>
    born((layer) => {
      layer.source = { kind: 'sphere', place: atEffect() };
      setNumber(layer, 'source.radius', 1);
      setNumber(layer, 'motion.speed', 2);
      choose(layer, 'motion.launch', launch);
      shape(layer);
    });
  const dotOf = (a: number[], b: number[]) => a.reduce((sum, x, axis) => sum + x * b[axis]!, 0);

  it('along the surface stay in it, and turn by the angle within it', () => {
    const plain = from('tangent');
    plain.speeds.forEach((v, i) => {
      expect(Math.abs(dotOf(v, plain.places[i]!))).toBeLessThan(1e-4);
      expect(Math.abs(v[1]!)).toBeLessThan(1e-4);
    });
    const turned = from('tangent', (layer) => setNumber(layer, 'motion.angle', 90));
    turned.speeds.forEach((v, i) => {
      expect(Math.abs(dotOf(v, turned.places[i]!))).toBeLessThan(1e-4);
      expect(Math.abs(dotOf(v, plain.speeds[i]!))).toBeLessThan(1e-3);
    });
    const within = from('within');
    within.speeds.forEach((v, i) => expect(Math.abs(dotOf(v, within.places[i]!))).toBeLessThan(1e-4));
  });

  it('toward a place go there, away when negative', () => {
    for (const speed of [2, -2]) {
      const { places, speeds } = from('toward', (layer) => {
        layer.aim = atEffect([0, 5, 0]);
        setNumber(layer, 'motion.speed', speed);
      });
      speeds.forEach((v, i) => {
        const way = places[i]!.map((x, axis) => [0, 5, 0][axis]! - x);
        expect(dotOf(v, way) / size(v) / size(way)).toBeCloseTo(Math.sign(speed), 4);
      });
    }
  });

  it('round a place go round its axis', () => {
    const { places, speeds } = from('round', (layer) => (layer.aim = atEffect()));
    speeds.forEach((v, i) => {
      expect(Math.abs(dotOf(v, places[i]!))).toBeLessThan(1e-4);
      expect(Math.abs(v[1]!)).toBeLessThan(1e-5);
      // The same way round as a vortex of positive spin.
      expect(places[i]![2]! * v[0]! - places[i]![0]! * v[2]!).toBeGreaterThan(0);
    });
  });

  it('any way at all go every way', () => {
    const { speeds } = from('any');
    for (const axis of [0, 1, 2])
      expect(Math.abs(speeds.reduce((sum, v) => sum + v[axis]!, 0) / 1000)).toBeLessThan(0.2);
  });

  it('take a velocity beside along, on the axes of what they are born on', () => {
    const { speeds } = born((layer) => {
      layer.source = { kind: 'point', place: atEffect([0, 0, 0], [0, 90, 0]) };
      setNumber(layer, 'motion.speed', 0);
      vector(layer, 'motion.velocity', [3, 1, 0]);
    });
    for (const v of speeds) v.forEach((x, axis) => expect(x).toBeCloseTo([0, 1, -3][axis]!, 5));
  });
});
