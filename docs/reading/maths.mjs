// Vectors, hashes, draws and what lies between lattice points, as the readings share them (docs/definitions.md).

export const add = (a, b) => a.map((x, n) => x + b[n]);
export const subtract = (a, b) => a.map((x, n) => x - b[n]);
export const scale = (a, by) => a.map((x) => x * by);
export const dot = (a, b) => a.reduce((sum, x, n) => sum + x * b[n], 0);
export const cross = (a, b) =>
  [0, 1, 2].map((n) => a[(n + 1) % 3] * b[(n + 2) % 3] - a[(n + 2) % 3] * b[(n + 1) % 3]);
export const length = (a) => Math.sqrt(dot(a, a));
export const unit = (a) => (length(a) > 1e-12 ? scale(a, 1 / length(a)) : a);
export const fract = (x) => x - Math.floor(x);
export const blend = (a, b, t) => add(scale(a, 1 - t), scale(b, t));

// Hashes and draws: docs/definitions.md, "Hash".
export function mix(x) {
  let h = x | 0;
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return (h ^ (h >>> 16)) >>> 0;
}
export const hash2 = (a, b) => mix(mix(a) ^ Math.imul(b + 1, 0x9e3779b9));
export const drawn = (key, slot) => (hash2(key, slot) >>> 8) / 16777216;
export function slotOf(name) {
  let h = 0x811c9dc5;
  for (let n = 0; n < name.length; n++) h = Math.imul(h ^ name.charCodeAt(n), 0x01000193);
  return h >>> 0;
}
export const draw = (key, name) => drawn(key, slotOf(name));

/** Two directions at right angles to one of length 1 and to each other (Duff et al., 2017). */
export function across([x, y, z]) {
  const sign = z >= 0 ? 1 : -1;
  const a = -1 / (sign + z);
  return [
    [1 + sign * x * x * a, sign * x * y * a, -sign * x],
    [x * y * a, sign + y * y * a, -y],
  ];
}
/** A way across another, turned about it. */
export const roundOf = (way, turn) => {
  const [u, v] = across(way);
  return add(scale(u, Math.cos(turn)), scale(v, Math.sin(turn)));
};

/** Steps of the even sequence in one, two and three dimensions (Roberts, 2018). */
export const EVEN = [
  [0.6180339887498949],
  [0.7548776662466927, 0.5698402909980532],
  [0.8191725133961645, 0.6710436067037893, 0.5497004779019703],
];

/**
 * A place between the values of the eight whole places about it, blended by t³(6t² − 15t + 10) an axis. `valueAt` is given
 * a whole place, and the way from there.
 */
export function betweenCorners(place, valueAt) {
  const cell = place.map(Math.floor);
  const off = subtract(place, cell);
  const ease = off.map((t) => t * t * t * (t * (t * 6 - 15) + 10));
  let sum = 0;
  for (let n = 0; n < 8; n++) {
    const corner = [n & 1, (n >> 1) & 1, n >> 2];
    const weight = ease.reduce((all, e, axis) => all * (corner[axis] ? e : 1 - e), 1);
    sum += weight * valueAt(add(cell, corner), subtract(off, corner));
  }
  return sum;
}
