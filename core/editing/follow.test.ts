import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  moved,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  parseEffect,
  removeLayer,
  setNumber,
  structuredCopy,
  withItem,
  withoutItem,
  type Effect,
} from '../document/index.ts';

import { followed } from './follow.ts';

function flame(): Effect {
  const effect = newEffect('Flame', 7);
  const [body, sparks] = [newLayer('Body', 1), newLayer('Sparks', 2)];
  setNumber(body, 'births.life', [1, 2]);
  body.forces = collectionOf([['rise', newForce('gravity')]]);
  effect.palette = collectionOf([['warm', namedColour('Warm', '#ff8800')]]);
  body.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'warm' } };
  effect.layers = collectionOf([
    ['body', body],
    ['sparks', sparks],
  ]);
  return effect;
}
const changed = (effect: Effect, change: (draft: Effect) => void): Effect => {
  const draft = structuredCopy(effect);
  change(draft);
  return draft;
};
const life = (effect: Effect) => effect.layers.byId['body']!.settings['births.life'].base;

describe('a sibling that follows', () => {
  const before = flame();
  const sibling = changed(before, (draft) => {
    draft.name = 'Cold flame';
    draft.palette.byId['warm']!.colour = { kind: 'fixed', hex: '#3388ff' };
    setNumber(draft.layers.byId['sparks']!, 'births.rate', 500);
  });

  it('takes what it had as the other had it, and keeps what it had otherwise, its name too', () => {
    const after = changed(before, (draft) => {
      draft.name = 'Great flame';
      setNumber(draft.layers.byId['body']!, 'births.life', [3, 4]);
      setNumber(draft.layers.byId['sparks']!, 'births.rate', 90);
      setNumber(draft.layers.byId['sparks']!, 'life.size', 0.3);
      draft.palette.byId['warm']!.colour = { kind: 'fixed', hex: '#ff0000' };
    });
    const now = parseEffect(followed(sibling, before, after));
    expect(now.name).toBe('Cold flame');
    expect(life(now)).toEqual({ kind: 'spread', low: 3, high: 4 });
    expect(now.palette.byId['warm']!.colour).toEqual({ kind: 'fixed', hex: '#3388ff' });
    expect(now.layers.byId['sparks']!.settings['births.rate'].base).toEqual({ kind: 'fixed', value: 500 });
    expect(now.layers.byId['sparks']!.settings['life.size'].base).toEqual({ kind: 'fixed', value: 0.3 });
  });

  it('is the other but for its name where it had changed nothing', () => {
    const after = changed(before, (draft) => {
      draft.layers = moved(draft.layers, 'sparks', 0);
      draft.layers.byId['body']!.forces = withItem(draft.layers.byId['body']!.forces, 'air', newForce('wind'));
    });
    const twin = changed(before, (draft) => (draft.name = 'Twin'));
    expect(followed(twin, before, after)).toEqual({ ...after, name: 'Twin' });
    expect(followed(sibling, before, before)).toBe(sibling);
  });

  it('takes layers that came, loses those that went unless it had changed them, and keeps its own', () => {
    const own = changed(sibling, (draft) => {
      draft.layers = withItem(draft.layers, 'mist', newLayer('Mist', 5));
      setNumber(draft.layers.byId['body']!, 'births.life', 9);
    });
    const after = changed(before, (draft) => {
      draft.layers = withItem(draft.layers, 'glow', newLayer('Glow', 6));
      removeLayer(draft, 'body');
      removeLayer(draft, 'sparks');
    });
    const now = followed(own, before, after);
    // Both were changed here, so both stay.
    expect([...now.layers.order].sort()).toEqual(['body', 'glow', 'mist', 'sparks']);
    const plain = followed(
      changed(before, (draft) => (draft.name = 'Plain')),
      before,
      after,
    );
    expect(plain.layers.order).toEqual(['glow']);
    expect(parseEffect(now).layers.order).toEqual(now.layers.order);
  });

  it('leaves away what it took away, and what was of another kind as it is', () => {
    const own = changed(before, (draft) => {
      removeLayer(draft, 'sparks');
      draft.layers.byId['body']!.forces = withoutItem(draft.layers.byId['body']!.forces, 'rise');
      draft.layers.byId['body']!.settings['births.life'].base = { kind: 'fixed', value: 8 };
    });
    const after = changed(before, (draft) => {
      setNumber(draft.layers.byId['sparks']!, 'births.rate', 12);
      setNumber(draft.layers.byId['body']!, 'births.life', [5, 6]);
      (draft.layers.byId['body']!.forces.byId['rise']!.settings as { strength: { muted: boolean } }).strength.muted =
        true;
    });
    const now = followed(own, before, after);
    expect(now.layers.order).toEqual(['body']);
    expect(now.layers.byId['body']!.forces.order).toEqual([]);
    expect(life(now)).toEqual({ kind: 'fixed', value: 8 });
  });

  it('keeps its own order where it has one, with newcomers after whom they follow', () => {
    const own = changed(before, (draft) => (draft.layers = moved(draft.layers, 'sparks', 0)));
    const after = changed(before, (draft) => {
      draft.layers = moved(withItem(draft.layers, 'glow', newLayer('Glow', 6)), 'glow', 1);
    });
    expect(followed(own, before, after).layers.order).toEqual(['sparks', 'body', 'glow']);
  });

  it('never ends in a document that cannot be: a colour that is used here stays though it went there', () => {
    const own = changed(before, (draft) => {
      draft.layers.byId['sparks']!.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'warm' } };
    });
    const after = changed(before, (draft) => {
      draft.palette = withoutItem(draft.palette, 'warm');
      draft.layers.byId['body']!.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
    });
    const now = followed(own, before, after);
    expect(() => parseEffect(now)).not.toThrow();
    expect(now.palette.order).toEqual(['warm']);
    expect(now.layers.byId['body']!.settings['life.colour'].base).toEqual({
      kind: 'fixed',
      value: { hex: '#ffffff' },
    });
  });
});
