import { describe, expect, it } from 'vitest';
import { LAYER_SETTINGS, collectionOf, curveShaper, type NumberSetting } from '../../document/index.ts';
import { EffectClock } from './clock.ts';
import { RateIntegral } from '../values/rate.ts';
import { newReading } from '../values/reading.ts';
import { NumberReader } from '../values/numberReader.ts';

const HELD = { opening: 1, hold: { kind: 'continuing' as const, seconds: 2 }, closing: 0.5, preRoll: 0 };
const ONCE = { opening: 1, hold: { kind: 'none' as const }, closing: 0.5, preRoll: 0 };

describe('an effect’s clock', () => {
  it('opens, repeats its hold until let go, then closes', () => {
    const clock = new EffectClock(HELD, 6.2);
    expect([0.5, 1.5, 2.9, 3.1, 5.5].map((time) => clock.sheetTime(time))).toEqual([
      0.5,
      1.5,
      2.9,
      expect.closeTo(1.1, 9),
      expect.closeTo(1.5, 9),
    ]);
    expect(clock.sheetTime(6.4)).toBeCloseTo(3.2, 9);
    expect(clock.endsAt).toBeCloseTo(6.7, 9);
    expect(clock.sheetTime(100)).toBe(3.5);
  });

  it('finds the step at which a place on the sheet is seen, also where pre-roll leaves the opening out', () => {
    expect(new EffectClock(HELD).stepAt(1.5)).toBe(90);
    const rolled = new EffectClock({ ...HELD, preRoll: 3 });
    expect(rolled.stepAt(1.5)).toBe(30);
    expect(rolled.sheetTime(rolled.timeOf(30))).toBeCloseTo(1.5, 9);
    expect(rolled.stepAt(0.2)).toBe(0);
  });

  it('never ends while nobody lets go', () => expect(new EffectClock(HELD).endsAt).toBe(Infinity));

  it('closes no earlier than it has opened', () => expect(new EffectClock(HELD, 0.2).closesAt).toBe(1));

  it('of a one-shot goes straight from opening to closing', () => {
    const clock = new EffectClock(ONCE);
    expect(clock.closesAt).toBe(1);
    expect(clock.endsAt).toBe(1.5);
    expect(clock.length).toBe(1.5);
  });

  it('lets a standing particle wait at the end of the hold', () => {
    const held = new EffectClock(HELD);
    expect(held.standingAge(3)).toBeCloseTo(3 / 3.5, 9);
    expect(held.standingAge(50)).toBeCloseTo(3 / 3.5, 9);
    expect(new EffectClock(HELD, 10).standingAge(10.25)).toBeCloseTo(3.25 / 3.5, 9);
  });

  it('gives a burst of the hold once a turn, and none after letting go', () => {
    const clock = new EffectClock(HELD, 5.5);
    expect(clock.instantsOf({ stretch: 'hold', at: 0.5 }, 0, 20)).toEqual([1.5, 3.5]);
    expect(clock.instantsOf({ stretch: 'opening', at: 0.25 }, 0, 20)).toEqual([0.25]);
    expect(clock.instantsOf({ stretch: 'closing', at: 0.25 }, 0, 20)).toEqual([5.75]);
    expect(clock.instantsOf({ stretch: 'hold', at: 3 }, 0, 20)).toEqual([]);
  });

  it('gives every burst in exactly one step, whatever the steps', () => {
    const clock = new EffectClock(HELD, 20);
    for (const rate of [30, 60, 144]) {
      let count = 0;
      for (let step = 0; step < 25 * rate; step++)
        count += clock.instantsOf({ stretch: 'hold', at: 1.25 }, step / rate, (step + 1) / rate).length;
      expect(count).toBe(9);
    }
  });
});

describe('births by rate', () => {
  const setting = (value: number, points?: [number, number][]): NumberSetting => {
    const shaper = points && { ...curveShaper(points), reads: { kind: 'effectTime' as const } };
    return {
      base: { kind: 'fixed', value },
      shapers: shaper ? collectionOf([['time', shaper]]) : { order: [], byId: {} },
      muted: false,
    };
  };
  const integral = (rate: NumberSetting, clock: EffectClock) =>
    new RateIntegral(
      new NumberReader(rate, LAYER_SETTINGS['births.rate'], 'births.rate', { measures: { order: [], byId: {} } }),
      clock,
      {},
    );

  it('run level through opening and hold, and fade out evenly over the closing', () => {
    const births = integral(setting(100), new EffectClock(HELD, 5));
    expect(births.births(5)).toBeCloseTo(500, 9);
    expect(births.births(5.25)).toBeCloseTo(500 + 25 * 0.75, 9);
    expect(births.births(5.5)).toBeCloseTo(525, 9);
    expect(births.births(99)).toBeCloseTo(525, 9);
  });

  it('follow a curve along the time sheet, turn after turn, through the closing too', () => {
    const points: [number, number][] = [
      [0, 0],
      [2 / 7, 1],
      [1, 1],
    ];
    const births = integral(setting(100, points), new EffectClock(HELD, 7));
    let sum = 0;
    const clock = new EffectClock(HELD, 7);
    const reader = new NumberReader(setting(100, points), LAYER_SETTINGS['births.rate'], 'births.rate', {
      measures: { order: [], byId: {} },
    });
    for (let i = 0; i < 75_000; i++) {
      const time = (i + 0.5) / 10_000;
      sum += reader.read({ ...newReading(), effectTime: clock.share(time) }) / 10_000;
      if (i % 5000 === 4999) expect(births.births((i + 1) / 10_000)).toBeCloseTo(sum, 1);
    }
    expect(births.births(7.5)).toBeCloseTo(sum, 1);
  });

  it('never go back', () => {
    const births = integral(
      setting(50, [
        [0, 1],
        [0.5, 0],
        [1, 0.3],
      ]),
      new EffectClock(HELD, 9),
    );
    for (let time = 0; time < 12; time += 0.01)
      expect(births.births(time + 0.01)).toBeGreaterThanOrEqual(births.births(time) - 1e-9);
  });
});
