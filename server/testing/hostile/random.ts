/** The same numbers for the same seed. */
export class Random {
  #state: number;
  constructor(seed: number) {
    this.#state = seed >>> 0 || 1;
  }
  /** From 0 up to 1. */
  share(): number {
    this.#state ^= this.#state << 13;
    this.#state ^= this.#state >>> 17;
    this.#state ^= this.#state << 5;
    return (this.#state >>> 0) / 0x1_0000_0000;
  }
  below(most: number): number {
    return Math.floor(this.share() * most);
  }
  one<T>(of: readonly T[]): T {
    return of[this.below(of.length)]!;
  }
}
