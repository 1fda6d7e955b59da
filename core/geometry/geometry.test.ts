import { describe, expect, it } from 'vitest';
import { newThing } from '../document/index.ts';
import { draw, rotate, type Vec3 } from '../maths/index.ts';
import { bendingTube } from '../testing/rigs.ts';
import { SurfaceSampler } from './surface.ts';
import {
  FigureTrack,
  PosedMesh,
  posedSpot,
  Poser,
  skinMatricesInto,
  skinnedVertex,
  trackInto,
  type Rig,
  type Track,
} from './index.ts';

const tube = bendingTube();
const identity = Float64Array.from([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);

function posed(rig: Rig, clip: string, time: number): Float32Array {
  const world = new Float64Array(rig.bones.length * 16);
  new Poser(rig).sample(
    rig.clips.find(({ name }) => name === clip),
    time,
    identity,
    world,
  );
  const skin = new Float32Array(rig.bones.length * 16);
  skinMatricesInto(rig, world, skin);
  return skin;
}

describe('a pose', () => {
  it('without a clip is the rest pose: skin stays where it was made', () => {
    const skin = posed(tube, 'none', 0);
    for (let vertex = 0; vertex < tube.mesh.positions.length / 3; vertex += 7)
      skinnedVertex(tube, skin, vertex).forEach((x, axis) =>
        expect(x).toBeCloseTo(tube.mesh.positions[vertex * 3 + axis]!, 6),
      );
  });

  it('bends what hangs on the moved bone, and leaves the rest', () => {
    const skin = posed(tube, 'sway', 0.25);
    const { positions } = tube.mesh;
    const top = positions.length / 3 - 1;
    expect(Math.abs(skinnedVertex(tube, skin, top)[0] - positions[top * 3]!)).toBeGreaterThan(0.2);
    expect(skinnedVertex(tube, skin, 0)[0]).toBeCloseTo(positions[0]!, 6);
  });
});

describe('a track', () => {
  const track = (more: Partial<Track>): Track => ({
    bone: 0,
    property: 'translation',
    stepped: false,
    times: Float32Array.from([0, 1, 3]),
    values: Float32Array.from([0, 0, 0, 2, 0, 0, 4, 0, 0]),
    ...more,
  });
  const valueAt = (t: Track, time: number, size = 3) => {
    const out = new Float64Array(size);
    trackInto(t, time, out, 0);
    return [...out];
  };
  it.each([
    [-1, 0],
    [0.5, 1],
    [1, 2],
    [2, 3],
    [9, 4],
  ])('at %d s is %d', (time, x) => expect(valueAt(track({}), time)[0]).toBeCloseTo(x, 9));
  it('that steps holds each key until the next', () => expect(valueAt(track({ stepped: true }), 2.9)[0]).toBe(2));
  it('of turns goes the short way and stays a turn', () => {
    const half = Math.SQRT1_2;
    const turn = track({
      property: 'rotation',
      times: Float32Array.from([0, 1]),
      values: Float32Array.from([0, 0, 0, 1, 0, -half, 0, -half]),
    });
    const q = valueAt(turn, 0.5, 4);
    expect(Math.hypot(...q)).toBeCloseTo(1, 9);
    expect(q[1]! / q[3]!).toBeCloseTo(Math.tan(Math.PI / 8), 5);
  });
});

describe('a figure that walks', () => {
  const circle = new FigureTrack(tube, {
    ...newThing('Tube', ''),
    clip: 'sway',
    path: { kind: 'circle', radius: 2 },
  });
  const feet = (time: number): Vec3 => {
    const m = new Float64Array(16);
    circle.rootInto(time, m);
    return [m[12]!, m[13]!, m[14]!];
  };
  it('keeps to its circle at the speed of its clip', () => {
    for (const time of [0, 0.3, 1.7, 8]) expect(Math.hypot(feet(time)[0], feet(time)[2])).toBeCloseTo(2, 9);
    const [a, b] = [feet(1), feet(1.01)];
    expect(Math.hypot(b[0] - a[0], b[2] - a[2]) / 0.01).toBeCloseTo(1, 3);
    expect(circle.speed).toBeCloseTo(1, 9);
  });
  it('faces the way it goes', () => {
    const m = new Float64Array(16);
    circle.rootInto(2.4, m);
    const [a, b] = [feet(2.399), feet(2.401)];
    expect((b[0] - a[0]) * m[8]! + (b[2] - a[2]) * m[10]!).toBeGreaterThan(0.0019);
  });
  it('goes on without a jump from one cycle to the next', () => {
    const [a, b] = [feet(2 - 1e-6), feet(2 + 1e-6)];
    expect(Math.hypot(b[0] - a[0], b[2] - a[2])).toBeLessThan(1e-5);
  });
  it('on the spot stays there', () => {
    const m = new Float64Array(32);
    new FigureTrack(tube, { ...newThing('Tube', ''), clip: 'sway' }).worldInto(5.5, m);
    expect([m[12], m[13], m[14]]).toEqual([0, 0, 0]);
  });
});

const spotOf = (sampler: SurfaceSampler, u: number, v: number, w: number) => {
  const spot = { triangle: 0, second: 0, third: 0 };
  sampler.spotInto(spot, u, v, w);
  return spot;
};

describe('births on a surface', () => {
  const uniform = (n: number, slot: number) => draw(n * 7919 + 13, slot);
  it('fall on each triangle by its area (chi-square, one in a thousand)', () => {
    // A tube whose rings crowd toward one end, so that triangles differ in area.
    const rig = bendingTube(6, 6);
    for (let i = 1; i < rig.mesh.positions.length; i += 3) rig.mesh.positions[i] = rig.mesh.positions[i]! ** 2;
    const sampler = new SurfaceSampler(rig, []);
    const triangles = rig.mesh.indices.length / 3;
    const counts = new Array<number>(triangles).fill(0);
    const births = 100_000;
    for (let n = 0; n < births; n++) counts[spotOf(sampler, uniform(n, 1), uniform(n, 2), uniform(n, 3)).triangle]!++;
    const corner = (i: number) => rig.mesh.positions.subarray(i * 3, i * 3 + 3);
    let chiSquare = 0;
    counts.forEach((count, triangle) => {
      const [a, b, c] = [0, 1, 2].map((k) => corner(rig.mesh.indices[triangle * 3 + k]!)) as [
        Float32Array,
        Float32Array,
        Float32Array,
      ];
      const [u, v] = [b.map((x, i) => x - a[i]!), c.map((x, i) => x - a[i]!)];
      const area =
        Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2;
      const expected = (births * area) / sampler.area;
      chiSquare += (count - expected) ** 2 / expected;
    });
    expect(triangles).toBe(72);
    expect(chiSquare).toBeLessThan(112); // 71 degrees of freedom
  });

  it('lie inside their triangle', () => {
    const sampler = new SurfaceSampler(tube, []);
    for (let n = 0; n < 2000; n++) {
      const { second, third } = spotOf(sampler, uniform(n, 1), uniform(n, 2), uniform(n, 3));
      expect(second).toBeGreaterThanOrEqual(0);
      expect(third).toBeGreaterThanOrEqual(0);
      expect(second + third).toBeLessThanOrEqual(1 + 1e-6);
    }
  });

  it('find no area on bones that move no skin', () => expect(new SurfaceSampler(tube, ['nobody']).area).toBe(0));
});

describe('a spot on moving skin', () => {
  const spot = { triangle: 150, second: 0.2, third: 0.5 };
  it('has its normal outward, and the same frame whoever asks', () => {
    const mesh = new PosedMesh(tube);
    for (const time of [0, 0.2, 0.7]) {
      const skin = posed(tube, 'sway', time);
      mesh.setPose(skin);
      const frame = posedSpot(tube, skin, spot);
      expect(mesh.spot(spot)).toEqual(frame);
      expect(Math.hypot(...rotate(frame.turn, [0, 1, 0]))).toBeCloseTo(1, 9);
    }
    const rest = posedSpot(tube, posed(tube, 'none', 0), spot);
    const normal = rotate(rest.turn, [0, 1, 0]);
    expect(normal[0] * rest.at[0] + normal[2] * rest.at[2]).toBeGreaterThan(0.15);
  });
});
