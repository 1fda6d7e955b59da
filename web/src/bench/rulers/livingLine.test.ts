import { describe, expect, it } from 'vitest';
import { fill } from './livingLine';

const unseen = () => new Array<number>(12).fill(-1);

describe('the line of the living', () => {
  it('goes straight on over places that were passed between two reports', () => {
    const line = unseen();
    fill(line, 2, 2, 10);
    fill(line, 2, 5, 40);
    expect(line.slice(2, 6)).toEqual([10, 20, 30, 40]);
  });

  it('does not bridge a jump, nor draw from where nothing was seen', () => {
    const line = unseen();
    fill(line, 0, 0, 5);
    fill(line, 0, 10, 50);
    expect(line.slice(1, 10).every((count) => count === -1)).toBe(true);
    fill(line, 3, 6, 7);
    expect(line[4]).toBe(-1);
  });

  it('leaves what lies ahead alone when the hold begins again', () => {
    const line = unseen();
    fill(line, 9, 9, 90);
    fill(line, 9, 2, 80);
    fill(line, 2, 4, 60);
    expect(line.slice(2, 5)).toEqual([80, 70, 60]);
    expect(line[9]).toBe(90);
  });
});
