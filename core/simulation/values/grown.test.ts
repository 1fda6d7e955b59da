import { describe, expect, it } from 'vitest';
import { grown } from './grown.ts';

describe('a list that grows', () => {
  it('is the same one while there is room', () => {
    const list = Float64Array.of(1, 2, 3);
    expect(grown(list, 3)).toBe(list);
    expect(grown(list, 0)).toBe(list);
  });

  it('keeps what it held, is of its own kind, and at least doubles, so that adding one by one seldom copies', () => {
    const larger = grown(Uint32Array.of(7, 8, 4e9), 4);
    expect(larger).toBeInstanceOf(Uint32Array);
    expect(larger.length).toBe(6);
    expect([...larger]).toEqual([7, 8, 4e9, 0, 0, 0]);
    expect(grown(Int32Array.of(-1), 50).length).toBe(50);
  });

  it('begins from nothing', () => expect(grown(new Float64Array(0), 1).length).toBe(1));
});
