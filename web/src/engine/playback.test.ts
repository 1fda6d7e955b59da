import type { SimulationState } from '@jinx/player/simulation';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Playback } from './playback';

const reportAt = (step: number, more: Partial<SimulationState> = {}): SimulationState => ({
  step,
  sheetTime: step / 60,
  stepMilliseconds: 1,
  isPlaying: true,
  progress: 1,
  settled: 1,
  living: step,
  layers: [],
  isExact: true,
  isLetGo: false,
  letGoStep: null,
  ...more,
});

describe('what the page shows of the playing', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  function setUp(drawMilliseconds: number) {
    const playback = new Playback(
      () => undefined,
      () => undefined,
    );
    playback.state.drawMilliseconds = drawMilliseconds;
    const hear = (milliseconds: number, step: number, more?: Partial<SimulationState>) => {
      vi.advanceTimersByTime(milliseconds);
      playback.hear(reportAt(step, more));
      return [playback.state.step, playback.state.living];
    };
    return hear;
  }

  it('moves the playhead no more often than pictures are drawn, and counts four times a second', () => {
    const hear = setUp(100);
    expect(hear(0, 4)).toEqual([4, 4]);
    expect(hear(60, 8)).toEqual([4, 4]);
    expect(hear(60, 12)).toEqual([12, 4]);
    expect(hear(60, 16)).toEqual([12, 4]);
    expect(hear(70, 20)).toEqual([20, 20]);
  });

  it('moves it with every report where drawing is quick', () => {
    const hear = setUp(8);
    expect([hear(0, 4), hear(60, 8), hear(60, 12)].map(([step]) => step)).toEqual([4, 8, 12]);
  });

  it('is up to date at once where it stands still, and when it has become exact', () => {
    const hear = setUp(400);
    expect(hear(0, 4, { isExact: false })).toEqual([4, 4]);
    expect(hear(60, 8, { isExact: false })).toEqual([4, 4]);
    expect(hear(60, 12)).toEqual([12, 12]);
    expect(hear(60, 16)).toEqual([12, 12]);
    expect(hear(10, 17, { isPlaying: false })).toEqual([17, 17]);
  });
});
