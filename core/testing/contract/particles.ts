import type { Instance } from '../../simulation/index.ts';

interface Stood {
  readonly number: number;
  readonly place: readonly number[];
  readonly velocity: readonly number[];
}

/** The three numbers of a particle in fields of one axis each. */
export const threeOf = (fields: readonly Float32Array[], i: number): number[] => fields.map((field) => field[i]!);

/** The living particles of a layer, by birth number: metres, metres a second. */
export function stood(world: Instance, layer = 'motes'): Stood[] {
  const { count, number, position, velocity } = world.population(layer)!;
  return Array.from({ length: count }, (_, i) => ({
    number: number[i]!,
    place: threeOf(position, i),
    velocity: threeOf(velocity, i),
  }));
}
