import { Refusal } from '../errors.ts';

/** So many wrong ones are let pass; from then on each must be waited for twice as long. */
const FREE = 4;
const LONGEST_SECONDS = 900;
/** Wrong ones are forgotten after this. */
const FORGET_MILLISECONDS = 3600_000;
const MOST_REMEMBERED = 10_000;

/** Slows down whoever tries passwords. */
export class Attempts {
  readonly #wrong = new Map<string, { times: number; until: number; last: number }>();
  readonly #now: () => number;
  constructor(now: () => number = Date.now) {
    this.#now = now;
  }

  /** @throws Refusal while it must be waited. */
  mustWait(key: string): void {
    const left = (this.#wrong.get(key)?.until ?? 0) - this.#now();
    if (left <= 0) return;
    const seconds = Math.ceil(left / 1000);
    throw new Refusal(429, 'wait', `Too many wrong passwords: try again in ${seconds} s.`, { seconds });
  }

  wrong(key: string): void {
    const now = this.#now();
    const known = this.#wrong.get(key);
    const times = known && now - known.last < FORGET_MILLISECONDS ? known.times + 1 : 1;
    const seconds = times <= FREE ? 0 : Math.min(LONGEST_SECONDS, 2 ** (times - FREE));
    this.#wrong.delete(key);
    this.#wrong.set(key, { times, until: now + seconds * 1000, last: now });
    if (this.#wrong.size > MOST_REMEMBERED) this.#wrong.delete(this.#wrong.keys().next().value!);
  }

  right(key: string): void {
    this.#wrong.delete(key);
  }
}
