import { expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  newEffect,
  newLayer,
  newRibbon,
  newSurface,
  parseEffect,
  setNumber,
  structuredCopy,
} from '../document/index.ts';
import { playAlone } from '../simulation/index.ts';
import { counter } from '../testing/counter.ts';
import { addSetOffLayer } from './setOff.ts';

function sparks(meets: boolean) {
  const effect = newEffect('Test', 1);
  effect.stretches = { opening: 4, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  const layer = newLayer('Sparks', 5);
  setNumber(layer, 'births.life', 0.2);
  effect.layers = collectionOf([['s', layer]]);
  if (meets) effect.surfaces = collectionOf([['g', newSurface('ground', { place: atEffect() })]]);
  addSetOffLayer(effect, 's', { layer: 'n', link: 'l' }, counter());
  return parseEffect(structuredCopy(effect));
}

it('what is set off is born where the others die, and by nothing else', () => {
  const effect = sparks(false);
  expect(effect.layers.byId['s']!.links.byId['l']).toMatchObject({ on: 'death', layer: 'n' });
  const world = playAlone(effect, new Map());
  world.advance(6);
  expect(world.population('n')!.count).toBe(0);
  world.advance(60);
  expect(world.population('n')!.count).toBeGreaterThan(0);
});

it('is born where they hit, when they meet something', () => {
  expect(sparks(true).layers.byId['s']!.links.byId['l']).toMatchObject({ on: 'hit', layer: 'n' });
});

it('is born along a written line, one at a time, as it is written', () => {
  const effect = sparks(false);
  effect.layers.byId['s']!.drawn = newRibbon('strand');
  addSetOffLayer(effect, 's', { layer: 'n2', link: 'l2' }, counter());
  const { on, settings } = effect.layers.byId['s']!.links.byId['l2']!;
  expect([on, settings.count.base]).toEqual(['birth', { kind: 'fixed', value: 1 }]);
});
