import { describe, expect, it } from 'vitest';
import { Pace } from './pace.ts';

describe('how often a scene is drawn', () => {
  it('leaves half of the time to others, and more while somebody edits', () => {
    const pace = new Pace(true);
    pace.drawn(1000);
    pace.measured(40);
    expect([pace.isDue(1079), pace.isDue(1080)]).toEqual([false, true]);
    pace.edited(1000);
    expect([pace.isDue(1159), pace.isDue(1160)]).toEqual([false, true]);
  });

  it('waits longer for a scene beside the main one, and at once shows where that stands', () => {
    const pace = new Pace(false);
    pace.drawn(1000);
    pace.measured(100);
    expect([pace.isDue(1030), pace.isDue(1040)]).toEqual([false, true]);
    pace.isPlaying = true;
    expect([pace.isDue(1399), pace.isDue(1400)]).toEqual([false, true]);
  });

  it('is coarse while it plays slowly, and fine once it stands', () => {
    const pace = new Pace(true);
    pace.measured(90);
    expect(pace.fineness).toBe(1);
    pace.isPlaying = true;
    pace.measured(90);
    expect(pace.fineness).toBeLessThan(1);
    pace.measured(40);
    expect(pace.fineness).toBeLessThan(1);
    pace.isPlaying = false;
    expect(pace.fineness).toBe(1);
  });
});
