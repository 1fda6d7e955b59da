import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  curveShaper,
  curveThrough,
  gradientShaper,
  LAYER_SETTINGS,
  type ColourSetting,
  type Effect,
  type NumberSetting,
  type Shaper,
  derivedColour,
  namedColour,
} from '../../document/index.ts';
import { ColourReader } from './colourReader.ts';
import { newReading } from './reading.ts';
import { NumberReader } from './numberReader.ts';

const DECLARED = LAYER_SETTINGS['life.size'];
const measures: Effect['measures'] = collectionOf([
  ['wide', { name: 'Wide', quantity: 'length' as const, value: 2.5 }],
]);
const reader = (setting: Partial<NumberSetting>, group = 1) =>
  new NumberReader(
    { base: { kind: 'fixed', value: 2 }, shapers: { order: [], byId: {} }, muted: false, ...setting },
    DECLARED,
    'life.size',
    { measures },
    { group },
  );
const at = (age: number, more = {}) => ({ ...newReading(), age, ...more });
const level = (value: number, combine: Shaper['combine'], more: Partial<Shaper> = {}): Shaper => ({
  ...curveShaper(
    [
      [0, value],
      [1, value],
    ],
    combine,
  ),
  ...more,
});

describe('a number', () => {
  it('is its base', () => {
    expect(reader({}).read(at(0.3))).toBe(2);
    expect(reader({ base: { kind: 'measure', measure: 'wide' } }).read(at(0))).toBe(2.5);
  });

  it('of a spread is drawn once for each particle, between low and high', () => {
    const spread = reader({ base: { kind: 'spread', low: 1, high: 3 } });
    const values = Array.from({ length: 4000 }, (_, key) => spread.read(at(0, { key })));
    expect(Math.min(...values)).toBeGreaterThanOrEqual(1);
    expect(Math.max(...values)).toBeLessThanOrEqual(3);
    expect(values.reduce((a, b) => a + b) / values.length).toBeCloseTo(2, 1);
    expect(spread.read(at(0.9, { key: 17 }))).toBe(values[17]);
  });

  it.each<[string, Shaper, number]>([
    ['multiplied', level(3, 'multiply'), 6],
    ['added to', level(3, 'add'), 5],
    ['replaced', level(3, 'replace'), 3],
    ['blended halfway', level(3, 'blend', { amount: 0.5 }), 2.5],
    ['left alone by a muted shaper', level(3, 'multiply', { muted: true }), 2],
  ])('is %s by its shaper', (_name, shaper, expected) => {
    expect(reader({ shapers: collectionOf([['a', shaper]]) }).read(at(0.5))).toBeCloseTo(expected, 12);
  });

  it('combines its shapers in one order, whatever order they stand in', () => {
    const shapers: [string, Shaper][] = [
      ['a', level(3, 'add')],
      ['b', level(2, 'multiply')],
      ['c', level(5, 'replace')],
    ];
    const forward = reader({ shapers: collectionOf(shapers) }).read(at(0.5));
    const backward = reader({ shapers: collectionOf([...shapers].reverse()) }).read(at(0.5));
    expect(forward).toBe(13);
    expect(backward).toBe(13);
  });

  it('keeps each particle at its place in a band', () => {
    const band: Shaper = {
      ...level(1, 'replace'),
      mapping: {
        kind: 'band',
        low: curveThrough([
          [0, 0],
          [1, 1],
        ]),
        high: curveThrough([
          [0, 2],
          [1, 5],
        ]),
      },
    };
    const banded = reader({ shapers: collectionOf([['band', band]]) });
    for (let key = 0; key < 50; key++) {
      const share = banded.read(at(0, { key })) / 2;
      expect(banded.read(at(1, { key }))).toBeCloseTo(1 + share * 4, 9);
    }
  });

  it('reads speed, effect time and dials as well as age', () => {
    const rising = (reads: Shaper['reads']): Shaper => ({
      ...curveShaper([
        [0, 0],
        [1, 1],
      ]),
      reads,
    });
    const read = (reads: Shaper['reads'], reading: object) =>
      reader({ shapers: collectionOf([['s', rising(reads)]]) }).read(at(0, reading));
    expect(read({ kind: 'speed' }, { speed: 0.5 })).toBeCloseTo(1, 9);
    expect(read({ kind: 'effectTime' }, { effectTime: 0.25 })).toBeCloseTo(0.5, 9);
    expect(read({ kind: 'dial', dial: 'charge' }, { dials: { charge: 1 } })).toBeCloseTo(2, 9);
  });

  it('stays within its declared limits whatever shapes it, and is its default when muted', () => {
    expect(reader({ shapers: collectionOf([['a', level(1e6, 'multiply')]]) }).read(at(0))).toBe(DECLARED.most);
    expect(reader({ shapers: collectionOf([['a', level(-9, 'add')]]) }).read(at(0))).toBe(DECLARED.least);
    expect(reader({ muted: true, shapers: collectionOf([['a', level(3, 'add')]]) }).read(at(0))).toBe(
      DECLARED.byDefault,
    );
  });

  it('grows with the groups it stands in', () => expect(reader({}, 3).read(at(0))).toBe(6));

  it('tells what every particle shares from what it does not', () => {
    expect(reader({}).isShared).toBe(true);
    expect(reader({ base: { kind: 'spread', low: 1, high: 2 } }).isShared).toBe(false);
    expect(reader({ shapers: collectionOf([['a', level(1, 'multiply')]]) }).isShared).toBe(false);
    expect(
      reader({ shapers: collectionOf([['a', level(1, 'multiply', { reads: { kind: 'effectTime' } })]]) }).isShared,
    ).toBe(true);
  });
});

describe('a colour', () => {
  const palette: Effect['palette'] = collectionOf([
    ['lamp', namedColour('Lamp', '#ffffff')],
    ['dim', derivedColour('Dim', 'lamp', { lighter: -0.5 })],
  ]);
  const read = (setting: Partial<ColourSetting>, age: number, key = 0) => {
    const out = new Float64Array(3);
    new ColourReader(
      {
        base: { kind: 'fixed', value: { hex: '#ff0000' } },
        shapers: { order: [], byId: {} },
        muted: false,
        ...setting,
      },
      LAYER_SETTINGS['life.colour'],
      'life.colour',
      { palette },
    ).readInto({ ...newReading(), age, key }, out);
    return [...out];
  };

  it('follows its gradient in linear light', () => {
    const shapers = collectionOf([
      [
        'g',
        gradientShaper([
          [0, { hex: '#000000' }],
          [1, { palette: 'dim' }],
        ]),
      ],
    ]);
    expect(read({ shapers }, 0)).toEqual([0, 0, 0]);
    expect(read({ shapers }, 0.5)).toEqual([0.25, 0.25, 0.25]);
    expect(read({ shapers }, 1)).toEqual([0.5, 0.5, 0.5]);
  });

  it('multiplies or blends with its base', () => {
    const white = gradientShaper([[0, { palette: 'dim' }]], 'multiply');
    expect(read({ shapers: collectionOf([['g', white]]) }, 0.2)).toEqual([0.5, 0, 0]);
    expect(
      read({ shapers: collectionOf([['g', { ...white, combine: 'blend' as const, amount: 0.5 }]]) }, 0.2),
    ).toEqual([0.75, 0.25, 0.25]);
  });

  it('of a set gives each particle one of them, all about as often', () => {
    const base = {
      kind: 'set' as const,
      values: ['#ff0000', '#00ff00'].map((hex) => ({ value: { hex }, weight: 1 })),
    };
    const reds = Array.from({ length: 1000 }, (_, key) => read({ base }, 0, key)[0]!).filter(
      (red) => red === 1,
    ).length;
    expect(reds).toBeGreaterThan(430);
    expect(reds).toBeLessThan(570);
  });
});
