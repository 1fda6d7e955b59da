import * as THREE from 'three';
import type { Frame, FrameLayer } from '@jinx/core/simulation';
import { keyOf, mergeAlike } from './layers/alike.ts';
import type { FigureMesh } from './figure.ts';
import { Bodies } from './layers/bodies.ts';
import { FogGlow } from './layers/fogGlow.ts';
import { Haze } from './layers/haze.ts';
import type { Around } from './layers/around.ts';
import type { LayerDrawing } from './layers/layerDrawing.ts';
import { Lights, type LitLayer } from './layers/lights.ts';
import { Meshes } from './layers/meshes.ts';
import { MeshStore } from './layers/meshStore.ts';
import { Ribbons } from './layers/ribbons.ts';
import { Sprites } from './layers/sprites.ts';
import type { CommonUniforms } from './looks/light.ts';
import { Pictures } from './looks/pictures.ts';
import { ParticlePictures } from './looks/particlePictures.ts';
import type { DrawnInto, Needs } from './passes/passes.ts';
import { layerTone } from './views.ts';
import type {
  DrawnAs,
  DrawnLayer,
  StageLight,
  StageMesh,
  StagePicture,
  StageSurroundings,
  ParticlePicturesAsked,
} from './protocol.ts';

/** Layers that others are drawn inside of: each takes one bit of the stencil. */
const MOST_MASKS = 8;

const KINDS: Record<Exclude<DrawnAs['kind'], 'light'>, new (around: Around) => LayerDrawing> = {
  sprite: Sprites,
  ribbon: Ribbons,
  mesh: Meshes,
  haze: Haze,
  body: Bodies,
};

/** A layer of a document, and what draws it: one for all instances whose numbers are the same, more where they are not. */
interface Entry {
  readonly salt: number;
  readonly key: number;
  layer: DrawnLayer;
  order: number;
  tone: ReturnType<typeof layerTone>;
  readonly drawings: LayerDrawing[];
  /** What the frame that was loaded last tells for each. */
  readonly runs: FrameLayer[];
}

/** Every layer's drawing, by its salt: made, dressed, loaded from frames, and put into the pass it belongs to. */
export class Drawings {
  readonly #passes: DrawnInto;
  readonly #common: CommonUniforms;
  readonly #camera: THREE.PerspectiveCamera;
  readonly #pictures = new Pictures();
  readonly #meshes = new MeshStore();
  readonly #around: Around;
  readonly #entries = new Map<number, Entry>();
  /** All drawings one after another, for going through them frame by frame. */
  #all: { readonly salt: number; readonly key: number; readonly drawing: LayerDrawing }[] = [];
  readonly #lights = new Lights();
  readonly #glow: FogGlow;
  readonly #particlePictures: ParticlePictures;
  #isNumbered = false;
  #mirrored: StageSurroundings | null = null;
  #litLayers: readonly DrawnLayer[] = [];
  readonly #lit: LitLayer[] = [];
  /** Which layers are drawn inside which others; those others, each at its bit of the stencil. */
  readonly #inside = new Map<number, number>();
  #masks: readonly number[] = [];
  /** What the frame that was loaded last tells of its layers. */
  readonly #found: FrameLayer[] = [];

  constructor(
    passes: DrawnInto,
    common: CommonUniforms,
    camera: THREE.PerspectiveCamera,
    figure: Around['figure'],
    changed: () => void,
    failed: (sentence: string) => void,
    isGuest = false,
  ) {
    this.#passes = passes;
    this.#common = common;
    this.#camera = camera;
    this.#glow = new FogGlow(common);
    passes.overs.add(this.#glow.mesh);
    const { behindIt, pictureSize } = passes;
    this.#around = {
      common,
      pictures: this.#pictures,
      meshes: this.#meshes,
      behindIt,
      pictureSize,
      hasFog: false,
      hasView: false,
      hasMirrored: false,
      hasDepth: !isGuest,
      isGuest,
      figure,
      warm: (mesh, shape, material, ready) => {
        const goOn = () => {
          ready();
          changed();
        };
        // What could not be prepared is tried once more as it is drawn.
        passes.warm(likeness(mesh, shape, material), camera).then(goOn, (error: unknown) => {
          failed(`A look could not be prepared for drawing: ${(error as Error).message}`);
          goOn();
        });
      },
    };
    this.#particlePictures = new ParticlePictures(passes.renderer, this.#around);
  }

  setPictures(pictures: readonly StagePicture[]): void {
    this.#pictures.set(pictures);
    for (const { drawing } of this.#all) drawing.showPictures();
    this.setMirrored(this.#mirrored);
  }

  setMeshes(meshes: readonly StageMesh[]): void {
    this.#meshes.set(meshes);
    for (const { drawing } of this.#all) if (drawing instanceof Meshes) drawing.dressAnew();
  }

  /** Other figures stand on the stage. */
  figuresChanged(): void {
    for (const { drawing } of this.#all) if (drawing instanceof Bodies) drawing.dressAnew();
  }

  /** Takes how all layers are to be drawn, from front to back. */
  set(layers: readonly DrawnLayer[]): void {
    layers.forEach((layer, index) => {
      const key = keyOf(layer.salt, layer.looks);
      if (layer.drawn.kind === 'light') return this.#remove(key);
      const Kind = KINDS[layer.drawn.kind];
      if (!(this.#entries.get(key)?.drawings[0] instanceof Kind)) {
        this.#remove(key);
        const drawings = [new Kind(this.#around)];
        this.#entries.set(key, { salt: layer.salt, key, layer, order: 0, tone: [0, 0, 0], drawings, runs: [] });
      }
      const entry = this.#entries.get(key)!;
      entry.layer = layer;
      entry.order = layers.length - index;
      entry.tone = this.#isNumbered ? [index + 1, 0, 0] : layerTone(index);
      for (const drawing of entry.drawings) this.#dress(drawing, entry);
    });
    // Those that came have taken over what programs they have in common with those that go.
    const keys = new Set(layers.map(({ salt, looks }) => keyOf(salt, looks)));
    for (const key of [...this.#entries.keys()]) if (!keys.has(key)) this.#remove(key);
    this.#list();
    this.#litLayers = layers.filter(({ drawn }) => drawn.kind === 'light');
    this.#lit.length = 0;
    this.#inside.clear();
    for (const { salt, looks, inside } of layers)
      if (inside !== null) this.#inside.set(keyOf(salt, looks), keyOf(inside, looks));
    this.#masks = [...new Set(this.#inside.values())].slice(0, MOST_MASKS);
  }

  #dress(drawing: LayerDrawing, { layer, order, tone }: Entry): void {
    drawing.setTone(tone, this.#isNumbered);
    drawing.dress(layer, order);
  }

  #list(): void {
    this.#all = [...this.#entries.values()].flatMap(({ salt, key, drawings }) =>
      drawings.map((drawing) => ({ salt, key, drawing })),
    );
  }

  /** Takes what shining things mirror; the sky where it is nothing, or its picture is not there. */
  setMirrored(mirrored: StageSurroundings | null): void {
    this.#mirrored = mirrored;
    const picture = mirrored && this.#pictures.mirrored(mirrored.picture);
    const { mirrored_picture, mirrored_numbers } = this.#common;
    mirrored_picture.value = picture;
    if (mirrored && picture) {
      const levels = Math.log2(Math.max(2, picture.image.width)) - 1;
      mirrored_numbers.value.set(mirrored.brightness, mirrored.turn, levels);
    }
    this.#around.hasMirrored = picture !== null;
  }

  /** Fog comes or goes: every shader is made ready for it. */
  setFog(hasFog: boolean): void {
    this.#around.hasFog = hasFog;
  }

  /** It becomes known how far away what is solid is, or is so no more. */
  setDepth(hasDepth: boolean): void {
    this.#around.hasDepth = hasDepth;
  }

  /** A view comes or goes in which particles have its tones; or, for layers that are told from then on, their numbers. */
  setView(hasView: boolean, isNumbered: boolean): void {
    this.#isNumbered = isNumbered;
    this.#around.hasView = hasView;
  }

  /** Shaders are made anew once for all that was switched since the last picture. */
  keepUp(): void {
    for (const { drawing } of this.#all) drawing.keepUp();
  }

  #remove(key: number): void {
    const entry = this.#entries.get(key);
    if (!entry) return;
    for (const drawing of entry.drawings) this.#takeOut(drawing);
    this.#entries.delete(key);
  }

  #takeOut(drawing: LayerDrawing): void {
    drawing.group.removeFromParent();
    drawing.masks.removeFromParent();
    drawing.dispose();
  }

  /** Loads every layer's part of a frame, and puts each into its pass. */
  load(frame: Frame | null, rate: number): void {
    if (!frame) return;
    frame.layersInto(this.#found);
    for (const entry of this.#entries.values()) this.#loadEntry(entry, frame);
    for (const { drawing } of this.#all) {
      const scene = drawing.isSolid ? this.#passes.solids : this.#passes.overs;
      if (drawing.group.parent !== scene) scene.add(drawing.group);
    }
    this.#findLit();
    this.#lights.take(frame, this.#lit, rate);
    this.#setMasks();
  }

  /** Gives each drawing of a layer the instances it shows; makes as many as there are sets of numbers. */
  #loadEntry(entry: Entry, frame: Frame): void {
    const { drawings, runs, key, layer } = entry;
    mergeAlike(frame, this.#found, key, drawings[0]!, runs);
    const Kind = KINDS[layer.drawn.kind as keyof typeof KINDS];
    const before = drawings.length;
    while (drawings.length < runs.length) {
      const made = new Kind(this.#around);
      this.#dress(made, entry);
      drawings.push(made);
    }
    while (drawings.length > Math.max(1, runs.length)) this.#takeOut(drawings.pop()!);
    if (drawings.length !== before) this.#list();
    for (let n = 0; n < drawings.length; n++) drawings[n]!.load(frame, runs[n]);
  }

  /** Every layer of every instance that gives light by numbers that its look has. */
  #findLit(): void {
    let n = 0;
    for (const layer of this.#litLayers)
      for (const found of this.#found) {
        if (keyOf(found.salt, found.looks) !== keyOf(layer.salt, layer.looks)) continue;
        const lit = (this.#lit[n++] ??= { layer, found: undefined });
        lit.layer = layer;
        lit.found = found.plan === layer.look.plan ? found : undefined;
      }
    this.#lit.length = n;
  }

  #setMasks(): void {
    for (const { key, drawing } of this.#all) {
      const bit = this.#masks.indexOf(key);
      drawing.markIn(bit < 0 ? null : bit);
      if (bit < 0) drawing.masks.removeFromParent();
      else if (!drawing.masks.parent) this.#passes.overs.add(drawing.masks);
      const at = this.#masks.indexOf(this.#inside.get(key) ?? -1);
      drawing.keepInside(at < 0 ? null : at);
    }
  }

  /** Whether a look is not ready to be drawn with. */
  get isWaiting(): boolean {
    for (const { drawing } of this.#all) if (drawing.isWaiting) return true;
    return false;
  }

  setOwnLights(lights: readonly StageLight[]): void {
    this.#lights.setOwn(lights);
  }

  /** All that is drawn, from back to front: lights, what is solid, what lies over it. */
  get backToFront(): { readonly salt: number; readonly drawing: LayerDrawing | null }[] {
    const depth = ({ drawing }: { drawing: LayerDrawing }) => (drawing.isSolid ? 0 : 1e6) + drawing.order;
    return [
      ...this.#litLayers.map(({ salt }) => ({ salt, drawing: null })),
      ...this.#all.filter(({ drawing }) => drawing.layer?.isVisible).sort((a, b) => depth(a) - depth(b)),
    ];
  }

  /** Leaves all layers out but those that multiply what is behind them, or has all again. Returns whether there are any. */
  showMultiplying(isOn: boolean): boolean {
    const multiplies = (drawing: LayerDrawing) => drawing.layer?.blend === 'multiply' && drawing.layer.isVisible;
    if (!this.#all.some(({ drawing }) => multiplies(drawing))) return false;
    for (const { drawing } of this.#all) drawing.keepOut(isOn && !multiplies(drawing));
    return true;
  }

  drawingOf(salt: number): LayerDrawing | undefined {
    return this.#entries.get(keyOf(salt))?.drawings[0];
  }

  /** Keeps all layers but some out of the picture; with null, none. */
  showOnly(salts: ReadonlySet<number> | null, frame: Frame, rate: number): void {
    for (const { salt, drawing } of this.#all) drawing.keepOut(salts !== null && !salts.has(salt));
    const lit = this.#lit.filter(({ layer }) => salts === null || salts.has(layer.salt));
    this.#lights.take(frame, lit, rate);
  }

  /** Looks that have become ready are taken, if the frame is for them. */
  takeReady(frame: Frame | null, rate: number): void {
    if (this.isWaiting) this.load(frame, rate);
  }

  /** Takes every look, compiled or not: for a picture that must be whole now. */
  finish(frame: Frame | null, rate: number): void {
    this.keepUp();
    for (const { drawing } of this.#all) drawing.makeReady();
    this.load(frame, rate);
  }

  readonly #way = new THREE.Vector3();

  /** Moves all to a share of the step; the camera stands. */
  follow(share: number, rate: number): void {
    this.#camera.getWorldDirection(this.#way);
    for (const { drawing } of this.#all) {
      drawing.followClock(share, rate);
      drawing.follow(share);
      drawing.sort(this.#camera.position, this.#way);
    }
    this.#lights.show(this.#common, share);
    this.#glow.follow(this.#around.hasView);
  }

  /** Whether something is drawn in place of a figure. */
  isReplaced(figure: FigureMesh): boolean {
    for (const { drawing } of this.#all) if (drawing instanceof Bodies && drawing.inPlaceOf === figure) return true;
    return false;
  }

  /** Particles of a layer with some numbers; null while it is not drawn. */
  particlePictures(asked: ParticlePicturesAsked): Promise<ImageData | null> {
    return this.#particlePictures.draw(this.drawingOf(asked.salt), asked);
  }

  /** Lights what has an age in some layers, and dims the rest; with none, all is as it is. */
  lightAge(salts: readonly number[], age: number): void {
    this.#common.lit_age.value = age;
    for (const { salt, drawing } of this.#all) drawing.setLit(salts.length > 0, salts.includes(salt));
  }

  /** Dims all layers but some; with none, all are as they are. */
  dimOthers(salts: readonly number[]): void {
    for (const { salt, drawing } of this.#all) drawing.setLit(salts.length > 0 && !salts.includes(salt), false);
  }

  dispose(): void {
    this.set([]);
    this.#pictures.dispose();
    this.#meshes.dispose();
    this.#particlePictures.dispose();
    this.#glow.dispose();
  }

  /** Leaves what bends the picture out, or has it again. */
  keepHazeOut(isOut: boolean): void {
    for (const { drawing } of this.#all) if (drawing instanceof Haze) drawing.keepOut(isOut);
  }

  readonly #needs: { depth: boolean; readonly hazes: Haze[] } = { depth: false, hazes: [] };

  /** What a picture of them asks for; the same object each time. */
  get needs(): Needs {
    const needs = this.#needs;
    needs.depth = this.#glow.isSeen;
    needs.hazes.length = 0;
    for (const { drawing } of this.#all) {
      if (drawing.needsDepth) needs.depth = true;
      if (drawing instanceof Haze && drawing.isSeen) needs.hazes.push(drawing);
    }
    return needs;
  }
}

/** A mesh of the same kind to prepare a program with. */
function likeness(mesh: THREE.Mesh, shape: THREE.BufferGeometry, material: THREE.Material): THREE.Mesh {
  if (!(mesh instanceof THREE.SkinnedMesh)) return new THREE.Mesh(shape, material);
  const made = new THREE.SkinnedMesh(shape, material);
  made.skeleton = mesh.skeleton;
  return made;
}
