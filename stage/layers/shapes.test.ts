import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import type { DrawnAs } from '../protocol.ts';
import { drawn, found, frameOf, stage } from '../testing/layers.ts';
import { Haze } from './haze.ts';
import type { Around } from './around.ts';
import type { LayerDrawing } from './layerDrawing.ts';
import { Meshes } from './meshes.ts';
import { Ribbons } from './ribbons.ts';
import { Sprites } from './sprites.ts';

/** A triangle of one part. */
const TRIANGLE = {
  positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
  normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
  uvs: new Float32Array(6),
  joints: new Uint16Array(12),
  weights: new Float32Array(12),
  indices: Uint32Array.of(0, 1, 2),
};
const AS_MESHES = {
  kind: 'mesh',
  meshes: [{ asset: 'triangle', chance: 1 }],
  parts: {},
  hasOwnColours: false,
  hasShadow: true,
  slot: 0,
} as const;
const CASES: readonly [what: string, Kind: new (around: Around) => LayerDrawing, as: DrawnAs, wraps: boolean][] = [
  ['sprites', Sprites, { kind: 'sprite' }, false],
  ['marks that wrap what is under them', Sprites, { kind: 'sprite' }, true],
  ['bent air', Haze, { kind: 'haze', bends: 'outward', picture: null }, false],
  ['ribbons', Ribbons, { kind: 'ribbon', form: 'flat', isTiled: false }, false],
  ['meshes and their shadows', Meshes, AS_MESHES, false],
];

describe('a program is prepared for the attributes that are drawn with', () => {
  it.each(CASES)('of %s', (_, Kind, as, wraps) => {
    const { around, shapes, finish } = stage();
    around.meshes.set([{ hash: 'triangle', mesh: TRIANGLE as never, texture: null }]);
    const drawing = new Kind(around);
    const layer = drawn({ drawn: as, wraps });
    drawing.dress(layer, 1);
    finish();
    drawing.load(frameOf(4), found(layer, 0, 4));
    const parts = drawing.group.children as THREE.Mesh[];
    expect(parts.length).toBeGreaterThan(0);
    // These are what three.js makes another program for.
    const known = (geometry: THREE.BufferGeometry) =>
      ['position', 'normal', 'tangent', 'color'].filter((name) => geometry.hasAttribute(name));
    expect(shapes.map(known)).toEqual(parts.map(({ geometry }) => known(geometry)));
    expect(known(parts[0]!.geometry)).toContain('position');
  });
});
