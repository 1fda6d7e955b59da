/** Widths of the rulers' three columns, in pixels; the divider shares out what the head leaves. */
export interface Columns {
  readonly head: number;
  readonly time: number;
  readonly life: number;
}
export const HEAD_WIDTH = 236;
/** Space at both ends of a ruler, so that what stands at its edges can be taken hold of. */
export const PAD = 10;
