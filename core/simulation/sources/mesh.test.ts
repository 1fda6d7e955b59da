import { describe, expect, it } from 'vitest';
import { collectionOf, setNumber, type Effect, type Layer } from '../../document/index.ts';
import { onStage, TUBE } from '../../testing/effects.ts';
import { frameOf } from '../../testing/riders.ts';
import { closedBox } from '../../testing/rigs.ts';
import type { Rig } from '../../geometry/index.ts';
import { RECORD_COLOUR } from '../frames/frame.ts';
import { rigs, born, choose, type Point } from '../../testing/births.ts';

describe('a mesh on the stage', () => {
  const tube = rigs.get(TUBE)!;
  const on = (region: string, shape: (layer: Layer, effect: Effect) => void = () => undefined) =>
    born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      choose(layer, 'source.region', region);
      effect.stage.things = onStage('');
      shape(layer, effect);
    });

  it('bears at its vertices, all of them', () => {
    const { places } = on('vertices');
    const seen = new Set(places.map((p) => p.map((x) => x.toFixed(4)).join()));
    const vertices = new Set<string>();
    for (let i = 0; i < tube.mesh.positions.length; i += 3)
      vertices.add([...tube.mesh.positions.slice(i, i + 3)].map((x) => x.toFixed(4)).join());
    for (const place of seen) expect(vertices).toContain(place);
    expect(seen.size).toBeGreaterThan(vertices.size * 0.9);
  });

  it('bears along its edges', () => {
    const { places } = on('edge');
    for (const [x, y, z] of places as Point[]) {
      const ring = Math.abs(y * 12 - Math.round(y * 12));
      const spoke = ((Math.atan2(-z, x) / (2 * Math.PI)) * 12 + 12) % 1;
      // On a ring, on an upright, or on the diagonal between them.
      const isOnDiagonal = Math.abs(((spoke + 1) % 1) - ((y * 12) % 1)) < 0.06;
      expect(ring < 1e-3 || Math.min(spoke, 1 - spoke) < 1e-3 || isOnDiagonal).toBe(true);
    }
  });

  it('bears inside only where it has an inside', () => {
    const inside = (rig: Rig) =>
      born(
        (layer, effect) => {
          layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
          choose(layer, 'source.region', 'volume');
          effect.stage.things = onStage('');
        },
        new Map([[TUBE, rig]]),
      ).places;
    const box = closedBox();
    const sheet = { ...box, mesh: { ...box.mesh, indices: box.mesh.indices.slice(0, 6) } };
    expect(inside(sheet)).toHaveLength(0);
    const places = inside(box);
    expect(places.length).toBe(1000);
    const [low, high] = [places.map((p) => Math.min(...p)), places.map((p) => Math.max(...p))];
    expect(Math.min(...low)).toBeGreaterThan(-0.5001);
    expect(Math.max(...high)).toBeLessThan(0.5001);
    expect(places.filter((p) => Math.max(...p.map(Math.abs)) < 0.25).length / 1000).toBeCloseTo(0.125, 1);
  });

  it('is where it stands: moved, turned and scaled with it', () => {
    const { places } = on('surface', (_layer, effect) => {
      const thing = effect.stage.things.byId['figure']!;
      thing.at = [5, 0, 1];
      thing.scale = 2;
    });
    for (const [x, y, z] of places as Point[]) {
      expect(Math.hypot(x - 5, z - 1)).toBeLessThan(0.4001);
      expect(y).toBeGreaterThan(-1e-6);
    }
    expect(Math.max(...places.map((p) => p[1]!))).toBeGreaterThan(1.9);
  });

  it('lets particles begin with the colour of its texture there', () => {
    const texture = { width: 2, height: 1, rgba: Uint8Array.of(255, 0, 0, 255, 0, 0, 255, 255) };
    const painted = new Map([[TUBE, { ...tube, texture }]]);
    const { world, places } = born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      layer.settings['life.colour'].base = { kind: 'taken', from: 'source' };
      effect.stage.things = onStage('');
    }, painted);
    const frame = frameOf(world);
    let [reds, blues] = [0, 0];
    places.forEach(([x, , z], i) => {
      const u = (Math.atan2(-z!, x!) / (2 * Math.PI) + 1) % 1;
      const at = frame.recordAt(i) + RECORD_COLOUR;
      const [red, blue] = [frame.f32[at]!, frame.f32[at + 2]!];
      if (Math.abs(u - 0.25) < 0.1 && red > 0.75) reds++;
      if (Math.abs(u - 0.75) < 0.1 && blue > 0.75) blues++;
      if (Math.abs(u - 0.25) < 0.1) expect(red).toBeGreaterThan(blue);
    });
    expect(Math.min(reds, blues)).toBeGreaterThan(50);
  });

  it('stands for as many a square metre as it is told', () => {
    const { world } = born((layer, effect) => {
      layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
      layer.bursts = collectionOf([]);
      setNumber(layer, 'births.perArea', 100);
      effect.stage.things = onStage('');
    });
    // A tube of radius 0.2 m and a metre tall, of twelve sides.
    expect(world.living).toBe(Math.floor(100 * 12 * 0.4 * Math.sin(Math.PI / 12) + 0.5));
  });
});
