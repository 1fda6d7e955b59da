import * as THREE from 'three';
import type { Frame, FrameLayer } from '@jinx/core/simulation';
import { lookCode, valueDeclarations, valueOf } from '../looks/shader.ts';
import type { DrawnHaze, DrawnLayer } from '../protocol.ts';
import { BEHIND, needsNormal, NORMAL, TO_SCREEN, varyings } from './fragment.ts';
import { LayerDrawing } from './layerDrawing.ts';
import type { Shaders } from './materials.ts';
import { Order } from './order.ts';
import { frameUniforms, ParticleBuffers } from './particles.ts';
import { spriteVertexShader } from './spriteShader.ts';
import { VIEW_KINDS, VIEW_TONES } from '../looks/viewTones.ts';

/** Which way it bends at `moved`, where the steps of its look have moved the place. */
const BENDS: Record<DrawnHaze['bends'], string> = {
  outward: 'bend = d > 1e-4 ? q / d : vec2(0.0);',
  'in waves': `
    vec3 g = vec3(moved * 5.0 + drawnAt(seen_lot, 7003u) * 40.0, clock * 1.3);
    bend = (vec2(noise(g), noise(g + 37.1)) - 0.5) * 2.4;`,
  'by a picture': 'bend = texture2D(normals, vec2(moved.x, 1.0 - moved.y)).rg * 2.0 - 1.0;',
};

/** What is behind, shifted: within a ring and as far as its look covers, by a share of the particle's size on the screen. */
function fragmentShader(layer: DrawnLayer, { bends }: DrawnHaze): string {
  const value = (name: string) => `${valueOf(layer.look, name)} * 0.01`;
  return /* glsl */ `
  ${varyings(layer, true)}
  ${valueDeclarations(layer.look)}
  uniform sampler2D behind_it, normals, depths;
  uniform vec2 picture_size;
  float seconds, age, toward_eye, eye_distance;
  uint lot;
  ${BEHIND}
  ${lookCode(layer.look)}
  ${VIEW_TONES}
  void main() {
    seconds = seen_seconds; age = seen_age; lot = seen_lot; eye_distance = seen_far; toward_eye = 1.0;
    ${needsNormal(layer) ? `${NORMAL.card} toward_eye = dot(normal, normalize(cameraPosition - seen_place));` : ''}
    vec2 q = seen_at * 2.0 - 1.0;
    float d = length(q);
    float inner = ${value('drawn/inner')}, outer = max(${value('drawn/outer')}, inner + 0.001);
    float soft = max(0.01, ${value('drawn/softness')}) * 0.5 * (outer - inner);
    float ring = smoothstep(inner - 0.001, inner + soft, d) * (1.0 - smoothstep(outer - soft, outer, d));
    if (inner <= 0.0) ring = 1.0 - smoothstep(outer - 2.0 * soft, outer, d);
    vec3 rgb, emit;
    float a;
    lookAt(seen_at, rgb, a, emit);
    float covers = ring * colour.a * clamp(a, 0.0, 1.0);
    vec2 bend;
    ${BENDS[bends]}
    // A way of q as pixels of the screen, however the particle lies.
    mat2 to_q = mat2(dFdx(q), dFdy(q));
    vec2 shift = abs(determinant(to_q)) > 1e-12 ? inverse(to_q) * bend * covers * ${value('drawn/strength')} : vec2(0.0);
    vec2 at = clamp((gl_FragCoord.xy - shift) / picture_size, 0.0, 1.0);
    vec3 seen = texture2D(behind_it, at).rgb;
    seen *= mix(vec3(1.0), colour.rgb * rgb, ${value('drawn/tinted')} * covers);
    seen += emit * covers;
    if (covers <= 0.0) discard;
  #ifdef HAS_VIEW
    // Bent air covers nothing; where it bends is told faintly.
    if (view_kind == 1 || (view_kind >= ${VIEW_KINDS.distance} && view_kind != ${VIEW_KINDS.bend})) discard;
    gl_FragColor = view_kind == ${VIEW_KINDS.bend}
      ? vec4(shift, covers, 1.0)
      : vec4(viewTone(), 1.0) * covers * 0.35;
  #else
    gl_FragColor = vec4(seen, 1.0);
  #endif
    ${TO_SCREEN}
  }`;
}

const QUAD = new THREE.PlaneGeometry(2, 2);

/** One layer of bent air: sprites that show what is behind them, shifted and tinted through a look. */
export class Haze extends LayerDrawing {
  readonly #buffers = new ParticleBuffers();
  readonly #order = new Order();

  protected shaders(layer: DrawnLayer): Shaders {
    const { drawn } = layer;
    if (drawn.kind !== 'haze') throw new Error('this layer is not drawn as haze');
    const { behindIt, pictureSize } = this.around;
    return {
      vertexShader: spriteVertexShader(layer),
      fragmentShader: fragmentShader(layer, drawn),
      look: layer.look,
      uniforms: {
        ...frameUniforms(layer),
        behind_it: behindIt,
        picture_size: pictureSize,
        normals: { value: drawn.picture ? this.around.pictures.raw(drawn.picture) : this.around.pictures.flat },
      },
    };
  }

  protected shape(): THREE.BufferGeometry {
    return QUAD;
  }

  protected take(frame: Frame, found: FrameLayer | undefined): void {
    const count = found?.count ?? 0;
    if (this.#buffers.reserve(count, this.layer!.look.ownWords, QUAD)) this.part(0).geometry = this.#buffers.geometry;
    if (count === 0) return this.#buffers.show(0);
    this.#order.plain(count, false);
    this.#buffers.fill(frame, found!, this.#order);
  }

  /** Whether there is anything that bends. */
  get isSeen(): boolean {
    return this.isShown && this.#buffers.count > 0;
  }
}
