import {
  atBone,
  atEffect,
  atThing,
  collectionOf,
  curveShaper,
  inWorld,
  newEffect,
  newForce,
  newLayer,
  newSurface,
  setNumber,
  withPlaceKey,
  type Force,
  type Layer,
  type Surface,
  type Vector,
} from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { bendingTube, closedBox } from '../../../../core/testing/rigs';
import { areSame, guidesFor } from '.';

const RIGS = new Map([['figure', bendingTube()]]);

const guides = (shape: (layer: Layer) => void) => {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  shape(layer);
  effect.layers = collectionOf([['motes', layer]]);
  return guidesFor(effect, 'motes', RIGS, new Map());
};
const withForce = (force: Force) =>
  guides((layer) => {
    layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
    layer.forces = collectionOf([['f', force]]);
  });
const furthest = (points: Float32Array, centre: number[]) => {
  let most = 0;
  for (let i = 0; i < points.length; i += 3)
    most = Math.max(most, Math.hypot(...centre.map((c, axis) => points[i + axis]! - c)));
  return most;
};

describe('drawings on the stage', () => {
  it('show a sphere at its place, as large as it is', () => {
    const [sphere] = guides((layer) => {
      layer.source = { kind: 'sphere', place: atEffect([0, 2, 0]) };
      setNumber(layer, 'source.radius', 0.75);
    });
    expect(sphere!.tone).toBe('source');
    expect(furthest(sphere!.points, [0, 2, 0])).toBeCloseTo(0.75, 5);
  });

  it('follow the swirls of a curl about its place, as they are at that instant', () => {
    const stirred = (seconds: number, drift: Vector) => {
      const effect = newEffect('Test', 1);
      const layer = newLayer('Motes', 5);
      const curl = newForce('curl', atEffect([1, 2, 0]));
      (curl.settings as { drift: { base: unknown } }).drift.base = { kind: 'fixed', value: drift };
      layer.forces = collectionOf([['f', curl]]);
      effect.layers = collectionOf([['motes', layer]]);
      const found = guidesFor(effect, 'motes', RIGS, new Map(), { seconds, effectTime: 0, stretchTime: 0 });
      return found.find(({ tone, points }) => tone === 'faint' && points.length > 1000)!;
    };
    const still = stirred(0, [0, 0, 0]);
    expect(still).toMatchObject({ matrix: -1, tone: 'faint' });
    expect(furthest(still.points, [1, 2, 0])).toBeLessThan(2.2);
    // A line is as long as a swirl is wide, and it bends.
    const bends = Array.from({ length: 60 }, (_, n) => {
      const piece = (at: number) => [0, 1, 2].map((axis) => still.points[at + 3 + axis]! - still.points[at + axis]!);
      const [a, b] = [piece(n * 6), piece(n * 6 + 6)];
      return a.reduce((sum, x, axis) => sum + x * b[axis]!, 0) / Math.hypot(...a) / Math.hypot(...b);
    });
    expect(Math.min(...bends)).toBeLessThan(0.95);
    expect([...stirred(3, [0, 0, 0]).points]).not.toEqual([...still.points]);
    expect([...stirred(0, [1, 0, 0]).points]).toEqual([...still.points]);
  });

  it('keep the lines of a curl that an edit leaves alone, and draw it anew for another throw', () => {
    const effect = newEffect('Test', 1);
    const layer = newLayer('Motes', 5);
    layer.forces = collectionOf([['f', newForce('curl')]]);
    effect.layers = collectionOf([['motes', layer]]);
    const drawn = (seed: number) => guidesFor({ ...effect, seed }, 'motes', RIGS, new Map());
    const first = drawn(1);
    const again = drawn(1);
    expect(again.find(({ tone }) => tone === 'faint')!.points).toBe(
      first.find(({ tone }) => tone === 'faint')!.points,
    );
    expect(areSame(first, again)).toBe(true);
    expect(areSame(first, drawn(2))).toBe(false);
    expect(areSame(first, first.slice(1))).toBe(false);
  });

  it('stand, turn and grow with the group of their layer, but on a bone', () => {
    const effect = newEffect('Test', 1);
    const layer = newLayer('Motes', 5);
    layer.source = { kind: 'sphere', place: atEffect([0, 2, 0]) };
    layer.parent = 'g';
    setNumber(layer, 'source.radius', 0.75);
    effect.layers = collectionOf([['motes', layer]]);
    effect.groups = collectionOf([
      ['g', { name: 'G', parent: null, translation: [1, 0, 0], rotation: [0, 0, 90], scale: 2, linked: null }],
    ]);
    const [sphere] = guidesFor(effect, 'motes', RIGS, new Map());
    expect(furthest(sphere!.points, [-3, 0, 0])).toBeCloseTo(1.5, 5);
    layer.source.place = atBone('figure', 'high', [0, 2, 0]);
    const [onBone] = guidesFor(effect, 'motes', RIGS, new Map());
    expect(furthest(onBone!.points, [0, 2, 0])).toBeCloseTo(0.75, 5);
  });

  it('hang on what a source or a force stands on: a bone, feet, the effect, the world', () => {
    expect(guides((layer) => (layer.source = { kind: 'point', place: atBone('figure', 'high') }))[0]!.matrix).toBe(1);
    expect(guides((layer) => (layer.source = { kind: 'ring', place: atThing('figure') }))[0]!.matrix).toBe(2);
    expect(guides((layer) => (layer.source = { kind: 'ring', place: atEffect() }))[0]!.matrix).toBe(3);
    expect(guides((layer) => (layer.source = { kind: 'ring', place: inWorld() }))[0]!.matrix).toBe(-1);
    for (const guide of withForce(newForce('attraction', atBone('figure', 'high')))) expect(guide.matrix).toBe(1);
  });

  it('show a force’s reach as a circle of that radius, faintly', () => {
    const force = newForce('attraction', atEffect([1, 1, 0]));
    if (force.kind === 'attraction') force.settings.reach.base = { kind: 'fixed', value: 1.5 };
    const reach = withForce(force).find(({ tone }) => tone === 'faint')!;
    expect(furthest(reach.points, [1, 1, 0])).toBeCloseTo(1.5, 5);
  });

  it('point gravity’s arrow down, and up when it lifts', () => {
    for (const [strength, way] of [
      [9.81, -1],
      [-3, 1],
    ] as const) {
      const force = newForce('gravity');
      if (force.kind === 'gravity') force.settings.strength.base = { kind: 'fixed', value: strength };
      const { points } = withForce(force)[0]!;
      expect(Math.sign(points[4]! - points[1]!)).toBe(way);
    }
  });

  it('stand and are as large as keys and time have them at the instant', () => {
    const effect = newEffect('Test', 1);
    const layer = newLayer('Motes', 5);
    const still = { offset: [0, 0, 0] as Vector, turn: [0, 0, 0] as Vector };
    const keyed = withPlaceKey(atEffect(), 0, still, 'a');
    layer.source = { kind: 'ring', place: withPlaceKey(keyed, 2, { ...still, offset: [4, 0, 0] }, 'b') };
    setNumber(layer, 'source.radius', 1);
    effect.layers = collectionOf([['motes', layer]]);
    const at = { seconds: 1, effectTime: 0.25, stretchTime: 0.5 };
    const ring = () => guidesFor(effect, 'motes', RIGS, new Map(), at)[0]!.points;
    expect(furthest(ring(), [2, 0, 0])).toBeCloseTo(1, 5);
    for (const [kind, radius] of [
      ['effectTime', 0.25],
      ['stretchTime', 0.5],
      ['age', 1],
    ] as const) {
      const grows = curveShaper([
        [0, 0],
        [1, 1],
      ]);
      layer.settings['source.radius'].shapers = collectionOf([['s', { ...grows, reads: { kind } }]]);
      expect(furthest(ring(), [2, 0, 0])).toBeCloseTo(radius, 5);
    }
  });

  it('leave out what is muted, and have nothing to say of skin', () =>
    expect(withForce({ ...newForce('attraction'), muted: true })).toEqual([]));
  it('show what is met where it is, as large as it is: a box, a mesh of the project, not a thing that is seen anyway', () => {
    const surfaceOf = (surface: Surface) => {
      const effect = newEffect('Test', 1);
      const layer = newLayer('Motes', 5);
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      effect.layers = collectionOf([['motes', layer]]);
      effect.surfaces = collectionOf([['s', surface]]);
      return guidesFor(effect, 'motes', RIGS, new Map([['b'.repeat(64), closedBox()]]));
    };
    const box = newSurface('box', { place: inWorld([0, 3, 0]) });
    box.settings.tall.base = { kind: 'fixed', value: 4 };
    const [drawn] = surfaceOf(box);
    expect(drawn!.tone).toBe('surface');
    expect(furthest(drawn!.points, [0, 3, 0])).toBeCloseTo(Math.hypot(0.5, 2, 0.5), 5);
    const mesh = newSurface('mesh', { place: inWorld(), asset: 'b'.repeat(64), name: 'block' });
    mesh.settings.wide.base = { kind: 'fixed', value: 3 };
    expect(furthest(surfaceOf(mesh)[0]!.points, [0, 0, 0])).toBeCloseTo(Math.hypot(1.5, 0.5, 0.5), 5);
    expect(surfaceOf(newSurface('thing', { thing: 'figure' }))).toEqual([]);
  });

  it('are none without a layer', () =>
    expect(guidesFor(newEffect('Empty', 1), '', new Map(), new Map())).toEqual([]));
});
