import { expect, it } from 'vitest';
import { freeSpot } from './freeSpot';

const BOX = { width: 226, height: 24 };
const AREA = { width: 540, height: 70 };
const covers = ({ x, y }: { x: number; y: number }, point: { x: number; y: number }) =>
  point.x >= x && point.x <= x + BOX.width && point.y >= y && point.y <= y + BOX.height;

it.each([
  [[{ x: 270, y: 10 }]],
  [
    [
      { x: 5, y: 60 },
      { x: 270, y: 8 },
      { x: 535, y: 8 },
    ],
  ],
  [
    [
      { x: 100, y: 8 },
      { x: 200, y: 60 },
      { x: 300, y: 8 },
      { x: 535, y: 60 },
    ],
  ],
])('a box over a curve covers none of its keys: %j', (keys) => {
  for (const key of keys) {
    const spot = freeSpot(BOX, AREA, keys, key.x);
    expect(keys.some((other) => covers(spot, other))).toBe(false);
    expect(spot.x).toBeGreaterThanOrEqual(0);
    expect(spot.x + BOX.width).toBeLessThanOrEqual(AREA.width);
  }
});

it('stands near the key it belongs to', () =>
  expect(freeSpot(BOX, AREA, [{ x: 400, y: 60 }], 400)).toEqual({ x: 288, y: 2 }));
