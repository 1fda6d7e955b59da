import { hash2 } from './hash.ts';

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

const corner = (seed: number, x: number, y: number, z: number): number =>
  hash2(hash2(hash2(seed, x), y), z) / 2147483648 - 1;

/** Value noise in three dimensions, −1 to 1: smooth between random values at whole places (Perlin, 2002, for the fade). */
export function valueNoise(x: number, y: number, z: number, seed: number): number {
  const [i, j, k] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const [u, v, w] = [fade(x - i), fade(y - j), fade(z - k)];
  let rows = 0;
  for (let dz = 0; dz < 2; dz++)
    for (let dy = 0; dy < 2; dy++) {
      const a = corner(seed, i, j + dy, k + dz);
      const b = corner(seed, i + 1, j + dy, k + dz);
      rows += (a + (b - a) * u) * (dy ? v : 1 - v) * (dz ? w : 1 - w);
    }
  return rows;
}
