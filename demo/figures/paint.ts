import { type Vec3, draw, mapAxes } from '@jinx/core/maths';
import type { Texture } from '@jinx/core/geometry';

export const SIZE = 512;

export const mix = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
export const step = (from: number, to: number, x: number) => {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

/** Paints triangles into a texture by what is at each texel's rest position, and bleeds the edges outward. */
export function paintTexture(
  triangles: readonly (readonly { p: Vec3; uv: readonly [number, number] }[])[],
  bodyColour: (p: Vec3) => Vec3,
  heldColour: (along: number) => Vec3,
): Texture {
  const rgba = new Uint8Array(SIZE * SIZE * 4);
  const set = (x: number, y: number, colour: Vec3) =>
    rgba.set([colour[0], colour[1], colour[2], 255], (y * SIZE + x) * 4);
  for (const [a, b, c] of triangles as readonly (readonly [Corner, Corner, Corner])[]) {
    const area = (b.uv[0] - a.uv[0]) * (c.uv[1] - a.uv[1]) - (c.uv[0] - a.uv[0]) * (b.uv[1] - a.uv[1]);
    if (Math.abs(area) < 1e-12) continue;
    const us = [a.uv[0], b.uv[0], c.uv[0]];
    const vs = [a.uv[1], b.uv[1], c.uv[1]];
    for (
      let y = Math.max(0, Math.floor(Math.min(...vs) * SIZE));
      y <= Math.min(SIZE - 1, Math.max(...vs) * SIZE);
      y++
    )
      for (
        let x = Math.max(0, Math.floor(Math.min(...us) * SIZE));
        x <= Math.min(SIZE - 1, Math.max(...us) * SIZE);
        x++
      ) {
        const [u, v] = [(x + 0.5) / SIZE, (y + 0.5) / SIZE];
        const second = ((u - a.uv[0]) * (c.uv[1] - a.uv[1]) - (c.uv[0] - a.uv[0]) * (v - a.uv[1])) / area;
        const third = ((b.uv[0] - a.uv[0]) * (v - a.uv[1]) - (u - a.uv[0]) * (b.uv[1] - a.uv[1])) / area;
        if (second < -0.01 || third < -0.01 || second + third > 1.01) continue;
        const p = mapAxes(a.p, (value, i) => value + (b.p[i]! - value) * second + (c.p[i]! - value) * third);
        const grain = 0.92 + 0.16 * draw(y * SIZE + x, 5);
        set(
          x,
          y,
          mapAxes(bodyColour(p), (value) => Math.min(255, Math.round(value * grain))),
        );
      }
  }
  // What is held, in the free column between the two halves.
  for (let y = 0; y < SIZE; y++)
    for (let x = SIZE / 2 - 3; x < SIZE / 2 + 3; x++)
      set(x, y, mapAxes(heldColour(1 - (y + 0.5) / SIZE), Math.round));
  for (let round = 0; round < 6; round++) bleed(rgba);
  for (let i = 3; i < rgba.length; i += 4) rgba[i] = 255;
  return { width: SIZE, height: SIZE, rgba };
}

interface Corner {
  readonly p: Vec3;
  readonly uv: readonly [number, number];
}

function bleed(rgba: Uint8Array): void {
  const before = rgba.slice();
  for (let i = 0; i < SIZE * SIZE; i++) {
    if (before[i * 4 + 3] !== 0) continue;
    for (const j of [i - 1, i + 1, i - SIZE, i + SIZE])
      if (j >= 0 && j < SIZE * SIZE && before[j * 4 + 3] !== 0) {
        rgba.set(before.subarray(j * 4, j * 4 + 4), i * 4);
        break;
      }
  }
}
