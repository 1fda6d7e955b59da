import { LRUCache } from 'lru-cache';
import { Refusal } from '../errors.ts';

/** So many wrong ones are let pass; each further one makes the next wait twice as long. */
const FREE = 4;
const LONGEST_MILLISECONDS = 900_000;
/** A person's own tries are slowed by at most this, and never refused: else anybody could lock anybody out. */
const MOST_DELAY_MILLISECONDS = 2000;
const FIRST_DELAY_MILLISECONDS = 250;
const FORGET_MILLISECONDS = 3600_000;
const MOST_REMEMBERED = 10_000;

/** Who tries to sign in, as far as it is known before the password is compared. */
export interface Try {
  readonly network: string;
  /** The person who is meant: their id, or a name that nobody has, folded as the database folds names. */
  readonly person: string;
  /** A browser that this person signed in with before: it has a count of its own. */
  readonly browser: string | null;
}

interface Count {
  times: number;
  /** No try before this, by the clock that is handed in. */
  until: number;
}

/** Slows down those who guess passwords: by network, by person, and by browsers that are known. */
export class Attempts {
  readonly #counts = new LRUCache<string, Count>({ max: MOST_REMEMBERED, ttl: FORGET_MILLISECONDS });
  readonly #now: () => number;

  /** @param now milliseconds of a clock that is never set back. */
  constructor(now: () => number = () => performance.now()) {
    this.#now = now;
  }

  /**
   * Takes note of a try before it is known whether it is right, so that many at once are no way round.
   * @returns milliseconds to wait before the password is compared.
   * @throws Refusal while its network, or its browser, must wait.
   */
  begin({ network, person, browser }: Try): number {
    const key = browser ? `browser ${browser}` : `network ${network}`;
    const left = (this.#counts.get(key)?.until ?? 0) - this.#now();
    if (left > 0) {
      const seconds = Math.ceil(left / 1000);
      throw new Refusal(429, 'wait', `Too many wrong passwords: try again in ${seconds} s.`, { seconds });
    }
    const { times } = this.#add(key);
    if (times > FREE)
      this.#counts.set(key, {
        times,
        until: this.#now() + Math.min(LONGEST_MILLISECONDS, 1000 * 2 ** (times - FREE)),
      });
    if (browser) return 0;
    const wrong = this.#add(`person ${person}`).times - 1;
    return wrong < FREE ? 0 : Math.min(MOST_DELAY_MILLISECONDS, FIRST_DELAY_MILLISECONDS * 2 ** (wrong - FREE));
  }

  /** Takes a try back that was right. What was wrong before it still counts. */
  succeed({ network, person, browser }: Try): void {
    for (const key of browser ? [`browser ${browser}`] : [`network ${network}`, `person ${person}`]) {
      const known = this.#counts.get(key);
      if (known) this.#counts.set(key, { times: known.times - 1, until: 0 });
    }
  }

  #add(key: string): Count {
    const count = { times: (this.#counts.get(key)?.times ?? 0) + 1, until: 0 };
    this.#counts.set(key, count);
    return count;
  }
}
