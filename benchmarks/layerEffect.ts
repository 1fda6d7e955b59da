import {
  atEffect,
  collectionOf,
  curveShaper,
  gradientShaper,
  newForce,
  setNumber,
  settingsByName,
  type Effect,
  type NumberSetting,
} from '../core/document/index.ts';
import { effectOf } from '../core/testing/effects.ts';
import { withNumber } from '../core/testing/storms.ts';

/** Mean life of a particle of the layer, in seconds. */
export const LIFE_SECONDS = 4;

/** A layer that keeps `living` particles alive: a steady rate, and enough at the start. */
export function layerOf(living: number): Effect {
  return effectOf((layer, effect) => {
    layer.source = { kind: 'sphere', place: atEffect([0, 1, 0]) };
    setNumber(layer, 'births.rate', living / LIFE_SECONDS);
    setNumber(layer, 'births.life', [LIFE_SECONDS * 0.8, LIFE_SECONDS * 1.2]);
    setNumber(layer, 'births.cap', Math.min(1_000_000, Math.ceil(living * 1.2)));
    setNumber(layer, 'motion.speed', [0.2, 1]);
    const drawn = withNumber(newForce('attraction'), 'reach', 8);
    const stirred = withNumber(newForce('curl'), 'strength', 2);
    const strength = settingsByName<NumberSetting>(drawn)['strength']!;
    strength.base = { kind: 'fixed', value: 3 };
    layer.forces = collectionOf([
      ['a', drawn],
      ['b', newForce('vortex', atEffect([0, 1, 0]))],
      ['c', stirred],
    ]);
    setNumber(layer, 'life.size', [0.02, 0.06]);
    layer.settings['life.size'].shapers = collectionOf([
      [
        'grow',
        curveShaper([
          [0, 0.2],
          [0.3, 1],
          [1, 0],
        ]),
      ],
    ]);
    layer.settings['life.colour'].shapers = collectionOf([
      [
        'cool',
        gradientShaper([
          [0, { hex: '#ffe0a0' }],
          [1, { hex: '#203010' }],
        ]),
      ],
    ]);
    effect.stretches = { opening: 0, hold: { kind: 'continuing', seconds: 4 }, closing: 1, preRoll: 0 };
  });
}
