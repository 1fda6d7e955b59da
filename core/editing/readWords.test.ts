import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  curveShaper,
  defaultSetting,
  type Effect,
  listed,
  newEffect,
  newForce,
  newLayer,
  pageOf,
  parseEffect,
  settingsByName,
  settingsIn,
  structuredCopy,
  wordsOf,
} from '../document/index.ts';
import { randomEffect } from '../testing/randomEffect.ts';
import { pasteWords } from './readWords.ts';

const ids = () => {
  let n = 0;
  return () => `made${n++}`;
};
/** The same parts, each setting as it is by default. */
function bare(effect: Effect): Effect {
  const draft = structuredCopy(effect);
  for (const { setting, declaration } of settingsIn(draft)) Object.assign(setting, defaultSetting(declaration));
  return draft;
}

describe('a page in words that is pasted', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('says the same again of every setting of random effect %d', (seed) => {
    const { effect } = randomEffect(seed);
    const draft = bare(effect);
    const { left } = pasteWords(draft, pageOf('All', wordsOf(effect, 'all')), effect.layers.order[0]!, ids());
    expect(left).toEqual([]);
    expect(wordsOf(draft, 'all')).toEqual(wordsOf(effect, 'all'));
    expect(() => parseEffect(structuredCopy(draft))).not.toThrow();
  });

  function lamp(): Effect {
    const effect = newEffect('Lamp', 7);
    const motes = newLayer('Motes', 1);
    motes.forces = collectionOf([
      ['a', newForce('vortex')],
      ['b', newForce('vortex')],
    ]);
    effect.layers = collectionOf([
      ['m', motes],
      ['e', newLayer('Embers', 2)],
    ]);
    return effect;
  }
  it('goes to the layer of its heading, to the chosen one without, and leaves what it cannot read', () => {
    const effect = lamp();
    const page = [
      'rate: 41/s',
      'size: 2 cm',
      'Motes',
      '-----',
      'lifetime: 1.2 to 1.8 s',
      'colour: #80ff00; by age, multiplied (0%: #ffffff, 100%: #000000)',
      'blending: shiny',
      'lifetime: 99999 s',
      'what is this',
      'Elsewhere',
      '---------',
      'opacity: 25%; by age, multiplied (0%: 0, 50%: 1, 100%: 0)',
    ].join('\r\n');
    const { set, left } = pasteWords(effect, page, 'e', ids());
    const [motes, embers] = ['m', 'e'].map((id) => effect.layers.byId[id]!);
    expect(motes!.settings['births.life'].base).toEqual({ kind: 'spread', low: 1.2, high: 1.8 });
    expect(embers!.settings['births.rate'].base).toEqual({ kind: 'fixed', value: 41 });
    expect(embers!.settings['life.opacity'].base).toEqual({ kind: 'fixed', value: 25 });
    expect(embers!.settings['life.opacity'].shapers.order).toHaveLength(1);
    expect(motes!.settings['life.colour'].shapers.order).toHaveLength(1);
    expect(set).toHaveLength(4);
    expect(left.map(({ line }) => line)).toEqual([
      'size: 2 cm',
      'blending: shiny',
      'lifetime: 99999 s',
      'what is this',
    ]);
    for (const { why } of left) expect(why).not.toBe('');
    expect(() => parseEffect(structuredCopy(effect))).not.toThrow();
  });

  it('tells two forces of a name apart by their order', () => {
    const [from, to] = [lamp(), lamp()];
    const forces = listed(from.layers.byId['m']!.forces).map(({ item }) => item);
    forces.forEach(
      (force, n) => (settingsByName(force)['strength']!.base = { kind: 'fixed', value: n + 2 } as never),
    );
    pasteWords(to, pageOf('Lamp', wordsOf(from)), 'm', ids());
    expect(wordsOf(to)).toEqual(wordsOf(from));
  });

  it('changes nothing where it already says what is set, so that curves keep how steep they are', () => {
    const effect = lamp();
    const shaper = curveShaper([
      [0, 0],
      [0.3, 1],
      [1, 0],
    ]);
    effect.layers.byId['m']!.settings['life.size'].shapers = collectionOf([['s', shaper]]);
    const before = structuredCopy(effect);
    expect(pasteWords(effect, pageOf('Lamp', wordsOf(effect)), 'm', ids()).left).toEqual([]);
    expect(effect).toEqual(before);
  });
});
