import { describe, expect, it } from 'vitest';
import { newLayer } from '@jinx/core/document';
import { ownFrames, RECORD_WORDS } from '@jinx/core/simulation';
import { Sprites } from './sprites.ts';

const words = (records: number) => Float32Array.from({ length: records * RECORD_WORDS }, (_, i) => i);
const bufferOf = (sprites: Sprites) =>
  (sprites.mesh.geometry.getAttribute('start') as unknown as { data: { array: Float32Array } }).data.array;

describe('sprites', () => {
  it('take just the records they are given, wherever these stand in a frame', () => {
    const sprites = new Sprites();
    sprites.load(words(10), 3 * RECORD_WORDS, 4);
    expect(sprites.mesh.geometry.instanceCount).toBe(4);
    expect(bufferOf(sprites)[0]).toBe(3 * RECORD_WORDS);
    expect(bufferOf(sprites)[4 * RECORD_WORDS - 1]).toBe(7 * RECORD_WORDS - 1);
  });

  it('keep their room while it is enough, so that playing allocates nothing', () => {
    const sprites = new Sprites();
    sprites.load(words(200), 0, 200);
    const room = bufferOf(sprites);
    for (const count of [10, 256, 0, 180]) {
      sprites.load(words(256), 0, count);
      expect(bufferOf(sprites)).toBe(room);
      expect(sprites.mesh.geometry.instanceCount).toBe(count);
    }
    sprites.load(words(300), 0, 300);
    expect(bufferOf(sprites).length).toBeGreaterThanOrEqual(300 * RECORD_WORDS);
  });

  it('cover what is behind them only when they blend normally', () => {
    const sprites = new Sprites();
    const dress = (blend: 'additive' | 'normal') =>
      sprites.dress(
        {
          salt: 1,
          isVisible: true,
          facing: 'camera',
          frames: ownFrames(newLayer('Test', 1)),
          isAligned: false,
          blend,
          shape: 'ring',
          isRibbon: false,
        },
        3,
      );
    dress('normal');
    expect(sprites.mesh.material.uniforms['covers']!.value).toBe(1);
    dress('additive');
    expect(sprites.mesh.material.uniforms['covers']!.value).toBe(0);
    expect(sprites.mesh.renderOrder).toBe(3);
  });
});
