import { atBone, atEffect, atThing, inWorld, type Place } from '../document/index.ts';

/** Numbers of one seed. The kinds of things go round with the seed, so that every few effects have them all. */
export class Dice {
  #state: number;
  readonly seed: number;
  constructor(seed: number) {
    this.seed = seed;
    this.#state = Math.imul(seed + 1, 0x9e3779b1) >>> 0;
  }
  number(low = 0, high = 1): number {
    this.#state = (Math.imul(this.#state, 1664525) + 1013904223) >>> 0;
    return low + (high - low) * (this.#state / 4294967296);
  }
  /** True with a chance. */
  comes(chance: number): boolean {
    return this.number() < chance;
  }
  /** The kind whose turn it is. */
  turn<T>(kinds: readonly T[], n: number, stride = 1): T {
    return kinds[(this.seed * stride + n) % kinds.length]!;
  }
  place(): Place {
    const offset: [number, number, number] = [this.number(-0.6, 0.6), this.number(0.3, 1.4), this.number(-0.6, 0.6)];
    const turn: [number, number, number] = [this.number(-180, 180), this.number(-180, 180), 0];
    const where = Math.floor(this.number(0, 4));
    if (where === 0) return inWorld(offset, turn);
    if (where === 1) return atEffect(offset, turn);
    if (where === 2) return { ...atThing('tube'), offset, turn };
    return { ...atBone('tube', 'high'), offset: [0, 0.2, 0], turn };
  }
}
