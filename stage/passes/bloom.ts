import * as THREE from 'three';
import { FullScreen, passMaterial } from './fullScreen.ts';

// Four reads that meet between pixels take in all sixteen of a 4 × 4 block: nothing bright and small flickers.
const downShader = /* glsl */ `
  uniform sampler2D picture;
  uniform vec2 pixel;
  uniform float knee;  // what is brighter shines over; 0: all of it
  varying vec2 at;
  vec3 read(vec2 off) {
    vec3 c = texture2D(picture, at + off * pixel).rgb;
    float bright = max(c.r, max(c.g, c.b));
    float over = max(0.0, bright - knee);
    return knee > 0.0 ? min(c * over / (1.0 + over), vec3(60.0)) : c;
  }
  void main() {
    gl_FragColor = vec4(0.25 * (read(vec2(-1.0, -1.0)) + read(vec2(1.0, -1.0)) + read(vec2(-1.0, 1.0)) + read(vec2(1.0, 1.0))), 1.0);
  }
`;
const upShader = /* glsl */ `
  uniform sampler2D picture;
  uniform vec2 pixel;
  uniform float amount;
  varying vec2 at;
  void main() {
    vec3 sum = texture2D(picture, at).rgb * 4.0;
    for (int n = 0; n < 4; n++) {
      vec2 off = vec2(n < 2 ? 1.0 : -1.0, (n & 1) == 0 ? 1.0 : -1.0);
      sum += texture2D(picture, at + off * pixel).rgb;
      sum += 2.0 * texture2D(picture, at + (n < 2 ? vec2(off.y, 0.0) : vec2(0.0, off.y)) * pixel).rgb;
    }
    gl_FragColor = vec4(sum / 16.0 * amount, 1.0);
  }
`;

/** Brightness above which light shines over: what the screen shows as white. */
const KNEE = 1;
const MOST_LEVELS = 7;
/** The first level is a quarter of the picture's size: finer light stays sharp anyway. */
const FIRST = 4;

/**
 * Light of what is brighter than the screen, spread over its surroundings: brought down level by level and up again, each
 * level added to the finer one (Jimenez, 2014, Next Generation Post Processing).
 */
export class Bloom {
  readonly #levels: THREE.WebGLRenderTarget[] = [];
  readonly #down = passMaterial(downShader, { ...sourceUniforms(), knee: { value: 0 } });
  readonly #up = passMaterial(
    upShader,
    { ...sourceUniforms(), amount: { value: 1 } },
    {
      blending: THREE.CustomBlending,
      blendSrc: THREE.OneFactor,
      blendDst: THREE.OneFactor,
      transparent: true,
    },
  );
  readonly #screen = new FullScreen();
  #count = 0;

  /** Spreads a picture's light so far, in pixels; returns the texture that holds it. */
  draw(
    renderer: THREE.WebGLRenderer,
    picture: THREE.Texture,
    width: number,
    height: number,
    reach: number,
  ): THREE.Texture {
    this.#count = Math.min(MOST_LEVELS, Math.max(1, Math.round(Math.log2(Math.max(2, reach / 2)))));
    let [w, h] = [Math.ceil(width / FIRST), Math.ceil(height / FIRST)];
    let from = picture;
    for (let level = 0; level < this.#count; level++) {
      const target = this.#level(level, w, h);
      const { uniforms } = this.#down;
      uniforms['picture']!.value = from;
      // Between pixels of what is read: at a quarter of the size the block is four pixels wide, at half the size two.
      const [fw, fh] =
        level === 0 ? [width, height] : [this.#levels[level - 1]!.width, this.#levels[level - 1]!.height];
      const off = level === 0 ? 1 : 0.75;
      (uniforms['pixel']!.value as THREE.Vector2).set(off / fw, off / fh);
      uniforms['knee']!.value = level === 0 ? KNEE : 0;
      this.#screen.draw(renderer, this.#down, target);
      from = target.texture;
      [w, h] = [Math.max(1, Math.ceil(w / 2)), Math.max(1, Math.ceil(h / 2))];
    }
    for (let level = this.#count - 1; level > 0; level--) {
      const { uniforms } = this.#up;
      const source = this.#levels[level]!;
      uniforms['picture']!.value = source.texture;
      (uniforms['pixel']!.value as THREE.Vector2).set(1 / source.width, 1 / source.height);
      this.#screen.draw(renderer, this.#up, this.#levels[level - 1]!);
    }
    return this.#levels[0]!.texture;
  }

  /** Levels that were added up in the last picture. */
  get levels(): number {
    return this.#count;
  }

  dispose(): void {
    for (const level of this.#levels) level.dispose();
    this.#screen.dispose();
    this.#down.dispose();
    this.#up.dispose();
  }

  #level(level: number, width: number, height: number): THREE.WebGLRenderTarget {
    this.#levels[level] ??= new THREE.WebGLRenderTarget(1, 1, {
      type: THREE.HalfFloatType,
      depthBuffer: false,
      magFilter: THREE.LinearFilter,
      minFilter: THREE.LinearFilter,
    });
    this.#levels[level]!.setSize(width, height);
    return this.#levels[level]!;
  }
}

/** What both passes read, and how far its pixels are apart. */
const sourceUniforms = () => ({ picture: { value: null }, pixel: { value: new THREE.Vector2() } });
