import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  collectionOf,
  newEffect,
  newForce,
  newLayer,
  newThing,
  type Effect,
} from '../document/index.ts';
import { placeForForce } from './forcePlace.ts';

function effectOf(shape: (effect: Effect) => void): Effect {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([['motes', newLayer('Motes', 5)]]);
  shape(effect);
  return effect;
}
const none = () => [];

describe('where a new force stands', () => {
  it('is where another does, upright whatever that is turned by', () => {
    const keyed = {
      ...atEffect([1, 2, 3], [30, 0, 10]),
      keys: collectionOf([['k', { at: 1, ease: 'smooth' as const, offset: [2, 2, 2], turn: [5, 0, 0] }]]),
    } as ReturnType<typeof atEffect>;
    const effect = effectOf((own) => {
      own.layers.byId['motes']!.forces = collectionOf([['v', newForce('vortex', keyed)]]);
    });
    const place = placeForForce(effect, 'motes', none);
    expect(place).toMatchObject({ kind: 'effect', offset: [1, 2, 3], turn: [0, 0, 0] });
    expect(place.keys.byId['k']).toMatchObject({ offset: [2, 2, 2], turn: [0, 0, 0] });
    // The other stays as it is.
    expect(effect.layers.byId['motes']!.forces.byId['v']!.place.turn).toEqual([30, 0, 10]);
  });

  it('is on what the source hangs on, over the figure, or in the middle', () => {
    const onBone = effectOf((own) => {
      own.layers.byId['motes']!.source = { kind: 'ring', place: { ...atBone('sedge', 'head'), turn: [16, 0, -12] } };
    });
    expect(placeForForce(onBone, 'motes', none)).toMatchObject({ kind: 'bone', bone: 'head', turn: [0, 0, 0] });
    const figure = effectOf((own) => {
      own.stage.things = collectionOf([['sedge', newThing('Sedge', 'a'.repeat(64))]]);
    });
    expect(placeForForce(figure, 'motes', () => ['hip', 'chest'])).toMatchObject({ kind: 'bone', bone: 'chest' });
    expect(
      placeForForce(
        effectOf(() => undefined),
        'motes',
        none,
      ),
    ).toEqual(atEffect([0, 1.5, 0]));
  });
});
