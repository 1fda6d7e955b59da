const DIGITS = 4;

/** A number as people read it. */
export const plain = (value: number): string => String(Number(value.toPrecision(DIGITS)));
