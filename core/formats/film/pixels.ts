import { encode } from 'fast-png';

/** Rows of four numbers a pixel from the bottom, as rows from the top, in place. */
export function turnOver(pixels: { readonly length: number } & ArrayBufferView, width: number, height: number): void {
  const bytes = new Uint8Array(pixels.buffer, pixels.byteOffset, pixels.byteLength);
  const row = bytes.length / height;
  const kept = new Uint8Array(row);
  for (let top = 0; top < height >> 1; top++) {
    const [a, b] = [top * row, (height - 1 - top) * row];
    kept.set(bytes.subarray(a, a + row));
    bytes.copyWithin(a, b, b + row);
    bytes.set(kept, b);
  }
  void width;
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

/** A PNG of four channels, of 8 bits or of 16. */
export const writeFilmPng = (
  width: number,
  height: number,
  data: Uint8Array | Uint16Array,
): Uint8Array<ArrayBuffer> =>
  encode(
    { width, height, data, channels: 4, depth: data instanceof Uint16Array ? 16 : 8 },
    { zlib: { level: 3 } },
  ) as Uint8Array<ArrayBuffer>;
