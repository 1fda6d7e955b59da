import * as THREE from 'three';
import { RECORD_WORDS } from '@jinx/core/simulation';
import { dressLayer, layerMaterial } from './layerMaterial.ts';
import type { DrawnLayer } from './protocol.ts';

const FACINGS = ['camera', 'ground', 'own frame'] as const;
export const SHAPES = ['soft dot', 'ring', 'flare', 'disc'] as const;

const vertexShader = /* glsl */ `
  uniform float share;
  uniform int facing;  // 0 the camera, 1 up from the ground, 2 its own frame
  uniform vec3 tiltLow, tiltHigh, axleLow, axleHigh;  // degrees; directions
  uniform uvec3 tiltSlots, axleSlots;
  uniform bool isAligned;
  attribute vec4 start;   // from, birth
  attribute vec4 finish;  // to, angle
  attribute vec4 tint;    // colour, opacity
  attribute vec4 rest;    // size, age, lot, turned a step
  varying vec2 across;
  varying vec4 colour;
  // core/maths/hash.ts, core/simulation/orientation.ts
  uint mixed(uint h) {
    h ^= h >> 16; h *= 0x7feb352du; h ^= h >> 15; h *= 0x846ca68bu; h ^= h >> 16;
    return h;
  }
  float drawnAt(uint lot, uint slot) { return float(mixed(mixed(lot) ^ ((slot + 1u) * 0x9e3779b9u)) >> 8) / 16777216.0; }
  vec3 drawnBetween(vec3 low, vec3 high, uint lot, uvec3 slots) {
    return low + (high - low) * vec3(drawnAt(lot, slots.x), drawnAt(lot, slots.y), drawnAt(lot, slots.z));
  }
  vec3 about(vec3 axis, float angle, vec3 v) {
    return v * cos(angle) + cross(axis, v) * sin(angle) + axis * dot(axis, v) * (1.0 - cos(angle));
  }
  vec3 inOwnFrame(vec3 v, uint lot, float angle) {
    vec3 tilt = radians(drawnBetween(tiltLow, tiltHigh, lot, tiltSlots));
    vec3 axle = drawnBetween(axleLow, axleHigh, lot, axleSlots);
    vec3 axis = length(axle) > 1e-6 ? normalize(axle) : vec3(0.0, 0.0, 1.0);
    v = about(vec3(1.0, 0.0, 0.0), tilt.x, v);
    v = about(vec3(0.0, 1.0, 0.0), tilt.y, v);
    v = about(vec3(0.0, 0.0, 1.0), tilt.z, v);
    return about(axis, angle, v);
  }
  void main() {
    float lived = (share - start.w) / (1.0 - start.w);
    float size = share < start.w ? 0.0 : rest.x * 0.5;
    vec3 place = mix(start.xyz, finish.xyz, clamp(lived, 0.0, 1.0));
    float angle = finish.w - rest.w * (1.0 - share);
    if (isAligned && facing != 2) {
      vec3 going = finish.xyz - start.xyz;
      vec2 way = facing == 1 ? vec2(going.x, -going.z) : (viewMatrix * vec4(going, 0.0)).xy;
      if (dot(way, way) > 0.0) angle += atan(-way.x, way.y);
    }
    vec2 corner = mat2(cos(angle), sin(angle), -sin(angle), cos(angle)) * position.xy * size;
    across = position.xy;
    colour = tint;
    if (facing == 1) gl_Position = projectionMatrix * viewMatrix * vec4(place + vec3(corner.x, 0.006, -corner.y), 1.0);
    else if (facing == 2) {
      vec3 side = inOwnFrame(vec3(position.xy * size, 0.0), uint(rest.z), angle);
      gl_Position = projectionMatrix * viewMatrix * vec4(place + side, 1.0);
    }
    else gl_Position = projectionMatrix * (viewMatrix * vec4(place, 1.0) + vec4(corner, 0.0, 0.0));
  }
`;

const fragmentShader = /* glsl */ `
  uniform int shape;
  uniform float covers;
  varying vec2 across;
  varying vec4 colour;
  float cover() {
    float d = length(across);
    if (shape == 0) { float s = max(0.0, 1.0 - d * d); return s * s * s * (0.3 + 0.7 * exp(-d * d * 9.0)); }
    if (shape == 1) {
      float line = exp(-pow((d - 0.86) / 0.045, 2.0));
      float inner = exp(-pow((d - 0.7) / 0.12, 2.0)) * 0.22;
      return (line + inner) * smoothstep(1.0, 0.95, d);
    }
    if (shape == 2) {
      float s = max(0.0, 1.0 - d);
      vec2 a = abs(across);
      float rays = exp(-a.x * 26.0) * exp(-a.y * 2.6) + exp(-a.y * 26.0) * exp(-a.x * 2.6);
      return pow(s, 4.0) * 1.6 + rays * smoothstep(1.0, 0.3, d) * 0.8 + exp(-d * d * 60.0) * 1.5;
    }
    return smoothstep(1.0, 0.94, d);
  }
  void main() {
    float amount = cover() * colour.a;
    gl_FragColor = vec4(colour.rgb * amount, amount * covers);
  }
`;

/** One layer's sprites: instanced quads read straight from frame records. */
export class Sprites {
  readonly mesh: THREE.Mesh<THREE.InstancedBufferGeometry, THREE.ShaderMaterial>;
  #capacity = 0;
  #buffer: THREE.InstancedInterleavedBuffer | null = null;

  constructor() {
    const material = layerMaterial(vertexShader, fragmentShader, {
      facing: { value: 0 },
      tiltLow: { value: [0, 0, 0] },
      tiltHigh: { value: [0, 0, 0] },
      tiltSlots: { value: [0, 0, 0] },
      axleLow: { value: [0, 0, 0] },
      axleHigh: { value: [0, 0, 0] },
      axleSlots: { value: [0, 0, 0] },
      isAligned: { value: false },
      shape: { value: 0 },
    });
    this.mesh = new THREE.Mesh(new THREE.InstancedBufferGeometry(), material);
    this.mesh.frustumCulled = false;
  }

  dress(layer: DrawnLayer, order: number): void {
    const { uniforms } = this.mesh.material;
    const { tilt, axle } = layer.frames;
    uniforms['facing']!.value = FACINGS.indexOf(layer.facing);
    uniforms['tiltLow']!.value = tilt.low;
    uniforms['tiltHigh']!.value = tilt.high;
    uniforms['tiltSlots']!.value = tilt.slots;
    uniforms['axleLow']!.value = axle.low;
    uniforms['axleHigh']!.value = axle.high;
    uniforms['axleSlots']!.value = axle.slots;
    uniforms['isAligned']!.value = layer.isAligned;
    uniforms['shape']!.value = Math.max(0, SHAPES.indexOf(layer.shape as (typeof SHAPES)[number]));
    dressLayer(this.mesh, layer, order);
  }

  #reserve(count: number): void {
    if (count <= this.#capacity) return;
    this.#capacity = Math.max(256, 2 ** Math.ceil(Math.log2(count)));
    this.mesh.geometry.dispose();
    const geometry = new THREE.InstancedBufferGeometry();
    geometry.setAttribute(
      'position',
      new THREE.BufferAttribute(new Float32Array([-1, -1, 0, 1, -1, 0, 1, 1, 0, -1, 1, 0]), 3),
    );
    geometry.setIndex([0, 1, 2, 0, 2, 3]);
    this.#buffer = new THREE.InstancedInterleavedBuffer(
      new Float32Array(this.#capacity * RECORD_WORDS),
      RECORD_WORDS,
    ).setUsage(THREE.DynamicDrawUsage);
    ['start', 'finish', 'tint', 'rest'].forEach((name, index) =>
      geometry.setAttribute(name, new THREE.InterleavedBufferAttribute(this.#buffer!, 4, index * 4)),
    );
    this.mesh.geometry = geometry;
  }

  /** Takes `count` records that begin at word `at`. */
  load(words: Float32Array, at: number, count: number): void {
    this.#reserve(count);
    this.mesh.geometry.instanceCount = count;
    if (count === 0 || !this.#buffer) return;
    const length = count * RECORD_WORDS;
    this.#buffer.array.set(words.subarray(at, at + length));
    this.#buffer.clearUpdateRanges();
    this.#buffer.addUpdateRange(0, length);
    this.#buffer.needsUpdate = true;
  }

  setShare(share: number): void {
    this.mesh.material.uniforms['share']!.value = share;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
  }
}
