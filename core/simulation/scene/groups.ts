import type { Effect } from '../../document/index.ts';
import { atan2, composeInto, multiplyInto, quaternionOf, radians, cos, sin, type Vec3 } from '../../maths/index.ts';

/** The matrix and the scale that a layer's groups give it together. */
export interface GroupFrame {
  readonly matrix: Float64Array | null;
  readonly scale: number;
}

export const NO_GROUP: GroupFrame = { matrix: null, scale: 1 };

/** Degrees round X, then Y, then Z, as a unit quaternion. */
export function turnOf(degrees: Vec3): readonly [number, number, number, number] {
  const x = radians(degrees[0]);
  const y = radians(degrees[1]);
  const z = radians(degrees[2]);
  const cx = cos(x);
  const sx = sin(x);
  const cy = cos(y);
  const sy = sin(y);
  const cz = cos(z);
  const sz = sin(z);
  return quaternionOf(
    [cz * cy, sz * cy, -sy],
    [cz * sy * sx - sz * cx, sz * sy * sx + cz * cx, cy * sx],
    [cz * sy * cx + sz * sx, sz * sy * cx - cz * sx, cy * cx],
  );
}

/** Writes the matrix of a turn by degrees round X, then Y, then Z. */
export function rotationInto(m: Float64Array, degreesX: number, degreesY: number, degreesZ: number): void {
  const x = radians(degreesX);
  const y = radians(degreesY);
  const z = radians(degreesZ);
  const cx = cos(x);
  const sx = sin(x);
  const cy = cos(y);
  const sy = sin(y);
  const cz = cos(z);
  const sz = sin(z);
  m.fill(0);
  m[0] = cz * cy;
  m[1] = sz * cy;
  m[2] = -sy;
  m[4] = cz * sy * sx - sz * cx;
  m[5] = sz * sy * sx + cz * cx;
  m[6] = cy * sx;
  m[8] = cz * sy * cx + sz * sx;
  m[9] = sz * sy * cx - cz * sx;
  m[10] = cy * cx;
  m[15] = 1;
}

/** The degrees round X, then Y, then Z by which a matrix turns; it may scale evenly beside. */
export function degreesOf(m: ArrayLike<number>): [number, number, number] {
  const flat = Math.sqrt(m[0]! * m[0]! + m[1]! * m[1]!);
  const size = Math.sqrt(flat * flat + m[2]! * m[2]!);
  const round = [
    // Straight up or down, a turn about X and one about Z are the same: all of it counts as one about X.
    flat > 1e-9 * size ? atan2(m[6]!, m[10]!) : atan2(m[4]! * -m[2]!, m[5]! * size),
    atan2(-m[2]!, flat),
    flat > 1e-9 * size ? atan2(m[1]!, m[0]!) : 0,
  ];
  return round.map((angle) => (angle * 180) / Math.PI) as [number, number, number];
}

export function groupFrame(effect: Pick<Effect, 'groups'>, parent: string | null): GroupFrame {
  let matrix: Float64Array | null = null;
  let scale = 1;
  for (let id = parent; id !== null;) {
    const group: Effect['groups']['byId'][string] = effect.groups.byId[id]!;
    const own = new Float64Array(16);
    composeInto(
      own,
      0,
      group.translation,
      0,
      [...turnOf(group.rotation)],
      0,
      [group.scale, group.scale, group.scale],
      0,
    );
    const inner: Float64Array | null = matrix;
    matrix = own;
    if (inner) {
      matrix = new Float64Array(16);
      multiplyInto(matrix, 0, own, 0, inner, 0);
    }
    scale *= group.scale;
    id = group.parent;
  }
  return { matrix, scale };
}
