import * as THREE from 'three';
import type { Frame } from '@jinx/core/simulation';
import type { FigureMesh } from './figure.ts';
import { Bodies } from './layers/bodies.ts';
import { FogGlow } from './layers/fogGlow.ts';
import { Haze } from './layers/haze.ts';
import type { Around, FrameLayer, LayerDrawing } from './layers/layerDrawing.ts';
import { Lights } from './layers/lights.ts';
import { Meshes } from './layers/meshes.ts';
import { MeshStore } from './layers/meshStore.ts';
import { Ribbons } from './layers/ribbons.ts';
import { Sprites } from './layers/sprites.ts';
import type { CommonUniforms } from './looks/light.ts';
import { Pictures } from './looks/pictures.ts';
import { StepPictures } from './looks/stepPictures.ts';
import type { Needs, Passes } from './passes.ts';
import { layerTone } from './views.ts';
import type { DrawnAs, DrawnLayer, StageMesh, StagePicture } from './protocol.ts';

/** Layers that others are drawn inside of: each takes one bit of the stencil. */
const MOST_MASKS = 8;

const KINDS: Record<Exclude<DrawnAs['kind'], 'light'>, new (around: Around) => LayerDrawing> = {
  sprite: Sprites,
  ribbon: Ribbons,
  mesh: Meshes,
  haze: Haze,
  body: Bodies,
};

/** Every layer's drawing, by its salt: made, dressed, loaded from frames, and put into the pass it belongs to. */
export class Drawings {
  readonly #passes: Passes;
  readonly #common: CommonUniforms;
  readonly #camera: THREE.PerspectiveCamera;
  readonly #pictures = new Pictures();
  readonly #meshes = new MeshStore();
  readonly #around: Around;
  readonly #layers = new Map<number, LayerDrawing>();
  readonly #lights = new Lights();
  readonly #glow: FogGlow;
  readonly #stepPictures: StepPictures;
  #lit: readonly DrawnLayer[] = [];
  #inside: readonly (readonly [salt: number, mask: number])[] = [];

  constructor(
    passes: Passes,
    common: CommonUniforms,
    camera: THREE.PerspectiveCamera,
    figure: (n: number) => FigureMesh | undefined,
    changed: () => void,
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
      figure,
      warm: (mesh, material, ready) => {
        passes.warm(likeness(mesh, material), camera, () => {
          ready();
          changed();
        });
      },
    };
    this.#stepPictures = new StepPictures(passes.renderer, this.#around);
  }

  setPictures(pictures: readonly StagePicture[]): void {
    this.#pictures.set(pictures);
    for (const drawing of this.#layers.values()) drawing.showPictures();
  }

  setMeshes(meshes: readonly StageMesh[]): void {
    this.#meshes.set(meshes);
    for (const drawing of this.#layers.values()) if (drawing instanceof Meshes) drawing.dressAnew();
  }

  /** Other figures stand on the stage. */
  figuresChanged(): void {
    for (const drawing of this.#layers.values()) if (drawing instanceof Bodies) drawing.dressAnew();
  }

  /** Takes how all layers are to be drawn, from front to back. */
  set(layers: readonly DrawnLayer[]): void {
    const salts = new Set(layers.map(({ salt }) => salt));
    for (const salt of [...this.#layers.keys()]) if (!salts.has(salt)) this.#remove(salt);
    layers.forEach((layer, index) => {
      if (layer.drawn.kind === 'light') return this.#remove(layer.salt);
      const Kind = KINDS[layer.drawn.kind];
      if (!(this.#layers.get(layer.salt) instanceof Kind)) {
        this.#remove(layer.salt);
        this.#layers.set(layer.salt, new Kind(this.#around));
      }
      const drawing = this.#layers.get(layer.salt)!;
      drawing.setTone(layerTone(index));
      drawing.dress(layer, layers.length - index);
    });
    this.#lit = layers.filter(({ drawn }) => drawn.kind === 'light');
    this.#inside = layers.flatMap(({ salt, inside }): [number, number][] =>
      inside === null ? [] : [[salt, inside]],
    );
  }

  /** Fog comes or goes: every shader is made ready for it. */
  setFog(hasFog: boolean): void {
    if (this.#around.hasFog === hasFog) return;
    this.#around.hasFog = hasFog;
    for (const drawing of this.#layers.values()) drawing.dressAnew();
  }

  /** A view comes or goes in which particles have its tones. */
  setView(hasView: boolean): void {
    if (this.#around.hasView === hasView) return;
    this.#around.hasView = hasView;
    for (const drawing of this.#layers.values()) drawing.dressAnew();
  }

  #remove(salt: number): void {
    const drawing = this.#layers.get(salt);
    if (!drawing) return;
    drawing.group.removeFromParent();
    drawing.masks.removeFromParent();
    drawing.dispose();
    this.#layers.delete(salt);
  }

  /** Loads every layer's part of a frame, and puts each into its pass. */
  load(frame: Frame | null, rate: number): void {
    if (!frame) return;
    const found = new Map(frame.layers().map((layer) => [layer.salt, layer]));
    for (const [salt, drawing] of this.#layers) {
      drawing.load(frame, found.get(salt));
      const scene = drawing.isSolid ? this.#passes.solids : this.#passes.overs;
      if (drawing.group.parent !== scene) scene.add(drawing.group);
    }
    const lit = this.#lit.flatMap((layer): { layer: DrawnLayer; found: FrameLayer }[] => {
      const part = found.get(layer.salt);
      return part && part.plan === layer.look.plan ? [{ layer, found: part }] : [];
    });
    this.#lights.take(frame, lit, rate);
    this.#setMasks();
  }

  #setMasks(): void {
    const masks = [...new Set(this.#inside.map(([, mask]) => mask))].slice(0, MOST_MASKS);
    for (const [salt, drawing] of this.#layers) {
      const bit = masks.indexOf(salt);
      drawing.markIn(bit < 0 ? null : bit);
      if (bit < 0) drawing.masks.removeFromParent();
      else if (!drawing.masks.parent) this.#passes.overs.add(drawing.masks);
      const within = this.#inside.find(([own]) => own === salt);
      const at = within ? masks.indexOf(within[1]) : -1;
      drawing.keepInside(at < 0 ? null : at);
    }
  }

  /** Whether a look is not ready to be drawn with. */
  get isWaiting(): boolean {
    return [...this.#layers.values()].some(({ isWaiting }) => isWaiting);
  }

  /** Looks that have become ready are taken, if the frame is for them. */
  takeReady(frame: Frame | null, rate: number): void {
    if (this.isWaiting) this.load(frame, rate);
  }

  /** Takes every look, compiled or not: for a picture that must be whole now. */
  finish(frame: Frame | null, rate: number): void {
    for (const drawing of this.#layers.values()) drawing.makeReady();
    this.load(frame, rate);
  }

  readonly #way = new THREE.Vector3();

  /** Moves all to a share of the step; the camera stands. */
  follow(share: number): void {
    this.#camera.getWorldDirection(this.#way);
    for (const drawing of this.#layers.values()) {
      drawing.follow(share);
      drawing.sort(this.#camera.position, this.#way);
    }
    this.#lights.show(this.#common, share);
    this.#glow.follow(this.#around.hasView);
  }

  /** Figures that something is drawn in place of. */
  get replaced(): ReadonlySet<number> {
    const figures = new Set<number>();
    for (const drawing of this.#layers.values())
      if (drawing instanceof Bodies && drawing.inPlaceOf !== null) figures.add(drawing.inPlaceOf);
    return figures;
  }

  /** What a layer's look has become after one of its steps; null while it is not drawn. */
  stepPicture(salt: number, step: string, size: number): Promise<Uint8Array | null> {
    return this.#stepPictures.draw(this.#layers.get(salt), step, size);
  }

  get needs(): Needs {
    const all = [...this.#layers.values()];
    return {
      depth: this.#glow.isSeen || all.some(({ needsDepth }) => needsDepth),
      hazes: all.flatMap((drawing) =>
        drawing instanceof Haze && drawing.isSeen ? [{ group: drawing.group, order: drawing.order }] : [],
      ),
    };
  }
}

/** A mesh of the same kind to prepare a program with. */
function likeness(mesh: THREE.Mesh, material: THREE.Material): THREE.Mesh {
  if (!(mesh instanceof THREE.SkinnedMesh)) return new THREE.Mesh(mesh.geometry, material);
  const made = new THREE.SkinnedMesh(mesh.geometry, material);
  made.skeleton = mesh.skeleton;
  return made;
}
