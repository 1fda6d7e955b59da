/**
 * The storm in ordinary double-precision TypeScript: what the kernels are measured against. Frozen: it is changed only
 * when the work itself changes, never to make it slower.
 */
export interface Storm {
  readonly gravity: number;
  /** Share of the difference to the wind that is taken up each second, and the wind in metres a second. */
  readonly windShare: number;
  readonly wind: readonly [number, number, number];
  readonly attraction: number;
  readonly attractor: readonly [number, number, number];
  readonly attractionReach: number;
  readonly spin: number;
  readonly pull: number;
  readonly vortexReach: number;
  /** Metres within which attraction and vortex soften. */
  readonly near: number;
  readonly curl: number;
  readonly swirlSize: number;
  readonly swirlSeed: number;
  readonly drag: number;
}

export class BaselineStorm {
  readonly px: Float64Array;
  readonly py: Float64Array;
  readonly pz: Float64Array;
  readonly vx: Float64Array;
  readonly vy: Float64Array;
  readonly vz: Float64Array;

  constructor(count: number) {
    [this.px, this.py, this.pz, this.vx, this.vy, this.vz] = Array.from(
      { length: 6 },
      () => new Float64Array(count),
    ) as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];
  }

  step(storm: Storm, seconds: number): void {
    const { px, py, pz, vx, vy, vz } = this;
    const k = storm.windShare + storm.drag;
    const kept = Math.exp(-k * seconds);
    const first = (1 - kept) / k;
    const second = (seconds - first) / k;
    const inverseAttraction = 1 / (storm.attractionReach * storm.attractionReach);
    const inverseVortex = 1 / (storm.vortexReach * storm.vortexReach);
    const near = storm.near * storm.near;
    const inverseSize = 1 / storm.swirlSize;
    const curl = [0, 0, 0] as [number, number, number];
    for (let i = 0; i < px.length; i++) {
      const x = px[i]!;
      const y = py[i]!;
      const z = pz[i]!;
      let ax = storm.windShare * storm.wind[0];
      let ay = storm.windShare * storm.wind[1] - storm.gravity;
      let az = storm.windShare * storm.wind[2];

      const dx = storm.attractor[0] - x;
      const dy = storm.attractor[1] - y;
      const dz = storm.attractor[2] - z;
      const squared = dx * dx + dy * dy + dz * dz;
      const left = Math.max(0, 1 - squared * inverseAttraction);
      const pull = (storm.attraction * left * left) / Math.sqrt(squared + near);
      ax += dx * pull;
      ay += dy * pull;
      az += dz * pull;

      const round = x * x + z * z;
      const rest = Math.max(0, 1 - round * inverseVortex);
      const over = (rest * rest) / Math.sqrt(round + near);
      ax += over * (z * storm.spin - x * storm.pull);
      az += over * (-x * storm.spin - z * storm.pull);

      curlNoise(x * inverseSize, y * inverseSize, z * inverseSize, storm.swirlSeed, curl);
      ax += storm.curl * curl[0];
      ay += storm.curl * curl[1];
      az += storm.curl * curl[2];

      px[i] = x + vx[i]! * first + ax * second;
      py[i] = y + vy[i]! * first + ay * second;
      pz[i] = z + vz[i]! * first + az * second;
      vx[i] = vx[i]! * kept + ax * first;
      vy[i] = vy[i]! * kept + ay * first;
      vz[i] = vz[i]! * kept + az * first;
    }
  }
}

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);
const fadeSlope = (t: number): number => 30 * t * t * (t - 1) * (t - 1);

function corner(x: number, y: number, z: number): number {
  let h = x ^ y ^ z;
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return h ^ (h >>> 13);
}

/** Curl of three value-noise potentials whose lattice values are three tens of bits of a corner's hash. */
function curlNoise(x: number, y: number, z: number, seed: number, out: [number, number, number]): void {
  const fx = Math.floor(x);
  const fy = Math.floor(y);
  const fz = Math.floor(z);
  const tx = x - fx;
  const ty = y - fy;
  const tz = z - fz;
  // Lattice points are told apart by the bits of (whole + 1.5 × 2²³) in single precision.
  const x0 = Math.imul(fx + 0x4b400000, 0x27d4eb2d) ^ seed;
  const x1 = Math.imul(fx + 0x4b400001, 0x27d4eb2d) ^ seed;
  const y0 = Math.imul(fy + 0x4b400000, 0x165667b1);
  const y1 = Math.imul(fy + 0x4b400001, 0x165667b1);
  const z0 = Math.imul(fz + 0x4b400000, 0x1b873593);
  const z1 = Math.imul(fz + 0x4b400001, 0x1b873593);
  const ha = corner(x0, y0, z0);
  const hb = corner(x1, y0, z0);
  const hc = corner(x0, y1, z0);
  const hd = corner(x1, y1, z0);
  const he = corner(x0, y0, z1);
  const hf = corner(x1, y0, z1);
  const hg = corner(x0, y1, z1);
  const hh = corner(x1, y1, z1);
  const u = fade(tx);
  const v = fade(ty);
  const w = fade(tz);
  const du = fadeSlope(tx) / 512;
  const dv = fadeSlope(ty) / 512;
  const dw = fadeSlope(tz) / 512;
  let cx = 0;
  let cy = 0;
  let cz = 0;
  for (let component = 0; component < 3; component++) {
    const shift = component === 0 ? 0 : component === 1 ? 16 : 6;
    const a = (ha >>> shift) & 1023;
    const b = (hb >>> shift) & 1023;
    const c = (hc >>> shift) & 1023;
    const d = (hd >>> shift) & 1023;
    const e = (he >>> shift) & 1023;
    const f = (hf >>> shift) & 1023;
    const g = (hg >>> shift) & 1023;
    const h = (hh >>> shift) & 1023;
    const k4 = a - b - c + d;
    const k5 = a - c - e + g;
    const k6 = a - b - e + f;
    const k7 = -a + b + c - d + e - f - g + h;
    const dx = du * (b - a + k4 * v + k6 * w + k7 * v * w);
    const dy = dv * (c - a + k5 * w + k4 * u + k7 * w * u);
    const dz = dw * (e - a + k6 * u + k5 * v + k7 * u * v);
    if (component === 0) {
      cy += dz;
      cz -= dy;
    } else if (component === 1) {
      cx -= dz;
      cz += dx;
    } else {
      cx += dy;
      cy -= dx;
    }
  }
  out[0] = cx;
  out[1] = cy;
  out[2] = cz;
}
