import * as THREE from 'three';
import {
  COLOUR_PARTS,
  RECORD_AGE,
  RECORD_BIRTH,
  RECORD_COLOUR,
  RECORD_LOT,
  RECORD_OPACITY,
  type Frame,
  type FrameLayer,
} from '@jinx/core/simulation';
import type { FigureMesh } from '../figure.ts';
import { FRONT, frontUniforms, setFront } from '../looks/front.ts';
import { vec3 } from '../looks/steps.ts';
import { valueDeclarations, valueOf } from '../looks/shader.ts';
import type { DrawnBody, DrawnLayer } from '../protocol.ts';
import { fragmentShader, needsNormal, varyings } from './fragment.ts';
import { LayerDrawing } from './layerDrawing.ts';
import type { Shaders } from './materials.ts';

/** Particles of one layer that are drawn on a skin at once. */
const MOST_SKINS = 4;

const bodyOf = ({ drawn }: DrawnLayer): DrawnBody => {
  if (drawn.kind !== 'body') throw new Error('this layer is not drawn on a body');
  return drawn;
};

function vertexShader(layer: DrawnLayer): string {
  const { look } = layer;
  const own = Array.from({ length: look.ownWords / 4 }, (_, n) => `own_values${n} = skin_own[${n}];`);
  return /* glsl */ `
  #include <common>
  #include <skinning_pars_vertex>
  uniform float share, rate;
  ${valueDeclarations(look)}
  uniform vec4 skin_tint, skin_rest;  // colour, opacity; age, lot
  uniform vec4 skin_own[2];
  ${varyings(layer, true)}
  varying vec3 seen_rest;
  #ifdef HAS_VIEW
  varying vec3 seen_going;
  #endif
  void main() {
    #include <skinbase_vertex>
    #include <beginnormal_vertex>
    #include <skinnormal_vertex>
    #include <begin_vertex>
    #include <skinning_vertex>
    ${own.join('\n    ')}
    vec3 out_of = normalize(mat3(modelMatrix) * objectNormal);
    seen_place = (modelMatrix * vec4(transformed, 1.0)).xyz + out_of * ${valueOf(look, 'drawn/offset')};
    seen_rest = position;
    seen_at = vec2(uv.x, 1.0 - uv.y);
  #ifdef HAS_VIEW
    seen_going = vec3(0.0);
  #endif
    seen_age = skin_rest.x; seen_lot = uint(skin_rest.y);
    seen_seconds = ${valueOf(look, 'seconds')} - (1.0 - share) / rate;
    colour = skin_tint;
    ${needsNormal(layer) ? 'seen_normal = out_of; seen_side = vec3(1.0, 0.0, 0.0); seen_up = vec3(0.0, 1.0, 0.0);' : ''}
    vec4 seen = viewMatrix * vec4(seen_place, 1.0);
    seen_far = -seen.z;
    gl_Position = projectionMatrix * seen;
  }`;
}

/** The colour of the edge: the same for all, or among the numbers of a frame. */
const edgeColourOf = ({ look }: DrawnLayer, edgeColour: DrawnBody['edgeColour']): string =>
  look.places['drawn/colour/red']
    ? `vec3(${COLOUR_PARTS.map((part) => valueOf(look, `drawn/colour/${part}`)).join(', ')})`
    : vec3(edgeColour);

/** What the front has freed is gone, and its border glows. */
const cut = ({ edgeColour }: DrawnBody, layer: DrawnLayer): string => `
    float before = frontDistance(seen_place, seen_rest);
    if (before <= 0.0) discard;
    float edge = ${valueOf(layer.look, 'drawn/edge')};
    vec3 glow = ${edgeColourOf(layer, edgeColour)} * (${valueOf(layer.look, 'drawn/glow')} * step(1e-5, edge) * (1.0 - smoothstep(0.0, max(edge, 1e-5), before)));`;

/** One layer on the skin of a figure: its mesh again, once for each particle, with the layer's look. */
export class Bodies extends LayerDrawing {
  #count = 0;
  /** The figure of its instance on whose skin it is. */
  #figure: FigureMesh | null = null;
  #frame: Frame | null = null;
  #firstFront = 0;

  protected override newMesh(): THREE.Mesh {
    const mesh = new THREE.SkinnedMesh();
    // Without a skeleton it cannot be drawn.
    mesh.visible = false;
    return mesh;
  }
  /** Each is drawn on the skin of a figure, a mesh a particle. */
  override get isApart(): boolean {
    return true;
  }
  protected override partsOf(): number {
    return MOST_SKINS;
  }

  protected shaders(layer: DrawnLayer, _part: number, isMask: boolean): Shaders {
    const body = bodyOf(layer);
    const isCut = body.front !== null;
    const declared = `
      varying vec3 seen_rest;
      uniform sampler2D body_picture;
    `;
    return {
      vertexShader: vertexShader(layer),
      fragmentShader:
        declared +
        fragmentShader(layer, {
          isFlat: true,
          isMask,
          declarations: isCut ? FRONT : '',
          surface: isCut ? cut(body, layer) : '',
          base: body.isInPlace ? 'texture2D(body_picture, vec2(seen_at.x, 1.0 - seen_at.y)).rgb' : '',
          glow: isCut ? 'glow' : '',
        }),
      look: layer.look,
      uniforms: {
        ...frontUniforms(),
        body_picture: { value: null },
        skin_tint: { value: new THREE.Vector4(1, 1, 1, 1) },
        skin_rest: { value: new THREE.Vector4() },
        skin_own: { value: [new THREE.Vector4(), new THREE.Vector4()] },
      },
    };
  }

  protected shape(): THREE.BufferGeometry {
    return SKIN;
  }

  protected take(frame: Frame, found: FrameLayer | undefined): void {
    const figure = found && this.around.figure(bodyOf(this.layer!).figure, found.firstBone);
    this.#figure = figure ?? null;
    this.#frame = frame;
    this.#firstFront = found?.firstFront ?? 0;
    // The youngest are drawn, where there are more than can be.
    const total = figure ? found!.count : 0;
    this.#count = Math.min(MOST_SKINS, total);
    for (let n = 0; n < MOST_SKINS; n++) {
      const mesh = this.part(n) as THREE.SkinnedMesh;
      mesh.visible = n < this.#count;
      if (!mesh.visible || !found || !figure) continue;
      if (mesh.skeleton !== figure.mesh.skeleton) {
        mesh.geometry = figure.mesh.geometry;
        mesh.bind(figure.mesh.skeleton, IDENTITY);
      }
      const particle = total - this.#count + n;
      this.#setSkin(n, frame, found, particle, figure);
    }
  }

  #setSkin(n: number, frame: Frame, found: FrameLayer, particle: number, { picture }: FigureMesh): void {
    const { uniforms } = (this.part(n) as THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial>).material;
    if (!uniforms) return;
    uniforms['body_picture']!.value = picture;
    const { f32 } = frame;
    const at = frame.recordAt(found.start + particle);
    const isBorn = f32[at + RECORD_BIRTH]! === 0;
    (uniforms['skin_tint']!.value as THREE.Vector4).set(
      f32[at + RECORD_COLOUR]!,
      f32[at + RECORD_COLOUR + 1]!,
      f32[at + RECORD_COLOUR + 2]!,
      isBorn ? f32[at + RECORD_OPACITY]! : 0,
    );
    (uniforms['skin_rest']!.value as THREE.Vector4).set(f32[at + RECORD_AGE]!, f32[at + RECORD_LOT]!, 0, 0);
    const own = found.own + particle * found.ownWords;
    const values = uniforms['skin_own']!.value as THREE.Vector4[];
    for (let v = 0; v * 4 < found.ownWords; v++) values[v]!.fromArray(f32, own + v * 4);
  }

  /** Lets the front that cuts it stand as it does at a share of the step. */
  override follow(share: number): void {
    const layer = this.layer;
    const front = layer && bodyOf(layer).front;
    if (front === null || front === undefined || !this.#frame) return;
    for (let n = 0; n < this.#count; n++) {
      const { uniforms } = (this.part(n) as THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial>).material;
      if (uniforms) setFront(uniforms, this.#frame, this.#firstFront + front, share);
    }
  }

  /** The figure that it is drawn in place of, if it is and anything of it lives. */
  get inPlaceOf(): FigureMesh | null {
    const { layer } = this;
    if (!layer || !this.isShown || this.#count === 0) return null;
    return bodyOf(layer).isInPlace ? this.#figure : null;
  }
}

const IDENTITY = new THREE.Matrix4();
/** Has what the skin of a figure has. */
const SKIN = new THREE.PlaneGeometry();
