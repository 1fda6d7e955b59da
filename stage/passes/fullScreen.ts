import * as THREE from 'three';

const vertexShader = /* glsl */ `
  varying vec2 at;
  void main() { at = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }
`;

/** A material for a pass over a whole picture. Its fragments know where they are: `at`, 0 to 1 from the lower left. */
export const passMaterial = (
  fragmentShader: string,
  uniforms: Record<string, THREE.IUniform>,
  blending: THREE.ShaderMaterialParameters = {},
): THREE.ShaderMaterial =>
  new THREE.ShaderMaterial({
    vertexShader,
    fragmentShader,
    uniforms,
    depthTest: false,
    depthWrite: false,
    ...blending,
  });

/** Draws passes over a whole picture. */
export class FullScreen {
  readonly #quad = new THREE.Mesh(new THREE.PlaneGeometry(2, 2));
  readonly #scene = new THREE.Scene();
  readonly #camera = new THREE.OrthographicCamera();

  constructor() {
    this.#quad.frustumCulled = false;
    this.#scene.add(this.#quad);
  }

  /** Draws a pass into a target, or onto the canvas. */
  draw(renderer: THREE.WebGLRenderer, material: THREE.ShaderMaterial, into: THREE.WebGLRenderTarget | null): void {
    this.#quad.material = material;
    renderer.setRenderTarget(into);
    renderer.render(this.#scene, this.#camera);
  }

  dispose(): void {
    this.#quad.geometry.dispose();
  }
}
