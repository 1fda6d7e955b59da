import * as THREE from 'three';
import type { Frame } from '@jinx/core/simulation';
import { Ribbons } from './layers/ribbons.ts';
import { Sprites } from './layers/sprites.ts';
import type { Around, LayerDrawing } from './layers/layerDrawing.ts';
import type { CommonUniforms } from './looks/light.ts';
import { Pictures } from './looks/pictures.ts';
import { StepPictures } from './looks/stepPictures.ts';
import type { Needs, Passes } from './passes.ts';
import type { DrawnLayer, StagePicture } from './protocol.ts';

/** Layers that others are drawn inside of: each takes one bit of the stencil. */
const MOST_MASKS = 8;

/** Every layer's drawing, by its salt: made, dressed, loaded from frames, and put into the pass it belongs to. */
export class Drawings {
  readonly #passes: Passes;
  readonly #camera: THREE.PerspectiveCamera;
  readonly #pictures = new Pictures();
  readonly #around: Around;
  readonly #layers = new Map<number, LayerDrawing>();
  readonly #stepPictures: StepPictures;
  #inside: readonly (readonly [salt: number, mask: number])[] = [];

  constructor(passes: Passes, common: CommonUniforms, camera: THREE.PerspectiveCamera, changed: () => void) {
    this.#passes = passes;
    this.#camera = camera;
    this.#around = {
      hasFog: false,
      common,
      pictures: this.#pictures,
      warm: (mesh, material, ready) => {
        const tried = new THREE.Mesh(mesh.geometry, material);
        passes.warm(tried, camera, () => {
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

  /** Takes how all layers are to be drawn, from front to back. */
  set(layers: readonly DrawnLayer[]): void {
    const salts = new Set(layers.map(({ salt }) => salt));
    for (const salt of [...this.#layers.keys()]) if (!salts.has(salt)) this.#remove(salt);
    layers.forEach((layer, index) => {
      const Kind = layer.ribbon ? Ribbons : Sprites;
      if (!(this.#layers.get(layer.salt) instanceof Kind)) {
        this.#remove(layer.salt);
        this.#layers.set(layer.salt, new Kind(this.#around));
      }
      this.#layers.get(layer.salt)!.dress(layer, layers.length - index);
    });
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

  #remove(salt: number): void {
    const drawing = this.#layers.get(salt);
    if (!drawing) return;
    drawing.mesh.removeFromParent();
    drawing.mask.removeFromParent();
    drawing.dispose();
    this.#layers.delete(salt);
  }

  /** Loads every layer's part of a frame, and puts each into its pass. */
  load(frame: Frame | null): void {
    if (!frame) return;
    const found = new Map(frame.layers().map((layer) => [layer.salt, layer]));
    for (const [salt, drawing] of this.#layers) {
      drawing.load(frame, found.get(salt));
      const scene = drawing.isSolid ? this.#passes.solids : this.#passes.overs;
      if (drawing.mesh.parent !== scene) scene.add(drawing.mesh);
    }
    this.#setMasks();
  }

  #setMasks(): void {
    const masks = [...new Set(this.#inside.map(([, mask]) => mask))].slice(0, MOST_MASKS);
    for (const [salt, drawing] of this.#layers) {
      const bit = masks.indexOf(salt);
      drawing.markIn(bit < 0 ? null : bit);
      if (bit < 0) drawing.mask.removeFromParent();
      else if (!drawing.mask.parent) this.#passes.overs.add(drawing.mask);
      const within = this.#inside.find(([own]) => own === salt);
      const at = within ? masks.indexOf(within[1]) : -1;
      drawing.keepInside(at < 0 ? null : at);
    }
  }

  /** Looks that have become ready are taken, if the frame is for them. */
  takeReady(frame: Frame | null): void {
    if ([...this.#layers.values()].some(({ isWaiting }) => isWaiting)) this.load(frame);
  }

  /** Takes every look, compiled or not: for a picture that must be whole now. */
  finish(frame: Frame | null): void {
    for (const drawing of this.#layers.values()) drawing.makeReady();
    this.load(frame);
  }

  readonly #way = new THREE.Vector3();

  /** Sorts the particles of layers that want the nearest in front; the camera stands. */
  sort(): void {
    this.#camera.getWorldDirection(this.#way);
    for (const drawing of this.#layers.values())
      if (drawing instanceof Sprites) drawing.sort(this.#camera.position, this.#way);
  }

  /** What a layer's look has become after one of its steps; null while it is not drawn. */
  stepPicture(salt: number, step: string, size: number): Promise<Uint8Array | null> {
    return this.#stepPictures.draw(this.#layers.get(salt), step, size);
  }

  get needs(): Needs {
    return { depth: [...this.#layers.values()].some(({ needsDepth }) => needsDepth) };
  }
}
