import { PX, PY, PZ } from './layout.ts';
import { at, dot3, f, fade, least, most, read, root, sum, type Block } from './twin.ts';

function pullTo(
  block: Block,
  i: number,
  dx: number,
  dy: number,
  dz: number,
  strength: number,
  near: number,
  inverse: number,
): void {
  const squared = dot3(dx, dy, dz, dx, dy, dz);
  const pull = f(f(strength * fade(squared, inverse)) / root(f(squared + near)));
  sum(block, 0, i, f(dx * pull));
  sum(block, 1, i, f(dy * pull));
  sum(block, 2, i, f(dz * pull));
}

/** Accelerates toward (x, y, z); `near` (m²) softens the pull at the very place, `inverse` is 1 / reach². */
export function attraction(
  block: Block,
  s: number,
  each: number,
  x: number,
  y: number,
  z: number,
  near: number,
  inverse: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const dx = f(x - f32[at(block, PX, i)]!);
    const dy = f(y - f32[at(block, PY, i)]!);
    const dz = f(z - f32[at(block, PZ, i)]!);
    pullTo(block, i, dx, dy, dz, read(block, s, each, i), near, inverse);
  }
}

/** Accelerates toward the nearest point of a line from (x, y, z) along (ax, ay, az); `inverseLength` is 1 / length². */
export function attractionLine(
  block: Block,
  s: number,
  each: number,
  x: number,
  y: number,
  z: number,
  ax: number,
  ay: number,
  az: number,
  inverseLength: number,
  near: number,
  inverse: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const dx = f(x - f32[at(block, PX, i)]!);
    const dy = f(y - f32[at(block, PY, i)]!);
    const dz = f(z - f32[at(block, PZ, i)]!);
    const way = f(0 - f(dot3(dx, dy, dz, ax, ay, az) * inverseLength));
    const t = most(least(way, 1), 0);
    pullTo(block, i, f(dx + f(ax * t)), f(dy + f(ay * t)), f(dz + f(az * t)), read(block, s, each, i), near, inverse);
  }
}

/** Accelerates each particle toward a place of its own, from arrays of places. */
export function attractionEach(
  block: Block,
  s: number,
  each: number,
  targetX: number,
  targetY: number,
  targetZ: number,
  near: number,
  inverse: number,
): void {
  const { f32, from, to } = block;
  for (let i = from; i < to; i++) {
    const dx = f(read(block, targetX, 1, i) - f32[at(block, PX, i)]!);
    const dy = f(read(block, targetY, 1, i) - f32[at(block, PY, i)]!);
    const dz = f(read(block, targetZ, 1, i) - f32[at(block, PZ, i)]!);
    pullTo(block, i, dx, dy, dz, read(block, s, each, i), near, inverse);
  }
}
