import * as THREE from 'three';
import { fragmentShader, needsNormal, varyings } from '../layers/fragment.ts';
import type { Around, LayerDrawing } from '../layers/layerDrawing.ts';
import { Lens } from '../lens.ts';
import type { DrawnLayer } from '../protocol.ts';

/** One particle that fills the picture, in the middle of its life, with the numbers of one that is there. */
function vertexShader(layer: DrawnLayer): string {
  const own = Array.from({ length: layer.look.ownWords / 4 }, (_, n) => `own_values${n} = sample_own[${n}];`);
  return /* glsl */ `
  uniform vec4 sample_own[2];
  uniform vec4 sample_colour;
  ${varyings(layer, true)}
  void main() {
    seen_at = uv; colour = sample_colour; seen_place = cameraPosition + vec3(position.xy, -1.0);
    seen_age = 0.5; seen_seconds = 0.5; seen_far = 1.0; seen_lot = 77u;
    ${needsNormal(layer) ? 'seen_side = vec3(1.0, 0.0, 0.0); seen_up = vec3(0.0, 1.0, 0.0); seen_normal = vec3(0.0, 0.0, 1.0);' : ''}
    ${own.join('\n    ')}
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }`;
}

/** The dark that a step's picture lies on, linear. */
const BEHIND = 0.0043;

interface Made {
  readonly layer: DrawnLayer;
  readonly material: THREE.ShaderMaterial;
  readonly ready: Promise<void>;
}

/** Small pictures of what a look has become after each of its steps; one shader draws them all. */
export class StepPictures {
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
        upto: { value: 0 },
      },
      depthTest: false,
      depthWrite: false,
      transparent: true,
      blending: THREE.CustomBlending,
      blendSrc: THREE.OneFactor,
      blendDst: THREE.OneMinusSrcAlphaFactor,
    });
    const ready = new Promise<void>((resolve) => this.#around.warm(this.#quad, material, resolve));
    const made = { layer: drawn, material, ready };
    this.#made.set(drawn.salt, made);
    return made;
  }

  /** The picture after the step of that id, or null while the layer is not drawn: rows from the top. */
  async draw(drawing: LayerDrawing | undefined, step: string, size: number): Promise<Uint8Array | null> {
    const layer = drawing?.layer;
    const at = layer?.look.steps.findIndex(({ id }) => id === step) ?? -1;
    if (!drawing || !layer || at < 0) return null;
    const { material, ready } = this.#materialOf(drawing, layer);
    await ready;
    const { uniforms } = material;
    uniforms['upto']!.value = at + 1;
    const own = uniforms['sample_own']!.value as THREE.Vector4[];
    drawing.sampleInto(own, uniforms['sample_colour']!.value as THREE.Vector4);
    const options = { type: THREE.HalfFloatType, depthBuffer: false };
    const linear = new THREE.WebGLRenderTarget(size, size, options);
    const shown = new THREE.WebGLRenderTarget(size, size, { depthBuffer: false });
    const renderer = this.#renderer;
    renderer.setRenderTarget(linear);
    renderer.setClearColor(new THREE.Color(BEHIND, BEHIND, BEHIND), 1);
    renderer.clear();
    renderer.setClearColor(0x000000, 1);
    this.#quad.material = material;
    renderer.render(this.#scene, this.#camera);
    this.#lens.draw(renderer, linear, shown);
    const flipped = new Uint8Array(size * size * 4);
    renderer.readRenderTargetPixels(shown, 0, 0, size, size, flipped);
    renderer.setRenderTarget(null);
    linear.dispose();
    shown.dispose();
    const rgba = new Uint8Array(flipped.length);
    for (let row = 0; row < size; row++)
      rgba.set(flipped.subarray(row * size * 4, (row + 1) * size * 4), (size - 1 - row) * size * 4);
    return rgba;
  }
}
