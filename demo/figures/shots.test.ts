import { beforeAll, describe, expect, it } from 'vitest';
import { collectionOf, newSurface, type Effect } from '@jinx/core/document';
import { importGlb } from '@jinx/core/formats';
import { FigureTrack, skinMatricesInto, skinnedVertex, type Rig } from '@jinx/core/geometry';
import { dot, subtract, type Vec3 } from '@jinx/core/maths';
import { onStage, TUBE } from '../../core/testing/effects.ts';
import { fire, SHOTS, shotsAt } from '../../core/testing/shots.ts';
import { makeFigure, SEDGE } from './index.ts';

let rig: Rig;
beforeAll(async () => {
  rig = await importGlb(await makeFigure(SEDGE), 'Sedge');
});

type Triangle = readonly [Vec3, Vec3, Vec3];
const CELL = 0.03;

/** The skin in one pose, sorted into upright columns: an inside test that shares nothing with what it checks. */
function columnsOf(triangles: readonly Triangle[]): Map<string, Triangle[]> {
  const columns = new Map<string, Triangle[]>();
  for (const triangle of triangles) {
    const [x0, x1, z0, z1] = [0, 2].flatMap((axis) => {
      const along = triangle.map((corner) => Math.floor(corner[axis]! / CELL));
      return [Math.min(...along), Math.max(...along)];
    }) as [number, number, number, number];
    for (let x = x0; x <= x1; x++)
      for (let z = z0; z <= z1; z++) {
        const name = `${x},${z}`;
        columns.set(name, [...(columns.get(name) ?? []), triangle]);
      }
  }
  return columns;
}

/** How many shells are left, less those entered, on the way straight up from a point. */
function shellsAround(columns: Map<string, Triangle[]>, [x, y, z]: Vec3): number {
  let shells = 0;
  for (const [a, b, c] of columns.get(`${Math.floor(x / CELL)},${Math.floor(z / CELL)}`) ?? []) {
    const area = (b[0] - a[0]) * (c[2] - a[2]) - (c[0] - a[0]) * (b[2] - a[2]);
    if (area === 0) continue;
    const u = ((x - a[0]) * (c[2] - a[2]) - (c[0] - a[0]) * (z - a[2])) / area;
    const v = ((b[0] - a[0]) * (z - a[2]) - (x - a[0]) * (b[2] - a[2])) / area;
    if (u < 0 || v < 0 || u + v > 1) continue;
    if (a[1] + u * (b[1] - a[1]) + v * (c[1] - a[1]) > y) shells += area < 0 ? 1 : -1;
  }
  return shells;
}

/** Distance to a triangle, by trying its face, its edges and its corners in turn. */
function distanceTo([a, b, c]: Triangle, p: Vec3): number {
  const toSegment = (from: Vec3, to: Vec3) => {
    const [edge, way] = [subtract(to, from), subtract(p, from)];
    const t = Math.min(1, Math.max(0, dot(edge, way) / (dot(edge, edge) || 1)));
    const left = subtract(way, [edge[0] * t, edge[1] * t, edge[2] * t]);
    return Math.sqrt(dot(left, left));
  };
  const [e, g, w] = [subtract(b, a), subtract(c, a), subtract(p, a)];
  const n: Vec3 = [e[1] * g[2] - e[2] * g[1], e[2] * g[0] - e[0] * g[2], e[0] * g[1] - e[1] * g[0]];
  const [ee, eg, gg, we, wg] = [dot(e, e), dot(e, g), dot(g, g), dot(w, e), dot(w, g)];
  const whole = ee * gg - eg * eg;
  const [u, v] = [(gg * we - eg * wg) / whole, (ee * wg - eg * we) / whole];
  const edges = Math.min(toSegment(a, b), toSegment(b, c), toSegment(c, a));
  return u >= 0 && v >= 0 && u + v <= 1 ? Math.min(edges, Math.abs(dot(w, n)) / Math.sqrt(dot(n, n))) : edges;
}

/** Fires at the sweeping figure for so many steps; counts who is inside the skin at their ends, and how deep. */
function shotAt(act: (effect: Effect) => void, steps: number) {
  const effect = shotsAt([0, 1, 0.2], 1.6, [4, 60], (_, effect) => {
    effect.stage.things = onStage('sweep');
    effect.stage.things.byId['figure']!.from = 0.5;
    act(effect);
  });
  const track = new FigureTrack(rig, effect.stage.things.byId['figure']!);
  const world = new Float64Array(rig.bones.length * 16);
  const matrices = new Float32Array(rig.bones.length * 16);
  let [step, inside, deepest, fewest] = [0, 0, 0, SHOTS];
  const impacts = fire(effect, new Map([[TUBE, rig]]), steps, (sample, count) => {
    fewest = Math.min(fewest, count);
    track.worldInto(++step / 60, world);
    skinMatricesInto(rig, world, matrices);
    const { indices } = rig.mesh;
    const triangles = Array.from({ length: indices.length / 3 }, (_, t): Triangle => {
      const corner = (k: number) => skinnedVertex(rig, matrices, indices[t * 3 + k]!);
      return [corner(0), corner(1), corner(2)];
    });
    const columns = columnsOf(triangles);
    for (let i = 0; i < count; i++) {
      const [at] = sample(i);
      if (shellsAround(columns, at) <= 0) continue;
      if (inside++ % 100 === 0)
        deepest = Math.max(deepest, Math.min(...triangles.map((triangle) => distanceTo(triangle, at))));
    }
  });
  return { inside, deepest, fewest, impacts: impacts.flat().length };
}

describe('100,000 shots at Sedge as she sweeps her blade', () => {
  it('go through her where she is no surface', () => {
    const { inside, deepest } = shotAt(() => undefined, 4);
    expect(inside).toBeGreaterThan(1000);
    expect(deepest).toBeGreaterThan(0.03);
  });

  it('bounce off her skin: none of them is more than 5 mm inside of it at the end of any step', () => {
    const { inside, deepest, fewest, impacts } = shotAt((effect) => {
      const skin = newSurface('thing', { thing: 'figure' });
      skin.settings.friction.base = { kind: 'fixed', value: 0 };
      effect.surfaces = collectionOf([['skin', skin]]);
    }, 24);
    expect(fewest).toBe(SHOTS);
    expect(impacts).toBeGreaterThan(20_000);
    expect(inside).toBeLessThan(100);
    expect(deepest).toBeLessThan(0.005);
  });
});
