import { describe, expect, it } from 'vitest';
import {
  apply,
  changedLines,
  collectionOf,
  diff,
  lineOf,
  newEffect,
  newLayer,
  removeLayer,
  setNumber,
  structuredCopy,
  wordsOfChange,
  type Effect,
} from '../index.ts';

const before = newEffect('Flame', 7);
before.layers = collectionOf(['Body', 'Sparks'].map((name, n) => [name.toLowerCase(), newLayer(name, n)]));
/** As an edit makes it: what is not changed is shared. */
const changed = (change: (draft: Effect) => void): Effect => {
  const draft = structuredCopy(before);
  change(draft);
  return apply(before, diff(before, draft));
};

describe('a change in words', () => {
  it('names the layer, the setting and both its values with their unit', () => {
    const lives = (value: number | [number, number]) =>
      changed((draft) => setNumber(draft.layers.byId['body']!, 'births.life', value));
    const from = lives(1.2);
    expect(wordsOfChange(from, lives(1.6), 'set lifetime')).toEqual(['Body: lifetime 1.2 s to 1.6 s']);
    expect(wordsOfChange(from, lives([1, 2]), 'set lifetime')).toEqual(['Body: lifetime 1.2 s → 1 to 2 s']);
  });

  it('tells what came, went, was renamed and moved', () => {
    const told = (change: (draft: Effect) => void) => wordsOfChange(before, changed(change), 'change it');
    const withAsh = (draft: Effect) => {
      draft.layers = collectionOf([...Object.entries(draft.layers.byId), ['ash', newLayer('Ash', 9)]]);
    };
    expect(told(withAsh)).toEqual(['Added: layer Ash']);
    expect(told((draft) => removeLayer(draft, 'sparks'))).toEqual(['Taken away: layer Sparks']);
    expect(told((draft) => void (draft.layers.byId['body']!.name = 'Heart'))).toEqual([
      'Renamed: layer Body to Heart',
    ]);
    expect(told((draft) => void draft.layers.order.reverse())).toEqual([
      'Order: layers Body, Sparks to Sparks, Body',
    ]);
  });

  it('is the name of the step where much changes at once, or nothing that has words', () => {
    const after = changed((draft) => {
      for (const name of ['births.rate', 'births.life', 'life.size'] as const)
        for (const layer of Object.values(draft.layers.byId)) setNumber(layer, name, 7);
    });
    expect(wordsOfChange(before, after, 'set them all')).toEqual(['set them all']);
    expect(wordsOfChange(before, before, 'nothing')).toEqual(['nothing']);
  });

  it('looks only at layers that changed', () => {
    const after = changed((draft) => (draft.seed = 9));
    expect(changedLines(before, after).map(lineOf)).toEqual(['The effect: seed 7 to 9']);
  });
});
