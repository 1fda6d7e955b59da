import { Refusal } from '../errors.ts';

const MOST_REMEMBERED = 10_000;

/** Lets everybody do what is costly so often a minute, and some of it at once. */
export class Buckets {
  readonly #perMinute: number;
  readonly #left = new Map<string, { tokens: number; at: number }>();
  readonly #now: () => number;
  constructor(perMinute: number, now: () => number = Date.now) {
    this.#perMinute = perMinute;
    this.#now = now;
  }

  /** @throws Refusal when it is too much. */
  take(key: string): void {
    const now = this.#now();
    const known = this.#left.get(key) ?? { tokens: this.#perMinute, at: now };
    const tokens = Math.min(this.#perMinute, known.tokens + ((now - known.at) / 60_000) * this.#perMinute);
    if (tokens < 1) {
      const seconds = Math.ceil(((1 - tokens) / this.#perMinute) * 60);
      throw new Refusal(429, 'too-often', `That is asked for too often: try again in ${seconds} s.`, { seconds });
    }
    this.#left.delete(key);
    this.#left.set(key, { tokens: tokens - 1, at: now });
    if (this.#left.size > MOST_REMEMBERED) this.#left.delete(this.#left.keys().next().value!);
  }
}
