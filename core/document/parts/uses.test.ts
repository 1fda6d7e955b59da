import { describe, expect, it } from 'vitest';
import { drawn, picture } from '../../building/index.ts';
import { collectionOf } from '../../settings/index.ts';
import type { Effect, Place } from '../schema/index.ts';
import { atEffect, newEffect, newForce, newFront, newLayer, newSurface } from '../make.ts';
import { usesOf } from './uses.ts';

const hung: Place = { ...atEffect(), kind: 'dial', dial: 'd' };
const [WATER, REED] = ['a'.repeat(64), 'b'.repeat(64)];

function withDial(dial: Effect['dials']['byId'][string], use: (effect: Effect) => void): string[] {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([['motes', newLayer('Motes', 5)]]);
  effect.dials = collectionOf([['d', dial]]);
  use(effect);
  return usesOf(effect, 'dials', 'd');
}
const place = { kind: 'place' as const, name: 'Target', at: [0, 0, 0] as [number, number, number] };

describe('where a dial is used', () => {
  it.each<[string, (effect: Effect) => void, string]>([
    [
      'a layer stands where it says',
      (effect) => (effect.layers.byId['motes']!.source = { kind: 'point', place: hung }),
      'Motes: where it stands',
    ],
    [
      'a shared force stands there',
      (effect) =>
        (effect.forces = collectionOf([
          ['f', { name: 'Pull', layers: [], force: { ...newForce('attraction'), place: hung } }],
        ])),
      'The effect: force, where it stands',
    ],
    [
      'a surface stands there',
      (effect) => (effect.surfaces = collectionOf([['s', newSurface('sphere', { place: hung })]])),
      'The effect: surface, where it stands',
    ],
    [
      'a front stands there',
      (effect) => (effect.fronts = collectionOf([['f', newFront('Rim', 'sphere', hung)]])),
      'Rim: where it stands',
    ],
  ])('is told where %s', (_, use, words) => expect(withDial(place, use)).toEqual([words]));

  it('is told where a picture or a mesh is shown that it stands for', () => {
    const pictured = { asset: WATER, name: 'water' };
    const dial = { kind: 'picture' as const, name: 'Mark', standsFor: pictured, shows: pictured };
    expect(
      withDial(dial, (effect) => {
        effect.layers.byId['motes']!.look = { kind: 'own', steps: collectionOf([['p', picture(WATER, 'water')]]) };
        effect.stage.air.surroundings.picture = pictured;
      }),
    ).toEqual(['Motes: look, picture', 'The effect: what is mirrored']);
    const meshed = { asset: REED, name: 'reed' };
    expect(
      withDial({ kind: 'mesh', name: 'Blade', standsFor: meshed, shows: meshed }, (effect) => {
        drawn(effect.layers.byId['motes']!, 'mesh', {}, { meshes: collectionOf([['m', { ...meshed, chance: 1 }]]) });
      }),
    ).toEqual(['Motes: what it is drawn as']);
  });

  it('is nowhere where nothing uses it', () => expect(withDial(place, () => undefined)).toEqual([]));
});
