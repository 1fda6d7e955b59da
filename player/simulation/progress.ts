/** How much of the way from a step to another is done, 0 to 1. */
export const progressOf = (step: number, from: number, to: number): number =>
  Math.max(0, Math.min(1, (step - from) / Math.max(1, to - from)));
