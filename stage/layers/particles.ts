import * as THREE from 'three';
import { RECORD_WORDS, type Frame, type FrameLayer } from '@jinx/core/simulation';
import type { DrawnLayer } from '../protocol.ts';
import type { Order } from './order.ts';

/**
 * Frees what a geometry has of its own. A shape that it shares with others stays: freeing that takes its buffers from whatever
 * of those was drawn last.
 */
export function disposeOwn(geometry: THREE.BufferGeometry): void {
  // The skin of a figure is the figure's.
  if (!(geometry instanceof THREE.InstancedBufferGeometry)) return;
  for (const [name, attribute] of Object.entries(geometry.attributes)) {
    const of = attribute instanceof THREE.InterleavedBufferAttribute ? attribute.data : attribute;
    if (!(of instanceof THREE.InstancedInterleavedBuffer || of instanceof THREE.InstancedBufferAttribute))
      geometry.deleteAttribute(name);
  }
  geometry.setIndex(null);
  geometry.dispose();
}

/** Records of particles on the graphics card, with the numbers that each has of its own: instanced attributes. */
export class ParticleBuffers {
  #capacity = 0;
  #ownWords = -1;
  #shape: THREE.BufferGeometry | null = null;
  #records: THREE.InstancedInterleavedBuffer | null = null;
  #own: THREE.InstancedInterleavedBuffer | null = null;
  geometry = new THREE.InstancedBufferGeometry();

  /** Makes room for `count` particles that are drawn with a shape; returns whether the geometry is another now. */
  reserve(count: number, ownWords: number, shape: THREE.BufferGeometry, start = 0, indices = Infinity): boolean {
    if (count <= this.#capacity && ownWords === this.#ownWords && shape === this.#shape) return false;
    if (count > this.#capacity) this.#capacity = Math.max(256, 2 ** Math.ceil(Math.log2(count)));
    this.#ownWords = ownWords;
    this.#shape = shape;
    disposeOwn(this.geometry);
    const geometry = new THREE.InstancedBufferGeometry();
    for (const [name, attribute] of Object.entries(shape.attributes)) geometry.setAttribute(name, attribute);
    geometry.setIndex(shape.getIndex());
    geometry.setDrawRange(start, indices);
    const buffer = (words: number) =>
      new THREE.InstancedInterleavedBuffer(new Float32Array(this.#capacity * words), words).setUsage(
        THREE.DynamicDrawUsage,
      );
    this.#records = buffer(RECORD_WORDS);
    ['start', 'finish', 'tint', 'rest'].forEach((name, index) =>
      geometry.setAttribute(name, new THREE.InterleavedBufferAttribute(this.#records!, 4, index * 4)),
    );
    this.#own = ownWords > 0 ? buffer(ownWords) : null;
    for (let n = 0; n * 4 < ownWords; n++)
      geometry.setAttribute(`own${n}`, new THREE.InterleavedBufferAttribute(this.#own!, 4, n * 4));
    this.geometry = geometry;
    return true;
  }

  /** Writes a layer's particles in an order. */
  fill(frame: Frame, { start, count, ownWords, own }: FrameLayer, order: Order): void {
    const { f32 } = frame;
    order.copy(f32, frame.recordAt(start), RECORD_WORDS, count, this.records);
    if (this.#own) order.copy(f32, own, ownWords, count, this.#own.array as Float32Array);
    this.show(count);
  }

  /** Writes one particle of a frame at a place. */
  put(frame: Frame, { start, own, ownWords }: FrameLayer, particle: number, at: number): void {
    const { f32 } = frame;
    const from = frame.recordAt(start + particle);
    const { records } = this;
    for (let w = 0; w < RECORD_WORDS; w++) records[at * RECORD_WORDS + w] = f32[from + w]!;
    if (!this.#own) return;
    const numbers = this.#own.array as Float32Array;
    const ownFrom = own + particle * ownWords;
    for (let w = 0; w < ownWords; w++) numbers[at * ownWords + w] = f32[ownFrom + w]!;
  }

  /** Lets the first `count` be drawn. */
  show(count: number): void {
    this.geometry.instanceCount = count;
    if (count === 0) return;
    update(this.#records!, count * RECORD_WORDS);
    if (this.#own) update(this.#own, count * this.#ownWords);
  }

  get records(): Float32Array {
    return this.#records!.array as Float32Array;
  }
  get count(): number {
    return this.#records ? this.geometry.instanceCount : 0;
  }
}

function update(buffer: THREE.InterleavedBuffer, length: number): void {
  buffer.clearUpdateRanges();
  buffer.addUpdateRange(0, length);
  buffer.needsUpdate = true;
}

/** Uniforms of layers whose particles may stand in frames of their own. */
export function frameUniforms({ frames: { tilt, axle } }: DrawnLayer): Record<string, THREE.IUniform> {
  return {
    tilt_low: { value: tilt.low },
    tilt_high: { value: tilt.high },
    tilt_slots: { value: tilt.slots },
    axle_low: { value: axle.low },
    axle_high: { value: axle.high },
    axle_slots: { value: axle.slots },
  };
}
