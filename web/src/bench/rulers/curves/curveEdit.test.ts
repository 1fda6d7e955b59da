import { curveThrough, listed, type Curve } from '@jinx/core/document';
import { curveAt, fitToLife, placeOnLife, readyCurve } from '@jinx/core/maths';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  actOn,
  easeKeys,
  flipKeys,
  keysMeant,
  keysWithin,
  moveKeys,
  scaleKeys,
  stretchKeys,
  withKeyAt,
  withoutKeys,
  withPasted,
} from './curveEdit';

const LIFE = 2;
const BOUNDS = { life: LIFE, least: 0, most: 10 };
const hill = (): Curve =>
  curveThrough([
    [0, 0],
    [0.2, 1],
    [0.6, 0.5],
    [1, 0],
  ]);
const all = (curve: Curve) => new Set(curve.keys.order);
const read = (curve: Curve, x: number) => {
  const ready = readyCurve(curve);
  fitToLife(ready, LIFE);
  return curveAt(ready, x);
};
const points = (curve: Curve) =>
  listed(curve.keys).map(({ item }) => [Number(placeOnLife(item.at, LIFE).toFixed(4)), item.value]);

describe('a command', () => {
  const sharp = (curve: Curve) => (ids: ReadonlySet<string>) => easeKeys(curve, ids, 'sharp', LIFE);

  it('is for the chosen keys, as far as the curve has them, or else for all', () => {
    expect([...keysMeant(hill(), new Set(['k1', 'gone']))]).toEqual(['k1']);
    expect([...keysMeant(hill(), new Set(['gone']))]).toEqual(hill().keys.order);
    expect([...keysMeant(hill(), new Set())]).toEqual(hill().keys.order);
  });

  it('is for all where the chosen keys are as it would make them', () => {
    const one = sharp(hill())(new Set(['k1']));
    expect(actOn(hill(), new Set(['k1']), sharp(hill()))).toEqual(one);
    expect(actOn(one, new Set(['k1']), sharp(one))).toEqual(sharp(one)(all(one)));
  });

  it('turns all keys end for end where only one is chosen', () => {
    const flipped = flipKeys(hill(), keysMeant(hill(), new Set(['k1']), 2), LIFE);
    expect(points(flipped)).toEqual([
      [0, 0],
      [0.4, 0.5],
      [0.8, 1],
      [1, 0],
    ]);
  });
});

describe('keys of a curve', () => {
  it('are moved together, and stop together at the ends of the ruler', () => {
    const moved = moveKeys(hill(), new Set(['k1', 'k2']), 0.1, 0.25, BOUNDS);
    expect(points(moved)).toEqual([
      [0, 0],
      [0.3, 1.25],
      [0.7, 0.75],
      [1, 0],
    ]);
    expect(points(moveKeys(hill(), new Set(['k1', 'k2']), 5, -3, BOUNDS))).toEqual([
      [0, 0],
      [0.6, 0],
      [1, 0],
      [1, 0],
    ]);
  });

  it('keep the anchor they are held by', () => {
    const curve = hill();
    curve.keys.byId['k1']!.at = { anchor: 'afterBirth', value: 0.4 };
    const moved = moveKeys(curve, new Set(['k1']), 0.1, 0, BOUNDS);
    expect(moved.keys.byId['k1']!.at).toEqual({ anchor: 'afterBirth', value: 0.6 });
  });

  it('are stretched about a place, made higher, and turned end for end, as the whole curve then reads', () => {
    const curve = hill();
    const half = stretchKeys(curve, all(curve), 0.5, 0, BOUNDS);
    const twice = scaleKeys(curve, all(curve), 2, BOUNDS);
    const back = flipKeys(curve, all(curve), LIFE);
    for (let x = 0; x <= 1; x += 0.05) {
      expect(read(half, x / 2)).toBeCloseTo(read(curve, x), 2);
      expect(read(twice, x)).toBeCloseTo(2 * read(curve, x), 2);
      expect(read(back, 1 - x)).toBeCloseTo(read(curve, x), 2);
    }
  });

  it('are sharp: straight from key to key', () => {
    const curve = easeKeys(hill(), all(hill()), 'sharp', LIFE);
    expect(read(curve, 0.1)).toBeCloseTo(0.5, 3);
    expect(read(curve, 0.4)).toBeCloseTo(0.75, 3);
    expect(read(curve, 0.8)).toBeCloseTo(0.25, 3);
  });

  it('are held: level until the next, also where that stands so many seconds before death', () => {
    const held = easeKeys(hill(), new Set(['k1']), 'held', LIFE);
    for (const x of [0.2, 0.35, 0.599]) expect(read(held, x)).toBeCloseTo(1, 6);
    expect(read(held, 0.6)).toBeCloseTo(0.5, 6);
    held.keys.byId['k2']!.at = { anchor: 'beforeDeath', value: 0.4 };
    expect(read(held, 0.79)).toBeCloseTo(1, 6);
    expect(read(held, 0.8)).toBeCloseTo(0.5, 6);
    expect(easeKeys(held, new Set(['k1']), 'smooth', LIFE).keys.byId['k1']!.held).toBeUndefined();
  });

  it('smoothed never overshoot', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 8 }), (heights) => {
        const curve = curveThrough(heights.map((y, n) => [n / (heights.length - 1), y] as const));
        const smooth = easeKeys(easeKeys(curve, all(curve), 'sharp', LIFE), all(curve), 'smooth', LIFE);
        const [low, high] = [Math.min(...heights), Math.max(...heights)];
        for (let x = 0; x <= 1; x += 0.02) {
          expect(read(smooth, x)).toBeGreaterThanOrEqual(low - 0.02);
          expect(read(smooth, x)).toBeLessThanOrEqual(high + 0.02);
        }
      }),
    );
  });

  it('are added without changing the curve, and taken away but for one', () => {
    const curve = hill();
    const more = withKeyAt(curve, 'n', 0.4, null, BOUNDS);
    expect(more.keys.order).toEqual(['k0', 'k1', 'n', 'k2', 'k3']);
    for (let x = 0; x <= 1; x += 0.1) expect(read(more, x)).toBeCloseTo(read(curve, x), 1);
    expect(withoutKeys(curve, new Set(['k1', 'k2'])).keys.order).toEqual(['k0', 'k3']);
    expect(withoutKeys(curve, all(curve)).keys.order).toEqual(['k0']);
  });

  it('are found in a box, and pasted in place of those that stood among them', () => {
    const curve = hill();
    expect([...keysWithin(curve, LIFE, [0.1, 0.4], [0.7, 2])]).toEqual(['k1', 'k2']);
    let n = 0;
    const copied = [curve.keys.byId['k1']!, curve.keys.byId['k2']!];
    const other = curveThrough([
      [0, 1],
      [0.4, 0],
      [1, 1],
    ]);
    const { curve: pasted, ids } = withPasted(other, copied, () => `p${n++}`, BOUNDS);
    expect(points(pasted)).toEqual([
      [0, 1],
      [0.2, 1],
      [0.6, 0.5],
      [1, 1],
    ]);
    expect([...ids]).toEqual(['p0', 'p1']);
  });
});
