import { describe, expect, it } from 'vitest';
import {
  burst,
  parseEffect,
  collectionOf,
  derivedColour,
  LAYER_SETTINGS,
  namedColour,
  newEffect,
  newLayer,
  setNumber,
  shownLayers,
  usesOf,
  type Effect,
  type Layer,
  type NumberDeclaration,
  type NumberSetting,
  freeName,
} from '../document/index.ts';
import { hexOfLinear, hueTurned, linearOf, paletteColour } from '../maths/index.ts';
import { dialShares, newReading, NumberReader } from '../simulation/index.ts';
import { bringOut, dropColour, dropDial, dropMeasure, dropSignal, nameMeasure } from './names.ts';

const SIZE = LAYER_SETTINGS['life.size'] as NumberDeclaration;
function effectWithLayer(): Effect {
  const effect = newEffect('Lamp', 1);
  effect.layers = collectionOf([
    ['motes', newLayer('Motes', 1)],
    ['embers', newLayer('Embers', 2)],
  ]);
  return effect;
}
const size = (effect: Effect, layer = 'motes'): NumberSetting => effect.layers.byId[layer]!.settings['life.size'];
/** What a particle of some key reads of a size. */
function read(effect: Effect, key: number, layer = 'motes'): number {
  const reading = { ...newReading(), key, dials: dialShares(effect) };
  return new NumberReader(size(effect, layer), SIZE, 'life.size', effect).read(reading);
}
const setDial = (effect: Effect, value: number) => Object.assign(effect.dials.byId['d']!, { value });

describe('measures', () => {
  it('a number that is named stays what it is, and follows the measure', () => {
    const effect = effectWithLayer();
    setNumber(effect.layers.byId['motes']!, 'life.size', 0.2);
    nameMeasure(effect, size(effect), SIZE, 'm', 'Bead');
    size(effect, 'embers').base = { kind: 'measure', measure: 'm' };
    expect([read(effect, 1), read(effect, 1, 'embers')]).toEqual([0.2, 0.2]);
    expect(usesOf(effect, 'measures', 'm')).toEqual(['Motes: size', 'Embers: size']);
    effect.measures.byId['m']!.value = 0.3;
    expect([read(effect, 1), read(effect, 1, 'embers')]).toEqual([0.3, 0.3]);
    dropMeasure(effect, 'm');
    expect(size(effect).base).toEqual({ kind: 'fixed', value: 0.3 });
    expect(() => parseEffect(effect)).not.toThrow();
  });

  it('moments that are measured keep their time', () => {
    const effect = effectWithLayer();
    effect.measures = collectionOf([['m', { name: 'Wait', quantity: 'time', value: 2 }]]);
    const { births } = effect.layers.byId['motes']!;
    Object.assign(births.from, { seconds: -1, measure: 'm' });
    expect(usesOf(effect, 'measures', 'm')).toEqual(['Motes: when births begin']);
    dropMeasure(effect, 'm');
    expect(births.from).toMatchObject({ seconds: -2, measure: null });
  });

  it('names stay apart', () => {
    const table = collectionOf([
      ['a', { name: 'Bead' }],
      ['b', { name: 'Bead 2' }],
    ]);
    expect([freeName(table, 'Bead'), freeName(table, 'Rim')]).toEqual(['Bead 3', 'Rim']);
  });
});

describe('dials', () => {
  it('a number that is brought out stays what it is; the dial turns it over its range', () => {
    const effect = effectWithLayer();
    setNumber(effect.layers.byId['motes']!, 'life.size', 0.2);
    bringOut(effect, size(effect), SIZE, { dial: 'd', shaper: 's' }, 'Bead');
    expect(effect.dials.byId['d']).toEqual({ kind: 'number', name: 'Bead', least: 0.1, most: 0.4, value: 0.2 });
    expect(read(effect, 1)).toBeCloseTo(0.2, 9);
    setDial(effect, 0.4);
    expect(read(effect, 1)).toBeCloseTo(0.4, 9);
    expect(() => parseEffect(effect)).not.toThrow();
  });

  it('a spread goes with the dial as a whole', () => {
    const effect = effectWithLayer();
    setNumber(effect.layers.byId['motes']!, 'life.size', [0.1, 0.3]);
    const before = [1, 2, 3].map((key) => read(effect, key));
    bringOut(effect, size(effect), SIZE, { dial: 'd', shaper: 's' }, 'Bead');
    [1, 2, 3].forEach((key, n) => expect(read(effect, key)).toBeCloseTo(before[n]!, 9));
    setDial(effect, 0.1);
    [1, 2, 3].forEach((key, n) => expect(read(effect, key)).toBeCloseTo(before[n]! / 2, 9));
  });

  it('one dial turns several, each in its own proportion', () => {
    const effect = effectWithLayer();
    setNumber(effect.layers.byId['motes']!, 'life.size', 0.2);
    setNumber(effect.layers.byId['embers']!, 'life.size', 0.05);
    bringOut(effect, size(effect), SIZE, { dial: 'd', shaper: 's' }, 'Bead');
    bringOut(effect, size(effect, 'embers'), SIZE, { dial: 'd', shaper: 't' }, 'Bead');
    expect(effect.dials.order).toEqual(['d']);
    setDial(effect, 0.1);
    expect(read(effect, 1)).toBeCloseTo(0.1, 9);
    expect(read(effect, 1, 'embers')).toBeCloseTo(0.025, 9);
  });

  it('taken away, it leaves numbers as it had them', () => {
    const effect = effectWithLayer();
    setNumber(effect.layers.byId['motes']!, 'life.size', [0.1, 0.3]);
    setNumber(effect.layers.byId['embers']!, 'life.size', 0.05);
    bringOut(effect, size(effect), SIZE, { dial: 'd', shaper: 's' }, 'Bead');
    bringOut(effect, size(effect, 'embers'), SIZE, { dial: 'd', shaper: 't' }, 'Bead');
    setDial(effect, 0.3);
    const before = ['motes', 'embers'].map((layer) => read(effect, 7, layer));
    dropDial(effect, 'd');
    expect(size(effect).shapers.order).toEqual([]);
    ['motes', 'embers'].forEach((layer, n) => expect(read(effect, 7, layer)).toBeCloseTo(before[n]!, 6));
    expect(() => parseEffect(effect)).not.toThrow();
  });

  it('a switch hides what is seen by it, and only a switch will do', () => {
    const effect = effectWithLayer();
    effect.dials = collectionOf([['d', { kind: 'switch', name: 'Charged', value: true }]]);
    effect.layers.byId['embers']!.seenBy = 'd';
    expect([...shownLayers(effect)]).toEqual(['motes', 'embers']);
    effect.dials.byId['d'] = { kind: 'switch', name: 'Charged', value: false };
    expect([...shownLayers(effect)]).toEqual(['motes']);
    expect(usesOf(effect, 'dials', 'd')).toEqual(['Embers: whether it is seen']);
    effect.dials.byId['d'] = { kind: 'number', name: 'Charged', least: 0, most: 1, value: 0 };
    expect(() => parseEffect(effect)).toThrow(/no switch/);
    dropDial(effect, 'd');
    expect([...shownLayers(effect)]).toEqual(['motes', 'embers']);
  });
});

describe('the palette', () => {
  const withPalette = () => {
    const effect = effectWithLayer();
    effect.palette = collectionOf([
      ['lamp', namedColour('Lamp', '#c04010')],
      ['rim', derivedColour('Rim', 'lamp', { turned: 120, lighter: 0.3 })],
    ]);
    const motes = effect.layers.byId['motes']!;
    motes.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'lamp' } };
    return effect;
  };

  it('a turned hue is as bright as before, and three thirds of a turn lead back', () => {
    const bright = ([r, g, b]: readonly number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
    const dull = linearOf('#808a76');
    const third = hueTurned(dull, 120);
    expect(bright(third)).toBeCloseTo(bright(dull), 3);
    expect(Math.abs(third[0] - dull[0])).toBeGreaterThan(0.01);
    const round = hueTurned(hueTurned(third, 120), 120);
    round.forEach((c, n) => expect(c).toBeCloseTo(dull[n]!, 2));
    expect(hueTurned(dull, 0)).toEqual(dull);
  });

  it('the nearest #rrggbb of a linear colour is the one it was made of', () => {
    for (const hex of ['#000000', '#010203', '#7f8081', '#e8f070', '#ffffff'])
      expect(hexOfLinear(linearOf(hex))).toBe(hex);
    expect(hexOfLinear([2, -1, 0.5])).toBe('#ff00bc');
  });

  it('a colour that is taken out stays where it was used', () => {
    const effect = withPalette();
    const rim = hexOfLinear(paletteColour(effect.palette, 'rim'));
    expect(usesOf(effect, 'palette', 'lamp')).toEqual(['The palette: Rim', 'Motes: colour']);
    dropColour(effect, 'lamp');
    expect(effect.layers.byId['motes']!.settings['life.colour'].base).toEqual({
      kind: 'fixed',
      value: { hex: '#c04010' },
    });
    expect(hexOfLinear(paletteColour(effect.palette, 'rim'))).toBe(rim);
    expect(() => parseEffect(effect)).not.toThrow();
  });
});

describe('a signal that is taken away', () => {
  it('leaves what waited for it where it came on the stage, and takes what never came', () => {
    const effect = effectWithLayer();
    effect.signals = collectionOf([
      ['tried', { name: 'Contact', tried: { stretch: 'hold', at: 0.5 } }],
      ['never', { name: 'Release', tried: null }],
    ]);
    const { motes, embers } = effect.layers.byId as { motes: Layer; embers: Layer };
    motes.bursts = collectionOf([
      ['a', { ...burst('opening', 0.2, 5), signal: 'tried' }],
      ['b', burst('opening', 0.1, 3)],
    ]);
    embers.bursts = collectionOf([['c', { ...burst('opening', 0, 5), signal: 'never' }]]);
    dropSignal(effect, 'tried');
    dropSignal(effect, 'never');
    expect(motes.bursts.byId).toEqual({ a: burst('hold', 0.7, 5), b: burst('opening', 0.1, 3) });
    expect(embers.bursts.order).toEqual([]);
    expect(parseEffect(effect).signals.order).toEqual([]);
  });
});
