import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  newDrawn,
  newEffect,
  newLayer,
  newStep,
  parseEffect,
  setNumber,
  structuredCopy,
  usesOf,
  wordsOf,
  type Dial,
  type Effect,
  type Place,
} from '../document/index.ts';
import { assetsOf } from '../formats/index.ts';
import { playAlone } from '../simulation/index.ts';
import { pasteLayers } from './clip.ts';
import { withDials } from './dialled.ts';
import { dropDial } from './names.ts';
import { wholeOf } from './linked.ts';

const byDial = (offset: readonly [number, number, number], turn = [0, 0, 0]): Place =>
  ({ kind: 'dial', dial: 'd', offset, turn, keys: collectionOf([]) }) as Place;
function effectWith(dial: Dial, place: Place): Effect {
  const effect = newEffect('Bolt', 1);
  const layer = newLayer('Spark', 1);
  layer.source = { kind: 'point', place };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.speed', 0);
  effect.layers = collectionOf([['spark', layer]]);
  effect.dials = collectionOf([['d', dial]]);
  return parseEffect(effect);
}
const TARGET: Dial = { kind: 'place', name: 'Target', at: [1, 2, 3] };
const placeOf = (effect: Effect) => (effect.layers.byId['spark']!.source as { place: Place }).place;

describe('a dial of a place', () => {
  it('puts what stands there into the world, as far off as it says', () => {
    const effect = effectWith(TARGET, byDial([0, 0.5, 0], [0, 90, 0]));
    expect(placeOf(withDials(effect))).toMatchObject({ kind: 'world', offset: [1, 2.5, 3], turn: [0, 90, 0] });
    expect(placeOf(effect).kind).toBe('dial');
    const world = playAlone(wholeOf(effect).effect, new Map());
    world.advance(2);
    expect(world.population('spark')!.position.map((axis) => axis[0])).toEqual([1, 2.5, 3]);
  });

  it('moves all keys of a place with it', () => {
    const place = byDial([0, 0, 0]);
    place.keys = collectionOf([['k', { at: 0, offset: [0, 1, 0], turn: [0, 0, 0], ease: 'smooth' }]]);
    const put = placeOf(withDials(effectWith(TARGET, place)));
    expect(put.keys.byId['k']!.offset).toEqual([1, 3, 3]);
  });

  it('is told where it is used, in words, and taken away leaves all where it is', () => {
    const effect = effectWith(TARGET, byDial([0, 0.5, 0]));
    expect(usesOf(effect, 'dials', 'd')).toEqual(['Spark: where it stands']);
    expect(wordsOf(effect).some(({ value }) => value.includes('by the dial Target'))).toBe(true);
    const draft = structuredCopy(effect);
    dropDial(draft, 'd');
    expect(placeOf(parseEffect(draft))).toMatchObject({ kind: 'world', offset: [1, 2.5, 3] });
  });

  it('comes along with a layer that is copied, or is met by the one of its name', () => {
    const clip = { layers: ['spark'], effect: effectWith(TARGET, byDial([0, 0, 0])) };
    const empty = newEffect('Empty', 1);
    expect(pasteLayers(empty, clip, 0, () => 5).brought).toEqual(['the dial Target']);
    expect(parseEffect(empty).dials.byId['d']).toEqual(TARGET);
    const other = newEffect('Other', 1);
    other.dials = collectionOf([['mine', { ...TARGET, at: [9, 9, 9] }]]);
    pasteLayers(other, clip, 0, () => 5);
    expect(placeOf(parseEffect(other))).toMatchObject({ kind: 'dial', dial: 'mine' });
  });

  it('must be there: a place by a number, or by nothing, is refused', () => {
    expect(() => effectWith({ kind: 'switch', name: 'On', value: true }, byDial([0, 0, 0]))).toThrow(
      'no place or direction',
    );
  });
});

describe('a dial of a direction', () => {
  it('turns what stands by it within the effect', () => {
    const direction: Dial = { kind: 'direction', name: 'Aim', turn: [0, 90, 0] };
    const put = placeOf(withDials(effectWith(direction, byDial([0, 1, 0], [0, 0, 30]))));
    expect(put).toMatchObject({ kind: 'effect', offset: [0, 1, 0] });
    const alone = placeOf(withDials(effectWith(direction, byDial([0, 1, 0]))));
    expect(alone.turn.map(Math.round)).toEqual([0, 90, 0]);
    expect(put.turn).not.toEqual(alone.turn);
  });
});

describe('a dial of a picture or a mesh', () => {
  const ref = (letter: string, name: string) => ({ asset: letter.repeat(64), name });
  function shown(): Effect {
    const effect = newEffect('Mark', 1);
    const layer = newLayer('Sign', 1);
    const step = newStep('picture');
    step.picture = ref('a', 'Heron');
    layer.look = { kind: 'own', steps: collectionOf([['s', step]]) };
    const shards = newLayer('Shards', 2);
    shards.drawn = { ...newDrawn('mesh'), meshes: collectionOf([['m', { ...ref('c', 'Shard'), chance: 2 }]]) };
    effect.layers = collectionOf([
      ['sign', layer],
      ['shards', shards],
    ]);
    effect.dials = collectionOf<Dial>([
      ['p', { kind: 'picture', name: 'Team', standsFor: ref('a', 'Heron'), shows: ref('b', 'Otter') }],
      ['q', { kind: 'mesh', name: 'Piece', standsFor: ref('c', 'Shard'), shows: ref('d', 'Bone') }],
    ]);
    return parseEffect(effect);
  }

  it('lets whatever shows the one show the other, and both are brought along', () => {
    const { layers } = withDials(shown());
    const { look } = layers.byId['sign']!;
    expect(look.kind === 'own' && look.steps.byId['s']).toMatchObject({ picture: ref('b', 'Otter') });
    const { drawn } = layers.byId['shards']!;
    expect(drawn.kind === 'mesh' && drawn.meshes.byId['m']).toEqual({ ...ref('d', 'Bone'), chance: 2 });
    expect(
      assetsOf(shown())
        .map((hash) => hash[0])
        .sort(),
    ).toEqual(['a', 'b', 'c', 'd']);
  });

  it('taken away leaves what it showed', () => {
    const draft = structuredCopy(shown());
    dropDial(draft, 'p');
    expect(
      assetsOf(parseEffect(draft))
        .map((hash) => hash[0])
        .sort(),
    ).toEqual(['b', 'c', 'd']);
  });
});
