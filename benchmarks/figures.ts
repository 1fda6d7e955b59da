/** The middle one. */
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Below it lies a quarter: what something costs when little else is going on. */
export const lowerQuartile = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 4)]!;

/** To three places. */
export const rounded = (value: number): number => Number(value.toFixed(3));
