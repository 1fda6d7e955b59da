import { describe, expect, it } from 'vitest';
import { lookAt, plainStep, type PlainStep } from './looks.ts';

/** How opaque a look is at q, −1 to 1 from the middle. */
const opacity = (steps: readonly PlainStep[], q: readonly [number, number], at = {}) =>
  lookAt(steps, [q[0] / 2 + 0.5, q[1] / 2 + 0.5], at).a;
/** The share of what is drawn that is opaque. */
function area(...steps: PlainStep[]): number {
  let sum = 0;
  for (let y = -0.99; y < 1; y += 0.02) for (let x = -0.99; x < 1; x += 0.02) sum += opacity(steps, [x, y]);
  return sum / 100 ** 2;
}
const drawn = (values: Record<string, unknown>) => plainStep('drawn', { softness: 0, ...values });
const disc = drawn({ shape: 'disc' });

describe('a drawn shape', () => {
  it('is as wide as it is told', () => {
    expect(area(disc)).toBeCloseTo(Math.PI / 4, 2);
    expect(area(drawn({ shape: 'ring', width: 20 }))).toBeCloseTo((Math.PI / 4) * (1 - 0.8 ** 2), 2);
    expect(area(drawn({ shape: 'streak', width: 10 }))).toBeLessThan(
      0.5 * area(drawn({ shape: 'streak', width: 30 })),
    );
  });
  it.each([5, 8])('has %d rays as a star', (points) => {
    const star = [drawn({ shape: 'star', points, width: 20 })];
    const isLit = (turn: number) => opacity(star, [0.66 * Math.sin(turn), 0.66 * Math.cos(turn)]) > 0.5;
    const turns = Array.from({ length: 720 }, (_, n) => (n * Math.PI) / 360);
    expect(turns.filter((turn, n) => isLit(turn) && !isLit(turns.at(n - 1)!))).toHaveLength(points);
  });
  it.each(['soft dot', 'band', 'flare', 'cells', 'clouds'])('is more than nothing as %s', (shape) =>
    expect(area(drawn({ shape, softness: 30 }))).toBeGreaterThan(0.03),
  );
  it('lets as much of the whole show as its amount says', () => {
    for (const amount of [0, 50, 100])
      expect(opacity([drawn({ shape: 'disc', amount })], [0.95, 0.95])).toBeCloseTo(1 - amount / 100);
  });
});

describe('a step of a look', () => {
  it('of levels sets what is none and what is all, and bends what lies between', () => {
    const soft = drawn({ shape: 'soft dot', softness: 30 });
    const at = (values: Record<string, unknown>) => opacity([soft, plainStep('levels', values)], [0.5, 0]);
    const plain = at({});
    expect(at({ black: plain * 100 })).toBeCloseTo(0);
    expect(at({ white: plain * 100 })).toBeCloseTo(1);
    expect(at({ black: 10, white: 90 })).toBeCloseTo((plain - 0.1) / 0.8);
    expect(at({ gamma: 2 })).toBeCloseTo(Math.sqrt(plain));
  });
  it('of a scroll repeats, turns and shifts what follows it', () => {
    const four = [plainStep('scroll', { repeatAcross: 2, repeatAlong: 2 }), disc];
    expect([opacity(four, [0, 0]), opacity(four, [0.5, 0.5]), opacity(four, [0.5, 0])]).toEqual([1, 0, 0]);
    const streak = drawn({ shape: 'streak', width: 40 });
    expect(opacity([streak], [0, 0.6])).toBeGreaterThan(0.5);
    expect(opacity([streak], [0.6, 0])).toBe(0);
    expect(opacity([plainStep('scroll', { turn: 90 }), streak], [0.6, 0])).toBeGreaterThan(0.5);
    expect(opacity([plainStep('scroll', { offsetAcross: 25 }), streak], [0.5, 0])).toBe(1);
    expect(opacity([plainStep('scroll', { across: 1 }), streak], [0.5, 0], { seconds: 0.25 })).toBe(1);
  });
  it('of a dissolve takes away as much as it says, and its border glows', () => {
    for (const by of ['clouds', 'cells']) {
      const left = (amount: number) =>
        area(plainStep('dissolve', { by, amount, softness: 1, grains: 8, varied: false }));
      const areas = [0, 35, 50, 65, 100].map(left);
      expect(areas[0]).toBe(1);
      expect(areas[4]).toBe(0);
      expect([...areas].sort((a, b) => b - a)).toEqual(areas);
      expect(new Set(areas).size).toBe(5);
    }
    const glow = (edge: number) =>
      lookAt([plainStep('dissolve', { amount: 50, edge, softness: 1 })], [0.4, 0.3]).emit;
    expect(glow(0)).toEqual([0, 0, 0]);
    expect(glow(100)[0]).toBeGreaterThan(0.5);
  });
  it('of a rim is bright where the surface turns from the eye', () => {
    const only = plainStep('rim', { does: 'shows the rim only', sharpness: 2 });
    expect([1, 0.5, 0].map((cosine) => lookAt([only], [0.5, 0.5], { cosine }).a)).toEqual([0, 0.25, 1]);
  });
});
