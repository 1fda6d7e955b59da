import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  apply,
  collectionOf,
  diff,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  parseChanged,
  parseEffect,
  parseEffectSteps,
  readKept,
  setNumber,
  structuredCopy,
  type Change,
  type Effect,
} from './index.ts';

function flame(): Effect {
  const effect = newEffect('Flame', 7);
  const [body, sparks] = [newLayer('Body', 1), newLayer('Sparks', 2)];
  body.forces = collectionOf([['rise', newForce('gravity')]]);
  effect.palette = collectionOf([['warm', namedColour('Warm', '#ff8800')]]);
  body.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'warm' } };
  sparks.population = { kind: 'follows', layer: 'body' };
  effect.layers = collectionOf([
    ['body', body],
    ['sparks', sparks],
  ]);
  return parseEffect(effect);
}

/** What both doors say of a document: that it is right, or what is wrong with it. */
function verdicts(known: Effect, changed: unknown): [string, string] {
  const of = (check: () => unknown) => {
    try {
      check();
      return 'right';
    } catch (error) {
      return (error as Error).message;
    }
  };
  const inSteps = () => [...parseEffectSteps(changed)];
  // Of several things wrong the steps may name another.
  expect(of(inSteps) === 'right').toBe(of(() => parseEffect(changed)) === 'right');
  return [of(() => parseChanged(known, changed)), of(() => parseEffect(changed))];
}
const at = (path: string, after?: unknown): Change => ({
  path: path.split(' '),
  ...(after === undefined ? {} : { after }),
});

describe('a document that was kept', () => {
  it('is read as it was checked, and one of an older schema is migrated', () => {
    expect(readKept(JSON.stringify(flame()))).toEqual(flame());
    const old = readFileSync(new URL('./kept/schema6.json', import.meta.url), 'utf8');
    expect(readKept(old)).toEqual(parseEffect(JSON.parse(old)));
    expect(() => readKept('{}')).toThrow();
  });

  it('is checked in steps between which others may be answered, an item at a time', () => {
    const effect = flame();
    const steps = parseEffectSteps(effect);
    let count = 0;
    let made: Effect | undefined;
    for (let next = steps.next(); ; next = steps.next()) {
      if (next.done) {
        made = next.value;
        break;
      }
      count++;
    }
    expect([made, count]).toEqual([effect, 3]);
  });
});

describe('a document that was changed', () => {
  const known = flame();

  it.each<[string, Change[]]>([
    ['nothing', []],
    ['a number', [at('layers byId body settings births.rate base', { kind: 'fixed', value: 40 })]],
    ['a number past its limits', [at('layers byId body settings births.rate base', { kind: 'fixed', value: -40 })]],
    ['a field that is unknown', [at('layers byId body glow', 3)]],
    ['a part that is unknown', [at('glow', 3)]],
    ['a part that is missing', [at('groups')]],
    ['a part that has another name', [at('groups'), at('clusters', collectionOf([]))]],
    ['a name of another type', [at('name', 7)]],
    ['another schema', [at('schema', 99)]],
    ['an item that the order lacks', [at('layers byId third', newLayer('Third', 3))]],
    ['an order without an item', [at('layers order', ['body'])]],
    ['an order with a stranger', [at('layers order', ['body', 'sparks', 'ghost'])]],
    ['a collection that is none', [at('layers', [])]],
    ['a parent that is not there', [at('layers byId sparks parent', 'nowhere')]],
    ['a circle of followers', [at('layers byId body population', { kind: 'follows', layer: 'sparks' })]],
    ['a colour that others use, gone', [at('palette order', []), at('palette byId warm')]],
    ['a layer that others follow, gone', [at('layers order', ['sparks']), at('layers byId body')]],
    ['a layer that nobody needs, gone', [at('layers order', ['body']), at('layers byId sparks')]],
    [
      'a force on a layer that is not there',
      [at('forces', collectionOf([['wind', { ...newForce('wind'), layers: ['ghost'] }]]))],
    ],
  ])('is judged as it would be if all of it were read: %s', (_, changes) => {
    const [quick, whole] = verdicts(known, apply<unknown>(known, changes));
    expect(quick).toBe(whole);
  });

  it('is judged so for every field of a whole effect that goes, or is of another type', () => {
    const kept = parseEffect(JSON.parse(readFileSync(new URL('./kept/schema6.json', import.meta.url), 'utf8')));
    const paths: string[][] = [];
    const walk = (value: unknown, path: string[]) => {
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return;
      for (const [name, field] of Object.entries(value)) {
        paths.push([...path, name]);
        walk(field, [...path, name]);
      }
    };
    walk(kept, []);
    // Every seventh: all of them take a minute.
    for (const path of paths.filter((_, n) => n % 7 === 0))
      for (const change of [{ path }, { path, after: 'ghost' }, { path, after: null }]) {
        const changed = apply<unknown>(kept, [change]);
        const [quick, whole] = verdicts(kept, changed);
        expect([path.join('.'), quick === 'right']).toEqual([path.join('.'), whole === 'right']);
      }
  });

  it('comes out as it went in', () => {
    const copy = structuredCopy(known);
    setNumber(copy.layers.byId['body']!, 'births.rate', 12);
    const changed = apply(known, diff(known, copy));
    expect(parseChanged(known, changed)).toEqual(copy);
  });
});
