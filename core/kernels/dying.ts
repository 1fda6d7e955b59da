import { DEATH_STEP, FLAGS, IS_DEAD } from './layout.ts';
import { at, type TwinMemory } from './twin.ts';

/** Marks particles of `from` to `to` that are dead by `step`; writes their indices to `out` and returns how many. */
export const dying =
  ({ i32 }: TwinMemory) =>
  (base: number, stride: number, from: number, to: number, step: number, out: number): number => {
    let found = 0;
    for (let i = from; i < to; i++) {
      const flags = at({ base, stride }, FLAGS, i);
      if (i32[at({ base, stride }, DEATH_STEP, i)]! > step || i32[flags]! & IS_DEAD) continue;
      i32[flags]! |= IS_DEAD;
      i32[out / 4 + found++] = i;
    }
    return found;
  };

/** Writes the indices of the living to `map`, then closes the gaps in every array; returns how many live. */
export const compact =
  ({ i32 }: TwinMemory) =>
  (base: number, stride: number, fields: number, count: number, map: number): number => {
    let living = 0;
    for (let i = 0; i < count; i++)
      if (!(i32[at({ base, stride }, FLAGS, i)]! & IS_DEAD)) i32[map / 4 + living++] = i;
    for (let field = 0; field < fields; field++)
      for (let i = 0; i < living; i++)
        i32[at({ base, stride }, field, i)] = i32[at({ base, stride }, field, i32[map / 4 + i]!)]!;
    return living;
  };
