import type { Declaration } from './declaration.ts';
import type { Setting } from './setting.ts';

/**
 * The settings of a part by their names, for code that goes by a table of settings and not by the kind of the part. It is the part's own
 * record: a draft written through it is changed. `S` is the type of setting that the table has under the names asked for.
 */
export const settingsByName = <S extends Setting = Setting>({ settings }: { readonly settings: object }) =>
  settings as Record<string, S>;

/** The declarations of a table by their names; `D` is the type that it has under the names asked for. */
export const tableByName = <D extends Declaration = Declaration>(table: object) => table as Record<string, D>;
