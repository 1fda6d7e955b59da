import { collectionOf, newEffect, newLayer, newLink, setNumber, type Effect } from '@jinx/core/document';
import { expect, it } from 'vitest';
import { birthWords } from './birthWords';

function effect(): Effect {
  const made = newEffect('Test', 1);
  const [drops, splashes] = [newLayer('Drops', 1), newLayer('Splashes', 2)];
  setNumber(splashes, 'births.rate', 0);
  drops.links = collectionOf([['link', newLink('death', 'splashes', 3)]]);
  made.layers = collectionOf([
    ['drops', drops],
    ['splashes', splashes],
  ]);
  return made;
}
const words = (of: Effect) => birthWords(of, 'splashes', 0, []);

it('a row says what bears its particles: also what stands, for each area too, and what sets them off', () => {
  const made = effect();
  expect(words(made)).toBe('set off by Drops');
  made.layers.byId['drops']!.links.byId['link']!.muted = true;
  expect(words(made)).toBe('');
  setNumber(made.layers.byId['splashes']!, 'births.standing', 3);
  expect(words(made)).toBe('stands');
  setNumber(made.layers.byId['splashes']!, 'births.standing', 0);
  setNumber(made.layers.byId['splashes']!, 'births.perArea', 2);
  expect(words(made)).toBe('stands');
  expect(birthWords(made, 'splashes', 12, [])).toBe('stands, 12 a second');
});
