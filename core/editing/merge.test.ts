import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  apply,
  burst,
  collectionOf,
  diff,
  inverted,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  parseEffect,
  removeLayer,
  setNumber,
  structuredCopy,
  withItem,
  type Effect,
} from '../document/index.ts';
import { applyOver, merged } from './merge.ts';

function flame(): Effect {
  const effect = newEffect('Flame', 7);
  const layers = ['body', 'sparks', 'smoke'].map((name, n) => newLayer(name, n + 1));
  layers[0]!.forces = collectionOf([['rise', newForce('gravity')]]);
  effect.palette = collectionOf([['warm', namedColour('Warm', '#ff8800')]]);
  effect.layers = collectionOf(layers.map((layer) => [layer.name, layer]));
  return parseEffect(effect);
}
const base = flame();
type Recipe = (draft: Effect) => void;
const after = (...recipes: Recipe[]): Effect => {
  const draft = structuredCopy(base);
  for (const recipe of recipes) recipe(draft);
  return parseEffect(draft);
};
/** What comes of two people changing the same effect, the first of them having saved. */
const both = (theirs: Recipe, mine: Recipe, keepMine = false) => {
  const [saved, own] = [after(theirs), after(mine)];
  return merged(saved, diff(base, saved), diff(base, own), () => keepMine);
};
const layer = (id: string) => (draft: Effect) => draft.layers.byId[id]!;
const rate =
  (id: string, value: number): Recipe =>
  (draft) =>
    setNumber(layer(id)(draft), 'births.rate', value);
const called =
  (id: string, name: string): Recipe =>
  (draft) =>
    void (layer(id)(draft).name = name);
const gone =
  (id: string): Recipe =>
  (draft) =>
    removeLayer(draft, id);
const added =
  (id: string, at: number): Recipe =>
  (draft) =>
    void (draft.layers = withItem(draft.layers, id, newLayer(id, 9), at));
const ordered =
  (...order: string[]): Recipe =>
  (draft) =>
    void (draft.layers.order = order);

describe('changes of different things', () => {
  it.each<[string, Recipe, Recipe]>([
    ['of two layers', rate('body', 5), rate('sparks', 6)],
    ['of two settings of a layer', rate('body', 5), (draft) => setNumber(layer('body')(draft), 'life.size', 2)],
    ['a setting and a name', rate('body', 5), called('body', 'Heart')],
    ['a name and a layer that goes', called('body', 'Heart'), gone('sparks')],
    ['two layers that go', gone('body'), gone('sparks')],
    ['the palette and the seed', (d) => void (d.palette.byId['warm']!.name = 'Hot'), (d) => void (d.seed = 3)],
  ])('are both kept: %s', (_, theirs, mine) => {
    for (const [one, other] of [
      [theirs, mine],
      [mine, theirs],
    ] as const) {
      const { document, clashes } = both(one, other);
      expect(clashes).toEqual([]);
      expect(parseEffect(document)).toEqual(after(theirs, mine));
    }
  });

  it('keep what either put into an order, and what either moved', () => {
    const added2 = both(added('glow', 1), added('ash', 3));
    expect(added2.clashes).toEqual([]);
    expect(parseEffect(added2.document).layers.order).toEqual(['body', 'glow', 'sparks', 'smoke', 'ash']);
    const movedToo = both(added('glow', 3), ordered('smoke', 'body', 'sparks'));
    expect(parseEffect(movedToo.document).layers.order).toEqual(['smoke', 'glow', 'body', 'sparks']);
    const wentToo = both(gone('sparks'), ordered('smoke', 'sparks', 'body'));
    expect(parseEffect(wentToo.document).layers.order).toEqual(['smoke', 'body']);
    const inside = both(
      (draft) => void (layer('body')(draft).bursts = collectionOf([['one', burst('opening', 0, 20)]])),
      (draft) => void (layer('body')(draft).bursts = collectionOf([['two', burst('hold', 0, 30)]])),
    );
    expect(inside.clashes).toEqual([]);
    expect(new Set(parseEffect(inside.document).layers.byId['body']!.bursts.order)).toEqual(new Set(['one', 'two']));
  });
});

describe('changes of the same thing', () => {
  it('clash where they differ: theirs stays until mine is chosen', () => {
    const { document, clashes } = both(rate('body', 5), rate('body', 6));
    expect(clashes.map(({ path }) => path.join(' '))).toEqual(['layers byId body settings births.rate']);
    expect(parseEffect(document)).toEqual(after(rate('body', 5)));
    expect(parseEffect(both(rate('body', 5), rate('body', 6), true).document)).toEqual(after(rate('body', 6)));
  });

  it('do not clash where they come to the same', () => {
    for (const recipe of [rate('body', 5), gone('sparks'), called('smoke', 'Ash')]) {
      const { document, clashes } = both(recipe, recipe);
      expect(clashes).toEqual([]);
      expect(parseEffect(document)).toEqual(after(recipe));
    }
  });

  it('never make one setting out of two halves', () => {
    const lives = (value: number | [number, number]): Recipe => {
      return (draft) => setNumber(layer('body')(draft), 'births.life', value);
    };
    const { clashes, document } = both(lives([2, 3]), lives(6), true);
    expect(clashes).toHaveLength(1);
    expect(parseEffect(document)).toEqual(after(lives(6)));
  });

  it('clash where one is gone and the other was changed, whichever came first', () => {
    const change: Recipe = (draft) => {
      rate('sparks', 9)(draft);
      called('sparks', 'Embers')(draft);
    };
    const theyTook = both(gone('sparks'), change);
    expect(theyTook.clashes.map(({ path }) => path.join(' '))).toEqual(['layers byId sparks']);
    expect(parseEffect(theyTook.document)).toEqual(after(gone('sparks')));
    // Chosen, it comes back where it stood, as it was changed.
    expect(parseEffect(both(gone('sparks'), change, true).document)).toEqual(after(change));
    const iTook = both(change, gone('sparks'));
    expect(iTook.clashes).toHaveLength(1);
    expect(parseEffect(iTook.document)).toEqual(after(change));
    expect(parseEffect(both(change, gone('sparks'), true).document)).toEqual(after(gone('sparks')));
  });
});

const someRecipe: fc.Arbitrary<Recipe> = fc.oneof(
  fc.tuple(fc.constantFrom('body', 'sparks', 'smoke'), fc.integer({ min: 0, max: 9 })).map(([id, n]) => rate(id, n)),
  fc.constantFrom('body', 'sparks', 'smoke').map((id) => called(id, `${id} too`)),
  fc.shuffledSubarray(['body', 'sparks', 'smoke'], { minLength: 3 }).map((order) => ordered(...order)),
  fc.tuple(fc.constantFrom('glow', 'ash'), fc.integer({ min: 0, max: 3 })).map(([id, at]) => added(id, at)),
  fc.constantFrom('sparks', 'smoke').map(gone),
);

describe('any two changes', () => {
  it('come to a whole document, whatever is chosen', () => {
    fc.assert(
      fc.property(someRecipe, someRecipe, fc.boolean(), (theirs, mine, keepMine) => {
        const { document, clashes } = both(theirs, mine, keepMine);
        parseEffect(document);
        if (clashes.length > 0) expect(parseEffect(document)).toEqual(keepMine ? after(mine) : after(theirs));
      }),
    );
  });

  it('lose nothing of either where they do not clash', () => {
    fc.assert(
      fc.property(someRecipe, someRecipe, (theirs, mine) => {
        const { document, clashes } = both(theirs, mine);
        if (clashes.length > 0) return;
        const kept = (own: Effect) =>
          diff(base, own)
            .filter(({ path }) => path[path.length - 1] !== 'order')
            .every(({ path, after: value }) => {
              const now = path.reduce<unknown>(
                (at, name) => (at as Record<string, unknown> | undefined)?.[name],
                document,
              );
              return JSON.stringify(now) === JSON.stringify(value);
            });
        expect(kept(after(theirs))).toBe(true);
        expect(kept(after(mine))).toBe(true);
      }),
    );
  });
});

describe('changes laid over a document', () => {
  it('are what they are where nothing else changed, there and back', () => {
    fc.assert(
      fc.property(fc.array(someRecipe, { minLength: 1, maxLength: 2 }), (recipes) => {
        const made = recipes.reduce<Effect>((draft, recipe) => {
          const copy = structuredCopy(draft);
          try {
            recipe(copy);
            return parseEffect(copy);
          } catch {
            return draft;
          }
        }, base);
        const changes = diff(base, made);
        expect(applyOver(base, changes)).toEqual(made);
        expect(applyOver(made, inverted(changes))).toEqual(base);
      }),
    );
  });

  it('leave what somebody else put in since', () => {
    const mine = diff(base, after(added('ash', 0)));
    const now = apply(after(added('ash', 0)), diff(after(added('ash', 0)), after(added('ash', 0), added('glow', 4))));
    expect(parseEffect(applyOver(now, inverted(mine))).layers.order).toEqual(['body', 'sparks', 'smoke', 'glow']);
  });

  it('say what is gone', () => {
    const mine = diff(base, after(rate('sparks', 3)));
    expect(() => applyOver(after(gone('sparks')), inverted(mine))).toThrow(/nothing here to change/);
  });
});
