import * as THREE from 'three';
import { RECORD_TO, RECORD_WORDS, type Frame, type FrameLayer } from '@jinx/core/simulation';
import type { DrawnLayer } from '../protocol.ts';
import { fragmentShader } from './fragment.ts';
import { LayerDrawing } from './layerDrawing.ts';
import type { Shaders } from './materials.ts';
import { Order } from './order.ts';
import { frameUniforms, ParticleBuffers } from './particles.ts';
import { MARK_VARYINGS, spriteVertexShader, WRAPPING } from './spriteShader.ts';

const QUAD = new THREE.PlaneGeometry(2, 2);
const BOX = new THREE.BoxGeometry(2, 2, 2);

/** One layer's sprites: instanced quads read straight from frame records, or boxes where they wrap what is under them. */
export class Sprites extends LayerDrawing {
  readonly #buffers = new ParticleBuffers();
  readonly #order = new Order();
  #frame: Frame | null = null;
  #found: FrameLayer | undefined;

  protected shaders(layer: DrawnLayer, _part: number, isMask: boolean): Shaders {
    const marks = layer.wraps ? MARK_VARYINGS : '';
    const drawn = fragmentShader(layer, { isFlat: true, surface: layer.wraps ? WRAPPING : '', isMask });
    return {
      vertexShader: spriteVertexShader(layer),
      fragmentShader: marks + drawn,
      look: layer.look,
      uniforms: frameUniforms(layer),
    };
  }

  protected shape(layer: DrawnLayer): THREE.BufferGeometry {
    return layer.wraps ? BOX : QUAD;
  }

  protected take(frame: Frame, found: FrameLayer | undefined): void {
    const layer = this.layer!;
    const count = found?.count ?? 0;
    if (this.#buffers.reserve(count, layer.look.ownWords, this.shape(layer)))
      this.part(0).geometry = this.#buffers.geometry;
    this.#frame = frame;
    // What a frame tells is written over by the next.
    this.#found = found && layer.order === 'nearest' ? { ...found } : undefined;
    if (count === 0) return this.#buffers.show(0);
    if (layer.order === 'nearest') return;
    this.#order.plain(count, layer.order === 'oldest');
    this.#buffers.fill(frame, found!, this.#order);
  }

  /** Puts those nearest to the eye in front, if that is wanted; `way` is the direction of sight. */
  override sort(eye: THREE.Vector3, way: THREE.Vector3): void {
    const found = this.#found;
    if (!this.#frame || !found || found.count === 0) return;
    const at = this.#frame.recordAt(found.start) + RECORD_TO;
    this.#order.byDepth(this.#frame.f32, at, RECORD_WORDS, found.count, eye, way);
    this.#buffers.fill(this.#frame, found, this.#order);
  }
}
