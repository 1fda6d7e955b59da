import type { Vec3 } from '@jinx/core/maths';
import { draw } from '@jinx/core/maths';
import type { Texture } from '@jinx/core/geometry';

export const SIZE = 512;

const mix = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
const step = (from: number, to: number, x: number) => {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

const SKIN: Vec3 = [172, 128, 104];
const HAIR: Vec3 = [52, 40, 34];
const CLOTH: Vec3 = [88, 98, 84];
const WRAP: Vec3 = [128, 118, 92];
const LEATHER: Vec3 = [70, 54, 42];
const TROUSERS: Vec3 = [66, 68, 70];

/** Colour of Sedge's body at a rest position: skin, hair, a tunic of woven reed, wraps, belt and boots. */
export function bodyColour(p: Vec3): Vec3 {
  const [x, y, z] = p;
  const side = Math.abs(x);
  const weave = 0.5 + 0.5 * Math.sin(y * 260 + Math.sin(x * 90) * 0.6) * Math.sin(x * 210 + z * 180);
  const cloth = mix(CLOTH, [116, 122, 98], weave * 0.5);
  let colour = y < 0.76 ? TROUSERS : cloth;
  if (y > 0.74 && y < 0.78 && side < 0.2) colour = mix(TROUSERS, LEATHER, 0.7);
  if (y < 0.44) colour = mix(LEATHER, [92, 74, 56], step(0.4, 0.44, y));
  if (y > 0.985 && y < 1.03 && side < 0.2) colour = LEATHER;
  if (y > 1.4 && side < 0.09) colour = SKIN;
  const sash = Math.abs(x * 0.9 - (y - 1.22) * 0.55);
  if (y > 1.02 && y < 1.42 && sash < 0.022 && side < 0.2) colour = WRAP;
  if (y > 1.52) {
    const hairline = y > 1.745 || z < (y > 1.63 ? 0.05 : -0.005);
    colour = hairline ? mix(HAIR, [74, 60, 50], 0.5 + 0.5 * Math.sin(x * 320)) : SKIN;
    if (!hairline && Math.abs(y - 1.655) < 0.008 && Math.abs(side - 0.033) < 0.014) colour = [38, 32, 30];
    if (!hairline && Math.abs(y - 1.588) < 0.004 && side < 0.02) colour = [132, 84, 74];
  }
  if (side > 0.4) {
    const along = (side - 0.4) / 0.2;
    colour = along < 0.75 ? mix(WRAP, LEATHER, 0.35 * step(-0.2, 0.2, Math.sin(along * 70))) : SKIN;
  } else if (side > 0.3 && y > 1.1) colour = SKIN;
  return colour;
}

/** Paints triangles into a texture by what is at each texel's rest position, and bleeds the edges outward. */
export function paintTexture(triangles: readonly (readonly { p: Vec3; uv: readonly [number, number] }[])[]): Texture {
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
        const p = a.p.map(
          (value, i) => value + (b.p[i]! - value) * second + (c.p[i]! - value) * third,
        ) as unknown as Vec3;
        const grain = 0.92 + 0.16 * draw(y * SIZE + x, 5);
        set(x, y, bodyColour(p).map((value) => Math.min(255, Math.round(value * grain))) as unknown as Vec3);
      }
  }
  // The blade: a pale reed, darker to the grip, in the free column between the two halves.
  for (let y = 0; y < SIZE; y++)
    for (let x = SIZE / 2 - 3; x < SIZE / 2 + 3; x++)
      set(x, y, mix([206, 214, 150], [92, 96, 58], y / SIZE).map(Math.round) as unknown as Vec3);
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
