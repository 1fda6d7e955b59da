import { NOISE } from '../looks/noise.ts';
import { ownAttributes, ownHandedOn, valueDeclarations, valueOf } from '../looks/shader.ts';
import type { DrawnLayer } from '../protocol.ts';
import { needsNormal, varyings } from './fragment.ts';

/** Sides of a sprite, each of length 1, and what stands out of it; the place and its way are known. */
const FRAMES: Record<DrawnLayer['facing'], string> = {
  camera: 'side = eye_side; up = eye_up; out_of = cross(side, up);',
  upright: `
    side = cross(vec3(0.0, 1.0, 0.0), cameraPosition - place);
    side = dot(side, side) > 1e-9 ? normalize(side) : eye_side;
    up = vec3(0.0, 1.0, 0.0); out_of = cross(side, up);`,
  motion: `
    up = dot(going, going) > 1e-12 ? normalize(going) : vec3(0.0, 1.0, 0.0);
    side = cross(up, cameraPosition - place);
    side = dot(side, side) > 1e-9 ? normalize(side) : eye_side;
    out_of = cross(side, up);`,
  ground: 'side = vec3(1.0, 0.0, 0.0); up = vec3(0.0, 0.0, -1.0); out_of = vec3(0.0, 1.0, 0.0);',
  'own frame': `
    side = inOwnFrame(vec3(1.0, 0.0, 0.0), lot, angle); up = inOwnFrame(vec3(0.0, 1.0, 0.0), lot, angle);
    out_of = cross(side, up); angle = 0.0;`,
};

/** What of the way a sprite is going lies across and along it, for turning it along its motion. */
const ALIGNED = `
    vec2 along = vec2(dot(going, side), dot(going, up));
    if (dot(along, along) > 0.0) angle += atan(-along.x, along.y);`;

/** A vector of particles in their own frames: drawn between two ends by lot, or among the numbers of a frame where it is shaped. */
const frameVector = ({ places }: DrawnLayer['look'], name: 'tilt' | 'axle') =>
  places[`life.${name}/x`]
    ? `vec3(${['x', 'y', 'z'].map((axis) => valueOf({ places }, `life.${name}/${axis}`)).join(', ')})`
    : `drawnBetween(${name}_low, ${name}_high, lot, ${name}_slots)`;

const ownFrame = (look: DrawnLayer['look']) => /* glsl */ `
  uniform vec3 tilt_low, tilt_high, axle_low, axle_high;  // degrees; directions
  uniform uvec3 tilt_slots, axle_slots;
  uniform vec4 source_turns[2];
  // core/simulation/scene/orientation.ts
  vec3 drawnBetween(vec3 low, vec3 high, uint lot, uvec3 slots) {
    return low + (high - low) * vec3(drawnAt(lot, slots.x), drawnAt(lot, slots.y), drawnAt(lot, slots.z));
  }
  vec3 about(vec3 axis, float angle, vec3 v) {
    return v * cos(angle) + cross(axis, v) * sin(angle) + axis * dot(axis, v) * (1.0 - cos(angle));
  }
  vec3 inOwnFrame(vec3 v, uint lot, float angle) {
    vec3 tilt = radians(${frameVector(look, 'tilt')});
    vec3 axle = ${frameVector(look, 'axle')};
    vec3 axis = length(axle) > 1e-6 ? normalize(axle) : vec3(0.0, 0.0, 1.0);
    v = about(vec3(1.0, 0.0, 0.0), tilt.x, v);
    v = about(vec3(0.0, 1.0, 0.0), tilt.y, v);
    v = about(vec3(0.0, 0.0, 1.0), tilt.z, v);
    vec4 from = source_turns[0];
    vec4 turn = normalize(mix(dot(from, source_turns[1]) < 0.0 ? -from : from, source_turns[1], share));
    v += 2.0 * cross(turn.xyz, cross(turn.xyz, v) + turn.w * v);
    return about(axis, angle, v);
  }`;

/** Lets a point be hidden as if it were nearer to the camera than it is. */
export const NUDGED = `
    if (nudge != 0.0) {
      vec4 nearer = projectionMatrix * (seen + vec4(normalize(-seen.xyz) * nudge, 0.0));
      gl_Position.z = nearer.z / nearer.w * gl_Position.w;
    }`;

/** What vertex shaders of particles that stand by themselves declare. */
export const particleDeclarations = (layer: DrawnLayer): string => `
  uniform float share, rate;
  ${valueDeclarations(layer.look)}
  attribute vec4 start;   // from, birth
  attribute vec4 finish;  // to, angle
  attribute vec4 tint;    // colour, opacity
  attribute vec4 rest;    // size, age, lot, turned a step
  ${ownAttributes(layer.look)}
  ${varyings(layer, true)}
  ${NOISE}
  ${ownFrame(layer.look)}
  #ifdef HAS_VIEW
  varying vec3 seen_going;
  #endif`;

/** Code that finds the particle's `place`, half its `size`, and its sides, each of length 1; it hands on what all do. */
export function particleCode(layer: DrawnLayer): string {
  const { look, facing, isAligned } = layer;
  return /* glsl */ `
    ${ownHandedOn(look)}
    uint lot = uint(rest.z);
    float lived = (share - start.w) / (1.0 - start.w);
    float size = share < start.w ? 0.0 : rest.x * 0.5;
    vec3 place = mix(start.xyz, finish.xyz, clamp(lived, 0.0, 1.0));
    vec3 going = (finish.xyz - start.xyz) / (1.0 - start.w);
    float angle = finish.w - rest.w * (1.0 - share);
    vec3 eye_side = vec3(viewMatrix[0][0], viewMatrix[1][0], viewMatrix[2][0]);
    vec3 eye_up = vec3(viewMatrix[0][1], viewMatrix[1][1], viewMatrix[2][1]);
    vec3 side, up, out_of;
    ${FRAMES[facing]}
    ${isAligned && facing !== 'own frame' ? ALIGNED : ''}
    float turn_cos = cos(angle), turn_sin = sin(angle);
    vec3 turned = side * turn_cos + up * turn_sin;
    up = up * turn_cos - side * turn_sin;
    side = turned;
    seen_lot = lot;
  #ifdef HAS_VIEW
    seen_going = going * rate;
  #endif
    seen_age = rest.y;
    seen_seconds = ${valueOf(look, 'seconds')} - (1.0 - share) / rate;
    colour = tint;`;
}

/** The vertex shader of a layer of sprites, or of the boxes that marks are drawn with. */
export function spriteVertexShader(layer: DrawnLayer): string {
  const { look, facing, wraps } = layer;
  const value = (name: string) => valueOf(look, name);
  const isOnGround = facing === 'ground';
  return /* glsl */ `
  ${particleDeclarations(layer)}
  ${wraps ? MARK_VARYINGS : ''}
  void main() {
    ${particleCode(layer)}
    vec2 half_size = size * vec2(${value('life.width')}, ${value('life.height')}) * 0.01;
    ${facing === 'motion' ? `half_size.y += length(going) * rate * ${value('appearance.lengthening')} * 0.5 * step(1e-7, size);` : ''}
    vec2 pivot = vec2(${value('appearance.pivotAcross')}, ${value('appearance.pivotAlong')}) * 0.02;
    seen_at = position.xy * 0.5 + 0.5;
    ${
      wraps
        ? `
    mark_place = place + side * pivot.x * half_size.x + up * pivot.y * half_size.y;
    mark_side = side; mark_up = up; mark_out = out_of;
    mark_half = vec3(half_size, ${value('appearance.wrapDepth')} * step(1e-7, size));
    seen_place = mark_place + side * position.x * mark_half.x + up * position.y * mark_half.y + out_of * position.z * mark_half.z;`
        : `
    vec2 corner = (position.xy + pivot) * half_size;
    seen_place = place + side * corner.x + up * corner.y${isOnGround ? ' + vec3(0.0, 0.006, 0.0)' : ''};`
    }
    ${needsNormal(layer) ? 'seen_normal = out_of; seen_side = side; seen_up = up;' : ''}
    vec4 seen = viewMatrix * vec4(seen_place, 1.0);
    seen_far = -seen.z;
    gl_Position = projectionMatrix * seen;
    float nudge = ${value('appearance.nudge')};
    ${NUDGED}
  }`;
}

/** Where a mark lies, handed to its fragments. */
export const MARK_VARYINGS =
  'flat varying vec3 mark_place, mark_side, mark_up, mark_out; flat varying vec3 mark_half;';

/** What a mark's fragments do first: they find the place on what is solid, and where that lies in the mark. */
export const WRAPPING = /* glsl */ `
    float solid_far = behind();
    vec3 solid = cameraPosition + (seen_place - cameraPosition) * (solid_far / seen_far);
    vec3 off = solid - mark_place;
    vec3 inside = vec3(dot(off, mark_side), dot(off, mark_up), dot(off, mark_out)) / max(mark_half, vec3(1e-6));
    vec3 facing = cross(dFdx(solid), dFdy(solid));
    float lies = abs(dot(facing, mark_out)) / max(length(facing), 1e-9);
    if (any(greaterThan(abs(inside), vec3(1.0)))) discard;
    at = inside.xy * 0.5 + 0.5;
    // What is too steep, or near the end of its depth, is left out softly.
    float wrapped = smoothstep(0.15, 0.4, lies) * (1.0 - smoothstep(0.6, 1.0, abs(inside.z)));`;
