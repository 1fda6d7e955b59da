import { describe, expect, it } from 'vitest';
import { formatAddress } from '../parts/address.ts';
import {
  atBone,
  collectionOf,
  curveShaper,
  derivedColour,
  listed,
  namedColour,
  newEffect,
  newForce,
  newLayer,
  setNumber,
  structuredCopy,
  type Effect,
} from '../index.ts';
import { settingsIn } from '../parts/walk.ts';
import { differencesOf, pageOf, wordsOf, type SetLine } from './words.ts';

function lamp(): Effect {
  const effect = newEffect('Lamp', 7);
  const motes = newLayer('Motes', 1);
  setNumber(motes, 'life.size', [0.01, 0.036]);
  setNumber(motes, 'births.rate', 900);
  motes.forces = collectionOf([['g', newForce('gravity', atBone('figure', 'hand'))]]);
  effect.palette = collectionOf([
    ['lamp', namedColour('Lamp', '#e8f070')],
    ['rim', derivedColour('Rim', 'lamp', { turned: 40, lighter: 0.2 })],
  ]);
  motes.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'rim' } };
  effect.dials = collectionOf([['d', { kind: 'number', name: 'Charge', least: 0, most: 2, value: 1 }]]);
  motes.settings['life.intensity'].shapers = collectionOf([
    [
      's',
      {
        ...curveShaper([
          [0, 0.5],
          [1, 2],
        ]),
        reads: { kind: 'dial', dial: 'd' },
      },
    ],
  ]);
  effect.layers = collectionOf([['motes', motes]]);
  return effect;
}
const line = (lines: readonly SetLine[], name: string) => lines.find((each) => each.name === name)?.value;

describe('everything that was set, in words', () => {
  it('says values with units, names of what is used, and shapes key by key', () => {
    const lines = wordsOf(lamp());
    expect(line(lines, 'size')).toBe('0.01 to 0.036 m');
    expect(line(lines, 'rate')).toBe('900/s');
    expect(line(lines, 'colour')).toBe('Rim');
    expect(line(lines, 'colour Rim')).toBe('Lamp, hue turned 40°, lighter by 0.2');
    expect(line(lines, 'dial Charge')).toBe('1, between 0 and 2');
    expect(line(lines, 'intensity')).toBe('1 ×; by the dial Charge, multiplied (0%: 0.5, 100%: 2)');
    expect(line(lines, 'gravity')).toBe('on hand of something gone at 0, 0, 0 m');
    expect(line(lines, 'hold')).toBe('4 s, running on');
  });

  it('leaves out what is as it is by default, and nothing else', () => {
    const effect = lamp();
    const ids = new Set(wordsOf(effect).map(({ id }) => id));
    expect([...ids].filter((id) => id.includes('appearance.'))).toEqual([]);
    // Change any one setting, and a line of its own appears or changes.
    const before = wordsOf(effect);
    for (const { address, declaration, setting } of settingsIn(effect)) {
      setting.muted = true;
      const told = differencesOf(before, wordsOf(effect));
      expect(
        told.map(({ id }) => id),
        declaration.name,
      ).toEqual([formatAddress(address)]);
      setting.muted = false;
    }
  });

  it('is one page, each heading once', () => {
    const page = pageOf('Lamp', wordsOf(lamp()));
    expect(page.split('\n').slice(0, 5)).toEqual(['Lamp', '====', '', 'The effect', '----------']);
    expect(page.match(/^Motes$/gm)).toHaveLength(1);
    expect(page).toContain('\nsize: 0.01 to 0.036 m\n');
  });

  it('tells two effects apart line by line', () => {
    const left = lamp();
    const right = structuredCopy(left);
    expect(differencesOf(wordsOf(left), wordsOf(right))).toEqual([]);
    setNumber(right.layers.byId['motes']!, 'births.rate', 300);
    right.layers.byId['motes']!.forces = collectionOf([]);
    right.layers.byId['embers'] = newLayer('Embers', 3);
    right.layers.order.push('embers');
    const told = differencesOf(wordsOf(left), wordsOf(right));
    expect(told.find(({ name }) => name === 'rate')).toMatchObject({
      heading: 'Motes',
      left: '900/s',
      right: '300/s',
    });
    expect(told.find(({ name }) => name === 'gravity')).toMatchObject({ right: null });
    expect(told.filter(({ heading }) => heading === 'Embers').every(({ left: none }) => none === null)).toBe(true);
    // A layer that is renamed is the same layer.
    const renamed = structuredCopy(left);
    listed(renamed.layers)[0]!.item.name = 'Sparks';
    expect(differencesOf(wordsOf(left), wordsOf(renamed))).toEqual([]);
  });
});
