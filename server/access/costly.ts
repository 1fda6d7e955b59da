import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { Refusal } from '../errors.ts';

const MINUTE_SECONDS = 60;

/** Counts a costly request of somebody. @throws Refusal when it is too many a minute. */
export type CostlyLimit = (key: string) => Promise<void>;

export function costlyLimit(perMinute: number): CostlyLimit {
  const limiter = new RateLimiterMemory({ points: perMinute, duration: MINUTE_SECONDS });
  return async (key) => {
    try {
      await limiter.consume(key);
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      // Counts end by a timer; a clock that was set back does not make them last, only their stated end wrong.
      const seconds = Math.min(MINUTE_SECONDS, Math.max(1, Math.ceil(error.msBeforeNext / 1000)));
      throw new Refusal(429, 'too-often', `That is asked for too often: try again in ${seconds} s.`, { seconds });
    }
  };
}
