import * as THREE from 'three';
import type { StageView } from '../protocol.ts';
import { RAMP, SPEEDS } from '../views.ts';

/** What `view_kind` is for each view. */
export const VIEW_KINDS: Record<StageView, number> = {
  picture: 0,
  grey: 0,
  silhouette: 1,
  particle: 2,
  age: 3,
  speed: 4,
  layer: 5,
  distance: 6,
  identity: 7,
  bend: 8,
  motion: 9,
  normal: 10,
};

/** How much of a pixel something covers at least to be marked in views that tell which it is, or how far away. */
export const MARKED = '0.25';

const vector = (hex: string): string => {
  const { r, g, b } = new THREE.Color(hex);
  return `vec3(${[r, g, b].map((c) => c.toFixed(5)).join(', ')})`;
};
const doublings = Math.log2(SPEEDS.at(-1)! + 1);

/**
 * The tone of a fragment in a view that replaces the picture. Only shaders with HAS_VIEW have it; it wants `age`, `lot` and
 * `drawnAt`.
 */
export const VIEW_TONES = /* glsl */ `
  #ifdef HAS_VIEW
  uniform int view_kind;
  uniform vec3 layer_tone;
  varying vec3 seen_going;
  uniform mat4 projectionMatrix;
  uniform float moving_seconds;
  vec3 ramp(float share) {
    float at = clamp(share, 0.0, 1.0) * ${(RAMP.length - 1).toFixed(1)};
    vec3 tone = ${vector(RAMP[0])};
    ${RAMP.slice(1)
      .map((hex, n) => `tone = mix(tone, ${vector(hex)}, clamp(at - ${n.toFixed(1)}, 0.0, 1.0));`)
      .join('\n    ')}
    return tone;
  }
  // How far what is seen moves in the picture until the next is taken, in shares of its width and its height.
  vec3 movedInPicture() {
    vec4 now = projectionMatrix * viewMatrix * vec4(seen_place, 1.0);
    vec4 later = projectionMatrix * viewMatrix * vec4(seen_place + seen_going * moving_seconds, 1.0);
    return vec3((later.xy / later.w - now.xy / now.w) * 0.5, 0.0);
  }
  vec3 viewTone() {
    if (view_kind == 1) return vec3(1.0);
    if (view_kind == 2) {
      float hue = drawnAt(lot, 7010u) * 6.2831853;
      vec3 tone = 0.5 + 0.45 * cos(hue + vec3(0.0, 2.0943951, 4.1887902));
      return mix(tone, tone * tone, drawnAt(lot, 7011u));
    }
    if (view_kind == 3) return ramp(age);
    if (view_kind == 9) return movedInPicture();
    if (view_kind == 10) return vec3(0.0, 0.0, 1.0);
    if (view_kind == 6) return vec3(eye_distance);
    if (view_kind == 7) return vec3(layer_tone.x + float(lot >> 22) * 256.0, float(lot & 2047u), float((lot >> 11) & 2047u));
    if (view_kind == 4) return ramp(log2(1.0 + length(seen_going)) / ${doublings.toFixed(5)});
    return layer_tone;
  }
  #endif
`;

/** What of the world beside the effect is left in such a view: how bright a figure is, and the flat rest. */
export const FLAT_FIGURE = '0.05 + 0.12 * dot(c, vec3(0.2126, 0.7152, 0.0722))';
export const FLAT_WORLD = 'vec3(0.008)';
