import type { Census } from '@jinx/core/simulation';
import { describe, expect, it } from 'vitest';
import { cellOf, rowOf } from './probe';
import { rowsWanted, type Wanted } from './rows';

const census: Census = {
  step: 3,
  columns: [
    { id: 'age', name: 'age', unit: '%' },
    { id: 'size', name: 'size', unit: 'm' },
  ],
  rows: 4,
  values: Float32Array.from([10, 1, 40, 3, 20, 2, 40, 1]),
  keys: Uint32Array.from([11, 12, 13, 14]),
};
const ALL: Wanted = { by: '', isDown: false, where: '', least: null, most: null };

describe('the table of the living', () => {
  it('is sorted either way, what is equal by birth', () => {
    expect(rowsWanted(census, ALL)).toEqual([0, 1, 2, 3]);
    expect(rowsWanted(census, { ...ALL, by: 'age' })).toEqual([0, 2, 1, 3]);
    expect(rowsWanted(census, { ...ALL, by: 'age', isDown: true })).toEqual([1, 3, 2, 0]);
  });

  it('shows what lies between two bounds, or beyond one', () => {
    expect(rowsWanted(census, { ...ALL, where: 'size', least: 2 })).toEqual([1, 2]);
    expect(rowsWanted(census, { ...ALL, where: 'size', most: 1 })).toEqual([0, 3]);
    expect(rowsWanted(census, { ...ALL, where: 'age', least: 15, most: 30 })).toEqual([2]);
    expect(rowsWanted(census, { ...ALL, where: 'gone', least: 2 })).toEqual([0, 1, 2, 3]);
  });

  it('knows a particle by its key, and its cells by name', () => {
    expect(rowOf(census, 13)).toBe(2);
    expect(rowOf(census, 99)).toBe(-1);
    expect(rowOf(census, null)).toBe(-1);
    expect(cellOf(census, 1, 'size')).toBe(3);
    expect(cellOf(census, 1, 'gone')).toBeNaN();
  });
});
