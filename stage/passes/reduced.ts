import * as THREE from 'three';
import { FullScreen, passMaterial } from './fullScreen.ts';

// The mean of all points that one of the smaller picture has, less that of another picture where there is one.
const fragmentShader = /* glsl */ `
  uniform sampler2D picture, less;
  uniform int times;
  uniform float takes;
  void main() {
    ivec2 first = ivec2(gl_FragCoord.xy) * times;
    vec4 sum = vec4(0.0);
    for (int y = 0; y < times; y++)
      for (int x = 0; x < times; x++) sum += texelFetch(picture, first + ivec2(x, y), 0);
    vec4 mean = sum / float(times * times);
    if (takes > 0.0) mean = max(vec4(0.0), mean - texelFetch(less, ivec2(gl_FragCoord.xy), 0));
    gl_FragColor = mean;
  }
`;

/** A linear picture, as large as it is handed out: made of one drawn `times` as large each way, or of the difference of two. */
export class Reduced {
  readonly target = new THREE.WebGLRenderTarget(1, 1, {
    type: THREE.HalfFloatType,
    depthBuffer: false,
    minFilter: THREE.LinearFilter,
    magFilter: THREE.LinearFilter,
  });
  readonly #material = passMaterial(fragmentShader, {
    picture: { value: null },
    less: { value: null },
    times: { value: 1 },
    takes: { value: 0 },
  });
  readonly #screen = new FullScreen();

  take(renderer: THREE.WebGLRenderer, picture: THREE.WebGLRenderTarget, times: number, less: Reduced | null = null) {
    this.target.setSize(picture.width / times, picture.height / times);
    const { uniforms } = this.#material;
    uniforms['picture']!.value = picture.texture;
    uniforms['times']!.value = times;
    uniforms['takes']!.value = less ? 1 : 0;
    uniforms['less']!.value = less?.target.texture ?? null;
    this.#screen.draw(renderer, this.#material, this.target);
  }

  dispose(): void {
    this.target.dispose();
    this.#material.dispose();
    this.#screen.dispose();
  }
}
