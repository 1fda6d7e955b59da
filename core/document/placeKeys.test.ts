import { describe, expect, it } from 'vitest';
import { formatAddress } from './parts/address.ts';
import { collectionOf, listed } from '../settings/index.ts';
import type { Effect, Place } from './schema/index.ts';
import { atEffect, newEffect, newForce, newFront, newLayer, newSurface } from './make.ts';
import { placeSetAt, placesOf, retimed, setPlace, withoutPlaceKey, withPlaceKey } from './placeKeys.ts';

const at = (offset: [number, number, number]) => ({ offset, turn: [0, 0, 0] as [number, number, number] });
const times = (place: Place) => listed(place.keys).map(({ item }) => item.at);

describe('a place that a handle moves', () => {
  it('is moved as it is while it has no keys, at whatever instant', () => {
    const place = placeSetAt(atEffect([0, 1, 0]), 2, at([1, 1, 0]), 'a');
    expect(place.offset).toEqual([1, 1, 0]);
    expect(place.keys.order).toEqual([]);
  });

  it('gets a key where the playhead stands once it has one, and keeps the others', () => {
    const keyed = withPlaceKey(atEffect(), 0, at([0, 1, 0]), 'a');
    const dragged = placeSetAt(keyed, 0.5, at([1, 1, 0]), 'b');
    expect(times(dragged)).toEqual([0, 0.5]);
    expect(dragged.keys.byId.a!.offset).toEqual([0, 1, 0]);
    expect(dragged.keys.byId.b!.offset).toEqual([1, 1, 0]);
  });

  it('has the key that stands there changed, not doubled, and keeps how it goes on', () => {
    const keyed = withPlaceKey(atEffect(), 0.5, at([0, 1, 0]), 'a');
    keyed.keys.byId.a!.ease = 'step';
    const dragged = placeSetAt(keyed, 0.5 + 1 / 200, at([1, 1, 0]), 'b');
    expect(dragged.keys.order).toEqual(['a']);
    expect(dragged.keys.byId.a).toMatchObject({ offset: [1, 1, 0], at: 0.5, ease: 'step' });
  });

  it('is written in tenths of a millimetre, so that no machine’s last digit reaches the document', () => {
    expect(placeSetAt(atEffect(), 0, at([0.12345678, -0.00001, 1 / 3]), 'a').offset).toEqual([0.1235, 0, 0.3333]);
  });

  it('stands where its last key had put it when that is taken away', () => {
    const place = withoutPlaceKey(withPlaceKey(atEffect(), 1, at([0, 2, 0]), 'a'), 'a');
    expect(place.keys.order).toEqual([]);
    expect(place.offset).toEqual([0, 2, 0]);
  });

  it('has keys retimed together, none before the beginning, always in order of time', () => {
    let place = withPlaceKey(atEffect(), 0.5, at([0, 0, 0]), 'a');
    place = withPlaceKey(place, 1, at([1, 0, 0]), 'b');
    place = withPlaceKey(place, 2, at([2, 0, 0]), 'c');
    expect(times(retimed(place, ['a', 'b'], -3))).toEqual([0, 0.5, 2]);
    const past = retimed(place, ['a'], 1.2);
    expect(past.keys.order).toEqual(['b', 'a', 'c']);
  });
});

describe('the places a layer has to do with', () => {
  function full(): Effect {
    const effect = newEffect('Test', 1);
    const layer = newLayer('Motes', 5);
    layer.source = { kind: 'ring', place: atEffect() };
    layer.settings['motion.launch'].base.value = 'round';
    layer.forces = collectionOf([['f', newForce('vortex')]]);
    layer.front = 'front';
    effect.layers = collectionOf([['motes', layer]]);
    effect.forces = collectionOf([
      ['all', { force: newForce('wind'), layers: [] }],
      ['others', { force: newForce('push'), layers: ['else'] }],
    ]);
    effect.surfaces = collectionOf([['s', newSurface('sphere', { place: atEffect() })]]);
    effect.fronts = collectionOf([['front', newFront('Border', 'sphere', atEffect())]]);
    return effect;
  }

  const namesOf = (effect: Effect) => placesOf(effect, 'motes').map(({ address }) => formatAddress(address));

  it('are its source, aim, forces, what it meets and its front; not what acts on others', () =>
    expect(namesOf(full())).toEqual([
      'source/motes',
      'aim/motes',
      'force/motes/f',
      'sharedForce/all',
      'surface/s',
      'front/front',
    ]));

  it('are not those of forces that are the same everywhere, until they have a reach', () => {
    const effect = full();
    const curl = newForce('curl');
    effect.layers.byId['motes']!.forces = collectionOf([['c', curl]]);
    expect(namesOf(effect)).not.toContain('force/motes/c');
    if (curl.kind === 'curl') curl.settings.reach.base = { kind: 'fixed', value: 2 };
    expect(namesOf(effect)).toContain('force/motes/c');
  });

  it('can each be set, and nothing else changes', () => {
    for (const { address } of placesOf(full(), 'motes')) {
      const effect = full();
      setPlace(effect, address, atEffect([7, 0, 0]));
      const moved = placesOf(effect, 'motes').filter(({ place }) => place.offset[0] === 7);
      expect(moved.map((place) => place.address)).toEqual([address]);
    }
  });

  it('leave a document alone that has no such place by now', () => {
    const effect = full();
    setPlace(effect, { kind: 'force', layer: 'motes', id: 'gone' }, atEffect([7, 0, 0]));
    setPlace(effect, { kind: 'from', layer: 'motes' }, atEffect([7, 0, 0]));
    expect(effect).toEqual(full());
  });
});
