import * as THREE from 'three';
import { Frame } from '@jinx/core/simulation';
import { FullScreen, passMaterial } from './passes/fullScreen.ts';
import { RAMP } from './views.ts';
import { PREMULTIPLIED } from './premultiplied.ts';

// What the effect covers is white in its view, and all else is dark. A line round it keeps instants apart where they overlap.
const fragmentShader = /* glsl */ `
  uniform sampler2D picture;
  uniform vec3 tone;
  varying vec2 at;
  float covered(vec2 p) { return smoothstep(0.2, 0.4, texture2D(picture, p).g); }
  void main() {
    vec2 pixel = 1.0 / vec2(textureSize(picture, 0));
    float inside = covered(at), around = 0.0;
    for (int n = 0; n < 8; n++) {
      float turn = float(n) * 0.7853982;
      around = max(around, covered(at + vec2(cos(turn), sin(turn)) * pixel * 1.5));
    }
    float line = around * (1.0 - inside);
    float opacity = max(inside * 0.3, line * 0.9);
    gl_FragColor = vec4(tone * opacity, opacity);
  }
`;

interface Instant {
  readonly frame: Frame;
  readonly tone: THREE.Color;
}

/** The tone of an instant at a share of the effect's time. */
function toneAt(share: number): THREE.Color {
  const at = Math.min(1, Math.max(0, share)) * (RAMP.length - 1);
  const from = Math.min(RAMP.length - 2, Math.floor(at));
  return new THREE.Color(RAMP[from]).lerp(new THREE.Color(RAMP[from + 1]), at - from);
}

/**
 * Silhouettes of other instants, laid over one another. Each is drawn once, one a picture, so that none waits for all; what
 * moves the picture lets them be drawn again.
 */
export class Instants {
  readonly #all: Instant[] = [];
  #drawn = 0;
  readonly #sum = new THREE.WebGLRenderTarget(1, 1, { depthBuffer: false });
  readonly #material = passMaterial(
    fragmentShader,
    { picture: { value: null }, tone: { value: new THREE.Color() } },
    PREMULTIPLIED,
  );
  readonly #screen = new FullScreen();

  dispose(): void {
    this.forget();
    this.#sum.dispose();
    this.#screen.dispose();
    this.#material.dispose();
  }

  /** Takes one more; in order of time. */
  add(buffer: ArrayBuffer, share: number): void {
    this.#all.push({ frame: new Frame(buffer), tone: toneAt(share) });
  }
  forget(): void {
    this.#all.length = 0;
    this.drawAnew();
  }
  drawAnew(): void {
    this.#drawn = 0;
  }

  /** The one that is to be drawn next; null once all are. */
  get next(): Frame | null {
    return this.#all[this.#drawn]?.frame ?? null;
  }
  get isEmpty(): boolean {
    return this.#all.length === 0;
  }
  get texture(): THREE.Texture {
    return this.#sum.texture;
  }

  /** Lays the silhouette of the next one, as it was just drawn, over those before it. */
  lay(renderer: THREE.WebGLRenderer, picture: THREE.WebGLRenderTarget): void {
    const { width, height } = picture;
    if (this.#sum.width !== width || this.#sum.height !== height) this.#sum.setSize(width, height);
    renderer.setRenderTarget(this.#sum);
    if (this.#drawn === 0) {
      renderer.setClearColor(0x000000, 0);
      renderer.clear();
      renderer.setClearColor(0x000000, 1);
    }
    this.#material.uniforms['picture']!.value = picture.texture;
    (this.#material.uniforms['tone']!.value as THREE.Color).copy(this.#all[this.#drawn]!.tone);
    this.#screen.draw(renderer, this.#material, this.#sum);
    this.#drawn++;
  }
}
