import { collectionOf, newEffect, newForce, newLayer, setNumber } from '@jinx/core/document';
import { beforeEach, describe, expect, it } from 'vitest';
import { byEntry, byLoosening, changeMarked, clearMarks, marks, toggleMark } from './marks';

function two() {
  const effect = newEffect('Test', 1);
  const made = ['A', 'B'].map((name, n) => {
    const layer = newLayer(name, n + 1);
    layer.forces = collectionOf([['v', newForce('vortex')]]);
    setNumber(layer, 'births.rate', 10 * (n + 1));
    return layer;
  });
  effect.layers = collectionOf([
    ['a', made[0]!],
    ['b', made[1]!],
  ]);
  return effect;
}
const RATE = { kind: 'layer', layer: 'a', setting: 'births.rate' } as const;
const SPIN = { kind: 'force', layer: 'a', id: 'v', setting: 'strength' } as const;
const SIZE = { kind: 'layer', layer: 'a', setting: 'life.size' } as const;

describe('numbers that are marked', () => {
  beforeEach(clearMarks);
  it('are marked and unmarked one by one', () => {
    toggleMark(RATE);
    toggleMark(SPIN);
    toggleMark(RATE);
    expect([...marks.value.values()]).toEqual([SPIN]);
  });
  it('take one entry together, in all layers that have them, and say what they are', () => {
    for (const one of [RATE, SPIN]) toggleMark(one);
    const effect = two();
    const { set, refused } = changeMarked(effect, ['a', 'b'], byEntry('*1.5'));
    expect(set).toEqual(['rate 15/s', 'vortex spin 6 m/s²']);
    expect(refused).toEqual([]);
    expect(effect.layers.byId['b']!.settings['births.rate'].base).toEqual({ kind: 'fixed', value: 30 });
  });
  it('say why one of them was refused, and change the others', () => {
    for (const one of [RATE, SPIN]) toggleMark(one);
    const effect = two();
    const { set, refused } = changeMarked(effect, ['a'], byEntry('3 to 5'));
    expect(refused.join()).toMatch(/rate is one number/);
    expect(set.join()).toMatch(/spin 3 – 5/);
  });
  it('are loosened as far as they are single numbers', () => {
    for (const one of [RATE, SIZE]) toggleMark(one);
    const effect = two();
    changeMarked(effect, ['a'], byLoosening(0.2));
    expect(effect.layers.byId['a']!.settings['life.size'].base).toEqual({ kind: 'spread', low: 0.04, high: 0.06 });
    expect(effect.layers.byId['a']!.settings['births.rate'].base).toEqual({ kind: 'fixed', value: 10 });
  });

  it('change a measure that they share once, and with it all that have it', () => {
    for (const one of [RATE, SIZE]) toggleMark(one);
    const effect = two();
    effect.measures = collectionOf([['m', { name: 'Size', quantity: 'length', value: 0.2 }]]);
    for (const id of ['a', 'b'])
      effect.layers.byId[id]!.settings['life.size'].base = { kind: 'measure', measure: 'm' };
    changeMarked(effect, ['a', 'b'], byEntry('*1.5'));
    expect(effect.measures.byId['m']!.value).toBeCloseTo(0.3, 6);
    expect(effect.layers.byId['b']!.settings['life.size'].base.kind).toBe('measure');
  });
});
