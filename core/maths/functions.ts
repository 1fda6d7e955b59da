/**
 * Sine, cosine, arc tangent and exponential from + − × ÷ alone, so that every engine gives the same bits.
 * Errors below 1e-13 over the ranges used here (angles up to a few thousand turns).
 */

const HALF_PI = 1.5707963267948966;
// π/2 in three parts (Cody and Waite, 1980, Software Manual for the Elementary Functions).
const HALF_PI_HIGH = 1.5707963267341256;
const HALF_PI_MIDDLE = 6.077100506303966e-11;
const HALF_PI_LOW = 2.0222662487959506e-21;

function sinNear(x: number): number {
  const y = x * x;
  let sum = 1.58962301576546568e-10;
  sum = sum * y - 2.50507477628578072e-8;
  sum = sum * y + 2.75573136213857245e-6;
  sum = sum * y - 1.98412698295895385e-4;
  sum = sum * y + 8.33333333332211858e-3;
  sum = sum * y - 1.66666666666666307e-1;
  return x + x * y * sum;
}

function cosNear(x: number): number {
  const y = x * x;
  let sum = -1.13585365213876817e-11;
  sum = sum * y + 2.087570084197473e-9;
  sum = sum * y - 2.755731417929674e-7;
  sum = sum * y + 2.4801587288851704e-5;
  sum = sum * y - 1.3888888888873056e-3;
  sum = sum * y + 4.1666666666666594e-2;
  return 1 - y / 2 + y * y * sum;
}

/** Sine of an angle in radians. */
export function sin(angle: number): number {
  const quarter = Math.floor(angle / HALF_PI + 0.5);
  const rest = angle - quarter * HALF_PI_HIGH - quarter * HALF_PI_MIDDLE - quarter * HALF_PI_LOW;
  switch (((quarter % 4) + 4) % 4) {
    case 0:
      return sinNear(rest);
    case 1:
      return cosNear(rest);
    case 2:
      return -sinNear(rest);
    default:
      return -cosNear(rest);
  }
}

/** Cosine of an angle in radians. */
export const cos = (angle: number): number => sin(angle + HALF_PI);

/** 1, −1/3, 1/5 … the last first. */
const ATAN_SERIES = Float64Array.from({ length: 9 }, (_, i) => (i % 2 ? -1 : 1) / (17 - 2 * i));

function atanNear(x: number): number {
  // Halve the angle three times, then the series: |x| is below 0.1 by then.
  let z = x;
  for (let i = 0; i < 3; i++) z = z / (1 + Math.sqrt(1 + z * z));
  const y = z * z;
  let sum = 0;
  for (let i = 0; i < 9; i++) sum = ATAN_SERIES[i]! + y * sum;
  return 8 * z * sum;
}

/** Angle of the vector (x, y) in radians, −π..π; 0 for the zero vector. */
export function atan2(y: number, x: number): number {
  if (x === 0 && y === 0) return 0;
  const steep = Math.abs(y) > Math.abs(x);
  const angle = steep ? HALF_PI - atanNear(Math.abs(x) / Math.abs(y)) : atanNear(Math.abs(y) / Math.abs(x));
  const upper = x < 0 ? 2 * HALF_PI - angle : angle;
  return y < 0 ? -upper : upper;
}

/** e to the power of x, for x of −700 to 700. */
export function exp(x: number): number {
  const n = Math.floor(x / 0.6931471805599453 + 0.5);
  const r = x - n * 0.6931471803691238 - n * 1.9082149292705877e-10;
  let sum = 1;
  for (let k = 14; k >= 1; k--) sum = 1 + (r / k) * sum;
  let scale = 1;
  const factor = n < 0 ? 0.5 : 2;
  for (let k = Math.abs(n); k > 0; k--) scale *= factor;
  return sum * scale;
}

/** Natural logarithm of 2. */
export const LN2 = 0.6931471805599453;

/** Natural logarithm of a number above 0, by Newton's method. */
export function log(x: number): number {
  let near = x;
  let root = 0;
  for (; near > 2; near /= 2) root += LN2;
  for (; near < 0.5; near *= 2) root -= LN2;
  let y = near - 1;
  for (let i = 0; i < 6; i++) y += near / exp(y) - 1;
  return root + y;
}

/** Cube root of a number that is not negative, by Newton's method: `Math.cbrt` differs between engines. */
export function cubeRoot(x: number): number {
  if (!(x > 0)) return 0;
  let near = x;
  let scale = 1;
  for (; near > 1; near /= 8) scale *= 2;
  for (; near < 0.125; near *= 8) scale /= 2;
  let root = 0.45 + near * 0.55;
  for (let i = 0; i < 6; i++) root = (2 * root + near / (root * root)) / 3;
  return root * scale;
}

export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
