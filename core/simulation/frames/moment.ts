import type { EffectClock } from '../time/clock.ts';
import type { Reading } from '../values/reading.ts';

/** What is seen at the end of step `step − 1`. */
export interface DressMoment {
  readonly step: number;
  readonly rate: number;
  readonly clock: EffectClock;
  readonly dials: Reading['dials'];
}
