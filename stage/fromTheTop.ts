/** Pixels as the graphics give them, rows from the bottom, as a picture whose rows go from the top. */
export function fromTheTop(pixels: Uint8Array, width: number, height: number): ImageData {
  const rgba = new Uint8ClampedArray(pixels.length);
  const row = width * 4;
  for (let n = 0; n < height; n++) rgba.set(pixels.subarray(n * row, (n + 1) * row), (height - 1 - n) * row);
  return new ImageData(rgba, width, height);
}
