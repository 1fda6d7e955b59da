import type { Point } from './lines';

/** Turns a point by degrees round X, then Y, then Z, as places are turned. */
export function turned([a, b, c]: Point, degrees: Point): Point {
  const [x, y, z] = degrees.map((angle) => (angle * Math.PI) / 180) as [number, number, number];
  const [cx, sx, cy, sy, cz, sz] = [Math.cos(x), Math.sin(x), Math.cos(y), Math.sin(y), Math.cos(z), Math.sin(z)];
  const [y1, z1] = [b * cx - c * sx, b * sx + c * cx];
  const [x2, z2] = [a * cy + z1 * sy, z1 * cy - a * sy];
  return [x2 * cz - y1 * sz, x2 * sz + y1 * cz, z2];
}
