import * as THREE from 'three';
import type { Frame, FrameLayer } from '@jinx/core/simulation';
import { setDefine } from '../looks/light.ts';
import { gradientTexture } from '../looks/pictures.ts';
import { sharedVectors } from '../looks/shader.ts';
import { readsClock } from '../looks/steps.ts';
import type { DrawnLayer } from '../protocol.ts';
import { isSolid, needsDepth } from './fragment.ts';
import type { Around } from './around.ts';
import { disposeOwn } from './particles.ts';
import { goesRound, sameShaders, setBlending, setDepth, setStencil, type Shaders } from './materials.ts';

/** What of a scene switches the shaders of a layer. */
type Switches = Pick<Around, 'hasFog' | 'hasView' | 'hasMirrored' | 'hasDepth'>;

/** A layer as it is to be drawn, with a material for each of its parts. */
interface Made {
  readonly layer: DrawnLayer;
  /** What its shaders were switched to. */
  readonly switches: Switches;
  readonly materials: readonly THREE.ShaderMaterial[];
  /** Mark where it covers the picture, for layers that are drawn inside of it. */
  masks: readonly THREE.ShaderMaterial[] | null;
  isReady: boolean;
}

/**
 * Draws one layer's particles. A changed look is made ready behind the one that is seen, and taken with the first frame
 * whose numbers are written for it: nothing is ever drawn half by one and half by the other.
 */
export abstract class LayerDrawing {
  /** A mesh for each part. */
  readonly group = new THREE.Group();
  /** The same geometries, drawn into the stencil only. */
  readonly masks = new THREE.Group();
  protected readonly around: Around;
  #current: Made | null = null;
  #next: Made | null = null;
  #order = 0;
  /** Its tone in a view that tells layers apart. */
  readonly #tone = { value: new THREE.Color() };
  /** While an age is pointed at: 2 where particles that have it shine, 1 where all are dimmed; else 0. */
  readonly #lit = { value: 0 };

  constructor(around: Around) {
    this.around = around;
    this.masks.visible = false;
  }

  /** Whether it is drawn among what is solid, before all that is not. */
  get isSolid(): boolean {
    return this.#current !== null && isSolid(this.#current.layer);
  }
  get needsDepth(): boolean {
    return this.#current !== null && this.isShown && needsDepth(this.#current.layer);
  }
  /** Whether it is part of the picture. */
  get isShown(): boolean {
    return this.#current !== null && this.group.visible;
  }
  /** The layer as it is drawn now; null until its first look is ready. */
  get layer(): DrawnLayer | null {
    return this.#current?.layer ?? null;
  }
  /** What is drawn before it is what it stands behind: a higher number is nearer the front. */
  get order(): number {
    return this.#order;
  }

  /** How many parts the layer has: each is a mesh with a material of its own. */
  protected partsOf(_layer: DrawnLayer): number {
    return 1;
  }
  protected abstract shaders(layer: DrawnLayer, part: number, isMask: boolean): Shaders;
  /** A geometry with the attributes that a part of the layer has when it is drawn. */
  protected abstract shape(layer: DrawnLayer, part: number): THREE.BufferGeometry;
  /** Takes a frame's particles or ribbons of this layer. */
  protected abstract take(frame: Frame, layer: FrameLayer | undefined): void;

  /** The mesh of a part; made when first asked for. */
  protected part(n: number): THREE.Mesh {
    for (let at = this.group.children.length; at <= n; at++) {
      const [mesh, mask] = [this.newMesh(), this.newMesh()];
      for (const made of [mesh, mask]) made.frustumCulled = false;
      this.group.add(mesh);
      this.masks.add(mask);
    }
    return this.group.children[n] as THREE.Mesh;
  }
  protected newMesh(): THREE.Mesh {
    return new THREE.Mesh(new THREE.InstancedBufferGeometry(), NOTHING);
  }

  /** Moves what hangs on the share of the step, beside what its shaders read. */
  follow(_share: number): void {
    // Most kinds hang on nothing else.
  }

  /** Sorts its particles for the eye, if it wants that; `way` is the direction of sight. */
  sort(_eye: THREE.Vector3, _way: THREE.Vector3): void {
    // Most kinds are drawn in the order of their births.
  }

  /** How its source is turned at the start and at the end of the step, as quaternions. */
  readonly #turns = { value: [new THREE.Vector4(0, 0, 0, 1), new THREE.Vector4(0, 0, 0, 1)] };

  /** Seconds of its instance's time. */
  readonly #clock = { value: 0 };
  #step = 0;
  /** Sets the clock of its shaders to a share of the step. */
  followClock(share: number, rate: number): void {
    this.#clock.value = (this.#step - 1 + share) / rate;
  }
  /** Whether its shaders hang on the clock: instances that began at other times are then drawn apart. */
  get readsClock(): boolean {
    const layer = this.layer;
    return layer !== null && (layer.drawn.kind === 'haze' || layer.look.steps.some(readsClock));
  }
  /** Whether each instance is drawn apart, whatever its numbers. */
  get isApart(): boolean {
    return false;
  }

  /** Takes the tone it has where layers are told apart: sRGB, 0 to 1. */
  setTone(tone: readonly [number, number, number], isNumber = false): void {
    this.#tone.value.setRGB(...tone, isNumber ? THREE.LinearSRGBColorSpace : THREE.SRGBColorSpace);
  }

  /** Whether an age is pointed at, and whether it is one of these particles. */
  setLit(isPointing: boolean, isHere: boolean): void {
    this.#lit.value = isPointing ? (isHere ? 2 : 1) : 0;
  }

  /** Takes how the layer is to be drawn, at a place among the others. */
  dress(layer: DrawnLayer, order: number): void {
    this.#order = order;
    const known = this.#next ?? this.#current;
    if (known && sameShaders(known.layer, layer) && this.#isSwitchedAs(known)) {
      // Only what needs no other shader: whether it is seen, and its place.
      if (this.#next) this.#next = { ...this.#next, layer };
      else this.#current = { ...this.#current!, layer };
      return this.#show();
    }
    this.#make(layer);
  }

  /** Fog, a view, or something mirrored may have come or gone since it was dressed. */
  keepUp(): void {
    const known = this.#next ?? this.#current;
    if (known && !this.#isSwitchedAs(known)) this.#make(known.layer);
  }
  /** Asked before every picture: it makes no list. */
  #isSwitchedAs({ layer, switches }: Made): boolean {
    const { hasFog, hasView, hasDepth } = this.around;
    return (
      switches.hasFog === hasFog &&
      switches.hasView === hasView &&
      switches.hasDepth === hasDepth &&
      switches.hasMirrored === this.#mirrors(layer)
    );
  }
  #switches(layer: DrawnLayer): Switches {
    const { hasFog, hasView, hasDepth } = this.around;
    return { hasFog, hasView, hasDepth, hasMirrored: this.#mirrors(layer) };
  }
  #mirrors({ drawn }: DrawnLayer): boolean {
    return this.around.hasMirrored && drawn.kind === 'mesh';
  }

  /** Something that all shaders hang on has changed. */
  dressAnew(): void {
    const layer = (this.#next ?? this.#current)?.layer;
    if (layer) this.#make(layer);
  }

  #make(layer: DrawnLayer): void {
    this.#dispose(this.#next);
    const shared = Array.from({ length: sharedVectors(layer.look) }, () => new THREE.Vector4());
    const materials = Array.from({ length: this.partsOf(layer) }, (_, n) => this.#material(layer, n, shared, false));
    this.#next = { layer, switches: this.#switches(layer), materials, masks: null, isReady: false };
    let waiting = materials.length;
    if (waiting === 0) this.#next.isReady = true;
    materials.forEach((material, n) =>
      this.around.warm(this.part(n), this.shape(layer, n), material, () => {
        if (--waiting === 0 && this.#next?.materials === materials) this.#next = { ...this.#next, isReady: true };
      }),
    );
  }

  #material(layer: DrawnLayer, part: number, shared: THREE.Vector4[], isMask: boolean): THREE.ShaderMaterial {
    const { vertexShader, fragmentShader, uniforms, look, isShadow } = this.shaders(layer, part, isMask);
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
        clock: this.#clock,
        layer_tone: this.#tone,
        lit_here: this.#lit,
        source_turns: this.#turns,
        shared_values: { value: shared },
        ...textures,
        ...uniforms,
      },
      side: THREE.DoubleSide,
      transparent: !isSolid(layer) || isShadow === true,
      depthWrite: isSolid(layer) && !isShadow,
    });
    // What goes round on itself is drawn from behind first, then from the front.
    material.forceSinglePass = !goesRound(layer);
    const { hasFog, hasView, hasMirrored, hasDepth } = this.#switches(layer);
    setDefine(material, 'HAS_FOG', hasFog);
    setDefine(material, 'HAS_MIRRORED', hasMirrored);
    setDefine(material, 'HAS_NO_DEPTH', !hasDepth);
    setDefine(material, 'IS_GUEST', this.around.isGuest);
    setDefine(material, 'HAS_VIEW', hasView && !isMask && !isShadow);
    const isPlain = isShadow || layer.drawn.kind === 'haze' || (hasView && !isSolid(layer));
    setBlending(material, isPlain ? 'normal' : layer.blend);
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
      next.materials.forEach((material, n) => (this.part(n).material = material));
      this.group.children.slice(next.materials.length).forEach((mesh) => ((mesh as THREE.Mesh).material = NOTHING));
      this.#show();
    }
    const current = this.#current;
    if (!current || (found && found.plan !== current.layer.look.plan)) return;
    this.take(frame, found);
    if (!found) return;
    this.#step = found.step;
    this.#turns.value.forEach((turn, end) => turn.fromArray(frame.f32, found.turns + end * 4));
    const values = current.materials[0]?.uniforms['shared_values']!.value as THREE.Vector4[] | undefined;
    const count = Math.min(values?.length ?? 0, found.sharedCount / 4);
    for (let n = 0; n < count; n++) values![n]!.fromArray(frame.f32, found.shared + n * 4);
  }

  /** What its shaders read beside what all do: numbers that all particles share, pictures, gradients. */
  get lookUniforms(): Record<string, THREE.IUniform> {
    const uniforms = this.#current?.materials[0]?.uniforms ?? {};
    return Object.fromEntries(
      Object.entries(uniforms).filter(([name]) => /^(clock$|shared_values|picture|gradient)/.test(name)),
    );
  }

  /** A number that all its particles share, as of the frame taken last. */
  protected shared(name: string): number {
    const place = this.#current?.layer.look.places[name];
    const values = this.#current?.materials[0]?.uniforms['shared_values']!.value as THREE.Vector4[] | undefined;
    return place?.kind === 'shared' && values ? values[place.at >> 2]!.getComponent(place.at & 3) : 0;
  }

  /** Pictures have come or gone. */
  showPictures(): void {
    for (const made of [this.#current, this.#next])
      made?.materials.forEach((material, part) =>
        this.shaders(made.layer, part, false).look.steps.forEach(({ picture }, n) => {
          const uniform = material.uniforms[`picture${n}`];
          if (picture && uniform) uniform.value = this.around.pictures.of(picture);
        }),
      );
  }

  /** Takes the next look as it is, compiled or not. */
  makeReady(): void {
    if (this.#next) this.#next = { ...this.#next, isReady: true };
  }

  /** Whether a look waits to be drawn with. */
  get isWaiting(): boolean {
    return this.#next !== null;
  }

  #isKeptOut = false;
  /** Keeps it out of the picture, however it is dressed. */
  keepOut(isOut: boolean): void {
    this.#isKeptOut = isOut;
    this.#show();
  }

  #show(): void {
    this.group.visible = !this.#isKeptOut && (this.#current?.layer.isVisible ?? false);
    for (const mesh of this.group.children) mesh.renderOrder = this.#order;
  }

  /** Lets it mark where it covers the picture in one bit of the stencil, or no more. */
  markIn(bit: number | null): void {
    const current = this.#current;
    this.masks.visible = bit !== null && current !== null;
    if (bit === null || !current) return;
    current.masks ??= current.materials.map((material, n) =>
      this.#material(current.layer, n, material.uniforms['shared_values']!.value as THREE.Vector4[], true),
    );
    current.masks.forEach((mask, n) => {
      setStencil(mask, bit, true);
      const mesh = this.masks.children[n] as THREE.Mesh;
      mesh.material = mask;
      const part = this.part(n);
      mesh.geometry = part.geometry;
      mesh.visible = part.visible;
      if (mesh instanceof THREE.SkinnedMesh && part instanceof THREE.SkinnedMesh) mesh.skeleton = part.skeleton;
      mesh.renderOrder = -10;
    });
  }

  /** Lets it be drawn only where a bit of the stencil is set; everywhere with null. */
  keepInside(bit: number | null): void {
    this.#current?.materials.forEach((material) => setStencil(material, bit, false));
  }

  #cuts: THREE.Material[] = [];
  /** Its look after each of its steps, ready to be drawn with: taking one gives what puts the whole look back. */
  async cuts(): Promise<{ step: string; take: () => () => void }[]> {
    const current = this.#current;
    if (!current) return [];
    this.forgetCuts();
    const { layer } = current;
    const made = layer.look.steps.map(({ id }, n) => {
      const cut = { ...layer, look: { ...layer.look, steps: layer.look.steps.slice(0, n + 1) } };
      const materials = current.materials.map((material, part) =>
        this.#material(cut, part, material.uniforms['shared_values']!.value as THREE.Vector4[], false),
      );
      this.#cuts.push(...materials);
      return { step: id, materials };
    });
    const warmed = made.flatMap(({ materials }) =>
      materials.map(
        (material, n) =>
          new Promise<void>((done) => this.around.warm(this.part(n), this.shape(layer, n), material, done)),
      ),
    );
    await Promise.all(warmed);
    const meshes = this.group.children as THREE.Mesh[];
    return made.map(({ step, materials }) => ({
      step,
      take: () => {
        const before = meshes.map(({ material }) => material);
        materials.forEach((material, n) => (meshes[n]!.material = material));
        return () => meshes.forEach((mesh, n) => (mesh.material = before[n]!));
      },
    }));
  }
  forgetCuts(): void {
    for (const material of this.#cuts.splice(0)) material.dispose();
  }

  #dispose(made: Made | null): void {
    for (const material of [...(made?.materials ?? []), ...(made?.masks ?? [])]) {
      for (const [name, { value }] of Object.entries(material.uniforms))
        if (name.startsWith('gradient')) (value as THREE.Texture).dispose();
      material.dispose();
    }
  }

  dispose(): void {
    this.#dispose(this.#current);
    this.#dispose(this.#next);
    for (const mesh of this.group.children) disposeOwn((mesh as THREE.Mesh).geometry);
  }
}

const NOTHING = new THREE.MeshBasicMaterial({ visible: false });
