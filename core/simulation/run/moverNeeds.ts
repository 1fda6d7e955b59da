import type { CompiledLayer } from '../compile/plan.ts';

/** Arrays a layer's forces need: one for each setting whose shapers no table serves (each twice, at most). */
export const arraysFor = (layer: CompiledLayer): number =>
  layer.forces.reduce(
    (sum, { each, halving, arrays = 0 }) =>
      sum +
      arrays +
      2 *
        each.filter(
          (reader) => !reader.isShared && (halving.includes(reader) || reader.tableInput(layer.life) === null),
        ).length,
    0,
  );

/** Tables a layer's forces need. */
export const tablesFor = (layer: CompiledLayer): number =>
  layer.forces.reduce((sum, { each }) => sum + each.filter((reader) => !reader.isShared).length, 0);
