/** Rows of four numbers a pixel from the bottom, as rows from the top, in place. */
export function turnOver(pixels: ArrayBufferView, height: number): void {
  const bytes = new Uint8Array(pixels.buffer, pixels.byteOffset, pixels.byteLength);
  const row = bytes.length / height;
  const kept = new Uint8Array(row);
  for (let top = 0; top < height >> 1; top++) {
    const [a, b] = [top * row, (height - 1 - top) * row];
    kept.set(bytes.subarray(a, a + row));
    bytes.copyWithin(a, b, b + row);
    bytes.set(kept, b);
  }
}

/**
 * Makes colours that are times opacity straight, in place: `most` is what 1 is. What is added, brighter than it covers, gets
 * as much opacity as it needs, so that over black it is the same.
 */
export function straighten(pixels: Uint8Array | Uint16Array, most: number): void {
  for (let n = 0; n < pixels.length; n += 4) {
    const [r, g, b] = [pixels[n]!, pixels[n + 1]!, pixels[n + 2]!];
    const opacity = Math.max(pixels[n + 3]!, r, g, b);
    pixels[n + 3] = opacity;
    if (opacity === 0 || opacity === most) continue;
    for (let k = 0; k < 3; k++) pixels[n + k] = Math.min(most, Math.floor((pixels[n + k]! * most) / opacity + 0.5));
  }
}

/** Numbers of 0 to 1 as whole ones of 16 bits. */
export function in16Bits(values: Float32Array): Uint16Array {
  const whole = new Uint16Array(values.length);
  for (let n = 0; n < values.length; n++) whole[n] = Math.floor(Math.min(1, Math.max(0, values[n]!)) * 65535 + 0.5);
  return whole;
}

/** Two to the power of whole numbers from −25 to 16, as half floats need them. */
const POWERS = Float64Array.from({ length: 42 }, (_, n) => {
  let power = 1;
  for (let k = 25; k < n; k++) power *= 2;
  for (let k = n; k < 25; k++) power /= 2;
  return power;
});

/** What the bits of a half float (IEEE 754) are. */
export function fromHalf(bits: number): number {
  const [sign, exponent, fraction] = [bits & 0x8000 ? -1 : 1, (bits >> 10) & 31, bits & 1023];
  if (exponent === 31) return fraction ? NaN : sign * Infinity;
  return exponent === 0 ? sign * fraction * POWERS[1]! : sign * (1 + fraction / 1024) * POWERS[exponent + 10]!;
}
