import { describe, expect, it } from 'vitest';
import { countText, plainNumber, readNumber, readNumbers, readRange, within } from './numbers';

describe('one number', () => {
  it.each<[string, number]>([
    ['2', 2],
    ['-1.5', -1.5],
    ['.5', 0.5],
    ['300+100', 400],
    ['2*(3+1)', 8],
    ['1/4 - 0.05', 0.2],
    ['2 × 3 ÷ 4', 1.5],
    ['1e2', 100],
    ['-(2+1)', -3],
    ['10 - 4 - 3', 3],
    ['3 - -1', 4],
  ])('%s is %d', (text, value) => expect(readNumber(text)).toBeCloseTo(value, 12));

  it.each<[string, number]>([
    ['1,000', 1000],
    ['12,345', 12345],
    ['1,000,000', 1_000_000],
    ['1,234.5', 1234.5],
    ['1,000 + 2,000', 3000],
    ['0,5', 0.5],
    ['0,125', 0.125],
    ['1,5', 1.5],
    ['1234,567', 1234.567],
  ])('%s is %d: a comma between groups of three digits separates thousands', (text, value) =>
    expect(readNumber(text)).toBe(value),
  );

  it('reads back the limits as they are written', () => {
    for (const limit of [1000, 65_536, 1_000_000, 4_000_000]) expect(readNumber(countText(limit))).toBe(limit);
  });

  it.each(['', 'two', '2**3', '(1', '1)', '1/0', '3 4', 'alert(1)', '1,000,00', '1.2.3', '1..2'])(
    '“%s” is refused',
    (text) => expect(() => readNumber(text)).toThrow(/is not a number or a sum|is no unit/),
  );
});

describe('units', () => {
  const metres = { unit: 'm' };
  it.each<[string, string, number]>([
    ['50 cm', 'm', 0.5],
    ['12mm', 'm', 0.012],
    ['500 ms', 's', 0.5],
    ['1.5 min', 's', 90],
    ['36 km/h', 'm/s', 10],
    ['30/min', '/s', 0.5],
    ['12/s', '/s', 12],
    ['1 m + 20 cm', 'm', 1.2],
    ['(1 + 2) cm', 'm', 0.03],
    ['2 * 20 cm', 'm', 0.4],
    ['45°', '°', 45],
    ['90 deg', '°', 90],
    ['80%', '%', 80],
    ['2×', '×', 2],
    ['120 / 60', '/s', 2],
  ])('%s in %s is %d', (text, unit, value) => expect(readNumber(text, { unit })).toBeCloseTo(value, 9));

  it('are those that are shown, where none is typed', () => {
    expect(readNumber('4', { unit: 'm', shown: 'cm' })).toBe(0.04);
    expect(readNumber('4 m', { unit: 'm', shown: 'cm' })).toBe(4);
    expect(readNumber('2 + 2', { unit: 'm', shown: 'cm' })).toBe(0.04);
  });

  it('of another kind, or of none that is known, are refused with the reason', () => {
    expect(() => readNumber('4 s', metres)).toThrow('“4 s” is in s; this is in m');
    expect(() => readNumber('4 kg', metres)).toThrow('“kg” is no unit that is known here');
    expect(() => readNumber('4 cm')).toThrow('this has no unit');
  });
});

describe('two ends', () => {
  it.each<[string, number, number]>([
    ['1 - 2', 1, 2],
    ['1 to 2', 1, 2],
    ['2 – 1', 1, 2],
    ['1–2', 1, 2],
    ['-2 - -1', -2, -1],
    ['0.4 ± 0.1', 0.3, 0.5],
    ['0.4 +- 0.1', 0.3, 0.5],
    ['0.4 +/- 0.1', 0.3, 0.5],
    ['1 cm to 1 m', 0.01, 1],
    ['1 - 3 cm', 0.01, 0.03],
    ['20 cm ± 5', 0.15, 0.25],
    ['1,000 to 2,000', 1000, 2000],
  ])('%s is from %d to %d', (text, low, high) => expect(readRange(text, { unit: 'm' })).toEqual({ low, high }));

  it('are one number where only one is typed', () => expect(readRange('3 + 1', { unit: 'm' })).toBe(4));
  it('are in the unit that is shown', () =>
    expect(readRange('1 to 3', { unit: 'm', shown: 'cm' })).toEqual({ low: 0.01, high: 0.03 }));
});

describe('several numbers', () => {
  it.each<[string, number[]]>([
    ['0, 1.2, -3', [0, 1.2, -3]],
    ['1,000', [1, 0]],
    ['0 1 -2', [0, 1, -2]],
    ['10 cm; 2; 3', [0.1, 2, 3]],
  ])('%s are %j: a comma stands between them', (text, values) =>
    expect(readNumbers(text, { unit: 'm' })).toEqual(values),
  );
  it('are refused where one is no number', () => expect(() => readNumbers('1, two, 3')).toThrow(/“two”/));
});

describe('limits', () => {
  it('are said in full, in the way they can be typed', () =>
    expect(() => within(5e6, { name: 'budget', least: 1000, most: 4e6, unit: '' })).toThrow(
      'budget may be 1,000 to 4,000,000',
    ));
  it('make whole what is counted', () =>
    expect(within(7.6, { name: 'cap', least: 0, most: 10, unit: 'count', whole: true })).toBe(8));
});

it.each<[number, string]>([
  [1234.5, '1235'],
  [12.34, '12.3'],
  [1.25, '1.25'],
  [0.0316, '0.032'],
  [0, '0'],
  [-0.5, '-0.5'],
])('writes %d as %s', (value, text) => expect(plainNumber(value)).toBe(text));
