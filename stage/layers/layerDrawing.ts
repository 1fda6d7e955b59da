import * as THREE from 'three';
import { MOST_SHARED, type Frame } from '@jinx/core/simulation';
import { setDefine, type CommonUniforms } from '../looks/light.ts';
import { gradientTexture, type Pictures } from '../looks/pictures.ts';
import { sharedVectors } from '../looks/shader.ts';
import type { DrawnLayer } from '../protocol.ts';
import { isSolid, needsDepth } from './fragment.ts';

/** What a layer's drawing asks of the stage. */
export interface Around {
  readonly common: CommonUniforms;
  readonly pictures: Pictures;
  hasFog: boolean;
  /** Prepares a material's program; calls back once it can be drawn with, at once where it already can. */
  warm(mesh: THREE.Mesh, material: THREE.Material, ready: () => void): void;
}

/** One layer of a frame. */
export type FrameLayer = ReturnType<Frame['layers']>[number];

/** A layer as it is to be drawn, with the materials for it. */
interface Made {
  readonly layer: DrawnLayer;
  readonly material: THREE.ShaderMaterial;
  /** Marks where it covers the picture, for layers that are drawn inside of it. */
  mask: THREE.ShaderMaterial | null;
  isReady: boolean;
}

/** Shaders of a layer, and what they read beside what all do. */
export interface Shaders {
  readonly vertexShader: string;
  readonly fragmentShader: string;
  readonly uniforms: Record<string, THREE.IUniform>;
}

/**
 * Draws one layer's particles. A changed look is made ready behind the one that is seen, and taken with the first frame
 * whose numbers are written for it: nothing is ever drawn half by one and half by the other.
 */
export abstract class LayerDrawing {
  readonly mesh: THREE.Mesh;
  /** The same geometry, drawn into the stencil only. */
  readonly mask: THREE.Mesh;
  protected readonly around: Around;
  #current: Made | null = null;
  #next: Made | null = null;
  #order = 0;

  constructor(around: Around) {
    this.around = around;
    this.mesh = new THREE.Mesh(new THREE.BufferGeometry(), NOTHING);
    this.mask = new THREE.Mesh(this.mesh.geometry, NOTHING);
    for (const mesh of [this.mesh, this.mask]) mesh.frustumCulled = false;
    this.mask.visible = false;
  }

  /** Whether it is drawn among what is solid, before all that is not. */
  get isSolid(): boolean {
    return this.#current !== null && isSolid(this.#current.layer);
  }
  get needsDepth(): boolean {
    return this.#current !== null && this.#current.layer.isVisible && needsDepth(this.#current.layer);
  }
  /** The layer as it is drawn now; null until its first look is ready. */
  get layer(): DrawnLayer | null {
    return this.#current?.layer ?? null;
  }

  protected abstract shaders(layer: DrawnLayer, isMask: boolean): Shaders;
  /** Takes a frame's particles or ribbons of this layer. */
  protected abstract take(frame: Frame, layer: FrameLayer | undefined): void;

  /** Takes how the layer is to be drawn, at a place among the others. */
  dress(layer: DrawnLayer, order: number): void {
    this.#order = order;
    const known = this.#next ?? this.#current;
    if (known && sameShaders(known.layer, layer)) {
      // Only what needs no other shader: whether it is seen, and its place.
      if (this.#next) this.#next = { ...this.#next, layer };
      else this.#current = { ...this.#current!, layer };
      return this.#show();
    }
    this.#make(layer);
  }

  /** Something that all shaders hang on has changed. */
  dressAnew(): void {
    const layer = (this.#next ?? this.#current)?.layer;
    if (layer) this.#make(layer);
  }

  #make(layer: DrawnLayer): void {
    this.#dispose(this.#next);
    const made: Made = { layer, material: this.#material(layer, false), mask: null, isReady: false };
    this.#next = made;
    this.around.warm(this.mesh, made.material, () => {
      made.isReady = true;
      if (this.#next?.material === made.material) this.#next = { ...this.#next, isReady: true };
    });
  }

  #material(layer: DrawnLayer, isMask: boolean): THREE.ShaderMaterial {
    const { look } = layer;
    const { vertexShader, fragmentShader, uniforms } = this.shaders(layer, isMask);
    const vectors = sharedVectors(look);
    const textures = Object.fromEntries(
      look.steps.flatMap(({ kind, picture, stops }, n): [string, THREE.IUniform][] =>
        kind === 'gradient'
          ? [[`gradient${n}`, { value: gradientTexture(stops) }]]
          : picture
            ? [[`picture${n}`, { value: this.around.pictures.of(picture) }]]
            : [],
      ),
    );
    const material = new THREE.ShaderMaterial({
      vertexShader,
      fragmentShader,
      uniforms: {
        ...this.around.common,
        shared_values: { value: Array.from({ length: vectors }, () => new THREE.Vector4()) },
        ...textures,
        ...uniforms,
      },
      side: THREE.DoubleSide,
      transparent: !isSolid(layer),
      depthWrite: isSolid(layer),
    });
    setDefine(material, 'HAS_FOG', this.around.hasFog);
    setBlending(material, layer);
    setDepth(material, layer);
    if (isMask) Object.assign(material, { colorWrite: false, depthWrite: false });
    return material;
  }

  /** Takes a frame's numbers. Until the next look is ready, what was seen stays as it was. */
  load(frame: Frame, found: FrameLayer | undefined): void {
    const next = this.#next;
    if (next?.isReady && (!found || found.plan === next.layer.look.plan)) {
      this.#dispose(this.#current);
      this.#current = next;
      this.#next = null;
      this.mesh.material = next.material;
      this.#show();
    }
    const current = this.#current;
    if (!current || (found && found.plan !== current.layer.look.plan)) return;
    this.take(frame, found);
    this.mask.geometry = this.mesh.geometry;
    const values = current.material.uniforms['shared_values']!.value as THREE.Vector4[];
    if (found) {
      const at = Math.min(values.length * 4, MOST_SHARED);
      for (let n = 0; n * 4 < at; n++) values[n]!.fromArray(frame.f32, found.shared + n * 4);
    }
  }

  /** What its shaders read beside what all do: numbers that all particles share, pictures, gradients. */
  get lookUniforms(): Record<string, THREE.IUniform> {
    const uniforms = this.#current?.material.uniforms ?? {};
    return Object.fromEntries(
      Object.entries(uniforms).filter(([name]) => /^(shared_values|picture|gradient)/.test(name)),
    );
  }

  /** Writes the numbers of its own, and the colour, of one particle that is there; leaves them where there is none. */
  abstract sampleInto(own: THREE.Vector4[], colour: THREE.Vector4): void;

  /** Pictures have come or gone. */
  showPictures(): void {
    for (const made of [this.#current, this.#next])
      made?.layer.look.steps.forEach(({ picture }, n) => {
        const uniform = made.material.uniforms[`picture${n}`];
        if (picture && uniform) uniform.value = this.around.pictures.of(picture);
      });
  }

  /** Takes the next look as it is, compiled or not. */
  makeReady(): void {
    if (this.#next) this.#next = { ...this.#next, isReady: true };
  }

  /** Whether a look waits to be drawn with. */
  get isWaiting(): boolean {
    return this.#next !== null;
  }

  #show(): void {
    const current = this.#current;
    this.mesh.visible = current?.layer.isVisible ?? false;
    this.mesh.renderOrder = this.#order;
  }

  /** Lets it mark where it covers the picture in one bit of the stencil, or no more. */
  markIn(bit: number | null): void {
    const current = this.#current;
    this.mask.visible = bit !== null && current !== null;
    if (bit === null || !current) return;
    current.mask ??= this.#material(current.layer, true);
    current.mask.uniforms['shared_values'] = current.material.uniforms['shared_values']!;
    setStencil(current.mask, bit, true);
    this.mask.material = current.mask;
    this.mask.renderOrder = -10;
  }

  /** Lets it be drawn only where a bit of the stencil is set; everywhere with null. */
  keepInside(bit: number | null): void {
    if (this.#current) setStencil(this.#current.material, bit, false);
  }

  #dispose(made: Made | null): void {
    if (!made) return;
    for (const [name, { value }] of Object.entries(made.material.uniforms))
      if (name.startsWith('gradient')) (value as THREE.Texture).dispose();
    made.material.dispose();
    made.mask?.dispose();
  }

  dispose(): void {
    this.#dispose(this.#current);
    this.#dispose(this.#next);
    this.mesh.geometry.dispose();
  }
}

const NOTHING = new THREE.MeshBasicMaterial({ visible: false });

/** Whether two ways of drawing a layer share their shaders. */
function sameShaders(a: DrawnLayer, b: DrawnLayer): boolean {
  const shaped = (layer: DrawnLayer) => JSON.stringify({ ...layer, isVisible: true, inside: null });
  return shaped(a) === shaped(b);
}

function setBlending(material: THREE.Material, { blend }: DrawnLayer): void {
  if (blend === 'solid' || blend === 'holes') {
    material.blending = THREE.NoBlending;
    return;
  }
  material.blending = THREE.CustomBlending;
  material.blendEquation = THREE.AddEquation;
  material.blendSrc = blend === 'multiply' ? THREE.ZeroFactor : THREE.OneFactor;
  material.blendDst = blend === 'multiply' ? THREE.SrcColorFactor : THREE.OneMinusSrcAlphaFactor;
}

function setDepth(material: THREE.Material, { depth, wraps }: DrawnLayer): void {
  material.depthTest = depth !== 'never hidden';
  if (depth === 'only where hidden') material.depthFunc = THREE.GreaterDepth;
  // The far sides of the boxes that marks are drawn with lie behind what they wrap.
  if (!wraps) return;
  material.side = THREE.BackSide;
  material.depthFunc = THREE.GreaterEqualDepth;
}

function setStencil(material: THREE.Material, bit: number | null, isMarking: boolean): void {
  material.stencilWrite = bit !== null;
  if (bit === null) return;
  const ref = 1 << bit;
  material.stencilRef = ref;
  material.stencilFuncMask = ref;
  material.stencilWriteMask = isMarking ? ref : 0;
  material.stencilFunc = isMarking ? THREE.AlwaysStencilFunc : THREE.EqualStencilFunc;
  material.stencilZPass = isMarking ? THREE.ReplaceStencilOp : THREE.KeepStencilOp;
}
