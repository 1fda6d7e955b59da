import { FOG, LIGHT, SURFACE_LIGHT } from '../looks/light.ts';
import { lookCode, ownVaryings, readsDepth, valueDeclarations, valueOf } from '../looks/shader.ts';
import { MARKED, VIEW_KINDS, VIEW_TONES } from '../looks/viewTones.ts';
import type { DrawnLayer } from '../protocol.ts';

/** Whether a layer's shaders need to know how its surface lies: it is lit, or a step of its look reads it. */
export const needsNormal = ({ lit, look }: Pick<DrawnLayer, 'lit' | 'look'>): boolean =>
  lit !== 'unlit' || look.steps.some(({ kind }) => kind === 'rim');

export const isSolid = ({ blend, drawn }: Pick<DrawnLayer, 'blend' | 'drawn'>): boolean =>
  (blend === 'solid' || blend === 'holes') && drawn.kind !== 'haze' && drawn.kind !== 'light';

/** Whether a layer asks how far what is solid lies behind it. */
export const needsDepth = (layer: Pick<DrawnLayer, 'look' | 'wraps'>): boolean =>
  layer.wraps || readsDepth(layer.look);

/** What both shaders of a layer hand over, whatever its kind. */
export const varyings = (layer: DrawnLayer, isFlat: boolean): string => `
  varying vec2 seen_at;
  varying vec4 colour;
  varying vec3 seen_place;
  varying float seen_age, seen_seconds, seen_far;
  flat varying uint seen_lot;
  ${needsNormal(layer) ? 'varying vec3 seen_normal; flat varying vec3 seen_side, seen_up;' : ''}
  ${ownVaryings(layer.look, isFlat)}`;

/** Among what somebody else draws, colours go through their tone curve into their colour space. */
export const TO_SCREEN = /* glsl */ `
  #ifdef IS_GUEST
    #include <tonemapping_fragment>
    #include <colorspace_fragment>
  #endif`;

/** A grain for fading solid things: interleaved gradient noise (Jimenez, 2014, Next Generation Post Processing). */
const GRAIN = 'fract(52.9829189 * fract(dot(gl_FragCoord.xy, vec2(0.06711056, 0.00583715))))';

/** How colour `c` and opacity `o` mix with what is behind: premultiplied, except where they multiply it. */
function blended({ blend, look }: DrawnLayer): string {
  const value = (name: string) => valueOf(look, name);
  switch (blend) {
    case 'additive':
      return 'gl_FragColor = vec4(c * o * (1.0 - fog) * added, 0.0);';
    case 'normal':
      return 'gl_FragColor = vec4(mix(c, fog_colour, fog) * o, o);';
    case 'mixed':
      return `
      float covers = ${value('appearance.covers')} * 0.01;
      gl_FragColor = vec4(mix(c * mix(covers, 1.0, added), fog_colour * covers, fog) * o, o * covers);`;
    case 'multiply':
      return 'gl_FragColor = vec4(mix(vec3(1.0), c, o * (1.0 - fog)), 1.0);';
    case 'solid':
    case 'holes':
      return 'gl_FragColor = vec4(mix(c, fog_colour, fog), 1.0);';
  }
}

/** How much of what is behind a layer covers, whatever it mixes with: what a view shows of it. */
function covering({ blend }: DrawnLayer): string {
  if (blend === 'additive') return 'o * clamp(max(c.r, max(c.g, c.b)), 0.0, 1.0)';
  if (blend === 'multiply') return 'o * (1.0 - clamp(min(c.r, min(c.g, c.b)), 0.0, 1.0))';
  return 'o';
}

/** While an age is pointed at, what has it shines, where its layer says so (2), and all else is dimmed (1). */
const LIT_AGE = `
    if (lit_here > 0.5) {
      float has_it = lit_here < 1.5 ? 0.0 : 1.0 - smoothstep(0.012, 0.035, abs(age - lit_age));
      float covers = o * clamp(max(c.r, max(c.g, c.b)) * 4.0, 0.0, 1.0);
      gl_FragColor.rgb = mix(gl_FragColor.rgb * 0.15, vec3(1.5, 1.8, 0.6) * covers, has_it);
    }`;

/** What is not drawn at all: of solid layers what has faded away, and holes; of masks all that covers less than half. */
function discarded(layer: DrawnLayer, isMask: boolean): string {
  if (isMask) return 'if (a * colour.a < 0.5) discard;';
  const faded = `if (colour.a <= ${GRAIN}) discard;`;
  if (layer.blend === 'solid') return faded;
  if (layer.blend !== 'holes') return '';
  return `if (a < ${valueOf(layer.look, 'appearance.threshold')} * 0.01) discard; ${faded}`;
}

/** How far what is solid lies behind: the same from pixel to pixel, no blending between what is near and what is far. */
export const BEHIND = /* glsl */ `
  #ifdef HAS_NO_DEPTH
  float behind() { return 1e4; }
  #else
  float behind() { return texelFetch(depths, ivec2(gl_FragCoord.xy), 0).r; }
  #endif`;

/** How the surface lies at a fragment: as its own, as a card turned to the eye, or as a ball. */
export const NORMAL = {
  surface: 'vec3 normal = normalize(gl_FrontFacing ? seen_normal : -seen_normal);',
  card: 'vec3 normal = normalize(dot(seen_normal, cameraPosition - seen_place) < 0.0 ? -seen_normal : seen_normal);',
  ball: `
      vec2 on_ball = seen_at * 2.0 - 1.0;
      float out_of = sqrt(max(0.0, 1.0 - dot(on_ball, on_ball)));
      vec3 normal = normalize(seen_side * on_ball.x + seen_up * on_ball.y + seen_normal * out_of);`,
};

export interface FragmentOptions {
  /** Whether what differs between particles is the same all over each. */
  readonly isFlat: boolean;
  /** What the layer's kind adds: code that may move `at`, the place in its look. */
  readonly surface?: string;
  /** Code for a colour that the look's is multiplied by. */
  readonly base?: string;
  /** What that code declares. */
  readonly declarations?: string;
  /** Code for light that is added at the end. */
  readonly glow?: string;
  /** Whether it only marks where the layer covers the picture. */
  readonly isMask?: boolean;
  /** Whether only the first `upto` steps of its look act. */
  readonly isCut?: boolean;
}

/** The fragment shader of a layer. */
export function fragmentShader(layer: DrawnLayer, options: FragmentOptions): string {
  const { isFlat, surface = '', base = '', declarations = '', glow = '', isMask = false, isCut = false } = options;
  const { look, lit } = layer;
  const hasNormal = needsNormal(layer);
  const isMesh = layer.drawn.kind === 'mesh';
  const hasSurface = isMesh || layer.drawn.kind === 'body';
  const value = (name: string) => valueOf(look, name);
  return /* glsl */ `
  ${varyings(layer, isFlat)}
  ${valueDeclarations(look)}
  uniform sampler2D depths;
  uniform float lit_here, lit_age, added;
  float seconds, age, toward_eye, eye_distance;
  uint lot;
  ${BEHIND}
  ${lookCode(look, isCut)}
  ${VIEW_TONES}
  ${lit !== 'unlit' ? LIGHT : ''}
  ${lit !== 'unlit' && isMesh ? SURFACE_LIGHT : ''}
  ${FOG}
  ${declarations}
  void main() {
    seconds = seen_seconds; age = seen_age; lot = seen_lot; eye_distance = seen_far; toward_eye = 1.0;
    vec2 at = seen_at;
    ${hasNormal ? NORMAL[hasSurface ? 'surface' : lit === 'card' ? 'card' : 'ball'] : ''}
    ${hasNormal ? 'toward_eye = dot(normal, normalize(cameraPosition - seen_place));' : ''}
    ${surface}
    vec3 rgb, emit;
    float a;
    lookAt(at, rgb, a, emit);
    ${layer.wraps ? 'a *= wrapped;' : ''}
    ${discarded(layer, isMask)}
    vec3 c = rgb * colour.rgb${base ? ` * ${base}` : ''};
    float o = ${isSolid(layer) ? '1.0' : 'a * colour.a'};
    ${
      lit === 'unlit'
        ? ''
        : isMesh
          ? `c = mix(c, surfaceLight(c, seen_place, normal, ${value('drawn/roughness')} * 0.01, ${value('drawn/metalness')} * 0.01), ${value('appearance.litShare')} * 0.01);`
          : `c *= mix(vec3(1.0), lightOn(seen_place, normal, ${hasSurface ? '0.0' : lit === 'card' ? '0.35' : '0.1'}), ${value('appearance.litShare')} * 0.01);`
    }
    c += emit${glow ? ` + ${glow}` : ''};
  #ifdef HAS_VIEW
    float covers_it = ${covering(layer)};
    if (view_kind == ${VIEW_KINDS.bend}) discard;
    if (view_kind == ${VIEW_KINDS.distance} || view_kind == ${VIEW_KINDS.identity}) covers_it = step(${MARKED}, covers_it);
    vec3 tone = viewTone();
    ${hasNormal ? `if (view_kind == ${VIEW_KINDS.normal}) tone = mat3(viewMatrix) * normal;` : ''}
    gl_FragColor = vec4(tone * covers_it, covers_it);
  #else
    float fog = fogBefore(seen_place);
    ${blended(layer)}
    ${layer.blend === 'multiply' ? '' : LIT_AGE}
  #endif
    ${TO_SCREEN}
  }`;
}
