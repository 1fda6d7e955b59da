import { JOINT_OWN, JOINT_WORDS } from '@jinx/core/simulation';
import { ownHandedOn, valueDeclarations, valueOf } from '../looks/shader.ts';
import type { DrawnLayer, DrawnRibbon } from '../protocol.ts';
import { needsNormal, varyings } from './fragment.ts';
import { NUDGED } from './spriteShader.ts';

/** Texels of one joint. */
export const JOINT_TEXELS = JOINT_WORDS / 4;
/** Joints in one row of their texture. */
export const JOINTS_A_ROW = 128;
/** How a layer's ribbons lie. */
export function ribbonOf({ drawn }: DrawnLayer): DrawnRibbon {
  if (drawn.kind !== 'ribbon') throw new Error('this layer is not drawn as ribbons');
  return drawn;
}

/** Sides of a tube. */
export const TUBE_SIDES = 8;

/**
 * The vertex shader of a layer of ribbons. An instance is the piece from one joint to the next; `position.x` is the edge,
 * −1 to 1 (round a tube 0 to 1), `position.y` the end (0 or 1), `position.z` which of two crossed bands.
 */
export function ribbonVertexShader(layer: DrawnLayer): string {
  const { look } = layer;
  const ribbon = ribbonOf(layer);
  const isTube = ribbon.form === 'tube';
  const own = Array.from(
    { length: look.ownWords / 4 },
    (_, n) => `vec4 own${n} = jointPart(number, ${JOINT_OWN / 4 + n});`,
  );
  return /* glsl */ `
  uniform float share, rate;
  uniform sampler2D joints;
  ${valueDeclarations(look)}
  attribute float piece;
  #ifdef HAS_VIEW
  varying vec3 seen_going;
  #endif
  ${varyings(layer, false)}
  vec4 jointPart(int number, int part) {
    int texel = number * ${JOINT_TEXELS} + part;
    return texelFetch(joints, ivec2(texel % ${JOINTS_A_ROW * JOINT_TEXELS}, texel / ${JOINTS_A_ROW * JOINT_TEXELS}), 0);
  }
  void main() {
    int number = int(piece) + int(position.y);
    vec4 start = jointPart(number, 0);    // from, arrives
    vec4 finish = jointPart(number, 1);   // to, metres
    vec4 tint = jointPart(number, 2);     // colour, opacity
    vec4 rest = jointPart(number, 3);     // half width, age, along, fixed
    vec4 tangent = jointPart(number, 4);  // tangent, ends
    vec4 level = jointPart(number, 5);    // side, lot
    vec4 bend = jointPart(number, 6);     // bend, length
    ${own.join('\n    ')}
    ${ownHandedOn(look)}
    vec3 place = mix(start.xyz, finish.xyz, clamp(share / start.w, 0.0, 1.0));
    vec3 turned = cross(tangent.xyz, cameraPosition - place);
    float size = length(turned);
    vec3 side = rest.w > 0.5 || size < 1e-6 ? level.xyz : turned / size;
    vec3 out_of = cross(side, tangent.xyz);
    ${
      isTube
        ? `
    vec3 round_to = cross(tangent.xyz, level.xyz);
    float turn = position.x * 6.2831853;
    side = level.xyz * cos(turn) + round_to * sin(turn);
    out_of = side;
    float edge = 1.0;`
        : `
    ${
      ribbon.form === 'crossed'
        ? `// Crossed bands stand in the ribbon's own frame: turned to the camera, one of them would never be seen.
    side = level.xyz; out_of = cross(side, tangent.xyz);
    if (position.z > 0.5) { vec3 kept = side; side = out_of; out_of = kept; }`
        : ''
    }
    float edge = position.x;`
    }
    // The inside of a bend is no wider than the bend leaves room for: the same as edgesInto of the core.
    float inward = dot(side, bend.xyz) * edge;
    float width = inward > 1e-9 ? min(rest.x, 1.0 / inward) : rest.x;
    seen_place = place + side * edge * width;
    seen_at = vec2(${isTube ? 'position.x' : 'edge * 0.5 + 0.5'}, ${ribbon.isTiled ? `finish.w / max(0.0001, ${valueOf(look, 'drawn/tile')})` : 'rest.z'});
    seen_lot = uint(level.w);
  #ifdef HAS_VIEW
    seen_going = (finish.xyz - start.xyz) * rate / start.w;
  #endif
    seen_age = rest.y;
    seen_seconds = ${valueOf(look, 'seconds')} - (1.0 - share) / rate;
    colour = tint;
    ${needsNormal(layer) ? 'seen_normal = out_of; seen_side = side; seen_up = tangent.xyz;' : ''}
    vec4 seen = viewMatrix * vec4(seen_place, 1.0);
    seen_far = -seen.z;
    gl_Position = projectionMatrix * seen;
    float nudge = ${valueOf(look, 'appearance.nudge')};
    ${NUDGED}
    // Nothing is drawn from the last joint of a ribbon to the first of the next.
    if (jointPart(int(piece), 4).w > 0.5) gl_Position = vec4(0.0, 0.0, 2.0, 1.0);
  }`;
}
