import type { Vec3 } from '@jinx/core/maths';

/** A mesh as plain lists: three numbers a place and a normal, two a UV (v 0 at the far end), three indices a triangle. */
export interface PropMesh {
  readonly positions: number[];
  readonly normals: number[];
  readonly uvs: number[];
  readonly indices: number[];
  /** Where its vertices lie in another shape of it. */
  readonly otherShape?: number[];
}

const unit = ([x, y, z]: Vec3): Vec3 => {
  const size = Math.hypot(x, y, z) || 1;
  return [x / size, y / size, z / size];
};
const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/** A sheet of `columns` by `rows` cells: `at` places u (across, 0 to 1) and v (along, 0 to 1). Normals from the places themselves. */
export function sheet(columns: number, rows: number, at: (u: number, v: number) => Vec3): PropMesh {
  const mesh: PropMesh = { positions: [], normals: [], uvs: [], indices: [] };
  const step = 1e-3;
  for (let row = 0; row <= rows; row++)
    for (let column = 0; column <= columns; column++) {
      const [u, v] = [column / columns, row / rows];
      const across = minus(at(Math.min(1, u + step), v), at(Math.max(0, u - step), v));
      const along = minus(at(u, Math.min(1, v + step)), at(u, Math.max(0, v - step)));
      mesh.positions.push(...at(u, v));
      mesh.normals.push(...unit(cross(across, along)));
      mesh.uvs.push(u, 1 - v);
      if (row === rows || column === columns) continue;
      const a = row * (columns + 1) + column;
      const b = a + columns + 1;
      mesh.indices.push(a, a + 1, b + 1, a, b + 1, b);
    }
  return mesh;
}

/** The same sheet with another shape of it: `at` and `other` place the same u and v. */
export const sheetOfTwo = (
  columns: number,
  rows: number,
  at: (u: number, v: number) => Vec3,
  other: (u: number, v: number) => Vec3,
): PropMesh => ({ ...sheet(columns, rows, at), otherShape: sheet(columns, rows, other).positions });

/** Flat faces, each a polygon with its corners in order, seen from where they go round against the clock. */
export function faces(polygons: readonly (readonly Vec3[])[]): PropMesh {
  const mesh: PropMesh = { positions: [], normals: [], uvs: [], indices: [] };
  for (const corners of polygons) {
    const first = mesh.positions.length / 3;
    const normal = unit(cross(minus(corners[1]!, corners[0]!), minus(corners[2]!, corners[0]!)));
    corners.forEach((corner) => {
      mesh.positions.push(...corner);
      mesh.normals.push(...normal);
      mesh.uvs.push(corner[0] + 0.5, 0.5 - corner[1]);
    });
    for (let n = 1; n + 1 < corners.length; n++) mesh.indices.push(first, first + n, first + n + 1);
  }
  return mesh;
}
