import * as THREE from 'three';
import { OWN_WORDS, RECORD_COLOUR, RECORD_TO, RECORD_WORDS, RECORDS, type Frame } from '@jinx/core/simulation';
import type { DrawnLayer } from '../protocol.ts';
import { fragmentShader } from './fragment.ts';
import { LayerDrawing, type Around, type FrameLayer, type Shaders } from './layerDrawing.ts';
import { Order } from './order.ts';
import { spriteVertexShader, WRAPPING } from './spriteShader.ts';

/** One layer's sprites: instanced quads read straight from frame records, or boxes where they wrap what is under them. */
export class Sprites extends LayerDrawing {
  #capacity = 0;
  #ownWords = -1;
  #isBoxed = false;
  #records: THREE.InstancedInterleavedBuffer | null = null;
  #own: THREE.InstancedInterleavedBuffer | null = null;
  readonly #order = new Order();
  #frame: Frame | null = null;
  #found: FrameLayer | undefined;

  constructor(around: Around) {
    super(around);
    this.mesh.geometry = new THREE.InstancedBufferGeometry();
  }

  protected shaders(layer: DrawnLayer, isMask: boolean): Shaders {
    const { tilt, axle } = layer.frames;
    const marks = layer.wraps
      ? 'flat varying vec3 mark_place, mark_side, mark_up, mark_out; flat varying vec3 mark_half;'
      : '';
    const drawn = fragmentShader(layer, { isFlat: true, surface: layer.wraps ? WRAPPING : '', isMask });
    return {
      vertexShader: spriteVertexShader(layer),
      fragmentShader: marks + drawn,
      uniforms: {
        tilt_low: { value: tilt.low },
        tilt_high: { value: tilt.high },
        tilt_slots: { value: tilt.slots },
        axle_low: { value: axle.low },
        axle_high: { value: axle.high },
        axle_slots: { value: axle.slots },
      },
    };
  }

  #reserve(count: number, ownWords: number, isBoxed: boolean): void {
    if (count <= this.#capacity && ownWords === this.#ownWords && isBoxed === this.#isBoxed) return;
    if (count > this.#capacity) this.#capacity = Math.max(256, 2 ** Math.ceil(Math.log2(count)));
    this.#ownWords = ownWords;
    this.#isBoxed = isBoxed;
    this.mesh.geometry.dispose();
    const geometry = new THREE.InstancedBufferGeometry();
    const shape = isBoxed ? new THREE.BoxGeometry(2, 2, 2) : new THREE.PlaneGeometry(2, 2);
    geometry.setAttribute('position', shape.getAttribute('position'));
    geometry.setIndex(shape.getIndex());
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
    this.mesh.geometry = geometry;
  }

  protected take(frame: Frame, found: FrameLayer | undefined): void {
    const layer = this.layer!;
    const count = found?.count ?? 0;
    this.#reserve(count, layer.look.ownWords, layer.wraps);
    (this.mesh.geometry as THREE.InstancedBufferGeometry).instanceCount = count;
    this.#frame = frame;
    this.#found = found;
    if (count === 0) return;
    if (layer.order === 'nearest') return;
    this.#order.plain(count, layer.order === 'oldest');
    this.#fill(frame, found!);
  }

  sampleInto(own: THREE.Vector4[], colour: THREE.Vector4): void {
    const count = (this.mesh.geometry as THREE.InstancedBufferGeometry).instanceCount;
    if (!this.#records || !(count > 0)) return;
    const n = Math.floor(count / 2);
    colour.fromArray(this.#records.array as Float32Array, n * RECORD_WORDS + RECORD_COLOUR).setW(1);
    for (let v = 0; v * 4 < this.#ownWords; v++)
      own[v]!.fromArray(this.#own!.array as Float32Array, n * this.#ownWords + v * 4);
  }

  /** Puts those nearest to the eye in front, if that is wanted; `way` is the direction of sight. */
  sort(eye: THREE.Vector3, way: THREE.Vector3): void {
    const count = this.#found?.count ?? 0;
    if (this.layer?.order !== 'nearest' || !this.#frame || count === 0) return;
    const at = RECORDS + this.#found!.start * RECORD_WORDS + RECORD_TO;
    if (this.#order.byDepth(this.#frame.f32, at, RECORD_WORDS, count, eye, way))
      this.#fill(this.#frame, this.#found!);
  }

  /** Writes records and own numbers in their order. */
  #fill(frame: Frame, { start, count, ownWords }: FrameLayer): void {
    const { f32 } = frame;
    this.#order.copy(f32, RECORDS + start * RECORD_WORDS, RECORD_WORDS, count, this.#records!.array as Float32Array);
    update(this.#records!, count * RECORD_WORDS);
    if (!this.#own) return;
    this.#order.copy(f32, frame.own + start * OWN_WORDS, ownWords, count, this.#own.array as Float32Array);
    update(this.#own, count * ownWords);
  }
}

function update(buffer: THREE.InterleavedBuffer, length: number): void {
  buffer.clearUpdateRanges();
  buffer.addUpdateRange(0, length);
  buffer.needsUpdate = true;
}
