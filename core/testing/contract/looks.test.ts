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
  it.each([3, 6])('has %d corners as a polygon, filled where its lines are as wide as it', (points) => {
    const filled = (points / 2) * Math.sin((2 * Math.PI) / points);
    expect(area(drawn({ shape: 'polygon', points, width: 100 }))).toBeCloseTo(filled / 4, 1);
    expect(area(drawn({ shape: 'polygon', points, width: 10 }))).toBeCloseTo((filled / 4) * (1 - 0.9 ** 2), 1);
  });
  it('has as many marks, strokes and arms as it says', () => {
    const around = (shape: string, r: number, points: number) => {
      const steps = [drawn({ shape, points, width: 30, turns: 2 })];
      const isLit = (n: number) => opacity(steps, [r * Math.sin(n / 200), r * Math.cos(n / 200)]) > 0.5;
      return Array.from({ length: 1257 }, (_, n) => n).filter((n) => isLit(n) && !isLit(n - 1)).length;
    };
    expect([around('ring of marks', 0.85, 9), around('spiral', 0.6, 4)]).toEqual([9, 4]);
    const across = (points: number) => {
      const steps = [drawn({ shape: 'strokes', points, width: 30 })];
      const isLit = (n: number) => opacity(steps, [n / 500 - 1, 0], { pixel: 0.001 }) > 0.5;
      return Array.from({ length: 1000 }, (_, n) => n).filter((n) => isLit(n) && !isLit(n - 1)).length;
    };
    expect([across(2), across(6)]).toEqual([2, 6]);
  });
  it('runs as a bolt from the upper edge to the lower without a gap, another way each time it is struck', () => {
    const bolt = [drawn({ shape: 'bolt', points: 0, width: 8, struck: 4 })];
    const ways = [0.1, 0.2, 0.3].map((age) =>
      [-0.9, -0.5, 0, 0.5, 0.9].map((y) => {
        const lit = Array.from({ length: 400 }, (_, n) => n / 200 - 1).filter(
          (x) => opacity(bolt, [x, y], { age, pixel: 0.005 }) > 0.5,
        );
        expect(lit.length).toBeGreaterThan(0);
        return Math.round(lit.reduce((sum, x) => sum + x, 0) * 100) / lit.length;
      }),
    );
    expect(ways[1]).toEqual(ways[0]);
    expect(ways[2]).not.toEqual(ways[0]);
  });
  it.each(['soft dot', 'band', 'flare', 'cells', 'clouds', 'crack', 'gradient bar', 'star polygon'])(
    'is more than nothing as %s',
    (shape) => expect(area(drawn({ shape, softness: 30 }))).toBeGreaterThan(0.03),
  );
  it('lets as much of the whole show as its amount says', () => {
    for (const amount of [0, 50, 100])
      expect(opacity([drawn({ shape: 'disc', amount })], [0.95, 0.95])).toBeCloseTo(1 - amount / 100);
  });
});

describe('two drawn shapes', () => {
  const ring = { shape: 'ring', width: 20, colour: '#ff0000' };
  const seen = (combines: string, q: readonly [number, number]) =>
    lookAt([drawn({ shape: 'disc', amount: 50 }), drawn({ ...ring, combines })], [q[0] / 2 + 0.5, q[1] / 2 + 0.5]);
  it('multiply, add, cover or are as the greater of both', () => {
    const [onRing, within] = [
      [0.9, 0],
      [0.4, 0],
    ] as const;
    expect([seen('multiply', onRing).a, seen('multiply', within).a]).toEqual([1, 0]);
    for (const combines of ['add', 'over', 'greater'])
      expect([seen(combines, onRing).a, seen(combines, within)]).toEqual([
        1,
        expect.objectContaining({ a: 1, rgb: [1, 1, 1] }),
      ]);
    // What was added shines as brightly as both together.
    const light = ({ rgb, a }: { rgb: readonly number[]; a: number }) => rgb.map((c) => c * a);
    expect(light(seen('add', onRing))).toEqual([2, 1, 1]);
    expect(light(seen('over', onRing))).toEqual([1, 0, 0]);
    expect(light(seen('greater', onRing))).toEqual([1, 1, 1]);
  });
  it('are as the first where nothing was drawn before', () => {
    for (const combines of ['add', 'over', 'greater'])
      expect(lookAt([drawn({ ...ring, combines })], [0.5, 0.5]).a).toBe(0);
  });
});

describe('a step of a look', () => {
  it('of contrast hardens what lies about its middle', () => {
    const soft = drawn({ shape: 'soft dot', softness: 30 });
    const plain = opacity([soft], [0.5, 0]);
    const at = (values: Record<string, unknown>) => opacity([soft, plainStep('contrast', values)], [0.5, 0]);
    expect(at({ middle: plain * 100, factor: 9 })).toBeCloseTo(plain);
    expect(at({ middle: 0, factor: 2 })).toBeCloseTo(Math.min(1, plain * 2));
    expect(at({ middle: 100, factor: 9 })).toBe(Math.max(0, 1 - 9 * (1 - plain)));
  });
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
