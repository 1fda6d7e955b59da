import * as THREE from 'three';
import { newFrame, NO_LAYER, NO_SIZES, RECORD_WORDS, type Frame, type FrameLayer } from '@jinx/core/simulation';
import type { Around } from '../layers/around.ts';
import { MeshStore } from '../layers/meshStore.ts';
import { newCommonUniforms } from '../looks/light.ts';
import { Pictures } from '../looks/pictures.ts';
import type { DrawnLayer } from '../protocol.ts';

/** Programs that wait until they are let go. */
export function stage() {
  const waiting: (() => void)[] = [];
  const shapes: THREE.BufferGeometry[] = [];
  const around: Around = {
    common: newCommonUniforms(),
    pictures: new Pictures(),
    meshes: new MeshStore(),
    behindIt: { value: null },
    pictureSize: { value: new THREE.Vector2(1, 1) },
    hasFog: false,
    hasView: false,
    hasMirrored: false,
    hasDepth: true,
    isGuest: false,
    figure: () => undefined,
    warm: (_mesh, shape, _material, ready) => {
      shapes.push(shape);
      waiting.push(ready);
    },
  };
  return { around, shapes, finish: () => waiting.splice(0).forEach((ready) => ready()) };
}

const still = { low: [0, 0, 0], high: [0, 0, 0], slots: [0, 0, 0] } as const;
/** A layer of soft dots, drawn otherwise as told. */
export const drawn = (otherwise: Partial<DrawnLayer> = {}): DrawnLayer => ({
  salt: 9,
  isVisible: true,
  facing: 'camera',
  frames: { tilt: still, axle: still } as unknown as DrawnLayer['frames'],
  isAligned: false,
  blend: 'additive',
  order: 'newest',
  depth: 'as placed',
  lit: 'unlit',
  wraps: false,
  inside: null,
  look: { plan: 1, ownWords: 0, places: {}, steps: [] },
  drawn: { kind: 'sprite' },
  ...otherwise,
});

export function frameOf(records: number): Frame {
  const frame = newFrame({ frameSizes: { ...NO_SIZES, records } });
  frame.layOut({ ...NO_SIZES, records });
  for (let i = 0; i < records * RECORD_WORDS; i++) frame.f32[frame.recordAt(0) + i] = i;
  return frame;
}
export const found = (layer: DrawnLayer, start: number, count: number): FrameLayer => ({
  ...NO_LAYER,
  salt: 9,
  start,
  count,
  plan: layer.look.plan,
  ownWords: layer.look.ownWords,
});
