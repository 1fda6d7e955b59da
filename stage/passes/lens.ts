import { readToneTable, type ToneTable } from '@jinx/core/formats';
import * as THREE from 'three';
import { Bloom } from './bloom.ts';
import { FullScreen, passMaterial } from './fullScreen.ts';
import { setDefine } from '../looks/light.ts';
import type { StageLens, StageTone, StageView } from '../protocol.ts';
import { isColoured } from '../views.ts';

// Views that tell something by their tones are shown as they are: no bloom, no exposure, no tone curve.
// Tone curve: filmic is Narkowicz, 2015, ACES Filmic Tone Mapping Curve; neutral is the PBR Neutral tone mapper of the
// Khronos Group, 2024. Then sRGB (IEC 61966-2-1), then a grain of dither.
const fragmentShader = /* glsl */ `
  uniform sampler2D picture;
  uniform sampler2D shine;
  uniform sampler2D instants;
  uniform float exposure, shining;
  varying vec2 at;
  #ifdef TONE_LINE
  uniform sampler2D tone_table;
  #endif
  #ifdef TONE_CUBE
  uniform mediump sampler3D tone_table;
  #endif
  uniform vec3 tone_from, tone_to;
  uniform float tone_size;
  vec3 encoded(vec3 c) { return mix(c * 12.92, 1.055 * pow(c, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, c)); }
  vec3 neutral(vec3 c) {
    float least = min(c.r, min(c.g, c.b));
    c -= least < 0.08 ? least - 6.25 * least * least : 0.04;
    float peak = max(c.r, max(c.g, c.b));
    if (peak < 0.76) return c;
    float shown = 1.0 - 0.24 * 0.24 / (peak + 0.24 - 0.76);
    c *= shown / peak;
    return mix(c, vec3(shown), 1.0 - 1.0 / (0.15 * (peak - shown) + 1.0));
  }
  // By the middles of its first and last entries.
  vec3 inTable(vec3 c) {
    return (clamp((c - tone_from) / (tone_to - tone_from), 0.0, 1.0) * (tone_size - 1.0) + 0.5) / tone_size;
  }
  vec3 toned(vec3 c) {
  #if defined(TONE_LINE)
    vec3 place = inTable(encoded(max(c, 0.0)));
    return vec3(texture(tone_table, vec2(place.r, 0.5)).r, texture(tone_table, vec2(place.g, 0.5)).g, texture(tone_table, vec2(place.b, 0.5)).b);
  #elif defined(TONE_CUBE)
    return texture(tone_table, inTable(encoded(max(c, 0.0)))).rgb;
  #elif defined(TONE_NONE)
    return encoded(clamp(c, 0.0, 1.0));
  #elif defined(TONE_NEUTRAL)
    return encoded(clamp(neutral(max(c, 0.0)), 0.0, 1.0));
  #else
    return encoded(clamp((c * (2.51 * c + 0.03)) / (c * (2.43 * c + 0.59) + 0.14), 0.0, 1.0));
  #endif
  }
  void main() {
    // Pixel for pixel: to blend four of half floats takes long where a machine draws without a graphics card.
    vec4 seen = texelFetch(picture, ivec2(gl_FragCoord.xy), 0);
    vec3 c = seen.rgb;
  #ifdef HAS_INSTANTS
    vec4 other = texture2D(instants, at);
    c = mix(c * (1.0 - other.a) + other.rgb, c, smoothstep(0.3, 0.8, c.g));
  #endif
  #ifdef IS_PLAIN
    c = encoded(clamp(c, 0.0, 1.0));
  #else
    if (shining > 0.0) c += texture2D(shine, at).rgb * shining;
    c *= exposure;
    c = toned(c);
  #endif
  #ifdef IS_GREY
    // Of the light that is shown, not of its code.
    vec3 light = mix(c / 12.92, pow((c + 0.055) / 1.055, vec3(2.4)), step(0.04045, c));
    c = encoded(vec3(dot(light, vec3(0.2126, 0.7152, 0.0722))));
  #endif
  #ifdef IS_CUT_OUT
    gl_FragColor = vec4(clamp(c, 0.0, 1.0), clamp(seen.a, 0.0, 1.0));
  #else
    float grain = fract(sin(dot(gl_FragCoord.xy, vec2(12.9898, 78.233))) * 43758.5453) - 0.5;
    gl_FragColor = vec4(c + grain / 255.0, 1.0);
  #endif
  }
`;

/** A table as a texture of half floats, which every graphics card blends between. */
function toneTexture({ kind, size, values }: ToneTable): THREE.Texture {
  const entries = values.length / 3;
  const halves = new Uint16Array(entries * 4);
  for (let n = 0; n < entries; n++)
    for (let c = 0; c < 4; c++) halves[n * 4 + c] = THREE.DataUtils.toHalfFloat(c < 3 ? values[n * 3 + c]! : 1);
  const texture =
    kind === 'line' ? new THREE.DataTexture(halves, size, 1) : new THREE.Data3DTexture(halves, size, size, size);
  texture.format = THREE.RGBAFormat;
  texture.type = THREE.HalfFloatType;
  texture.minFilter = texture.magFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

/** Brings a coarse picture to the size it is shown in: of bytes, and with nothing left to compute for each point. */
const stretchShader = /* glsl */ `
  uniform sampler2D picture;
  varying vec2 at;
  void main() { gl_FragColor = vec4(texture2D(picture, at).rgb, 1.0); }
`;

/** Whether this machine draws without a graphics card: then smoothing edges would cost more than the picture. */
export function drawsInSoftware(renderer: THREE.WebGLRenderer): boolean {
  const gl = renderer.getContext();
  const info = gl.getExtension('WEBGL_debug_renderer_info');
  return (
    info !== null && /llvmpipe|swiftshader|softpipe/i.test(String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)))
  );
}

/** Brings the picture of the scene, linear and half float, to the canvas: light that shines over, exposure, the tone curve. */
export class Lens {
  #lens: StageLens = { bloom: null, exposure: 0, dim: 0 };
  #isPlain = false;
  readonly #bloom = new Bloom();
  readonly #material = passMaterial(fragmentShader, {
    picture: { value: null },
    shine: { value: null },
    instants: { value: null },
    exposure: { value: 1 },
    shining: { value: 0 },
    tone_table: { value: null },
    tone_from: { value: new THREE.Vector3() },
    tone_to: { value: new THREE.Vector3(1, 1, 1) },
    tone_size: { value: 2 },
  });
  readonly #stretching = passMaterial(stretchShader, { picture: { value: null } });
  /** The picture as it is shown, where it is coarser than what it is shown on. */
  #coarse: THREE.WebGLRenderTarget | null = null;
  readonly #screen = new FullScreen();
  readonly #shownSize = new THREE.Vector2();

  set(lens: StageLens): void {
    this.#lens = lens;
  }

  /** Brings light to the screen by another curve, or by a table. */
  setTone(tone: StageTone): void {
    const { uniforms } = this.#material;
    const table = tone.kind === 'table' ? readToneTable(tone.text) : null;
    (uniforms['tone_table']!.value as THREE.Texture | null)?.dispose();
    uniforms['tone_table']!.value = table && toneTexture(table);
    if (table) {
      uniforms['tone_from']!.value.fromArray(table.from);
      uniforms['tone_to']!.value.fromArray(table.to);
      uniforms['tone_size']!.value = table.size;
    }
    setDefine(this.#material, 'TONE_NONE', tone.kind === 'none');
    setDefine(this.#material, 'TONE_NEUTRAL', tone.kind === 'neutral');
    setDefine(this.#material, 'TONE_LINE', table?.kind === 'line');
    setDefine(this.#material, 'TONE_CUBE', table?.kind === 'cube');
  }

  setView(view: StageView): void {
    this.#isPlain = isColoured(view);
    setDefine(this.#material, 'IS_PLAIN', this.#isPlain);
    setDefine(this.#material, 'IS_GREY', view === 'grey');
  }

  /** Lays silhouettes of other instants over the picture; null lays none. */
  setInstants(texture: THREE.Texture | null): void {
    setDefine(this.#material, 'HAS_INSTANTS', texture !== null);
    this.#material.uniforms['instants']!.value = texture;
  }

  /** The same for a picture that is handed out: with how much it covers, and without dither. */
  drawCutOut(renderer: THREE.WebGLRenderer, picture: THREE.WebGLRenderTarget, into: THREE.WebGLRenderTarget): void {
    setDefine(this.#material, 'IS_CUT_OUT', true);
    this.draw(renderer, picture, into);
    setDefine(this.#material, 'IS_CUT_OUT', false);
  }

  draw(renderer: THREE.WebGLRenderer, picture: THREE.WebGLRenderTarget, into: THREE.WebGLRenderTarget | null): void {
    const { bloom, exposure, dim } = this.#lens;
    const { uniforms } = this.#material;
    const { width, height } = picture;
    const shines = !this.#isPlain && bloom !== null && bloom.strength > 0;
    uniforms['picture']!.value = picture.texture;
    uniforms['shine']!.value = shines
      ? this.#bloom.draw(renderer, picture.texture, width, height, (bloom.spread / 100) * height)
      : null;
    // All levels lie on one another: each gives its share.
    uniforms['shining']!.value = shines ? bloom.strength / 100 / Math.max(1, this.#bloom.levels) : 0;
    uniforms['exposure']!.value = 2 ** exposure * (1 - dim);
    const shown = into ?? renderer.getDrawingBufferSize(this.#shownSize);
    if (shown.width === width && shown.height === height) return this.#screen.draw(renderer, this.#material, into);
    this.#coarse ??= new THREE.WebGLRenderTarget(1, 1, { depthBuffer: false });
    this.#coarse.setSize(width, height);
    this.#screen.draw(renderer, this.#material, this.#coarse);
    this.#stretching.uniforms['picture']!.value = this.#coarse.texture;
    this.#screen.draw(renderer, this.#stretching, into);
  }

  dispose(): void {
    this.#bloom.dispose();
    this.#screen.dispose();
    this.#material.dispose();
    this.#stretching.dispose();
    this.#coarse?.dispose();
  }
}
