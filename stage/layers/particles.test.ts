import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { disposeOwn, ParticleBuffers } from './particles.ts';

/** What is freed on the graphics card when a geometry is: all that it has by then. */
function freed(geometry: THREE.BufferGeometry): () => string[] {
  const names: string[] = [];
  geometry.addEventListener('dispose', () =>
    names.push(...Object.keys(geometry.attributes), ...(geometry.index ? ['index'] : [])),
  );
  return () => names;
}

describe('freeing particles that are drawn with a shape', () => {
  it('frees their own numbers, and leaves the shape to others that are drawn with it', () => {
    const quad = new THREE.PlaneGeometry(2, 2);
    const buffers = new ParticleBuffers();
    buffers.reserve(10, 0, quad);
    const names = freed(buffers.geometry);
    const shape = freed(quad);
    buffers.reserve(1000, 0, quad);
    expect(names().sort()).toEqual(['finish', 'rest', 'start', 'tint']);
    expect(Object.keys(buffers.geometry.attributes)).toContain('position');
    expect(shape()).toEqual([]);
  });

  it('leaves the skin of a figure as it is', () => {
    const skin = new THREE.PlaneGeometry();
    disposeOwn(skin);
    expect(skin.getAttribute('position').count).toBe(4);
    expect(skin.index).not.toBeNull();
  });
});
