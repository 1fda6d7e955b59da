import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  LAYER_SETTINGS,
  newEffect,
  newForce,
  newLayer,
  newLink,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
  type LayerSettingName,
} from '../document/index.ts';
import { counter } from '../testing/counter.ts';
import { randomEffect } from '../testing/randomEffect.ts';
import { CHAPTERS } from './chapterNames.ts';
import { pasteChapter } from './chapters.ts';

function two(): Effect {
  const effect = newEffect('Two', 1);
  const [a, b] = [newLayer('A', 1), newLayer('B', 2)];
  a.source = { kind: 'ring', place: a.aim };
  setNumber(a, 'births.rate', 99);
  a.bursts = collectionOf([['x', burst('opening', 1, 5)]]);
  a.forces = collectionOf([['v', newForce('vortex')]]);
  setNumber(a, 'life.size', 0.7);
  a.settings['appearance.blend'].base = { kind: 'fixed', value: 'multiply' };
  a.links = collectionOf([['l', newLink('death', 'b', 7)]]);
  effect.layers = collectionOf([
    ['a', a],
    ['b', b],
  ]);
  return parseEffect(effect);
}
const given = (effect: Effect, chapter: (typeof CHAPTERS)[number], layers: string[], from = effect, id = 'a') => {
  const draft = structuredCopy(effect);
  pasteChapter(draft, { layers: [id], effect: from }, chapter, layers, counter());
  return parseEffect(draft);
};

describe('a chapter given to another layer', () => {
  it.each(CHAPTERS)('brings all of %s and nothing of the others', (chapter) => {
    const before = two();
    const after = given(before, chapter, ['b']);
    expect(after.layers.order).toEqual(['a', 'b']);
    expect(after.layers.byId['a']).toEqual(before.layers.byId['a']);
    const [from, was, is] = [before.layers.byId['a']!, before.layers.byId['b']!, after.layers.byId['b']!];
    for (const name of Object.keys(LAYER_SETTINGS) as LayerSettingName[])
      expect(is.settings[name]).toEqual((LAYER_SETTINGS[name].chapter === chapter ? from : was).settings[name]);
    expect(is.forces).toEqual((chapter === 'motion' ? from : was).forces);
    expect(is.bursts).toEqual((chapter === 'births' ? from : was).bursts);
    expect(is.source).toEqual((chapter === 'source' ? from : was).source);
    expect(is.look).toEqual((chapter === 'appearance' ? from : was).look);
    expect(is.links.order).toEqual(chapter === 'links' ? ['l'] : []);
    expect([is.name, is.salt]).toEqual(['B', 2]);
  });

  it('of any effect fits layers of any other', () => {
    for (let seed = 0; seed < 12; seed++)
      for (const chapter of CHAPTERS) {
        const [from, into] = [randomEffect(seed).effect, randomEffect(seed + 1).effect];
        const after = given(into, chapter, into.layers.order.slice(0, 2), from, from.layers.order[1]!);
        expect(after.layers.order).toEqual(into.layers.order);
      }
  });
});
