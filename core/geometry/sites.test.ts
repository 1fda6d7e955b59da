import { describe, expect, it } from 'vitest';
import { draw } from '../maths/index.ts';
import { bendingTube, closedBox } from '../testing/rigs.ts';
import { evenPlaces, spacingOf } from '../testing/spacing.ts';
import { BoundingTree, isInside, meshSites, restTree, type Rig, type TreeSearch } from './index.ts';

/** Two boxes in one mesh: one inside the other, or overlapping, as they are given. */
function both(a: Rig, b: Rig): Rig {
  const shift = a.mesh.positions.length / 3;
  return {
    ...a,
    mesh: {
      ...a.mesh,
      positions: Float32Array.from([...a.mesh.positions, ...b.mesh.positions]),
      indices: Uint32Array.from([...a.mesh.indices, ...b.mesh.indices.map((i) => i + shift)]),
    },
  };
}
const inside = (rig: Rig, ...p: [number, number, number]) => isInside(restTree(rig.mesh), ...p);

describe('the even order of a mesh', () => {
  it.each<[string, Rig]>([
    ['a box', closedBox()],
    ['a tube', bendingTube(30, 30)],
  ])('of %s spreads every beginning evenly', (_name, rig) => {
    const { least, mean } = spacingOf(evenPlaces(rig, 1000), meshSites(rig, [], 'surface').area);
    expect(least).toBeGreaterThan(0.57);
    expect(mean).toBeGreaterThan(0.75);
  });

  it('falls on every part by its area (chi-square, one in a thousand)', () => {
    const counts = new Float64Array(6);
    const places = evenPlaces(closedBox(), 1200);
    for (const p of places) {
      const axis = p.findIndex((x) => Math.abs(Math.abs(x) - 0.5) < 1e-6);
      counts[axis * 2 + (p[axis]! > 0 ? 1 : 0)]!++;
    }
    const chi = counts.reduce((sum, count) => sum + (count - 200) ** 2 / 200, 0);
    expect(chi).toBeLessThan(20.5);
  });

  it('goes on beyond what is kept, no two alike', () => {
    const places = evenPlaces(closedBox(), 12_000);
    expect(new Set(places.map((p) => p.join())).size).toBeGreaterThan(11_990);
    for (const p of places) expect(Math.max(...p.map(Math.abs))).toBeCloseTo(0.5, 6);
  });

  it('is the same wherever it is asked for', () => {
    expect(evenPlaces(closedBox(), 50)).toEqual(evenPlaces(closedBox(), 500).slice(0, 50));
  });
});

describe('the inside of a mesh', () => {
  const box = closedBox();
  it('is within its shell', () => {
    expect(inside(box, 0, 0, 0)).toBe(true);
    expect(inside(box, 0.49, -0.49, 0.3)).toBe(true);
    expect(inside(box, 0.51, 0, 0)).toBe(false);
    expect(inside(box, 3, 2, 1)).toBe(false);
  });

  it('is within any of several shells, and where they overlap', () => {
    const pair = both(box, closedBox(1, [0.6, 0, 0]));
    for (const x of [-0.3, 0.3, 0.9]) expect(inside(pair, x, 0.1, 0)).toBe(true);
    expect(inside(pair, 1.2, 0, 0)).toBe(false);
  });

  it('leaves out a hollow whose shell is turned inward', () => {
    const hollow = closedBox(0.5);
    const inward = { ...hollow, mesh: { ...hollow.mesh, indices: hollow.mesh.indices.slice().reverse() } };
    const shell = both(box, inward);
    expect(inside(shell, 0, 0, 0)).toBe(false);
    expect(inside(shell, 0.4, 0, 0)).toBe(true);
  });

  it('bears a small hole', () => {
    const holed = { ...box, mesh: { ...box.mesh, indices: box.mesh.indices.slice(3) } };
    let right = 0;
    for (let n = 0; n < 200; n++)
      right += inside(holed, draw(n, 1) * 0.9 - 0.45, draw(n, 2) * 0.9 - 0.45, draw(n, 3) * 0.9 - 0.45) ? 1 : 0;
    expect(right).toBeGreaterThan(190);
  });
});

/** Looks for every triangle whose box meets another box. */
class InBox implements TreeSearch {
  readonly limit = Infinity;
  constructor(
    readonly low: readonly number[],
    readonly high: readonly number[],
    readonly seen: Set<number>,
  ) {}
  distanceTo(boxes: Float64Array, at: number): number {
    const isApart = [0, 1, 2].some(
      (axis) => boxes[at + axis]! > this.high[axis]! || boxes[at + 3 + axis]! < this.low[axis]!,
    );
    return isApart ? Infinity : 0;
  }
  visit(triangle: number): void {
    this.seen.add(triangle);
  }
}

describe('the tree of boxes', () => {
  const tube = bendingTube(20, 20);
  const tree = new BoundingTree(tube.mesh.positions, tube.mesh.indices);

  it('finds the nearest point of a mesh, as looking at every triangle does', () => {
    const found = new Float64Array(3);
    const one = new Float64Array(3);
    for (let n = 0; n < 200; n++) {
      const [x, y, z] = [draw(n, 1) - 0.5, draw(n, 2) * 1.4 - 0.2, draw(n, 3) - 0.5];
      const squared = tree.nearestInto(found, x, y, z);
      let best = Infinity;
      for (let t = 0; t < tube.mesh.indices.length / 3; t++) {
        const alone = new BoundingTree(tube.mesh.positions, tube.mesh.indices.slice(t * 3, t * 3 + 3));
        best = Math.min(best, alone.nearestInto(one, x, y, z));
      }
      expect(squared).toBe(best);
    }
  });

  it('finds every triangle in a box, and after its vertices moved too', () => {
    const moved = tube.mesh.positions.map((x, i) => (i % 3 === 0 ? x + 2 : x));
    for (const [positions, dx] of [
      [tube.mesh.positions, 0],
      [moved, 2],
    ] as const) {
      tree.refit(positions);
      const seen = new Set<number>();
      tree.search(new InBox([dx - 0.05, 0.2, -0.5], [dx + 0.3, 0.4, 0.5], seen));
      for (let t = 0; t < tube.mesh.indices.length / 3; t++) {
        const corners = [0, 1, 2].map((k) => tube.mesh.indices[t * 3 + k]! * 3);
        const meets = [
          [dx - 0.05, dx + 0.3],
          [0.2, 0.4],
          [-0.5, 0.5],
        ].every(([low, high], axis) => {
          const xs = corners.map((c) => positions[c + axis]!);
          return Math.max(...xs) >= low! && Math.min(...xs) <= high!;
        });
        if (meets) expect(seen.has(t)).toBe(true);
      }
      expect(seen.size).toBeLessThan(tube.mesh.indices.length / 6);
    }
  });
});
