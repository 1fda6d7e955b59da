import type { Census } from '@jinx/core/simulation';

/** What of a census is shown, and in which order. */
export interface Wanted {
  /** Column that it is sorted by, and whether from high to low. */
  readonly by: string;
  readonly isDown: boolean;
  /** Column whose values are to lie between two bounds; an empty bound is none. */
  readonly where: string;
  readonly least: number | null;
  readonly most: number | null;
}

/** The rows of a census that are wanted, in the order that is wanted; equal ones stay in the order of their births. */
export function rowsWanted({ columns, rows, values }: Census, { by, isDown, where, least, most }: Wanted): number[] {
  const indexOf = (id: string) => columns.findIndex((column) => column.id === id);
  const [sorted, bounded] = [indexOf(by), indexOf(where)];
  const value = (row: number, column: number) => values[row * columns.length + column]!;
  const wanted = Array.from({ length: rows }, (_, row) => row).filter((row) => {
    if (bounded < 0) return true;
    const own = value(row, bounded);
    return (least === null || own >= least) && (most === null || own <= most);
  });
  if (sorted < 0) return wanted;
  const way = isDown ? -1 : 1;
  return wanted.sort((a, b) => way * (value(a, sorted) - value(b, sorted)) || a - b);
}
