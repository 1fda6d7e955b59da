import * as THREE from 'three';
import { FullScreen, passMaterial } from './fullScreen.ts';

const fragmentShader = /* glsl */ `
  uniform sampler2D depth;
  uniform float near, far;
  void main() {
    float z = texelFetch(depth, ivec2(gl_FragCoord.xy), 0).r * 2.0 - 1.0;
    gl_FragColor = vec4(2.0 * near * far / (far + near - z * (far - near)), 0.0, 0.0, 1.0);
  }
`;

/** How far in front of the eye what is solid lies, for every pixel: metres. Made only in pictures that ask for it. */
export class Depths {
  readonly #target = new THREE.WebGLRenderTarget(1, 1, {
    type: THREE.FloatType,
    format: THREE.RedFormat,
    minFilter: THREE.NearestFilter,
    magFilter: THREE.NearestFilter,
    depthBuffer: false,
  });
  readonly #material = passMaterial(fragmentShader, {
    depth: { value: null },
    near: { value: 0.02 },
    far: { value: 200 },
  });
  readonly #screen = new FullScreen();

  dispose(): void {
    this.#target.dispose();
    this.#screen.dispose();
    this.#material.dispose();
  }

  get texture(): THREE.Texture {
    return this.#target.texture;
  }

  /** Reads the depth of what was drawn so far. */
  take(
    renderer: THREE.WebGLRenderer,
    depth: THREE.Texture,
    width: number,
    height: number,
    camera: THREE.PerspectiveCamera,
  ) {
    this.#target.setSize(width, height);
    const { uniforms } = this.#material;
    uniforms['depth']!.value = depth;
    uniforms['near']!.value = camera.near;
    uniforms['far']!.value = camera.far;
    this.#screen.draw(renderer, this.#material, this.#target);
  }
}
