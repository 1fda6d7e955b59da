import * as THREE from 'three';
import { draw } from '@jinx/core/maths';
import { partsOf, type MeshPart } from '@jinx/core/geometry';
import { RECORD_LOT, type Frame, type FrameLayer } from '@jinx/core/simulation';
import { valueOf } from '../looks/shader.ts';
import type { DrawnLayer, DrawnMeshes } from '../protocol.ts';
import { fragmentShader, needsNormal, varyings } from './fragment.ts';
import { LayerDrawing } from './layerDrawing.ts';
import type { Shaders } from './materials.ts';
import { frameUniforms, ParticleBuffers } from './particles.ts';
import { NUDGED, particleCode, particleDeclarations } from './spriteShader.ts';

/** One part of one of the meshes a layer is drawn as. */
interface Piece {
  readonly variant: number;
  readonly part: MeshPart;
}

const meshesOf = ({ drawn }: DrawnLayer): DrawnMeshes => {
  if (drawn.kind !== 'mesh') throw new Error('this layer is not drawn as meshes');
  return drawn;
};

function vertexShader(layer: DrawnLayer): string {
  const { look, facing } = layer;
  const value = (name: string) => valueOf(look, name);
  return /* glsl */ `
  attribute vec3 vertexColour, otherPosition, otherNormal;
  varying vec3 own_colour;
  ${particleDeclarations(layer)}
  void main() {
    ${particleCode(layer)}
    // On the ground a mesh stands as it was made: its up is up.
    ${facing === 'ground' ? 'vec3 level = up; up = out_of; out_of = -level;' : ''}
    vec3 sides = max(vec3(1e-6), 2.0 * size * vec3(${value('life.width')}, ${value('life.height')}, ${value('life.depth')}) * 0.01);
    ${facing === 'motion' ? `sides.y += length(going) * rate * ${value('appearance.lengthening')} * step(1e-7, size);` : ''}
    float other = ${value('drawn/otherShape')} * 0.01;
    vec3 local = mix(position, otherPosition, other) * sides;
    seen_place = place + side * local.x + up * local.y + out_of * local.z;
    seen_at = vec2(uv.x, 1.0 - uv.y);
    own_colour = vertexColour;
    ${
      needsNormal(layer)
        ? `vec3 lying = mix(normal, otherNormal, other) / sides;
    seen_normal = side * lying.x + up * lying.y + out_of * lying.z; seen_side = side; seen_up = up;`
        : ''
    }
    vec4 seen = viewMatrix * vec4(seen_place, 1.0);
    seen_far = -seen.z;
    gl_Position = size > 0.0 ? projectionMatrix * seen : vec4(0.0, 0.0, 2.0, 1.0);
    float nudge = ${value('appearance.nudge')};
    ${NUDGED}
  }`;
}

/** A soft dark spot on the ground under each, fainter the higher it is. */
const shadowVertexShader = (layer: DrawnLayer) => /* glsl */ `
  ${particleDeclarations(layer)}
  varying float shadow_of;
  void main() {
    ${particleCode(layer)}
    float high = max(0.0, place.y);
    float wide = size * (1.1 + high * 0.4);
    seen_at = position.xy * 0.5 + 0.5;
    seen_place = vec3(place.x + position.x * wide, 0.004, place.z - position.y * wide);
    shadow_of = tint.a / (1.0 + high * high * 2.0) * step(1e-6, size);
    seen_far = 1.0;
    gl_Position = projectionMatrix * viewMatrix * vec4(seen_place, 1.0);
  }`;
const shadowFragmentShader = (layer: DrawnLayer) => /* glsl */ `
  ${varyings(layer, true)}
  varying float shadow_of;
  void main() {
    vec2 q = seen_at * 2.0 - 1.0;
    float dark = exp(-dot(q, q) * 3.0) * 0.62 * shadow_of * (1.0 - smoothstep(0.7, 1.0, length(q)));
    gl_FragColor = vec4(0.0, 0.0, 0.0, dark);
  }`;

/** One layer's meshes: each particle is one of them, drawn by lot; each part of a mesh is drawn for all at once. */
export class Meshes extends LayerDrawing {
  #pieces: readonly Piece[] = [];
  readonly #buffers: ParticleBuffers[] = [];
  readonly #shadows = new ParticleBuffers();
  readonly #counts: number[] = [];

  #piecesOf(layer: DrawnLayer): Piece[] {
    return meshesOf(layer).meshes.flatMap(({ asset }, variant) => {
      const mesh = this.around.meshes.of(asset);
      return mesh ? partsOf(mesh.mesh).map((part) => ({ variant, part })) : [];
    });
  }

  protected override partsOf(layer: DrawnLayer): number {
    return this.#piecesOf(layer).length + (meshesOf(layer).hasShadow ? 1 : 0);
  }

  protected shaders(layer: DrawnLayer, part: number, isMask: boolean): Shaders {
    const drawn = meshesOf(layer);
    const pieces = this.#piecesOf(layer);
    const piece = pieces[part];
    if (!piece)
      return {
        vertexShader: shadowVertexShader(layer),
        fragmentShader: shadowFragmentShader(layer),
        look: { ...layer.look, steps: [] },
        uniforms: frameUniforms(layer),
        isShadow: true,
      };
    const mesh = this.around.meshes.of(drawn.meshes[piece.variant]!.asset)!;
    const look = drawn.parts[piece.part.name] ?? layer.look;
    const shown = { ...layer, look };
    const own = drawn.hasOwnColours
      ? 'texture2D(mesh_picture, vec2(seen_at.x, 1.0 - seen_at.y)).rgb * own_colour'
      : '';
    const declared = 'varying vec3 own_colour; uniform sampler2D mesh_picture;';
    return {
      vertexShader: vertexShader(shown),
      fragmentShader: declared + fragmentShader(shown, { isFlat: true, isMask, base: own }),
      look,
      uniforms: { ...frameUniforms(layer), mesh_picture: { value: mesh.picture } },
    };
  }

  protected shape(layer: DrawnLayer, part: number): THREE.BufferGeometry {
    const piece = this.#piecesOf(layer)[part];
    return piece ? this.around.meshes.of(meshesOf(layer).meshes[piece.variant]!.asset)!.geometry : QUAD;
  }

  protected take(frame: Frame, found: FrameLayer | undefined): void {
    const layer = this.layer!;
    const drawn = meshesOf(layer);
    this.#pieces = this.#piecesOf(layer);
    const count = found?.count ?? 0;
    const chances = drawn.meshes.map(({ asset, chance }) => (this.around.meshes.of(asset) ? chance : 0));
    const sum = chances.reduce((a, b) => a + b, 0);
    drawn.meshes.forEach(({ asset }, variant) => {
      this.#counts[variant] = 0;
      const mesh = this.around.meshes.of(asset);
      if (mesh) (this.#buffers[variant] ??= new ParticleBuffers()).reserve(count, layer.look.ownWords, mesh.geometry);
    });
    for (let n = 0; n < count && sum > 0; n++) {
      const lot = frame.f32[frame.recordAt(found!.start + n) + RECORD_LOT]!;
      let left = draw(lot, drawn.slot) * sum;
      let variant = 0;
      while (variant < chances.length - 1 && (left -= chances[variant]!) >= 0) variant++;
      while (chances[variant] === 0) variant--;
      this.#buffers[variant]!.put(frame, found!, n, this.#counts[variant]!++);
    }
    this.#buffers.forEach((buffers, variant) => buffers.show(this.#counts[variant] ?? 0));
    this.#pieces.forEach(({ variant, part }, n) => this.#setPiece(n, this.#buffers[variant]!, part));
    if (!drawn.hasShadow) return;
    this.#shadows.reserve(count, layer.look.ownWords, QUAD);
    for (let n = 0; n < count; n++) this.#shadows.put(frame, found!, n, n);
    this.#shadows.show(count);
    this.part(this.#pieces.length).geometry = this.#shadows.geometry;
  }

  /** Parts of one mesh share its particles; each draws its own stretch of the triangles. */
  #setPiece(n: number, buffers: ParticleBuffers, { start, count }: MeshPart): void {
    const mesh = this.part(n);
    mesh.geometry = buffers.geometry;
    mesh.onBeforeRender = () => mesh.geometry.setDrawRange(start, count);
  }
}

const QUAD = new THREE.PlaneGeometry(2, 2);
