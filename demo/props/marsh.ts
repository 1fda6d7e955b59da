import { encode } from 'fast-png';

const [WIDTH, HEIGHT] = [512, 256];
type Rgb = readonly [number, number, number];

const mixed = (a: Rgb, b: Rgb, t: number): Rgb => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
const smooth = (from: number, to: number, x: number): number => {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

/** Lamps on poles about the marsh: degrees round and up, how wide, and their colour. */
const LAMPS: readonly { round: number; up: number; wide: number; tint: Rgb }[] = [
  { round: -118, up: 9, wide: 5, tint: [255, 214, 122] },
  { round: -40, up: 5, wide: 3, tint: [255, 190, 90] },
  { round: 22, up: 14, wide: 8, tint: [255, 236, 170] },
  { round: 96, up: 6, wide: 3.5, tint: [255, 200, 110] },
  { round: 158, up: 11, wide: 6, tint: [214, 236, 150] },
];

/** How high reeds stand round about, in degrees. */
const reeds = (round: number): number =>
  3 +
  2.2 * Math.sin(round * 0.21) +
  1.8 * Math.sin(round * 1.7 + 1) +
  3.4 * Math.max(0, Math.sin(round * 0.9)) ** 6 +
  1.5 * Math.sin(round * 5.3);

/** What is seen from a place on the marsh at dusk: all directions, twice as wide as high, up above. */
function seen(round: number, up: number): Rgb {
  // Water gives back what stands above it, darker.
  if (up < 0) {
    const back = seen(round + Math.sin(up * 3) * 0.8, -up);
    return mixed([10, 14, 14], back, 0.55 * smooth(-85, -2, up) + 0.05);
  }
  const west = smooth(120, 0, Math.abs(((round + 500) % 360) - 180));
  const low = mixed([72, 92, 98], [226, 150, 96], west);
  let rgb = mixed(low, [14, 20, 30], smooth(0, 55, up));
  if (up < reeds(round)) rgb = [9, 13, 11];
  for (const { round: at, up: high, wide, tint } of LAMPS) {
    const off = Math.hypot((((round - at + 540) % 360) - 180) * Math.cos((up * Math.PI) / 180), up - high);
    rgb = mixed(rgb, tint, Math.max(smooth(wide * 0.6, wide * 0.35, off), 0.55 * Math.exp(-((off / wide) ** 2))));
  }
  return rgb;
}

/** The marsh at dusk with its lamps, for shining things to mirror. */
export function marsh(): Uint8Array {
  const data = new Uint8Array(WIDTH * HEIGHT * 4);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const rgb = seen(((x + 0.5) / WIDTH) * 360 - 180, 90 - ((y + 0.5) / HEIGHT) * 180);
      data.set([...rgb.map(Math.round), 255], (y * WIDTH + x) * 4);
    }
  return encode({ width: WIDTH, height: HEIGHT, data, channels: 4 });
}
