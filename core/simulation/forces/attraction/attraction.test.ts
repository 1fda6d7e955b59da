import { describe, expect, it } from 'vitest';
import {
  atEffect,
  atThing,
  burst,
  collectionOf,
  newForce,
  setNumber,
  type Layer,
  type Place,
} from '../../../document/index.ts';
import { effectOf, onStage, TUBE } from '../../../testing/effects.ts';
import { closedBox } from '../../../testing/rigs.ts';
import { distanceTo, under, vectorsOf, withNumber, withValue } from '../../../testing/storms.ts';
import { playAlone } from '../../world/world.ts';

describe('attraction', () => {
  const lamp: Place = atEffect([2, 1, 0]);
  it('draws particles nearer, and pushes them away when negative', () => {
    for (const strength of [3, -3]) {
      const world = under([withNumber(newForce('attraction', lamp), 'strength', strength)]);
      world.advance(1);
      const before = vectorsOf(world, 'position').map(distanceTo([2, 1, 0]));
      world.advance(20);
      vectorsOf(world, 'position')
        .map(distanceTo([2, 1, 0]))
        .forEach((d, i) => expect(Math.sign(before[i]! - d)).toBe(Math.sign(strength)));
    }
  });

  it('does nothing beyond its reach', () => {
    const world = under([withNumber(newForce('attraction', lamp), 'reach', 1)]);
    world.advance(30);
    for (const v of vectorsOf(world, 'velocity')) expect(Math.hypot(...v)).toBe(0);
  });
});

describe('attraction to a line', () => {
  it('draws toward the nearest point of it, and along it not at all', () => {
    const line = withValue(withNumber(newForce('attraction', atEffect([3, 1, 0])), 'length', 20), 'toward', 'line');
    const world = under([line]);
    world.advance(30);
    for (const v of vectorsOf(world, 'velocity')) {
      expect(v[0]).toBeGreaterThan(0.5);
      expect(Math.abs(v[1])).toBeLessThan(1e-5);
    }
  });
});

describe('attraction to a thing’s skin', () => {
  const rigs = new Map([[TUBE, closedBox(1, [0, 1, 0])]]);
  const onBox = (toward: 'skin' | 'own spot', shape: (layer: Layer) => void) => {
    const effect = effectOf((layer, whole) => {
      whole.stage.things = onStage('');
      layer.forces = collectionOf([
        ['a', withValue(withNumber(newForce('attraction', atThing('figure')), 'strength', 30), 'toward', toward)],
        ['d', withNumber(newForce('drag'), 'strength', 6)],
      ]);
      setNumber(layer, 'births.life', 30);
      shape(layer);
    });
    const world = playAlone(effect, rigs);
    world.advance(240);
    return vectorsOf(world, 'position');
  };

  it('draws each to the nearest spot of it, from wherever it is', () => {
    const places = onBox('skin', (layer) => {
      layer.source = { kind: 'sphere', place: atEffect([0, 1, 0]) };
      setNumber(layer, 'source.radius', 2);
      setNumber(layer, 'births.rate', 0);
      layer.bursts = collectionOf([['b', burst('opening', 0, 60)]]);
    });
    expect(places.length).toBe(60);
    for (const [x, y, z] of places)
      expect(Math.abs(Math.max(Math.abs(x!), Math.abs(y! - 1), Math.abs(z!)) - 0.5)).toBeLessThan(0.03);
    // From all round, so on every side of it.
    for (const axis of [0, 1, 2])
      for (const side of [-1, 1])
        expect(places.some((p) => (p[axis]! - (axis === 1 ? 1 : 0)) * side > 0.45)).toBe(true);
  });

  it('draws each back to the spot it was born on', () => {
    const places = onBox('own spot', (layer) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      setNumber(layer, 'motion.speed', 3);
      setNumber(layer, 'births.rate', 0);
      layer.bursts = collectionOf([['b', burst('opening', 0, 60)]]);
    });
    for (const [x, y, z] of places)
      expect(Math.abs(Math.max(Math.abs(x!), Math.abs(y! - 1), Math.abs(z!)) - 0.5)).toBeLessThan(0.03);
  });
});
