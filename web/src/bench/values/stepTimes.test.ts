import { describe, expect, it } from 'vitest';
import { StepTimes } from './stepTimes';

const noted = (all: readonly number[]) => {
  const times = new StepTimes(8);
  for (const ms of all) times.note('motes', ms);
  return times.slow();
};
const steps = (count: number, ms: number) => Array.from({ length: count }, () => ms);

describe('milliseconds of steps', () => {
  it('are too long where most of the last are', () =>
    expect(noted([...steps(60, 0.2), ...steps(30, 12)])).toEqual({ motes: 12 }));

  it('are not judged by a few, however long, nor by the first', () => {
    expect(noted([400, 90, 60, ...steps(3, 0.2)])).toEqual({});
    expect(noted([...steps(40, 0.2), ...steps(20, 300)])).toEqual({});
  });

  it('are forgotten once it is fast again', () => expect(noted([...steps(60, 12), ...steps(30, 0.2)])).toEqual({}));
});
