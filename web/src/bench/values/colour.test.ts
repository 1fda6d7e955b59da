import { describe, expect, it } from 'vitest';
import { hexTyped } from './colour';

describe('a typed colour', () => {
  it.each([
    ['#8fe0d0', '#8fe0d0'],
    ['8FE0D0', '#8fe0d0'],
    ['#fa0', '#ffaa00'],
    ['teal', '#008080'],
    ['rgb(255, 128, 0)', '#ff8000'],
  ])('%s is %s', (text, hex) => expect(hexTyped(text)).toBe(hex));
  it.each(['', 'lam', '#12', 'not a colour', '12'])('%s is none', (text) => expect(hexTyped(text)).toBeNull());
});
