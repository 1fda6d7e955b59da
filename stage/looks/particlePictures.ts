import * as THREE from 'three';
import { fromTheTop } from '../fromTheTop.ts';
import { fragmentShader, needsNormal, varyings } from '../layers/fragment.ts';
import type { Around } from '../layers/around.ts';
import type { LayerDrawing } from '../layers/layerDrawing.ts';
import { Lens } from '../passes/lens.ts';
import { PREMULTIPLIED } from '../premultiplied.ts';
import type { DrawnLayer, ParticlePicturesAsked } from '../protocol.ts';

/** One particle that fills the picture, with the numbers it is given. */
function vertexShader(layer: DrawnLayer): string {
  const own = Array.from({ length: layer.look.ownWords / 4 }, (_, n) => `own_values${n} = sample_own[${n}];`);
  return /* glsl */ `
  uniform vec4 sample_own[2];
  uniform vec4 sample_colour;
  uniform float sample_age, sample_seconds;
  ${varyings(layer, true)}
  void main() {
    seen_at = uv; colour = sample_colour; seen_place = cameraPosition + vec3(position.xy, -1.0);
    seen_age = sample_age; seen_seconds = sample_seconds; seen_far = 1.0; seen_lot = 77u;
    ${needsNormal(layer) ? 'seen_side = vec3(1.0, 0.0, 0.0); seen_up = vec3(0.0, 1.0, 0.0); seen_normal = vec3(0.0, 0.0, 1.0);' : ''}
    ${own.join('\n    ')}
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }`;
}

/** The dark that the pictures lie on, linear. */
const BEHIND = 0.0043;

interface Made {
  readonly layer: DrawnLayer;
  readonly material: THREE.ShaderMaterial;
  readonly ready: Promise<void>;
}

/** Small pictures of one particle: after each step of its look, or at successive ages. One shader draws them all. */
export class ParticlePictures {
  readonly #renderer: THREE.WebGLRenderer;
  readonly #around: Around;
  readonly #lens = new Lens();
  readonly #scene = new THREE.Scene();
  readonly #camera = new THREE.OrthographicCamera();
  readonly #quad = new THREE.Mesh(new THREE.PlaneGeometry(2, 2));
  readonly #made = new Map<number, Made>();

  constructor(renderer: THREE.WebGLRenderer, around: Around) {
    this.#renderer = renderer;
    this.#around = around;
    this.#quad.frustumCulled = false;
    this.#scene.add(this.#quad);
  }

  #materialOf(drawing: LayerDrawing, drawn: DrawnLayer): Made {
    const known = this.#made.get(drawn.salt);
    if (known?.layer === drawn) return known;
    known?.material.dispose();
    // However the layer mixes and lies, its steps are seen as if they covered.
    const layer: DrawnLayer = { ...drawn, blend: 'normal', wraps: false };
    const material = new THREE.ShaderMaterial({
      vertexShader: vertexShader(layer),
      fragmentShader: fragmentShader(layer, { isFlat: true, isCut: true }),
      uniforms: {
        ...this.#around.common,
        ...drawing.lookUniforms,
        sample_own: { value: [new THREE.Vector4(), new THREE.Vector4()] },
        sample_colour: { value: new THREE.Vector4(1, 1, 1, 1) },
        sample_age: { value: 0 },
        sample_seconds: { value: 0 },
        upto: { value: 0 },
      },
      ...PREMULTIPLIED,
    });
    const ready = new Promise<void>((resolve) =>
      this.#around.warm(this.#quad, this.#quad.geometry, material, resolve),
    );
    const made = { layer: drawn, material, ready };
    this.#made.set(drawn.salt, made);
    return made;
  }

  /**
   * Particles with some numbers, side by side, as the look has made them after the step of that id, or after its last:
   * rows from the top. Null while the layer is not drawn, or has no such step.
   */
  async draw(drawing: LayerDrawing | undefined, asked: ParticlePicturesAsked): Promise<ImageData | null> {
    const layer = drawing?.layer;
    if (!drawing || !layer) return null;
    const { step, samples, size } = asked;
    const { steps } = layer.look;
    const upto = step === null ? steps.length : steps.findIndex(({ id }) => id === step) + 1;
    if (step !== null && upto === 0) return null;
    const { material, ready } = this.#materialOf(drawing, layer);
    await ready;
    const { uniforms } = material;
    return this.#taken(material, size, samples.length, (n) => {
      const { age, seconds, colour, own } = samples[n]!;
      uniforms['upto']!.value = upto;
      uniforms['sample_age']!.value = age;
      uniforms['sample_seconds']!.value = seconds;
      (uniforms['sample_colour']!.value as THREE.Vector4).fromArray(colour);
      (uniforms['sample_own']!.value as THREE.Vector4[]).forEach((vector, k) => vector.fromArray(own, 4 * k));
      material.uniformsNeedUpdate = true;
    });
  }

  /** Draws squares side by side, each after `prepare` has set its numbers, and reads them: rows from the top. */
  #taken(material: THREE.ShaderMaterial, size: number, count: number, prepare: (n: number) => void): ImageData {
    const width = size * count;
    const options = { type: THREE.HalfFloatType, depthBuffer: false };
    const linear = new THREE.WebGLRenderTarget(width, size, options);
    const shown = new THREE.WebGLRenderTarget(width, size, { depthBuffer: false });
    const renderer = this.#renderer;
    renderer.setRenderTarget(linear);
    renderer.setClearColor(new THREE.Color(BEHIND, BEHIND, BEHIND), 1);
    renderer.clear();
    renderer.setClearColor(0x000000, 1);
    this.#quad.material = material;
    for (let n = 0; n < count; n++) {
      prepare(n);
      linear.viewport.set(n * size, 0, size, size);
      renderer.setRenderTarget(linear);
      renderer.render(this.#scene, this.#camera);
    }
    linear.viewport.set(0, 0, width, size);
    this.#lens.draw(renderer, linear, shown);
    const pixels = new Uint8Array(width * size * 4);
    renderer.readRenderTargetPixels(shown, 0, 0, width, size, pixels);
    renderer.setRenderTarget(null);
    linear.dispose();
    shown.dispose();
    return fromTheTop(pixels, width, size);
  }

  dispose(): void {
    for (const { material } of this.#made.values()) material.dispose();
    this.#made.clear();
    this.#quad.geometry.dispose();
    this.#lens.dispose();
  }
}
