import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  differencesOf,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  parseEffect,
  setNumber,
  structuredCopy,
  wordsOf,
  type Effect,
} from '../document/index.ts';
import { takable, takeLine } from './compare.ts';

function pair(): { left: Effect; right: Effect } {
  const left = newEffect('Lamp', 1);
  const motes = newLayer('Motes', 1);
  motes.forces = collectionOf([['f', newForce('attraction')]]);
  left.layers = collectionOf([['motes', motes]]);
  left.palette = collectionOf([['lamp', namedColour('Lamp', '#e8f070')]]);
  return { left, right: structuredCopy(left) };
}

describe('taking from another effect', () => {
  it('takes settings, forces’ numbers and stretches over line by line, until nothing differs', () => {
    const { left, right } = pair();
    setNumber(right.layers.byId['motes']!, 'life.size', [0.2, 0.3]);
    const strength = right.layers.byId['motes']!.forces.byId['f']!;
    if (strength.kind === 'attraction') strength.settings.strength.base = { kind: 'fixed', value: 9 };
    right.stretches.hold = { kind: 'seamless', seconds: 2 };
    right.seed = 99;
    const told = differencesOf(wordsOf(left), wordsOf(right));
    expect(told.map(({ name }) => name)).toEqual(['seed', 'hold', 'size', 'attraction strength']);
    const can = takable(left, right);
    expect(told.every(({ id }) => can.has(id))).toBe(true);
    for (const { id } of told) expect(takeLine(left, right, id)).toBe(true);
    expect(differencesOf(wordsOf(left), wordsOf(right))).toEqual([]);
    expect(() => parseEffect(left)).not.toThrow();
    // What was taken is a copy of its own.
    setNumber(right.layers.byId['motes']!, 'life.size', 5);
    expect(left.layers.byId['motes']!.settings['life.size'].base).toMatchObject({ low: 0.2 });
  });

  it('leaves alone what this effect does not have, and what refers to something that it has not', () => {
    const { left, right } = pair();
    right.layers = collectionOf([...Object.entries(right.layers.byId), ['embers', newLayer('Embers', 2)]]);
    right.palette = collectionOf([['ember', namedColour('Ember', '#ff7a2e')]]);
    right.layers.byId['motes']!.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'ember' } };
    const can = takable(left, right);
    const before = structuredCopy(left);
    for (const { id } of differencesOf(wordsOf(left), wordsOf(right))) {
      expect(can.has(id)).toBe(false);
      expect(takeLine(left, right, id)).toBe(false);
    }
    expect(left).toEqual(before);
  });
});
