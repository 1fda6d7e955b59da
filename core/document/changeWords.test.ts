import { describe, expect, it } from 'vitest';
import {
  apply,
  changedLines,
  collectionOf,
  diff,
  lineOf,
  newEffect,
  newLayer,
  setNumber,
  structuredCopy,
  wordsOfChange,
  type Effect,
} from './index.ts';

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

  it('is the name of the step where much changes at once, or nothing that has words', () => {
    const after = changed(
      (draft) => (draft.layers = collectionOf([...Object.entries(draft.layers.byId), ['ash', newLayer('Ash', 9)]])),
    );
    expect(wordsOfChange(before, after, 'add a layer')).toEqual(['add a layer']);
    expect(wordsOfChange(before, before, 'nothing')).toEqual(['nothing']);
  });

  it('looks only at layers that changed', () => {
    const after = changed((draft) => (draft.seed = 9));
    expect(changedLines(before, after).map(lineOf)).toEqual(['The effect: seed 7 to 9']);
  });
});
