import { describe, expect, it } from 'vitest';
import { doneTo, seenHex } from './pixel';

describe('a pixel in words', () => {
  it('is told by how much brighter or darker it is, or that only its hue has changed', () => {
    expect(doneTo([0, 0, 0, 1], [0.5, 0.5, 0.5, 1])).toBe('makes it brighter by 0.5');
    expect(doneTo([1, 1, 1, 1], [0.25, 0.25, 0.25, 1])).toBe('makes it darker by 0.75');
    expect(doneTo([0.2126, 0, 0, 1], [0, 0.0632, 0, 1])).toBe('gives it another hue');
  });

  it('is seen as the lens shows it: black stays black, what shines is white, exposure brightens', () => {
    expect(seenHex([0, 0, 0, 1], 0)).toBe('#000000');
    expect(seenHex([50, 50, 50, 1], 0)).toBe('#ffffff');
    const level = (exposure: number) => parseInt(seenHex([0.1, 0.1, 0.1, 1], exposure).slice(1, 3), 16);
    expect(level(1)).toBeGreaterThan(level(0) + 30);
    expect(seenHex([0.4, 0.1, 0, 1], 0)).toMatch(/^#[8-f][0-9a-f][3-9a][0-9a-f]00$/);
  });
});
