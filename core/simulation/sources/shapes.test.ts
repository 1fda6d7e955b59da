import { describe, expect, it } from 'vitest';
import { atEffect, setNumber, type Layer, type Vector } from '../../document/index.ts';
import { born, size, choose, vector, type Point } from '../../testing/births.ts';

describe('shapes', () => {
  const on = (
    kind: 'line' | 'ring' | 'disc' | 'box' | 'sphere' | 'cylinder' | 'cone',
    shape: (layer: Layer) => void,
  ) =>
    born((layer) => {
      layer.source = { kind, place: atEffect() };
      setNumber(layer, 'source.radius', 1);
      setNumber(layer, 'motion.speed', 1);
      shape(layer);
    });
  const halves = (places: number[][], axis: number, middle = 0) =>
    places.filter((p) => p[axis]! > middle).length / 1000;

  it('a line bears along its length, outward from it', () => {
    const { places, speeds } = on('line', (layer) => setNumber(layer, 'source.length', 3));
    for (const [x, y, z] of places as Point[]) {
      expect(Math.hypot(x, z)).toBeLessThan(1e-6);
      expect(Math.abs(y)).toBeLessThan(1.5);
    }
    expect(Math.max(...places.map((p) => p[1]!))).toBeGreaterThan(1.4);
    for (const v of speeds) expect(Math.abs(v[1]!)).toBeLessThan(1e-6);
  });

  it('a thick ring bears on its tube or inside it, leaving the tube outward', () => {
    const tube = (p: number[]) => Math.hypot(Math.hypot(p[0]!, p[2]!) - 1, p[1]!);
    const surface = on('ring', (layer) => setNumber(layer, 'source.thickness', 0.2));
    for (const p of surface.places) expect(tube(p)).toBeCloseTo(0.2, 5);
    surface.places.forEach((p, i) => {
      const step = p.map((x, axis) => x + surface.speeds[i]![axis]! * 0.01);
      expect(tube(step)).toBeGreaterThan(tube(p));
    });
    const inside = on(
      'ring',
      (layer) => (setNumber(layer, 'source.thickness', 0.2), choose(layer, 'source.region', 'volume')),
    );
    expect(inside.places.filter((p) => tube(p) < 0.2 * Math.sqrt(0.5)).length / 1000).toBeCloseTo(0.5, 1);
  });

  it('a disc bears evenly over its area, and at its rim only when told to', () => {
    const whole = on('disc', () => undefined);
    expect(whole.places.filter((p) => size(p) < Math.sqrt(0.5)).length / 1000).toBeCloseTo(0.5, 1);
    const rim = on('disc', (layer) => choose(layer, 'source.region', 'edge'));
    for (const p of rim.places) expect(size(p)).toBeCloseTo(1, 5);
  });

  it('a box bears on its faces by their area, along its edges, or inside', () => {
    const box = (region: string) =>
      on('box', (layer) => (vector(layer, 'source.size', [2, 1, 0.5]), choose(layer, 'source.region', region)));
    const half = [1, 0.5, 0.25];
    const borders = (p: number[]) => p.filter((x, axis) => Math.abs(Math.abs(x) - half[axis]!) < 1e-6).length;
    const { places, speeds } = box('surface');
    for (const p of places) expect(borders(p)).toBeGreaterThanOrEqual(1);
    const wide = places.filter((p) => Math.abs(Math.abs(p[2]!) - 0.25) < 1e-6).length / 1000;
    expect(wide).toBeCloseTo(2 / (2 + 1 + 0.5), 1);
    speeds.forEach((v, i) => expect(v.reduce((sum, x, axis) => sum + x * places[i]![axis]!, 0)).toBeGreaterThan(0));
    for (const p of box('edge').places) expect(borders(p)).toBeGreaterThanOrEqual(2);
    const inside = box('volume').places;
    for (const p of inside) p.forEach((x, axis) => expect(Math.abs(x)).toBeLessThanOrEqual(half[axis]! + 1e-6));
    for (const axis of [0, 1, 2])
      expect(inside.filter((p) => Math.abs(p[axis]!) < half[axis]! / 2).length / 1000).toBeCloseTo(0.5, 1);
  });

  it('a box with a side of zero is a flat sheet', () => {
    const { places, speeds } = on('box', (layer) => vector(layer, 'source.size', [2, 0, 1]));
    for (const p of places) expect(p[1]).toBe(0);
    for (const v of speeds) expect(v[1]).toBeCloseTo(1, 5);
    expect(halves(places, 0)).toBeCloseTo(0.5, 1);
  });

  it('a part of a sphere is a dome, and a part of the turn a slice', () => {
    const dome = on('sphere', (layer) => setNumber(layer, 'source.rise', 90));
    for (const p of dome.places) expect(p[1]).toBeGreaterThan(-1e-6);
    const slice = on('sphere', (layer) => setNumber(layer, 'source.arc', 90));
    for (const [x, , z] of slice.places as Point[]) expect(Math.min(x, z)).toBeGreaterThan(-1e-6);
    const rim = on(
      'sphere',
      (layer) => (setNumber(layer, 'source.rise', 60), choose(layer, 'source.region', 'edge')),
    );
    for (const p of rim.places) expect(p[1]).toBeCloseTo(0.5, 5);
  });

  it('a cylinder bears on its side or its two rims', () => {
    const side = on('cylinder', (layer) => setNumber(layer, 'source.length', 4));
    for (const [x, , z] of side.places as Point[]) expect(Math.hypot(x, z)).toBeCloseTo(1, 5);
    expect(halves(side.places, 1, 1)).toBeCloseTo(0.25, 1);
    const rims = on(
      'cylinder',
      (layer) => (setNumber(layer, 'source.length', 4), choose(layer, 'source.region', 'edge')),
    );
    for (const p of rims.places) expect(Math.abs(p[1]!)).toBeCloseTo(2, 5);
  });

  it('a cone leans by its angle, and is parallel at none', () => {
    const cone = (angle: number) =>
      on('cone', (layer) => (setNumber(layer, 'source.angle', angle), setNumber(layer, 'source.length', 0)));
    for (const v of cone(0).speeds) expect(v[1]).toBeCloseTo(1, 5);
    const leaning = cone(30);
    leaning.speeds.forEach((v, i) => {
      const expected = (30 * size(leaning.places[i]!)) / 1;
      expect((Math.acos(Math.min(1, v[1]!)) * 180) / Math.PI).toBeCloseTo(expected, 2);
    });
    const long = on('cone', (layer) => (setNumber(layer, 'source.angle', 45), setNumber(layer, 'source.length', 1)));
    for (const [x, y, z] of long.places as Point[]) expect(Math.hypot(x, z)).toBeCloseTo(1 + y, 4);
  });

  it('are turned by their place and stretched along their own axes', () => {
    const { places } = born((layer) => {
      layer.source = { kind: 'ring', place: atEffect([0, 2, 0], [90, 0, 0]) };
      setNumber(layer, 'source.radius', 1);
      vector(layer, 'source.stretch', [3, 1, 1]);
    });
    for (const [x, y, z] of places as Point[]) {
      expect(z).toBeCloseTo(0, 5);
      expect((x / 3) ** 2 + (y - 2) ** 2).toBeCloseTo(1, 4);
    }
  });
});

describe('a drawn path', () => {
  const path = (shape: (layer: Layer) => void) =>
    born((layer) => {
      const points: Vector[] = [
        [-1, 0, 0],
        [0, 1, 0],
        [1, 0, 0],
        [2, 1, 0],
      ];
      layer.source = { kind: 'path', place: atEffect(), points, closed: false };
      shape(layer);
    }).places;

  it('is walked in order, by even steps of its length, through its points', () => {
    const places = path((layer) => (choose(layer, 'source.order', 'walking'), setNumber(layer, 'source.walk', 200)));
    const steps = places.slice(1, 200).map((p, i) => Math.hypot(...p.map((x, axis) => x - places[i]![axis]!)));
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.05);
    for (const point of [
      [0, 1, 0],
      [1, 0, 0],
    ])
      expect(Math.min(...places.map((p) => Math.hypot(...p.map((x, axis) => x - point[axis]!))))).toBeLessThan(0.02);
    places.slice(200, 400).forEach((p, i) => expect(p).toEqual(places[i]));
  });

  it('evenly spread keeps the same places for a smaller count', () => {
    const places = path((layer) => choose(layer, 'source.order', 'even'));
    const gaps = (count: number) => {
      const along = places
        .slice(0, count)
        .map((p) => p[0]!)
        .sort((a, b) => a - b);
      return along.slice(1).map((x, i) => x - along[i]!);
    };
    for (const count of [13, 55, 233]) expect(Math.max(...gaps(count))).toBeLessThan(3 * (3 / count));
  });
});
