import * as THREE from 'three';
import { JOINT_ENDS, JOINT_WORDS } from '@jinx/core/simulation';
import { dressLayer, layerMaterial } from './layerMaterial.ts';
import type { DrawnLayer } from './protocol.ts';

/** Attributes of a joint, four words each, and the word at which each begins; JOINT_* of the core's frames. */
const PARTS = [
  ['start', 0],
  ['finish', 4],
  ['tint', 8],
  ['rest', 12],
  ['tangent', 16],
  ['level', 20],
  ['bend', 24],
] as const;

const vertexShader = /* glsl */ `
  uniform float share;
  attribute vec4 start;   // from, arrives
  attribute vec4 finish;  // to, metres
  attribute vec4 tint;    // colour, opacity
  attribute vec4 rest;    // half width, age, along, fixed
  attribute vec4 tangent; // tangent, ends
  attribute vec4 level;   // side
  attribute vec4 bend;
  varying float across;
  varying vec4 colour;
  void main() {
    // Every joint is there twice, once for each edge.
    float edge = (gl_VertexID & 1) == 0 ? -1.0 : 1.0;
    vec3 place = mix(start.xyz, finish.xyz, clamp(share / start.w, 0.0, 1.0));
    vec3 turned = cross(tangent.xyz, cameraPosition - place);
    float size = length(turned);
    vec3 side = rest.w > 0.5 || size < 1e-6 ? level.xyz : turned / size;
    // The inside of a bend is no wider than the bend leaves room for: the same as edgesInto of the core.
    float inward = dot(side, bend.xyz) * edge;
    float width = inward > 1e-9 ? min(rest.x, 1.0 / inward) : rest.x;
    across = edge;
    colour = tint;
    gl_Position = projectionMatrix * viewMatrix * vec4(place + side * edge * width, 1.0);
  }
`;

const fragmentShader = /* glsl */ `
  uniform float covers;
  varying float across;
  varying vec4 colour;
  void main() {
    // Soft toward both edges, as a soft dot is.
    float s = 1.0 - across * across;
    float amount = s * s * (0.4 + 0.6 * exp(-across * across * 9.0)) * colour.a;
    gl_FragColor = vec4(colour.rgb * amount, amount * covers);
  }
`;

/** One layer's ribbons: two triangles from each joint of a frame to the next. */
export class Ribbons {
  readonly mesh: THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial>;
  #capacity = 0;
  #buffer: THREE.InterleavedBuffer | null = null;

  constructor() {
    const material = layerMaterial(vertexShader, fragmentShader);
    material.side = THREE.DoubleSide;
    this.mesh = new THREE.Mesh(new THREE.BufferGeometry(), material);
    this.mesh.frustumCulled = false;
  }

  dress(layer: DrawnLayer, order: number): void {
    dressLayer(this.mesh, layer, order);
  }

  #reserve(joints: number): void {
    if (joints <= this.#capacity) return;
    this.#capacity = Math.max(256, 2 ** Math.ceil(Math.log2(joints)));
    this.mesh.geometry.dispose();
    const geometry = new THREE.BufferGeometry();
    const words = new Float32Array(this.#capacity * 2 * JOINT_WORDS);
    const buffer = new THREE.InterleavedBuffer(words, JOINT_WORDS).setUsage(THREE.DynamicDrawUsage);
    for (const [part, at] of PARTS) geometry.setAttribute(part, new THREE.InterleavedBufferAttribute(buffer, 4, at));
    const indices = new THREE.BufferAttribute(new Uint32Array(this.#capacity * 6), 1);
    geometry.setIndex(indices.setUsage(THREE.DynamicDrawUsage));
    this.#buffer = buffer;
    this.mesh.geometry = geometry;
  }

  /** Takes `count` joints that begin at word `at`. */
  load(words: Float32Array, at: number, count: number): void {
    this.#reserve(count);
    const { geometry } = this.mesh;
    const { index } = geometry;
    if (!this.#buffer || !index) return;
    const { array } = this.#buffer;
    let corners = 0;
    for (let n = 0; n < count; n++) {
      const joint = words.subarray(at + n * JOINT_WORDS, at + (n + 1) * JOINT_WORDS);
      array.set(joint, n * 2 * JOINT_WORDS);
      array.set(joint, (n * 2 + 1) * JOINT_WORDS);
      if (joint[JOINT_ENDS]! > 0.5 || n + 1 === count) continue;
      for (const corner of PIECE) index.array[corners++] = n * 2 + corner;
    }
    geometry.setDrawRange(0, corners);
    for (const [buffer, length] of [
      [this.#buffer, count * 2 * JOINT_WORDS],
      [index, corners],
    ] as const) {
      buffer.clearUpdateRanges();
      buffer.addUpdateRange(0, length);
      buffer.needsUpdate = true;
    }
  }

  setShare(share: number): void {
    this.mesh.material.uniforms['share']!.value = share;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
  }
}

/** Corners of the two triangles of a piece, counted from its first joint's. */
const PIECE = [0, 1, 3, 0, 3, 2];
