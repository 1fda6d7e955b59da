import type { Layer, Place } from '../../document/index.ts';
import { cos, cubeRoot, radians, sin } from '../../maths/index.ts';

/**
 * A point of a shape in its own frame, whose axis is Y: where it is, which way is outward, the normal, and a direction
 * along the shape. Three numbers each.
 */
export class LocalPoint {
  readonly at = new Float64Array(3);
  readonly out = new Float64Array(3);
  readonly normal = new Float64Array(3);
  readonly along = new Float64Array(3);
}

/** The measures of a shape at one moment, in metres and radians. */
export interface Measures {
  radius: number;
  length: number;
  thickness: number;
  /** Share of the full turn, 0 to 1. */
  arc: number;
  /** How far from the top a sphere reaches. */
  rise: number;
  /** How far a cone's sides lean. */
  angle: number;
  /** Share of a volume that is used, from its surface inward. */
  depth: number;
  readonly size: Float64Array;
}

export type Region = 'surface' | 'edge' | 'volume' | 'vertices';

/** Writes the point of a shape for three shares u, v, w (each 0 ≤ … < 1). */
type Shape = (out: LocalPoint, shares: Float64Array, region: Region, measures: Measures) => void;

const HALF_ROOT = Math.sqrt(0.5);

const set = (a: Float64Array, x: number, y: number, z: number): void => {
  a[0] = x;
  a[1] = y;
  a[2] = z;
};

/** The radius of a shape filled to a depth: births spread evenly over what is filled. */
function filled(w: number, depth: number, dimensions: 2 | 3): number {
  if (depth === 0) return 1;
  const inner = 1 - depth;
  const hole = dimensions === 2 ? inner * inner : inner * inner * inner;
  const u = hole + (1 - hole) * w;
  return dimensions === 2 ? Math.sqrt(u) : cubeRoot(u);
}

const point: Shape = (p, shares) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const y = 1 - 2 * v;
  const flat = Math.sqrt(Math.max(0, 1 - y * y));
  const turn = 2 * Math.PI * u;
  set(p.at, 0, 0, 0);
  set(p.out, flat * cos(turn), y, flat * sin(turn));
  set(p.normal, 0, 1, 0);
  set(p.along, 1, 0, 0);
};

const line: Shape = (p, shares, _region, { length }) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const turn = 2 * Math.PI * v;
  set(p.at, 0, (u - 0.5) * length, 0);
  set(p.out, cos(turn), 0, sin(turn));
  set(p.normal, p.out[0]!, p.out[1]!, p.out[2]!);
  set(p.along, 0, 1, 0);
};

const ring: Shape = (p, shares, region, { radius, thickness, arc }) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const w = shares[2]!;
  const turn = 2 * Math.PI * arc * u;
  const c = cos(turn);
  const s = sin(turn);
  const tube = region === 'edge' ? 0 : thickness * (region === 'volume' ? Math.sqrt(w) : 1);
  if (tube === 0) {
    set(p.at, radius * c, 0, radius * s);
    set(p.out, c, 0, s);
    set(p.normal, 0, 1, 0);
  } else {
    const round = 2 * Math.PI * v;
    const flat = cos(round);
    const up = sin(round);
    const from = radius + tube * flat;
    set(p.at, from * c, tube * up, from * s);
    set(p.out, flat * c, up, flat * s);
    set(p.normal, p.out[0]!, p.out[1]!, p.out[2]!);
  }
  set(p.along, -s, 0, c);
};

const disc: Shape = (p, shares, region, { radius, depth, arc }) => {
  const u = shares[0]!;
  const w = shares[2]!;
  const turn = 2 * Math.PI * arc * u;
  const c = cos(turn);
  const s = sin(turn);
  const r = radius * (region === 'edge' ? 1 : filled(w, region === 'volume' ? depth : 1, 2));
  set(p.at, r * c, 0, r * s);
  set(p.out, c, 0, s);
  set(p.normal, 0, 1, 0);
  set(p.along, -s, 0, c);
};

const sphere: Shape = (p, shares, region, { radius, depth, arc, rise }) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const w = shares[2]!;
  const turn = 2 * Math.PI * arc * u;
  // As likely on each square metre as on any other (Archimedes' hat-box theorem).
  const lowest = cos(rise);
  const rim = rise >= Math.PI ? 0 : lowest;
  const y = region === 'edge' ? rim : 1 - (1 - lowest) * v;
  const flat = Math.sqrt(Math.max(0, 1 - y * y));
  const c = cos(turn);
  const s = sin(turn);
  const r = radius * (region === 'volume' ? filled(w, depth, 3) : 1);
  set(p.out, flat * c, y, flat * s);
  set(p.at, r * flat * c, r * y, r * flat * s);
  set(p.normal, p.out[0]!, p.out[1]!, p.out[2]!);
  set(p.along, -s, 0, c);
};

const cylinder: Shape = (p, shares, region, { radius, length, depth, arc }) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const w = shares[2]!;
  const turn = 2 * Math.PI * arc * u;
  const c = cos(turn);
  const s = sin(turn);
  const r = radius * (region === 'volume' ? filled(w, depth, 2) : 1);
  const y = region === 'edge' ? (v < 0.5 ? -0.5 : 0.5) : v - 0.5;
  set(p.at, r * c, y * length, r * s);
  set(p.out, c, 0, s);
  set(p.normal, p.out[0]!, p.out[1]!, p.out[2]!);
  set(p.along, -s, 0, c);
};

const cone: Shape = (p, shares, region, { radius, length, depth, arc, angle }) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const w = shares[2]!;
  const turn = 2 * Math.PI * arc * u;
  const c = cos(turn);
  const s = sin(turn);
  const lean = sin(angle) / cos(angle);
  const isFlat = length === 0 || region === 'edge';
  const top = radius + length * lean;
  // Evenly over the side or the inside of a cut-off cone: its girth grows with its height, its section by the square.
  const wide = region === 'volume' ? cubed(radius, top, v) : squared(radius, top, v);
  const y = isFlat ? 0 : lean > 0 ? (wide - radius) / lean : v * length;
  const border = isFlat ? radius : lean > 0 ? wide : radius;
  const share = region === 'edge' ? 1 : isFlat ? filled(w, 1, 2) : region === 'volume' ? filled(w, depth, 2) : 1;
  set(p.at, border * share * c, y, border * share * s);
  const tilt = angle * (border > 0 ? share : Math.sqrt(w));
  const up = cos(tilt);
  const flat = sin(tilt);
  set(p.out, flat * c, up, flat * s);
  set(p.normal, cos(angle) * c, -sin(angle), cos(angle) * s);
  set(p.along, -s, 0, c);
};

const squared = (a: number, b: number, v: number): number => Math.sqrt(a * a + (b * b - a * a) * v);
const cubed = (a: number, b: number, v: number): number => cubeRoot(a * a * a + (b * b * b - a * a * a) * v);

/** Which of three weights a share falls on, and how far into it. */
function chosen(weights: readonly [number, number, number], u: number): { axis: number; rest: number } {
  const sum = weights[0] + weights[1] + weights[2];
  let at = u * sum;
  for (let axis = 0; axis < 2; axis++) {
    if (at < weights[axis]!) return { axis, rest: at / weights[axis]! };
    at -= weights[axis]!;
  }
  return { axis: 2, rest: weights[2] > 0 ? Math.min(at / weights[2], 1 - 1e-12) : 0 };
}

const box: Shape = (p, shares, region, { size, depth }) => {
  const u = shares[0]!;
  const v = shares[1]!;
  const w = shares[2]!;
  const x = size[0]!;
  const y = size[1]!;
  const z = size[2]!;
  set(p.normal, 0, 0, 0);
  set(p.along, 0, 0, 0);
  if (region === 'edge') {
    // Four edges along each axis, as likely on each metre as on any other.
    const { axis, rest } = chosen([x, y, z], u);
    const a = (axis + 1) % 3;
    const b = (axis + 2) % 3;
    const corner = Math.floor(v * 4);
    p.at[axis] = (rest - 0.5) * size[axis]!;
    p.at[a] = ((corner & 1) - 0.5) * size[a]!;
    p.at[b] = ((corner >> 1) - 0.5) * size[b]!;
    p.along[axis] = 1;
    p.normal[a] = (corner & 1 ? 1 : -1) * HALF_ROOT;
    p.normal[b] = (corner >> 1 ? 1 : -1) * HALF_ROOT;
  } else {
    // Faces by their area; for the inside, the pyramids over them, which are of one volume.
    const isFlat = x * y * z === 0;
    const faces = [y * z, z * x, x * y] as const;
    const pyramids = [x * y * z, x * y * z, x * y * z] as const;
    const { axis, rest } = chosen(region === 'volume' && !isFlat ? pyramids : faces, u);
    const a = (axis + 1) % 3;
    const b = (axis + 2) % 3;
    const side = isFlat || rest >= 0.5 ? 1 : -1;
    const across = isFlat ? rest : rest >= 0.5 ? rest * 2 - 1 : rest * 2;
    const share = region === 'volume' && !isFlat ? filled(w, depth, 3) : 1;
    p.at[axis] = (side / 2) * size[axis]! * share;
    p.at[a] = (across - 0.5) * size[a]! * share;
    p.at[b] = (v - 0.5) * size[b]! * share;
    p.normal[axis] = side;
    p.along[a] = 1;
  }
  p.out.set(p.normal);
};

/** The shapes by the kind of source, and over how many dimensions births spread evenly. */
export const SHAPES = { point, line, ring, disc, box, sphere, cylinder, cone } as const satisfies Record<
  string,
  Shape
>;
export type ShapeKind = keyof typeof SHAPES;

export function dimensionsOf(kind: ShapeKind, region: Region): 1 | 2 | 3 {
  if (kind === 'line' || (kind === 'ring' && region === 'edge')) return 1;
  return region === 'volume' && kind !== 'disc' ? 3 : 2;
}

export const isShape = (
  source: Layer['source'],
): source is Extract<Layer['source'], { kind: ShapeKind; place: Place }> => source.kind in SHAPES;

export const degreesToRadians = radians;
