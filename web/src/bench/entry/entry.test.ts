import {
  collectionOf,
  curveShaper,
  LAYER_SETTINGS,
  newLayer,
  type NumberDeclaration,
  type NumberSetting,
} from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { readEntry, readPlain } from './entry';
import { shapedText } from './format';

type Base = NumberSetting['base'];
const fixed = (value: number): Base => ({ kind: 'fixed', value });
const spread = (low: number, high: number): Base => ({ kind: 'spread', low, high });
const typed = (text: string, of: keyof typeof LAYER_SETTINGS, base: Base, shown?: string) =>
  readEntry(text, LAYER_SETTINGS[of] as NumberDeclaration, shown)(base);

describe('what is typed into a number', () => {
  it.each<[string, keyof typeof LAYER_SETTINGS, Base, Base]>([
    ['35', 'births.rate', fixed(40), fixed(35)],
    ['0.7-0.9', 'births.life', fixed(1), spread(0.7, 0.9)],
    ['5-7 s', 'births.life', fixed(1), spread(5, 7)],
    ['3-18 cm', 'life.size', fixed(1), spread(0.03, 0.18)],
    ['0.4 ± 0.1', 'births.life', fixed(1), spread(0.3, 0.5)],
    // A second number that is smaller leaves a sum.
    ['35-10', 'births.life', fixed(1), fixed(25)],
    // Of one number, a sum too.
    ['40-30', 'births.rate', fixed(1), fixed(10)],
    ['*1.15', 'births.rate', fixed(40), fixed(46)],
    ['×150%', 'births.rate', fixed(40), fixed(60)],
    ['/4', 'births.rate', fixed(40), fixed(10)],
    ['+10', 'births.rate', fixed(40), fixed(50)],
    ['+2 cm', 'life.size', fixed(0.05), fixed(0.07)],
    ['-20%', 'births.rate', fixed(40), fixed(32)],
    ['+50%', 'births.life', spread(1, 2), spread(1.5, 3)],
    ['*2', 'births.life', spread(1, 2), spread(2, 4)],
    // Turned about, the ends change places.
    ['*-1', 'motion.speed', spread(1, 2), spread(-2, -1)],
    ['+-20%', 'births.life', fixed(2), spread(1.6, 2.4)],
    ['±20%', 'births.life', spread(1, 3), spread(1.6, 2.4)],
    ['+-0.5', 'births.life', fixed(2), spread(1.5, 2.5)],
    ['+-50%', 'life.opacity', fixed(100), spread(50, 100)],
    // Of a share of 100%, a share of it; where one below 0 can be meant, that.
    ['-20%', 'life.opacity', fixed(50), fixed(40)],
    ['-20%', 'motion.inherit', fixed(50), fixed(-20)],
    ['-2', 'motion.speed', fixed(5), fixed(-2)],
  ])('%s into %s', (text, of, base, after) => expect(typed(text, of, base)).toEqual(after));

  it('is in the unit that is shown', () => expect(typed('+1', 'life.size', fixed(0.05), 'cm')).toEqual(fixed(0.06)));

  it.each<[string, keyof typeof LAYER_SETTINGS, Base, RegExp]>([
    ['*1000', 'life.opacity', fixed(100), /opacity may be 0 to 100%/],
    ['+-20%', 'births.rate', fixed(40), /rate is one number, not a spread/],
    ['1-2', 'births.rate', fixed(40), /rate may be 0 to/],
    ['/0', 'births.life', fixed(1), /divided by 0/],
    ['*2', 'life.size', { kind: 'measure', measure: 'm' }, /measured: change the measure/],
    ['*', 'births.life', fixed(1), /not a number/],
  ])('%s into %s is refused with a sentence', (text, of, base, sentence) =>
    expect(() => typed(text, of, base)).toThrow(sentence),
  );

  it('changes a bare number too', () => {
    const limits = { name: 'height', least: -10, most: 10, unit: 'm' };
    expect(readPlain('*3', limits, 2)).toBe(6);
    expect(readPlain('+50 cm', limits, 2)).toBe(2.5);
    expect(() => readPlain('*30', limits, 2)).toThrow(/height may be -10 to 10/);
  });
});

describe('a shaped number as it is shown', () => {
  const opacity = LAYER_SETTINGS['life.opacity'];
  const shownWith = (points: [number, number][], muted = false): string => {
    const layer = newLayer('Motes', 1);
    const shaper = { ...curveShaper(points), muted };
    layer.settings['life.opacity'].shapers = collectionOf([['s', shaper]]);
    return shapedText(layer.settings['life.opacity'], opacity, () => '');
  };
  it('says up to where it goes, and that it is shaped where it goes beyond', () => {
    expect(
      shownWith([
        [0, 0],
        [1, 1],
      ]),
    ).toBe('up to 100%');
    expect(
      shownWith([
        [0, 0],
        [1, 2],
      ]),
    ).toBe('100%, shaped');
    expect(
      shownWith(
        [
          [0, 0],
          [1, 2],
        ],
        true,
      ),
    ).toBe('100%');
  });
});
