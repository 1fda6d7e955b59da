import { collectionOf, newEffect, newThing } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { judgedIn, NO_JUDGING } from './judging';

const effect = newEffect('Judged', 1);
effect.stage.things = collectionOf([['one', { ...newThing('Sedge', 'a'.repeat(64)), clip: 'walk' }]]);
const assets = [
  { hash: 'a'.repeat(64), name: 'Sedge' },
  { hash: 'b'.repeat(64), name: 'Tallow' },
];

describe('an effect as it is judged', () => {
  it('is itself where nothing else is asked for, or what is asked for is so', () => {
    expect(judgedIn(effect, NO_JUDGING, assets)).toBe(effect);
    expect(judgedIn(effect, { surround: 'dusk', figure: 'a'.repeat(64) }, assets)).toBe(effect);
  });

  it('stands in the surround and on the figure of the set, and does what it does there', () => {
    const judged = judgedIn(effect, { surround: 'noon', figure: 'b'.repeat(64) }, assets);
    expect(judged.stage.surround).toBe('noon');
    expect(judged.stage.things.byId['one']).toMatchObject({ name: 'Tallow', asset: 'b'.repeat(64), clip: 'walk' });
    expect(judged.layers).toBe(effect.layers);
    expect(effect.stage.surround).toBe('dusk');
  });

  it('keeps its own figure where the one of the set is not in the project', () =>
    expect(judgedIn(effect, { surround: null, figure: 'c'.repeat(64) }, assets)).toBe(effect));
});
