import type { Population } from './population.ts';

/** Adds the straight way that each of a layer's particles has come in a step. */
export function addDistance({ from, position, travelled, count, flags }: Population, held: number): void {
  const [fx, fy, fz] = from;
  const [px, py, pz] = position;
  for (let i = 0; i < count; i++) {
    if (flags[i]! & held) continue;
    const [x, y, z] = [px[i]! - fx[i]!, py[i]! - fy[i]!, pz[i]! - fz[i]!];
    travelled[i]! += Math.sqrt(x * x + y * y + z * z);
  }
}
