import { describe, expect, it } from 'vitest';
import { flashesASecond } from './light.ts';

describe('flashes a second', () => {
  const series = (perSecond: number, depth: number) =>
    Float64Array.from(
      { length: 120 },
      (_, step) => 0.5 + (depth / 2) * Math.sign(Math.sin((step / 60) * perSecond * 2 * Math.PI + 0.01)),
    );
  it('counts rises of a tenth within any second', () => {
    expect(flashesASecond(series(5, 0.5), 60)).toBe(5);
    expect(flashesASecond(series(2, 0.5), 60)).toBe(2);
    expect(flashesASecond(series(5, 0.08), 60)).toBe(0);
    expect(flashesASecond(new Float64Array(60).fill(0.4), 60)).toBe(0);
  });
});
