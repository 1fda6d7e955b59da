import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { collectionOf, type Curve, type Stop } from '../settings/index.ts';
import { curveThrough } from '../document/index.ts';
import { curlField } from '../kernels/index.ts';
import {
  atan2,
  cos,
  curveAt,
  curveIntegral,
  draw,
  exp,
  fitToLife,
  gradientInto,
  hash2,
  linearOf,
  mix,
  particleKey,
  readyCurve,
  readyGradient,
  moveDirection,
  movePoint,
  motionInto,
  MOTION_WORDS,
  packRigid,
  RIGID_WORDS,
  rigidOf,
  sin,
  slotOf,
  type Axes,
  type Rigid,
  type Vec3,
} from './index.ts';

const vectors = JSON.parse(readFileSync(new URL('../../docs/vectors.json', import.meta.url), 'utf8'));

describe('our sine, cosine, arc tangent and exponential', () => {
  it('agree with the engine to the last few bits', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        (x, y) => {
          expect(Math.abs(sin(x) - Math.sin(x))).toBeLessThan(1e-11);
          expect(Math.abs(cos(x) - Math.cos(x))).toBeLessThan(1e-11);
          expect(Math.abs(atan2(y, x) - Math.atan2(y + 0, x + 0))).toBeLessThan(1e-12);
          expect(Math.abs(exp(x / 100) / Math.exp(x / 100) - 1)).toBeLessThan(1e-12);
        },
      ),
      { numRuns: 2000 },
    );
  });
});

describe('the published test vectors', () => {
  it.each(vectors.mix as [number, number][])('mix(%i) is %i', (input, output) => expect(mix(input)).toBe(output));
  it.each(vectors.hash2 as [number, number, number][])('hash2(%i, %i) is %i', (a, b, output) =>
    expect(hash2(a, b)).toBe(output),
  );
  it.each(vectors.particleKey as [number, number, number, number][])(
    'the key of (%i, %i, %i) is %i',
    (seed, salt, number, output) => expect(particleKey(seed, salt, number)).toBe(output),
  );
  it.each(vectors.slotOf as [string, number][])('the slot of %s is %i', (name, output) =>
    expect(slotOf(name)).toBe(output),
  );
  it.each(vectors.draw as [number, number, number][])('draw(%i, %i) is %d', (key, slot, output) =>
    expect(draw(key, slot)).toBe(output),
  );
  it.each(vectors.curlField as [number[], number, number[]][])(
    'the curl at %j of seed %i is %j',
    ([x, y, z], seed, output) => {
      const out = new Float32Array(3);
      curlField(Math.fround(x!), Math.fround(y!), Math.fround(z!), seed, out);
      expect([...out]).toEqual(output);
    },
  );
  it.each(vectors.curve as [number, number][])('the example curve at %d is %d', (x, y) =>
    expect(curveAt(readyCurve(curveThrough(vectors.curvePoints)), x)).toBe(y),
  );
});

describe('draws', () => {
  it('spread evenly over 0 to 1', () => {
    const bins = new Array<number>(64).fill(0);
    for (let key = 0; key < 64_000; key++) bins[Math.floor(draw(particleKey(1, 2, key), 3) * 64)]!++;
    const chiSquare = bins.reduce((sum, count) => sum + (count - 1000) ** 2 / 1000, 0);
    expect(chiSquare).toBeLessThan(103); // 63 degrees of freedom, one in a thousand
  });
});

describe('curves', () => {
  it('pass through their keys and stay between them where those do', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 8 }), (values) => {
        const points = values.map((y, i): [number, number] => [i / (values.length - 1), y]);
        const curve = readyCurve(curveThrough(points));
        for (const [x, y] of points) expect(curveAt(curve, x)).toBeCloseTo(y, 9);
        for (let x = 0; x <= 1; x += 0.01) {
          expect(curveAt(curve, x)).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
          expect(curveAt(curve, x)).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
        }
      }),
    );
  });

  it('have the integral they are said to have', () => {
    const curve = readyCurve(
      curveThrough([
        [0, 0.2],
        [0.3, 1],
        [0.7, 0.4],
        [1, 0],
      ]),
    );
    for (const x of [0.1, 0.3, 0.55, 1]) {
      let sum = 0;
      for (let i = 0; i < 20000; i++) sum += (curveAt(curve, ((i + 0.5) / 20000) * x) * x) / 20000;
      expect(curveIntegral(curve, x)).toBeCloseTo(sum, 6);
    }
  });

  it('fade as many seconds before death in a short life as in a long one', () => {
    const key = (anchor: 'share' | 'beforeDeath', at: number, value: number) => ({
      at: { anchor, value: at },
      value,
      slopeIn: 0,
      slopeOut: 0,
    });
    const fade: Curve = {
      keys: collectionOf([
        ['full', key('beforeDeath', 0.2, 1)],
        ['end', key('beforeDeath', 0, 0)],
      ]),
    };
    const curve = readyCurve(fade);
    for (const life of [0.4, 1, 5]) {
      fitToLife(curve, life);
      expect(curveAt(curve, 1 - 0.2 / life)).toBeCloseTo(1, 9);
      expect(curveAt(curve, 1 - 0.1 / life)).toBeCloseTo(0.5, 9);
    }
  });
});

describe('carriers', () => {
  /** Where a point goes, and a velocity along X, when its carrier moves and it rides by a share. */
  function carried(point: Vec3, from: Rigid, to: Rigid, share: number) {
    const axes = (v: Vec3): Axes => [Float32Array.of(v[0]), Float32Array.of(v[1]), Float32Array.of(v[2])];
    const [before, after, motion] = [RIGID_WORDS, RIGID_WORDS, MOTION_WORDS].map((words) => new Float64Array(words));
    const [place, velocity] = [axes(point), axes([1, 0, 0])];
    packRigid(from, before!);
    packRigid(to, after!);
    motionInto(motion!, before!, after!, share);
    movePoint(motion!, place, 0);
    moveDirection(motion!, velocity, 0);
    return { place: place.map(([x]) => x!), velocity: velocity.map(([x]) => x!) };
  }
  const turned = (degrees: number): Rigid => {
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    return rigidOf([c, 0, -s, 0, 0, 1, 0, 0, s, 0, c, 0, 1, 2, 3, 1]);
  };
  it('half a ride turns half as far, either way round', () => {
    for (const degrees of [40, -40, 170, -170]) {
      const [from, to] = [turned(0), turned(degrees)];
      const place = carried([2, 2, 3], from, to, 0.5).place;
      expect((Math.atan2(-(place[2]! - 3), place[0]! - 1) * 180) / Math.PI).toBeCloseTo(degrees / 2, 4);
    }
  });
});

describe('riding', () => {
  const unitTurn = fc
    .tuple(...[0, 1, 2, 3].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
    .filter((q) => Math.hypot(...(q as number[])) > 0.1)
    .map((q) => (q as number[]).map((x) => x / Math.hypot(...(q as number[]))) as unknown as Rigid['turn']);
  const point = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -5, max: 5, noNaN: true }))) as fc.Arbitrary<
    [number, number, number]
  >;
  const place = fc.record({ turn: unitTurn, at: point });
  const axesOf = (v: Vec3): Axes => [Float32Array.of(v[0]), Float32Array.of(v[1]), Float32Array.of(v[2])];
  function ride(points: Axes, from: Rigid, to: Rigid, share: number): void {
    const packed = [from, to].map((rigid) => {
      const words = new Float64Array(RIGID_WORDS);
      packRigid(rigid, words);
      return words;
    });
    const motion = new Float64Array(MOTION_WORDS);
    motionInto(motion, packed[0]!, packed[1]!, share);
    movePoint(motion, points, 0);
  }

  it('along and back again ends where it began', () =>
    fc.assert(
      fc.property(place, place, point, (from, to, start) => {
        const points = axesOf(start);
        ride(points, from, to, 1);
        ride(points, to, from, 1);
        start.forEach((x, axis) => expect(points[axis]![0]).toBeCloseTo(x, 4));
      }),
    ));

  it('keeps the distance to the carrier, whatever the share', () =>
    fc.assert(
      fc.property(place, place, point, fc.double({ min: 0, max: 1, noNaN: true }), (from, to, start, share) => {
        const points = axesOf(start);
        ride(points, from, to, share);
        // The carrier itself goes its share of the way, along the arc of its turn.
        const carrier = axesOf(from.at as Vec3);
        ride(carrier, from, to, share);
        const centre = carrier.map(([x]) => x!);
        const distance = (v: readonly number[], c: readonly number[]) => Math.hypot(...v.map((x, i) => x - c[i]!));
        expect(
          distance(
            points.map(([x]) => x!),
            centre,
          ),
        ).toBeCloseTo(distance(start, from.at), 4);
      }),
    ));

  it('of nothing goes nowhere', () =>
    fc.assert(
      fc.property(place, place, point, (from, to, start) => {
        const points = axesOf(start);
        ride(points, from, to, 0);
        start.forEach((x, axis) => expect(points[axis]![0]).toBeCloseTo(x, 5));
      }),
    ));
});

describe('a gradient', () => {
  const stops = fc.uniqueArray(
    fc.record({ x: fc.integer({ min: 0, max: 100 }), grey: fc.integer({ min: 0, max: 255 }) }),
    { selector: ({ x }) => x, minLength: 1, maxLength: 6 },
  );
  const hexOf = (grey: number) => `#${grey.toString(16).padStart(2, '0').repeat(3)}`;
  const made = (list: { x: number; grey: number }[]) =>
    readyGradient(
      collectionOf(
        list.map(({ x, grey }, i): [string, Stop] => [
          `s${i}`,
          { at: { anchor: 'share', value: x / 100 }, colour: { hex: hexOf(grey) } },
        ]),
      ),
      collectionOf([]),
    );

  it('is each stop’s own colour at its place, and between its neighbours elsewhere, in whatever order they came', () =>
    fc.assert(
      fc.property(stops, fc.double({ min: 0, max: 1, noNaN: true }), (list, x) => {
        const gradient = made(list);
        const rgb = new Float64Array(3);
        for (const stop of list) {
          gradientInto(gradient, stop.x / 100, 1, rgb);
          expect(rgb[0]).toBeCloseTo(linearOf(hexOf(stop.grey))[0], 9);
        }
        const sorted = [...list].sort((a, b) => a.x - b.x);
        const after = sorted.findIndex((stop) => stop.x / 100 > x);
        const [left, right] =
          after < 0 ? [sorted.at(-1)!, sorted.at(-1)!] : [sorted[Math.max(0, after - 1)]!, sorted[after]!];
        const ends = [linearOf(hexOf(left.grey))[0], linearOf(hexOf(right.grey))[0]];
        gradientInto(gradient, x, 1, rgb);
        expect(rgb[1]).toBeGreaterThanOrEqual(Math.min(...ends) - 1e-9);
        expect(rgb[1]).toBeLessThanOrEqual(Math.max(...ends) + 1e-9);
      }),
    ));

  it('fades as many seconds before death in a short life as in a long one', () => {
    const gradient = readyGradient(
      collectionOf<Stop>([
        ['a', { at: { anchor: 'beforeDeath', value: 0.5 }, colour: { hex: '#ffffff' } }],
        ['b', { at: { anchor: 'share', value: 1 }, colour: { hex: '#000000' } }],
      ]),
      collectionOf([]),
    );
    const rgb = new Float64Array(3);
    for (const life of [1, 2, 8]) {
      gradientInto(gradient, 1 - 0.25 / life, life, rgb);
      expect(rgb[0]).toBeCloseTo(0.5, 6);
    }
  });
});

describe('colours', () => {
  it('come to linear light as sRGB says', () => {
    expect(linearOf('#ffffff')).toEqual([1, 1, 1]);
    expect(linearOf('#808080')[0]).toBeCloseTo(0.21586, 5);
  });
});
