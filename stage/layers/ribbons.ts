import * as THREE from 'three';
import { JOINT_WORDS, type Frame, type FrameLayer } from '@jinx/core/simulation';
import type { DrawnLayer, DrawnRibbon } from '../protocol.ts';
import { fragmentShader } from './fragment.ts';
import { LayerDrawing } from './layerDrawing.ts';
import type { Shaders } from './materials.ts';
import { JOINT_TEXELS, JOINTS_A_ROW, ribbonOf, ribbonVertexShader, TUBE_SIDES } from './ribbonShader.ts';

/** One layer's ribbons: a piece from each joint of a frame to the next, read from a texture of joints. */
export class Ribbons extends LayerDrawing {
  #capacity = 0;
  #form: DrawnRibbon['form'] | null = null;
  readonly #joints: THREE.IUniform<THREE.DataTexture | null> = { value: null };

  protected shaders(layer: DrawnLayer, _part: number, isMask: boolean): Shaders {
    return {
      vertexShader: ribbonVertexShader(layer),
      fragmentShader: fragmentShader(layer, { isFlat: false, isMask }),
      look: layer.look,
      uniforms: { joints: this.#joints },
    };
  }

  protected shape(): THREE.BufferGeometry {
    return PIECE;
  }

  #reserve(joints: number, form: DrawnRibbon['form']): void {
    if (joints <= this.#capacity && form === this.#form) return;
    this.#form = form;
    if (joints > this.#capacity) {
      this.#capacity = Math.max(JOINTS_A_ROW, 2 ** Math.ceil(Math.log2(joints)));
      this.#joints.value?.dispose();
      const rows = this.#capacity / JOINTS_A_ROW;
      const width = JOINTS_A_ROW * JOINT_TEXELS;
      const words = new Float32Array(width * rows * 4);
      this.#joints.value = new THREE.DataTexture(words, width, rows, THREE.RGBAFormat, THREE.FloatType);
    }
    this.part(0).geometry.dispose();
    const geometry = new THREE.InstancedBufferGeometry();
    const { places, indices } = pieceOf(form);
    geometry.setAttribute('position', new THREE.BufferAttribute(places, 3));
    geometry.setIndex(indices);
    const numbers = Float32Array.from({ length: this.#capacity }, (_, n) => n);
    geometry.setAttribute('piece', new THREE.InstancedBufferAttribute(numbers, 1));
    this.part(0).geometry = geometry;
  }

  protected take(frame: Frame, found: FrameLayer | undefined): void {
    const count = found?.jointCount ?? 0;
    this.#reserve(count, ribbonOf(this.layer!).form);
    (this.part(0).geometry as THREE.InstancedBufferGeometry).instanceCount = Math.max(0, count - 1);
    const texture = this.#joints.value;
    if (count === 0 || !texture) return;
    const at = frame.jointAt(found!.jointStart);
    const words = texture.image.data as Float32Array;
    words.set(frame.f32.subarray(at, at + count * JOINT_WORDS));
    // A range lies within one row of the texture.
    const row = JOINTS_A_ROW * JOINT_WORDS;
    texture.clearUpdateRanges();
    for (let start = 0; start < count * JOINT_WORDS; start += row) texture.addUpdateRange(start, row);
    texture.needsUpdate = true;
  }

  override dispose(): void {
    // Its pieces are its own.
    this.part(0).geometry.dispose();
    super.dispose();
    this.#joints.value?.dispose();
  }
}

const PIECE = new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(new Float32Array(3), 3));

/** The corners of one piece of a ribbon: one band, two crossed, or the sides of a tube. */
function pieceOf(form: DrawnRibbon['form']): { places: Float32Array; indices: number[] } {
  if (form === 'tube') {
    const places: number[] = [];
    const indices: number[] = [];
    for (let n = 0; n <= TUBE_SIDES; n++) {
      places.push(n / TUBE_SIDES, 0, 0, n / TUBE_SIDES, 1, 0);
      if (n < TUBE_SIDES) indices.push(2 * n, 2 * n + 3, 2 * n + 1, 2 * n, 2 * n + 2, 2 * n + 3);
    }
    return { places: Float32Array.from(places), indices };
  }
  const bands = form === 'crossed' ? [0, 1] : [0];
  return {
    places: Float32Array.from(bands.flatMap((band) => [-1, 0, band, 1, 0, band, 1, 1, band, -1, 1, band])),
    indices: bands.flatMap((band) => [0, 1, 2, 0, 2, 3].map((corner) => corner + band * 4)),
  };
}
