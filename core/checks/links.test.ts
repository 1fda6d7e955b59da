import { expect, it } from 'vitest';
import { colour, hex } from '../building/index.ts';
import { collectionOf, newEffect, newLayer, newLink, setNumber, type Effect } from '../document/index.ts';
import { findings } from './findings.ts';

function linked(share: number): Effect {
  const effect = newEffect('Test', 1);
  const [motes, sparks] = [newLayer('Motes', 5), newLayer('Sparks', 6)];
  const link = newLink('death', 'sparks', 9);
  link.settings.colour.base = { kind: 'fixed', value: share };
  motes.links = collectionOf([['l', link]]);
  setNumber(sparks, 'births.rate', 0);
  colour(sparks, [0, hex('#ff8800')], [1, hex('#220000')]);
  effect.layers = collectionOf([
    ['motes', motes],
    ['sparks', sparks],
  ]);
  return effect;
}
const said = (effect: Effect) =>
  findings(effect, new Map(), { refused: {}, isBudgetFull: false }).filter(({ id }) => id.includes('link/colour'));

it('a colour that is passed on to a gradient is told, and is seen once the gradient tints it', () => {
  const effect = linked(100);
  const [found] = said(effect);
  expect(found!.sentence).toBe(
    'Motes passes its colour on to Sparks, whose own gradient takes its place: nothing is seen of it.',
  );
  found!.mend!.apply(effect);
  expect(said(effect)).toEqual([]);
  expect(said(linked(0))).toEqual([]);
});
