import type { Vec3 } from '@jinx/core/maths';
import { joint } from './skeleton.ts';

/** A reed blade: a long leaf of diamond section from the grip along +Z, slightly bowed. */
export function bladeMesh(): { positions: Vec3[]; triangles: [number, number, number][]; along: number[] } {
  const { at } = joint('blade');
  const positions: Vec3[] = [];
  const along: number[] = [];
  const triangles: [number, number, number][] = [];
  const sections = 16;
  for (let i = 0; i <= sections; i++) {
    const t = i / sections;
    const width =
      t < 0.16 ? 0.012 : 0.032 * Math.sqrt(Math.max(0, Math.sin(Math.PI * Math.min(1, 0.2 + 0.8 * t)))) + 0.001;
    const bow = 0.05 * t * t;
    for (const [across, thick] of [
      [-width, 0],
      [0, 0.008 * (1 - t)],
      [width, 0],
      [0, -0.008 * (1 - t)],
    ] as const) {
      positions.push([at[0] + thick, at[1] + across + bow, at[2] - 0.1 + t * 0.95]);
      along.push(t);
    }
    if (i === sections) continue;
    for (let k = 0; k < 4; k++) {
      const [a, b, c, d] = [i * 4 + k, i * 4 + ((k + 1) % 4), i * 4 + 4 + ((k + 1) % 4), i * 4 + 4 + k];
      triangles.push([a, c, b], [a, d, c]);
    }
  }
  return { positions, triangles, along };
}
