import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  collectionOf,
  curveShaper,
  FORCE_KINDS,
  newForce,
  newThing,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
  type Layer,
  type Vector,
} from '../document/index.ts';
import type { Rig } from '../geometry/index.ts';
import { playAlone } from '../simulation/index.ts';
import { effectOf } from '../testing/effects.ts';
import { bendingTube } from '../testing/rigs.ts';
import { withNumber, withValue } from '../testing/storms.ts';
import { mirrorEffect, mirrorGroup, mirrorLayer, otherSide } from './mirror.ts';

const NO_RIGS: ReadonlyMap<string, Rig> = new Map();
const edited = (effect: Effect, edit: (draft: Effect) => void): Effect => {
  const draft = structuredCopy(effect);
  edit(draft);
  return parseEffect(draft);
};
const positions = (effect: Effect, steps = 30): Vector[] => {
  const world = playAlone(effect, new Map());
  world.advance(steps);
  const population = world.population('motes')!;
  return Array.from({ length: population.count }, (_, i) => population.position.map((axis) => axis[i]!) as Vector);
};
function isMirrored(effect: Effect, made: Effect): void {
  const [before, after] = [positions(effect), positions(made)];
  expect(before.length).toBeGreaterThan(10);
  expect(Math.max(...before.map(([x]) => Math.abs(x)))).toBeGreaterThan(0.1);
  before.forEach(([x, y, z], i) => {
    expect(after[i]![0]).toBeCloseTo(-x, 3);
    expect(after[i]![1]).toBeCloseTo(y, 3);
    expect(after[i]![2]).toBeCloseTo(z, 3);
  });
}

/** Births that walk along part of a leaning ring, so that which is where is known. */
const walking = (shape: (layer: Layer, effect: Effect) => void = () => undefined): Effect =>
  effectOf((layer, effect) => {
    layer.source = { kind: 'ring', place: atEffect([0.6, 1, 0.3], [20, 35, 10]) };
    layer.settings['source.order'].base = { kind: 'fixed', value: 'walking' };
    setNumber(layer, 'source.arc', 220);
    setNumber(layer, 'births.rate', 50);
    setNumber(layer, 'births.life', 5);
    setNumber(layer, 'motion.speed', 0.7);
    shape(layer, effect);
  });

describe('mirroring a layer', () => {
  it.each(['outward', 'normal', 'tangent', 'axis', 'toward', 'round'])('mirrors births and a launch %s', (launch) => {
    const effect = walking((layer) => {
      layer.settings['motion.launch'].base = { kind: 'fixed', value: launch };
      layer.settings['motion.axis'].base = { kind: 'fixed', value: [0.6, 0.5, -0.3] };
      setNumber(layer, 'motion.angle', 35);
      layer.settings['motion.velocity'].base = { kind: 'fixed', value: [0.4, 0.1, -0.2] };
      layer.aim = atEffect([-0.4, 2, 1]);
    });
    isMirrored(
      effect,
      edited(effect, (draft) => mirrorLayer(draft, 'motes', NO_RIGS)),
    );
  });

  it.each(['box', 'cone', 'cylinder', 'disc', 'line', 'path'] as const)('mirrors a %s', (kind) => {
    const effect = walking((layer) => {
      const place = atEffect([0.6, 1, 0.3], [20, 35, 10]);
      layer.source =
        kind === 'path'
          ? {
              kind,
              place,
              points: [
                [0, 0, 0],
                [1, 0.3, 0],
                [1.4, 0.2, 0.9],
              ],
              closed: false,
            }
          : { kind, place };
      layer.settings['source.size'].base = { kind: 'fixed', value: [1, 2, 3] };
    });
    isMirrored(
      effect,
      edited(effect, (draft) => mirrorLayer(draft, 'motes', NO_RIGS)),
    );
  });

  // Curl noise and jitter push each place its own way: mirrored, they are another throw of the same kind.
  it.each(FORCE_KINDS.filter((kind) => kind !== 'curl' && kind !== 'jitter'))('mirrors what %s does', (kind) => {
    const effect = walking((layer) => {
      const force = newForce(kind, atEffect([0.2, 1.1, -0.4], [10, 20, 30]));
      if ('axis' in force.settings) withValue(force, 'axis', [0.4, 0.8, 0.3]);
      if ('x' in force.settings)
        withNumber(force, 'x', [0.5, 0.5], {
          ...curveShaper([
            [0, 0.2],
            [1, 0.7],
          ]),
          combine: 'add',
        });
      if (force.kind === 'attraction') withValue(force, 'toward', 'line');
      layer.forces = collectionOf([['f', force]]);
    });
    isMirrored(
      effect,
      edited(effect, (draft) => mirrorLayer(draft, 'motes', NO_RIGS)),
    );
  });

  it('turns what turns the other way, and twice is what it was', () => {
    const effect = walking((layer) => {
      setNumber(layer, 'life.turning', [10, 40]);
      setNumber(layer, 'life.angle', 25);
    });
    const made = edited(effect, (draft) => mirrorLayer(draft, 'motes', NO_RIGS));
    expect(made.layers.byId['motes']!.settings['life.turning'].base).toEqual({ kind: 'spread', low: -40, high: -10 });
    expect(edited(made, (draft) => mirrorLayer(draft, 'motes', NO_RIGS))).toEqual(effect);
  });
});

describe('mirroring a group and an effect', () => {
  it('mirrors what stands in a turned group, and the group', () => {
    const effect = walking((layer, whole) => {
      layer.parent = 'inner';
      layer.forces = collectionOf([['v', newForce('vortex', atEffect([0, 1.4, 0]))]]);
      whole.groups = collectionOf([
        [
          'outer',
          { name: 'Outer', parent: null, translation: [0.4, 0, 0], rotation: [0, 30, 0], scale: 1.2, linked: null },
        ],
        [
          'inner',
          {
            name: 'Inner',
            parent: 'outer',
            translation: [0.2, 0.1, 0],
            rotation: [10, 0, 40],
            scale: 0.7,
            linked: null,
          },
        ],
      ]);
      whole.forces = collectionOf([['w', { force: withValue(newForce('wind'), 'axis', [1, 0.2, 0]), layers: [] }]]);
    });
    isMirrored(
      effect,
      edited(effect, (draft) => mirrorEffect(draft, NO_RIGS)),
    );
    effect.forces = collectionOf([]);
    isMirrored(
      effect,
      edited(effect, (draft) => mirrorGroup(draft, 'outer', NO_RIGS)),
    );
  });
});

describe('the other side of a body', () => {
  it.each([
    ['hand.left', 'hand.right'],
    ['upper arm.right', 'upper arm.left'],
    ['LeftHand', 'RightHand'],
    ['arm_L', 'arm_R'],
    ['hand.r', 'hand.l'],
    ['chest', 'chest'],
    ['collar', 'collar'],
  ])('has %s over against %s', (bone, other) => expect(otherSide(bone)).toBe(other));

  it('stands over against where it stood, however the bones themselves lie', () => {
    // A body whose arms are turned otherwise on either side.
    const tube = bendingTube();
    const turn = (degrees: number): [number, number, number, number] => [
      0,
      0,
      Math.sin((degrees * Math.PI) / 360),
      Math.cos((degrees * Math.PI) / 360),
    ];
    const bone = (name: string, x: number, degrees: number) => ({
      ...tube.bones[0]!,
      name,
      parent: -1,
      translation: [x, 1, 0] as const,
      rotation: turn(degrees),
    });
    const bones = [bone('arm.left', 0.5, 40), bone('arm.right', -0.5, 110)];
    const inverseBind = new Float32Array(32);
    bones.forEach(({ translation: [x, y], rotation: [, , z, w] }, n) => {
      const [c, s] = [1 - 2 * z * z, 2 * z * w];
      inverseBind.set([c, -s, 0, 0, s, c, 0, 0, 0, 0, 1, 0, -(c * x + s * y), s * x - c * y, 0, 1], 16 * n);
    });
    const rig: Rig = {
      ...tube,
      bones,
      inverseBind,
      clips: [],
      mesh: { ...tube.mesh, joints: new Uint16Array(tube.mesh.joints.length) },
    };
    const hash = 'a'.repeat(64);
    const effect = walking((layer, whole) => {
      whole.stage.things = collectionOf([['body', newThing('Body', hash)]]);
      layer.source = { kind: 'ring', place: atBone('body', 'arm.left', [0.1, 0.4, 0.2], [15, 25, 35]) };
    });
    const at = (of: Effect) => {
      const world = playAlone(of, new Map([[hash, rig]]));
      world.advance(30);
      const population = world.population('motes')!;
      return Array.from({ length: population.count }, (_, i) => population.position.map((axis) => axis[i]!));
    };
    const made = edited(effect, (draft) => mirrorLayer(draft, 'motes', new Map([['body', rig]])));
    const { source } = made.layers.byId['motes']!;
    expect('place' in source && source.place).toMatchObject({ kind: 'bone', bone: 'arm.right' });
    const [before, after] = [at(effect), at(made)];
    expect(before.length).toBeGreaterThan(10);
    before.forEach(([x, y, z], i) => {
      expect(after[i]![0]).toBeCloseTo(-x!, 3);
      expect(after[i]![1]).toBeCloseTo(y!, 3);
      expect(after[i]![2]).toBeCloseTo(z!, 3);
    });
  });
});
