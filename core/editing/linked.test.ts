import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  canonicalText,
  collectionOf,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  newSurface,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
  type NumberSetting,
  type Place,
} from '../document/index.ts';
import { onStage } from '../testing/effects.ts';
import { assetsOf } from '../formats/index.ts';
import { playAlone } from '../simulation/index.ts';
import { linkEffect, linkedInto, relinked, takeIn, wholeOf } from './linked.ts';

const OF = '6b7c6d1e-8a41-4d0e-9c55-0c5c6a3a1b11';

/** Sparks that fall by a force of the whole effect, and meet a box beside them. */
function flame(): Effect {
  const effect = newEffect('Flame', 3);
  const sparks = newLayer('Sparks', 41);
  sparks.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(sparks, 'births.rate', 100);
  setNumber(sparks, 'births.life', 2);
  setNumber(sparks, 'motion.speed', 0);
  sparks.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'warm' } };
  effect.palette = collectionOf([['warm', namedColour('Warm', '#ff8800')]]);
  effect.layers = collectionOf([['sparks', sparks]]);
  effect.forces = collectionOf([['fall', { force: newForce('gravity'), layers: [] }]]);
  effect.surfaces = collectionOf([['box', newSurface('box', { place: atEffect([0.2, 0, 0]) })]]);
  return effect;
}
function host(change: (draft: Effect) => void = () => undefined): Effect {
  const effect = newEffect('Lantern', 3);
  effect.layers = collectionOf([['glow', newLayer('Glow', 7)]]);
  linkEffect(effect, 'flame', OF, flame());
  change(effect);
  return parseEffect(effect);
}
const places = (effect: Effect, layer: string, step = 40) => {
  const world = playAlone(wholeOf(effect).effect, new Map());
  world.advance(step);
  const population = world.population(layer)!;
  return Array.from({ length: population.count }, (_, n) => population.position.map((axis) => axis[n]!));
};

describe('an effect that stands in another', () => {
  it('is its layers in the group that it is, behind all others or in front of them', () => {
    const { effect, layersOf } = wholeOf(host());
    expect(layersOf.get('flame')).toEqual(['sparks']);
    expect(effect.layers.order).toEqual(['glow', 'sparks']);
    expect(effect.layers.byId['sparks']!.parent).toBe('flame');
    expect(effect.groups.byId['flame']!.linked).toBeNull();
    expect(parseEffect(effect)).toEqual(effect);
    const before = host((draft) => (draft.groups.byId['flame']!.linked!.inFront = true));
    expect(wholeOf(before).effect.layers.order).toEqual(['sparks', 'glow']);
    const hidden = host((draft) => (draft.groups.byId['flame']!.linked!.hidden = true));
    expect(wholeOf(hidden).effect.layers.order).toEqual(['glow']);
  });

  it('moves as it does by itself, where its group stands and as large as that is', () => {
    const alone = flame();
    alone.surfaces = collectionOf([]);
    const linked = (change: (draft: Effect) => void) =>
      host((draft) => {
        draft.groups.byId['flame']!.linked!.effect.surfaces = collectionOf([]);
        change(draft);
      });
    const own = places(alone, 'sparks');
    expect(own.length).toBeGreaterThan(50);
    const same = linked(() => undefined);
    expect(places(same, 'sparks')).toEqual(own);
    const moved = linked((draft) => {
      draft.groups.byId['flame']!.translation = [2, 0, 1];
      draft.groups.byId['flame']!.scale = 2;
    });
    places(moved, 'sparks').forEach(([x, y, z], n) => {
      expect(x).toBeCloseTo(own[n]![0]! * 2 + 2, 3);
      expect(z).toBeCloseTo(own[n]![2]! * 2 + 1, 3);
      expect(y).toBeCloseTo(own[n]![1]! * 2, 2);
    });
  });

  it('brings what all its layers feel and meet, and lets the others alone', () => {
    const { effect } = wholeOf(host((draft) => (draft.groups.byId['flame']!.translation = [1, 0, 0])));
    expect(effect.forces.order).toEqual([]);
    expect(Object.values(effect.layers.byId['sparks']!.forces.byId).map(({ kind }) => kind)).toEqual(['gravity']);
    expect(effect.layers.byId['glow']!.forces.order).toEqual([]);
    const [surface] = Object.values(effect.surfaces.byId);
    expect(surface!.layers).toEqual(['sparks']);
    expect('place' in surface! && surface.place.offset).toEqual([1.2, 0, 0]);
  });

  it('has the colours of its host that have the same names, and brings the others', () => {
    const whole = (change: (draft: Effect) => void) => wholeOf(host(change)).effect;
    expect(whole(() => undefined).palette.byId['warm']!.colour).toEqual({ kind: 'fixed', hex: '#ff8800' });
    const cold = whole((draft) => (draft.palette = collectionOf([['cold', namedColour('Warm', '#3388ff')]])));
    expect(cold.palette.order).toEqual(['cold']);
    expect(cold.layers.byId['sparks']!.settings['life.colour'].base).toEqual({
      kind: 'fixed',
      value: { palette: 'cold' },
    });
  });

  it('stands in its group where what it hung on is not on this stage, and says so', () => {
    const hung = flame();
    hung.stage.things = onStage('sway');
    (hung.layers.byId['sparks']!.source as { place: Place }).place = atBone('figure', 'high', [0, 0.3, 0]);
    const linked = (things: Effect['stage']['things']) => {
      const effect = newEffect('Host', 1);
      effect.stage.things = things;
      linkEffect(effect, 'flame', OF, hung);
      const { effect: whole, lostOf } = wholeOf(parseEffect(effect));
      return { place: (whole.layers.byId['sparks']!.source as { place: Place }).place, lost: lostOf.get('flame')! };
    };
    const without = linked(collectionOf([]));
    expect(without.place).toMatchObject({ kind: 'effect', offset: [0, 0.3, 0] });
    expect(without.lost).toEqual(['the thing Figure, which is not on this stage']);
    const other = linked(collectionOf([['her', onStage('sway').byId['figure']!]]));
    expect(other.place).toMatchObject({ kind: 'bone', thing: 'her', bone: 'high' });
    expect(other.lost).toEqual([]);
  });

  it('gives the same ids and salts each time, also where the same effect stands there twice', () => {
    const twice = () => host((draft) => linkEffect(draft, 'second', OF, flame()));
    const { effect, layersOf } = wholeOf(twice());
    expect(canonicalText(wholeOf(twice()).effect)).toBe(canonicalText(effect));
    const [first, second] = [...layersOf.values()].flat();
    expect(second).not.toBe(first);
    expect(effect.layers.byId[second!]!.salt).not.toBe(effect.layers.byId[first!]!.salt);
    const edited = twice();
    setNumber(edited.layers.byId['glow']!, 'births.rate', 5);
    expect(wholeOf(edited).layersOf).toEqual(layersOf);
    const plain = newEffect('Plain', 1);
    expect(wholeOf(plain).effect).toBe(plain);
  });

  it('is kept as the other is, until it is taken in', () => {
    const effect = host();
    expect(linkedInto(effect)).toEqual([OF]);
    const changed = flame();
    setNumber(changed.layers.byId['sparks']!, 'births.rate', 900);
    const rate = (of: Effect) => (of.layers.byId['sparks']!.settings['births.rate'] as NumberSetting).base;
    const now = parseEffect(relinked(effect, OF, changed));
    expect(rate(wholeOf(now).effect)).toEqual({ kind: 'fixed', value: 900 });
    expect(relinked(effect, '00000000-0000-4000-8000-000000000000', changed)).toEqual(effect);

    const taken = structuredCopy(effect);
    takeIn(taken, 'flame');
    expect(taken).toEqual(wholeOf(effect).effect);
    expect(relinked(taken, OF, changed)).toEqual(taken);
  });

  it('is taken in itself where what is linked has something linked, and names what is wrong in it', () => {
    const outer = newEffect('Outer', 1);
    linkEffect(outer, 'lantern', '00000000-0000-4000-8000-000000000000', host());
    expect(wholeOf(parseEffect(outer)).effect.layers.order).toEqual(['glow', 'sparks']);
    const broken = structuredCopy(host());
    broken.groups.byId['flame']!.linked!.effect.layers.byId['sparks']!.parent = 'nowhere';
    expect(() => parseEffect(broken)).toThrow('no group "nowhere"');
  });

  it('counts what it uses among what its host uses', () => {
    const drawn = flame();
    drawn.stage.air.surroundings.picture = { asset: 'a'.repeat(64), name: 'Sky' };
    const effect = newEffect('Host', 1);
    linkEffect(effect, 'flame', OF, drawn);
    expect(assetsOf(effect)).toEqual(['a'.repeat(64)]);
  });
});
