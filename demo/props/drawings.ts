import { encode } from 'fast-png';

/** Pixels across a picture. */
const SIZE = 256;
/** Smaller samples in a pixel, each way, so that thin lines are smooth. */
const SAMPLES = 2;

/** How much a picture covers at x and y, −1 to 1, right and up. */
type Covering = (x: number, y: number) => number;

const clamp = (value: number) => Math.min(1, Math.max(0, value));
/** 0 below `from`, 1 above `to`, smooth between. */
function smooth(from: number, to: number, value: number): number {
  const t = clamp((value - from) / (to - from));
  return t * t * (3 - 2 * t);
}
/** A number 0 to 1 that a whole number and a purpose stand for. */
const lot = (n: number, of = 0): number => {
  const x = Math.sin(n * 127.1 + of * 311.7) * 43758.5453;
  return x - Math.floor(x);
};
/** Smooth bumps, 0 to 1, about one across a unit. */
function bumps(x: number, y: number, of: number): number {
  const [cellX, cellY] = [Math.floor(x), Math.floor(y)];
  const [u, v] = [smooth(0, 1, x - cellX), smooth(0, 1, y - cellY)];
  const corner = (dx: number, dy: number) => lot(cellX + dx + (cellY + dy) * 57, of);
  const row = (dy: number) => corner(0, dy) * (1 - u) + corner(1, dy) * u;
  return row(0) * (1 - v) + row(1) * v;
}
/** How far a point is from the line between two others. */
function fromLine(x: number, y: number, [ax, ay]: readonly number[], [bx, by]: readonly number[]): number {
  const [dx, dy] = [bx! - ax!, by! - ay!];
  const t = clamp(((x - ax!) * dx + (y - ay!) * dy) / (dx * dx + dy * dy));
  return Math.hypot(x - ax! - dx * t, y - ay! - dy * t);
}

/** A tongue of fire: round below, drawn out above, with licks inside. */
const flame: Covering = (x, y) => {
  const high = (y + 1) / 2;
  const lean = 0.16 * Math.sin(y * 2.4) * high;
  const wide = 0.62 * Math.sqrt(clamp(high * 6)) * (1 - high) ** 0.75 * (0.92 + 0.18 * bumps(y * 5, 1, 3));
  const off = Math.abs(x - lean) / Math.max(wide, 1e-3);
  const licks = 0.55 + 0.45 * smooth(0.25, 0.7, bumps((x - lean) * 5, y * 2.2 - Math.abs(x) * 2, 5));
  return (1 - smooth(0.35, 1, off)) * licks * smooth(0, 0.08, high) * (1 - smooth(0.86, 1, high));
};
/** Four long rays and four short ones about a small disc. */
const star: Covering = (x, y) => {
  const d = Math.hypot(x, y);
  const ray = (turn: number, long: number, wide: number) => {
    const [along, across] = [x * Math.cos(turn) + y * Math.sin(turn), y * Math.cos(turn) - x * Math.sin(turn)];
    const left = clamp(1 - Math.abs(along) / long);
    return left * (1 - smooth(0, wide * left + 1e-4, Math.abs(across)));
  };
  const long = Math.max(ray(0, 0.98, 0.09), ray(Math.PI / 2, 0.98, 0.09));
  const short = Math.max(ray(Math.PI / 4, 0.5, 0.07), ray(-Math.PI / 4, 0.5, 0.07));
  return clamp(Math.max(long, short) + Math.exp(-d * d * 40));
};
/** A burst of uneven rays that run out. */
const flare: Covering = (x, y) => {
  const [d, turn] = [Math.hypot(x, y), Math.atan2(y, x)];
  const ray = Math.max(
    ...Array.from({ length: 26 }, (_, n) => {
      const at = ((n + lot(n, 1) * 0.8) / 26) * 2 * Math.PI - Math.PI;
      const off = Math.abs(Math.atan2(Math.sin(turn - at), Math.cos(turn - at)));
      const long = 0.45 + 0.53 * lot(n, 2);
      return Math.exp(-((off / (0.03 + 0.05 * lot(n, 3))) ** 2)) * clamp(1 - d / long) ** 1.4;
    }),
  );
  return clamp(ray * 0.9 + Math.exp(-d * d * 16)) * (1 - smooth(0.9, 1, d));
};
/** A bar that is soft to its sides and runs out at both ends. */
const bar: Covering = (x, y) => Math.exp(-((x / 0.3) ** 2)) * (1 - smooth(0.3, 1, Math.abs(y))) ** 1.2;
/** A jagged line from top to bottom with three branches. */
const bolt: Covering = (x, y) => {
  const at = (n: number, of: number, wide: number) => (n === 0 || n === 9 ? 0 : (lot(n, of) - 0.5) * wide);
  const way = Array.from({ length: 10 }, (_, n) => [at(n, 7, 0.75), 0.88 - (n / 9) * 1.76]);
  const line = (points: readonly (readonly number[])[], wide: number) => {
    const off = Math.min(...points.slice(1).map((point, n) => fromLine(x, y, points[n]!, point)));
    return Math.max(1 - smooth(wide * 0.5, wide, off), 0.5 * Math.exp(-((off / (wide * 3)) ** 2)));
  };
  const branches = [2, 4, 6].map((n, k) => {
    const [bx, by] = way[n]!;
    const side = k % 2 === 0 ? 1 : -1;
    return [
      [bx!, by!],
      [bx! + side * 0.24, by! - 0.2],
      [bx! + side * 0.3, by! - 0.34],
      [bx! + side * 0.52, by! - 0.5],
    ];
  });
  return clamp(Math.max(line(way, 0.045), ...branches.map((branch) => 0.75 * line(branch, 0.024))));
};
/** A quill with barbs to both sides, drawn out toward its tip. */
const feather: Covering = (x, y) => {
  const bent = x - 0.12 * (1 - y * y);
  const high = (y + 1) / 2;
  const wide = 0.34 * Math.sin(Math.PI * clamp(high * 1.02) ** 0.8) ** 0.8 * smooth(0.08, 0.4, high);
  const quill = 1 - smooth(0.006, 0.026 * (1.3 - high), Math.abs(bent));
  const barb = 0.62 + 0.38 * Math.sin((y * 1.15 - Math.abs(bent) * 1.5) * 58) ** 2;
  const vane = high > 0.1 ? (1 - smooth(0.82, 1, Math.abs(bent) / Math.max(wide, 1e-3))) * barb : 0;
  return clamp(Math.max(vane * 0.9, quill * (1 - smooth(0.96, 1, high))));
};
/** Two rings with ticks between them and a mark at each twelfth: for the ground. */
const groundMarks: Covering = (x, y) => {
  const [d, turn] = [Math.hypot(x, y), Math.atan2(y, x) / (2 * Math.PI)];
  const ring = (at: number, wide: number) => 1 - smooth(wide * 0.55, wide, Math.abs(d - at));
  const part = (count: number) => Math.abs(turn * count - Math.round(turn * count)) / count;
  const tick = d > 0.78 && d < 0.88 ? 1 - smooth(0.5, 1, (part(72) * 2 * Math.PI * d) / 0.014) : 0;
  const [mx, my] = [d - 0.62, part(12) * 2 * Math.PI * d];
  const diamond = 1 - smooth(0.05, 0.07, Math.abs(mx) * 0.7 + my);
  return clamp(Math.max(ring(0.93, 0.03), ring(0.74, 0.018), ring(0.48, 0.02), tick * 0.8, diamond));
};
/** Cracks that run outward from a broken middle: for the ground. */
const groundCracks: Covering = (x, y) => {
  const d = Math.hypot(x, y);
  const most = Math.max(
    ...Array.from({ length: 9 }, (_, n) => {
      const turn = ((n + 0.6 * lot(n, 11)) / 9) * 2 * Math.PI;
      const long = 0.6 + 0.38 * lot(n, 12);
      const points = Array.from({ length: 7 }, (_, k) => {
        const [r, a] = [(k / 6) * long, turn + (k === 0 ? 0 : (lot(n * 7 + k, 13) - 0.5) * 0.5)];
        return [Math.cos(a) * r, Math.sin(a) * r];
      });
      const off = Math.min(...points.slice(1).map((point, k) => fromLine(x, y, points[k]!, point)));
      const wide = 0.045 * clamp(1 - d / long) + 0.004;
      return 1 - smooth(wide * 0.5, wide, off);
    }),
  );
  return clamp(Math.max(most, 0.9 * (1 - smooth(0.05, 0.14, d + 0.05 * bumps(x * 9, y * 9, 2)))));
};

/** White where a picture covers, clear elsewhere. */
function drawn(covering: Covering): Uint8Array {
  const data = new Uint8Array(SIZE * SIZE * 4).fill(255);
  for (let row = 0; row < SIZE; row++)
    for (let column = 0; column < SIZE; column++) {
      let sum = 0;
      for (let n = 0; n < SAMPLES * SAMPLES; n++) {
        const [dx, dy] = [((n % SAMPLES) + 0.5) / SAMPLES, (Math.floor(n / SAMPLES) + 0.5) / SAMPLES];
        sum += clamp(covering(((column + dx) / SIZE) * 2 - 1, 1 - ((row + dy) / SIZE) * 2));
      }
      data[(row * SIZE + column) * 4 + 3] = Math.round((sum / SAMPLES ** 2) * 255);
    }
  return encode({ width: SIZE, height: SIZE, data, channels: 4 });
}

/** Waves that run into each other, as a normal map that meets itself at all its edges. */
function ripple(): Uint8Array {
  const WAVES = [
    [3, 1, 0.3],
    [-1, 4, 1.7],
    [5, -2, 4.1],
    [2, 5, 2.6],
    [-6, 1, 5.2],
  ] as const;
  const data = new Uint8Array(SIZE * SIZE * 4);
  for (let row = 0; row < SIZE; row++)
    for (let column = 0; column < SIZE; column++) {
      let [slopeX, slopeY] = [0, 0];
      for (const [across, along, from] of WAVES) {
        const steep = Math.cos(2 * Math.PI * ((column * across) / SIZE - (row * along) / SIZE) + from) * 0.1;
        slopeX += steep * across * 0.5;
        slopeY += steep * along * 0.5;
      }
      const size = Math.hypot(slopeX, slopeY, 1);
      const normal = [-slopeX / size, -slopeY / size, 1 / size];
      data.set([...normal.map((c) => Math.round(c * 127.5 + 127.5)), 255], (row * SIZE + column) * 4);
    }
  return encode({ width: SIZE, height: SIZE, data, channels: 4 });
}

/** The kit's drawn pictures by name; `ripple` is a normal map. */
export const DRAWINGS: Readonly<Record<string, () => Uint8Array>> = {
  flame: () => drawn(flame),
  star: () => drawn(star),
  flare: () => drawn(flare),
  bar: () => drawn(bar),
  bolt: () => drawn(bolt),
  feather: () => drawn(feather),
  'ground-marks': () => drawn(groundMarks),
  'ground-cracks': () => drawn(groundCracks),
  ripple,
};
