import { expect, it } from 'vitest';
import {
  atBorder,
  atEffect,
  burst,
  collectionOf,
  newEffect,
  newHit,
  newLayer,
  structuredCopy,
} from '../document/index.ts';
import { delayLayers } from './delay.ts';

function three() {
  const effect = newEffect('Test', 1);
  const [first, second, blows] = ['First', 'Second', 'Blows'].map((name, n) => newLayer(name, n));
  first!.births = { from: atBorder('start', 0.5), until: atBorder('letGo', -0.5) };
  first!.bursts = collectionOf([
    ['a', burst('hold', 0.2, 6)],
    ['s', { ...burst('hold', 0.2, 6), signal: 'g' }],
  ]);
  second!.births.from = {
    after: { kind: 'layer', layer: 'first', event: 'firstBirth' },
    seconds: 0.1,
    measure: null,
  };
  blows!.source = { kind: 'hits', hits: collectionOf([['h', newHit('hold', 1, atEffect())]]) };
  effect.signals = collectionOf([['g', { name: 'Go', at: 1 } as never]]);
  effect.layers = collectionOf([
    ['first', first!],
    ['second', second!],
    ['blows', blows!],
  ]);
  return effect;
}
const delayed = (layers: string[], seconds: number) => {
  const effect = three();
  delayLayers(effect, layers, seconds);
  return structuredCopy(effect).layers.byId;
};

it('bursts, hits and beginnings come later, and what waits for an end or a signal does not', () => {
  const { first, blows } = delayed(['first', 'blows'], 0.25);
  expect(first!.births.from.seconds).toBe(0.75);
  expect(first!.births.until!.seconds).toBe(-0.5);
  expect([first!.bursts.byId['a']!.at, first!.bursts.byId['s']!.at]).toEqual([0.45, 0.2]);
  expect(blows!.source).toMatchObject({ hits: { byId: { h: { at: 1.25 } } } });
});

it('a layer that begins after another is moved alone, and goes along where both are moved', () => {
  expect(delayed(['second'], 0.25)['second']!.births.from.seconds).toBe(0.35);
  expect(delayed(['first', 'second'], 0.25)['second']!.births.from.seconds).toBe(0.1);
});

it('earlier ends at the beginning of the stretch', () => {
  expect(delayed(['first'], -1)['first']!.bursts.byId['a']!.at).toBe(0);
});
