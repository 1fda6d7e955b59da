// Small functions and noises that looks share: docs/runtime.md, "Noises of looks".
import { betweenCorners, dot, mix } from './maths.mjs';

export const clamp = (x, low = 0, high = 1) => Math.min(high, Math.max(low, x));
export const blend = (a, b, share) => a + (b - a) * share;
export const modulo = (x, by) => x - by * Math.floor(x / by);
export const luminance = (rgb) => dot(rgb, [0.2126, 0.7152, 0.0722]);
/** 0 below `from`, 1 above `to`, and t²(3 − 2t) between; with both alike a step. */
export function smoothstep(from, to, x) {
  const t = to > from ? clamp((x - from) / (to - from)) : x < to ? 0 : 1;
  return t * t * (3 - 2 * t);
}
/** Three numbers 0 to 1 of a cell of whole coordinates. */
export function hash3([x, y, z]) {
  const h = mix(Math.imul(x, 0x8da6b343) ^ Math.imul(y, 0xd8163841) ^ Math.imul(z, 0xcb1ab31f));
  return [h & 1023, (h >>> 10) & 1023, (h >>> 20) & 1023].map((bits) => bits / 1023);
}
/** Gradient noise (Perlin, 2002), about 0.5. */
const noise = (p) =>
  0.5 +
  0.72 *
    betweenCorners(p, (cell, off) =>
      dot(
        off,
        hash3(cell).map((x) => x * 2 - 1),
      ),
    );
/** Four octaves of it. */
export function clouds(place) {
  let [p, share, sum] = [place, 0.54, 0];
  for (let octave = 0; octave < 4; octave++) {
    sum += share * (noise(p) - 0.5);
    p = p.map((x) => x * 2.03 + 17.3);
    share /= 2;
  }
  return 0.5 + 1.25 * sum;
}
/** Cells (Worley, 1996): 1 in the middle of one, 0 where two meet. */
export function cells(p) {
  const far = [];
  for (let n = 0; n < 27; n++) {
    const cell = [(n % 3) - 1, (Math.floor(n / 3) % 3) - 1, Math.floor(n / 9) - 1].map(
      (x, k) => Math.floor(p[k]) + x,
    );
    const way = hash3(cell).map((x, k) => cell[k] + x - p[k]);
    far.push(Math.sqrt(dot(way, way)));
  }
  const [nearest, next] = far.sort((a, b) => a - b);
  return clamp((next - nearest) * 1.4);
}
