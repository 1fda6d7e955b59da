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

/** 1 inside an ellipse about (x, y), 0 outside, soft at its rim: a texel is nearly 3 mm wide. */
const spot = (side: number, y: number, at: readonly [number, number], radii: readonly [number, number]) =>
  1 - step(0.6, 1.4, Math.hypot((side - at[0]) / radii[0], (y - at[1]) / radii[1]));

/** Head: hair drawn back from brow and temples, brows, eyes, lips, a little warmth on the cheeks. */
function headColour([x, y, z]: Vec3): Vec3 {
  const side = Math.abs(x);
  const hairAt = Math.min(1.738 - 1.6 * side * side - y, z - (y > 1.62 ? 0.028 : -0.005));
  let face: Vec3 = mix(SKIN, [184, 118, 96], 0.5 * spot(side, y, [0.045, 1.625], [0.02, 0.016]));
  face = mix(face, [62, 46, 38], 0.85 * spot(side, y, [0.033, 1.677], [0.018, 0.0045]));
  face = mix(face, [206, 196, 186], 0.9 * spot(side, y, [0.032, 1.658], [0.0135, 0.0065]));
  face = mix(face, [40, 44, 36], spot(side, y, [0.031, 1.658], [0.0058, 0.0066]));
  face = mix(face, [150, 84, 76], 0.8 * spot(side, y, [0, 1.594], [0.02, 0.0045]));
  return mix(mix(HAIR, [74, 60, 50], 0.5 + 0.5 * Math.sin(x * 320)), face, step(-0.006, 0.006, hairAt));
}

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
  if (y > 1.52) colour = headColour(p);
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
