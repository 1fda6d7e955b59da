import type { Running } from '../run/running.ts';

/** What a layer with particles of its own has, and what its last step cost. */
export interface LayerCount {
  readonly salt: number;
  readonly living: number;
  readonly born: number;
  readonly refused: number;
  /** Births that found no particle of another layer to be born on. */
  readonly lost: number;
  readonly microseconds: number;
}

export const countsOf = (running: readonly Running[]): LayerCount[] =>
  running.map(({ compiled, population, microseconds }) => ({
    salt: compiled.layer.salt,
    living: population.living,
    born: population.born,
    refused: population.refused,
    lost: population.lost,
    microseconds,
  }));
