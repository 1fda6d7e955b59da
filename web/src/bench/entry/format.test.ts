import { FORCE_SETTINGS, LAYER_SETTINGS, type NumberDeclaration, type NumberSetting } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { readEntry } from './entry';
import { plainHtml, settingText, shownUnit, stepFor } from './format';

const SIZE = LAYER_SETTINGS['life.size'];
const RATE = LAYER_SETTINGS['births.rate'];
function refusalOf(work: () => unknown): string {
  try {
    work();
  } catch (error) {
    return (error as Error).message;
  }
  return '';
}
const setting = (base: NumberSetting['base']): NumberSetting => ({
  base,
  shapers: { order: [], byId: {} },
  muted: false,
});

it('writes a name as HTML that shows it', () =>
  expect(plainHtml(`<img src=x onerror="a('b')"> & co`)).toBe(
    '&lt;img src=x onerror=&quot;a(&#39;b&#39;)&quot;&gt; &amp; co',
  ));

const typedBase = (text: string, declaration: NumberDeclaration, shown?: string) =>
  readEntry(text, declaration, shown)({ kind: 'fixed', value: 1 });

describe('what is typed into a chip', () => {
  it.each<[string, NumberSetting['base']]>([
    ['0.2', { kind: 'fixed', value: 0.2 }],
    ['4 cm', { kind: 'fixed', value: 0.04 }],
    ['12 mm', { kind: 'fixed', value: 0.012 }],
    ['0.2 – 0.5', { kind: 'spread', low: 0.2, high: 0.5 }],
    ['0.5 to 0.2', { kind: 'spread', low: 0.2, high: 0.5 }],
    ['3 ± 1', { kind: 'spread', low: 2, high: 4 }],
    ['1 – 3 cm', { kind: 'spread', low: 0.01, high: 0.03 }],
    ['1 - 3', { kind: 'spread', low: 1, high: 3 }],
    ['0.4 +- 0.1', { kind: 'spread', low: 0.3, high: 0.5 }],
  ])('%s is understood', (text, base) => expect(typedBase(text, SIZE)).toEqual(base));

  it.each(['5000', '-3', '1 – 200', '90 ± 20'])('%s is refused, and the limits are told', (text) =>
    expect(() => typedBase(text, SIZE)).toThrow('size may be 0 to 100\u00a0m'),
  );

  it('keeps the unit the chip shows', () => {
    const small = setting({ kind: 'fixed', value: 0.05 });
    const shown = shownUnit(small, SIZE);
    expect(shown).toBe('cm');
    expect(typedBase('4', SIZE, shown)).toEqual({ kind: 'fixed', value: 0.04 });
    expect(typedBase('4 m', SIZE, shown)).toEqual({ kind: 'fixed', value: 4 });
    expect(shownUnit(setting({ kind: 'fixed', value: 2 }), SIZE)).toBe('m');
  });

  it('is a million where a million is written, as in the sentence that tells the limits', () => {
    const cap = LAYER_SETTINGS['births.cap'];
    const [, most] = /to ([\d,]+)/.exec(refusalOf(() => typedBase('1e9', cap)))!;
    expect(typedBase(most!, cap)).toEqual({ kind: 'fixed', value: cap.most });
  });

  it('is refused as a spread where one number is meant', () =>
    expect(() => typedBase('1 – 2', RATE)).toThrow(/one number/));
  it('is made whole where only whole numbers are', () =>
    expect(typedBase('7.6', LAYER_SETTINGS['births.cap'])).toEqual({ kind: 'fixed', value: 8 }));
  it('comes back as what is shown', () => {
    for (const base of [
      { kind: 'fixed', value: 0.25 },
      { kind: 'spread', low: 0.014, high: 0.036 },
    ] as const) {
      const shown = settingText(setting(base), SIZE, () => '').replace(/\u00a0/g, ' ');
      expect(typedBase(shown, SIZE)).toEqual(base);
    }
  });
});

describe('numbers as they are shown', () => {
  it('carry their unit, small lengths in centimetres', () => {
    expect(settingText(setting({ kind: 'fixed', value: 0.05 }), SIZE, () => '')).toBe('5\u00a0cm');
    expect(settingText(setting({ kind: 'fixed', value: 2 }), SIZE, () => '')).toBe('2\u00a0m');
    expect(settingText(setting({ kind: 'fixed', value: 40 }), RATE, () => '')).toBe('40/s');
  });

  it('say what nought means', () => {
    expect(settingText(setting({ kind: 'fixed', value: 0 }), FORCE_SETTINGS.attraction.reach, () => '')).toBe(
      'any distance',
    );
    expect(settingText(setting({ kind: 'fixed', value: 0 }), LAYER_SETTINGS['source.below'], () => '')).toBe(
      'any height',
    );
  });

  it('name a measure rather than repeat it', () =>
    expect(settingText(setting({ kind: 'measure', measure: 'w' }), SIZE, (id) => `measure ${id}`)).toBe('measure w'));
});

describe('a drag', () => {
  it('moves by sensible steps: about a hundredth to a tenth of what is there', () => {
    for (const value of [0.02, 0.5, 3, 40, 900]) {
      const step = stepFor(value, RATE);
      expect(step).toBeGreaterThan(0);
      expect(step).toBeLessThanOrEqual(Math.max(value, 1) / 5);
    }
    expect(stepFor(0, SIZE)).toBeGreaterThan(0);
  });
});
