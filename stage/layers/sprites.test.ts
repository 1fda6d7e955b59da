import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { RECORD_WORDS } from '@jinx/core/simulation';
import type { DrawnLayer } from '../protocol.ts';
import { drawn, found, frameOf, stage } from '../testing/layers.ts';
import { Sprites } from './sprites.ts';

const bufferOf = (sprites: Sprites) =>
  (
    (sprites.group.children[0] as THREE.Mesh).geometry.getAttribute('start') as unknown as {
      data: { array: Float32Array };
    }
  ).data.array;
const countOf = (sprites: Sprites) =>
  ((sprites.group.children[0] as THREE.Mesh).geometry as THREE.InstancedBufferGeometry).instanceCount;

function ready(layer: DrawnLayer): Sprites {
  const { around, finish } = stage();
  const sprites = new Sprites(around);
  sprites.dress(layer, 3);
  finish();
  return sprites;
}

describe('sprites', () => {
  it('take just the records they are given, wherever these stand in a frame', () => {
    const layer = drawn();
    const sprites = ready(layer);
    sprites.load(frameOf(10), found(layer, 3, 4));
    expect(countOf(sprites)).toBe(4);
    expect(bufferOf(sprites)[0]).toBe(3 * RECORD_WORDS);
    expect(bufferOf(sprites)[4 * RECORD_WORDS - 1]).toBe(7 * RECORD_WORDS - 1);
  });

  it('keep their room while it is enough, so that playing allocates nothing', () => {
    const layer = drawn();
    const sprites = ready(layer);
    sprites.load(frameOf(200), found(layer, 0, 200));
    const room = bufferOf(sprites);
    for (const count of [10, 256, 0, 180]) {
      sprites.load(frameOf(256), found(layer, 0, count));
      expect(bufferOf(sprites)).toBe(room);
      expect(countOf(sprites)).toBe(count);
    }
    sprites.load(frameOf(300), found(layer, 0, 300));
    expect(bufferOf(sprites).length).toBeGreaterThanOrEqual(300 * RECORD_WORDS);
  });

  it('draw the oldest in front when told to, each with all that belongs to it', () => {
    const layer = drawn({ order: 'oldest' });
    const sprites = ready(layer);
    sprites.load(frameOf(5), found(layer, 1, 3));
    const words = bufferOf(sprites);
    expect([0, 1, 2].map((n) => words[n * RECORD_WORDS])).toEqual([3, 2, 1].map((n) => n * RECORD_WORDS));
    expect(words[RECORD_WORDS - 1]).toBe(4 * RECORD_WORDS - 1);
  });

  it('draw them as they lie in the frame when told no order', () => {
    const sprites = ready(drawn({ order: 'none' }));
    sprites.load(frameOf(5), found(drawn({}), 1, 3));
    expect([0, 1, 2].map((n) => bufferOf(sprites)[n * RECORD_WORDS])).toEqual([1, 2, 3].map((n) => n * RECORD_WORDS));
  });

  it('draw the nearest in front from wherever the eye is', () => {
    const layer = drawn({ order: 'nearest' });
    const sprites = ready(layer);
    const frame = frameOf(4);
    [2, 0, 3, 1].forEach((z, n) => (frame.f32[frame.recordAt(n) + 6] = z));
    sprites.load(frame, found(layer, 0, 4));
    const drawnDepths = (eye: number) => {
      sprites.sort(new THREE.Vector3(0, 0, eye), new THREE.Vector3(0, 0, -Math.sign(eye)));
      return [0, 1, 2, 3].map((n) => bufferOf(sprites)[n * RECORD_WORDS + 6]);
    };
    expect(drawnDepths(10)).toEqual([0, 1, 2, 3]);
    expect(drawnDepths(-10)).toEqual([3, 2, 1, 0]);
  });

  it('keep what is seen until the next look is ready and a frame is written for it', () => {
    const { around, finish } = stage();
    const sprites = new Sprites(around);
    const before = drawn();
    sprites.dress(before, 1);
    sprites.load(frameOf(4), found(before, 0, 4));
    expect(sprites.layer).toBeNull();
    finish();
    sprites.load(frameOf(4), found(before, 0, 4));
    expect(sprites.layer).toBe(before);
    const after = drawn({ look: { plan: 2, ownWords: 4, places: {}, steps: [] } });
    sprites.dress(after, 1);
    sprites.load(frameOf(4), found(after, 0, 2));
    // Not compiled yet: what was seen stays, and is not mixed with numbers of another look.
    expect(sprites.layer).toBe(before);
    expect(countOf(sprites)).toBe(4);
    finish();
    sprites.load(frameOf(4), found(before, 0, 3));
    // Compiled, but this frame is still written for the old look.
    expect(sprites.layer).toBe(before);
    expect(countOf(sprites)).toBe(3);
    sprites.load(frameOf(4), found(after, 0, 2));
    expect(sprites.layer).toBe(after);
    expect(countOf(sprites)).toBe(2);
  });

  it('stand among what is solid only when they are', () => {
    const blends = (['additive', 'normal', 'mixed', 'multiply', 'solid', 'holes'] as const).map((blend) => {
      const layer = drawn({ blend });
      const sprites = ready(layer);
      sprites.load(frameOf(1), found(layer, 0, 1));
      return [blend, sprites.isSolid];
    });
    expect(blends.filter(([, isSolid]) => isSolid).map(([blend]) => blend)).toEqual(['solid', 'holes']);
  });
});
