import { describe, expect, it } from 'vitest';
import { cos, sin } from '../../../maths/index.ts';
import { JOINT_ALONG, JOINT_TANGENT, JOINT_WORDS } from '../frame.ts';
import { Curve, FROM, METRES, TO, WIDTH } from './curve.ts';
import { edgesInto, Strip } from './strip.ts';

type Point = readonly [number, number, number];

function curveThrough(points: readonly Point[], width: number): Curve {
  const curve = new Curve();
  let metres = 0;
  points.forEach((point, n) => {
    const at = curve.add();
    for (const place of [FROM, TO]) curve.points.set(point, at + place);
    if (n > 0) metres += Math.hypot(...point.map((x, axis) => x - points[n - 1]![axis]!));
    curve.points[at + METRES] = metres;
    curve.points[at + WIDTH] = width / 2;
  });
  curve.cut();
  return curve;
}

/** The two edges of a ribbon that lies flat, seen from above. */
function edgesOf(curve: Curve): { left: number[][]; right: number[][]; f32: Float32Array; count: number } {
  const f32 = new Float32Array(JOINT_WORDS * 4000);
  const count = new Strip().write(f32, 0, 4000, curve);
  const [left, right]: number[][][] = [[], []];
  for (let n = 0; n < count; n++) {
    const [a, b] = [new Float64Array(3), new Float64Array(3)];
    const [x, , z] = f32.subarray(n * JOINT_WORDS + JOINT_TANGENT) as unknown as [number, number, number];
    const flat = Math.hypot(x, z);
    edgesInto(a, b, f32, n * JOINT_WORDS, [z / flat, 0, -x / flat]);
    left!.push([...a]);
    right!.push([...b]);
  }
  return { left: left!, right: right!, f32, count };
}

/** Twice the area of a triangle seen from above, signed. */
const area = ([ax, , az]: number[], [bx, , bz]: number[], [cx, , cz]: number[]) =>
  (bx! - ax!) * (cz! - az!) - (bz! - az!) * (cx! - ax!);

/** Up, round half a circle, and back: laid every so many metres. */
function uTurn(radius: number, every: number): Point[] {
  const points: Point[] = [];
  for (let x = 0; x < 1; x += every) points.push([x, 0, 0]);
  const pieces = Math.max(3, Math.ceil((Math.PI * radius) / every));
  for (let k = 0; k <= pieces; k++) {
    const angle = (k / pieces) * Math.PI;
    points.push([1 + radius * sin(angle), 0, radius * (1 - cos(angle))]);
  }
  for (let x = 1 - every; x > 0; x -= every) points.push([x, 0, 2 * radius]);
  return points;
}

/** How far a point is from the true U: two straights and half a circle. */
function fromU([x, , z]: number[], radius: number): number {
  if (x! > 1) return Math.abs(Math.hypot(x! - 1, z! - radius) - radius);
  const within = Math.max(0, Math.min(1, x!));
  return Math.min(Math.hypot(x! - within, z!), Math.hypot(x! - within, z! - 2 * radius));
}

describe('a ribbon in a U-turn of a radius of half its width', () => {
  for (const every of [0.02, 0.05, 0.1])
    it(`laid every ${every} m has no inverted triangle, and keeps near its curve`, () => {
      const width = 0.4;
      const { left, right, count } = edgesOf(curveThrough(uTurn(width / 2, every), width));
      expect(count).toBeGreaterThan(30);
      let turned = 0;
      for (let n = 0; n + 1 < count; n++) {
        // Both triangles of a piece turn the same way as those of a straight piece.
        const straight = Math.sign(area(left[0]!, right[0]!, left[1]!));
        for (const triangle of [
          [left[n]!, right[n]!, left[n + 1]!],
          [left[n + 1]!, right[n]!, right[n + 1]!],
        ] as const) {
          expect(Math.sign(area(...triangle)) * straight).toBeGreaterThanOrEqual(0);
          turned++;
        }
      }
      expect(turned).toBe(2 * (count - 1));
      for (const vertex of [...left, ...right]) expect(fromU(vertex, width / 2)).toBeLessThan(1.5 * width);
    });

  it('is as wide as it is meant to be where it goes straight', () => {
    const { left, right } = edgesOf(curveThrough(uTurn(0.2, 0.05), 0.4));
    expect(Math.hypot(...left[3]!.map((x, axis) => x - right[3]![axis]!))).toBeCloseTo(0.4, 5);
  });
});

describe('a curve', () => {
  it('goes through every point that it is given, smoothly between', () => {
    const corners: Point[] = [
      [0, 0, 0],
      [1, 0, 0],
      [1, 1, 0],
      [2, 1, 1],
    ];
    const { f32, count } = edgesOf(curveThrough(corners, 0.1));
    const at = (n: number) => [...f32.subarray(n * JOINT_WORDS + 4, n * JOINT_WORDS + 7)];
    for (const corner of corners)
      expect(
        Array.from({ length: count }, (_, n) => at(n)).some(
          (p) => Math.hypot(...p.map((x, i) => x - corner[i]!)) < 1e-6,
        ),
      ).toBe(true);
    for (let n = 1; n + 1 < count; n++) {
      const [a, b, c] = [at(n - 1), at(n), at(n + 1)];
      const [u, v] = [b.map((x, i) => x - a[i]!), c.map((x, i) => x - b[i]!)];
      const turn = u.reduce((sum, x, i) => sum + x * v[i]!, 0) / Math.hypot(...u) / Math.hypot(...v);
      expect(turn).toBeGreaterThan(0.9);
    }
    expect(f32[(count - 1) * JOINT_WORDS + JOINT_ALONG]).toBe(1);
  });

  it('of one point, or of points all in one place, draws nothing', () => {
    for (const points of [
      [],
      [[0, 0, 0]],
      [
        [1, 1, 1],
        [1, 1, 1],
        [1, 1, 1],
      ],
    ] as Point[][])
      expect(edgesOf(curveThrough(points, 0.1)).count).toBe(0);
  });

  it('makes no number that is none, whatever it is given', () => {
    let state = 5;
    const random = () => (state = (Math.imul(state, 1103515245) + 12345) >>> 0) / 4294967296;
    for (let round = 0; round < 200; round++) {
      const points = Array.from({ length: 2 + Math.floor(random() * 6) }, (): Point => {
        const scale = [0, 1e-7, 1, 1e5][Math.floor(random() * 4)]!;
        return [random() * scale, random() * scale, random() * scale];
      });
      const { f32, left, right } = edgesOf(curveThrough(points, random()));
      for (const numbers of [f32, left.flat(), right.flat()]) expect([...numbers].every(Number.isFinite)).toBe(true);
    }
  });
});
