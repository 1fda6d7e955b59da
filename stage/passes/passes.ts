import * as THREE from 'three';
import { Depths } from './depths.ts';
import { drawsInSoftware, Lens } from './lens.ts';
import type { CommonUniforms } from '../looks/light.ts';
import type { PixelColour } from '../protocol.ts';

/** What the layers of a picture ask for beside being drawn. */
export interface Needs {
  /** How far away what is solid is. */
  readonly depth: boolean;
  /** What bends the picture behind it, each at its place among the others: those of a lower order are behind it. */
  readonly hazes: readonly { readonly group: THREE.Object3D; readonly order: number }[];
}

/** What layers are drawn into. */
export interface DrawnInto {
  readonly renderer: THREE.WebGLRenderer;
  /** What is drawn first and hides what is behind it, and what is drawn over that. */
  readonly solids: THREE.Object3D;
  readonly overs: THREE.Object3D;
  /** The picture so far, for what bends it, and its size. */
  readonly behindIt: THREE.IUniform<THREE.Texture | null>;
  readonly pictureSize: THREE.IUniform<THREE.Vector2>;
  /** Prepares a mesh's program. Resolves when it can be drawn with. */
  warm(mesh: THREE.Mesh, camera: THREE.Camera): Promise<unknown>;
}

/**
 * Draws a picture pass by pass: what is solid; how far away that is, if anything asks; what lies over it; then the lens. All
 * but the last go into one linear half-float target, which keeps its depth throughout. What bends the picture is drawn
 * between what is behind it and what is before it, from a copy of the picture so far.
 */
export class Passes implements DrawnInto {
  readonly solids = new THREE.Scene();
  readonly overs = new THREE.Scene();
  readonly lens = new Lens();
  readonly renderer: THREE.WebGLRenderer;
  /** The picture so far, for what bends it, and its size. */
  readonly behindIt: THREE.IUniform<THREE.Texture | null> = { value: null };
  readonly pictureSize = { value: new THREE.Vector2(1, 1) };
  readonly #common: CommonUniforms;
  readonly #depths = new Depths();
  readonly #target: THREE.WebGLRenderTarget;
  #copy: THREE.WebGLRenderTarget | null = null;
  #opacity = 1;

  constructor(renderer: THREE.WebGLRenderer, common: CommonUniforms) {
    this.renderer = renderer;
    this.#common = common;
    const depthTexture = new THREE.DepthTexture(1, 1, THREE.UnsignedInt248Type);
    depthTexture.format = THREE.DepthStencilFormat;
    this.#target = new THREE.WebGLRenderTarget(1, 1, {
      type: THREE.HalfFloatType,
      samples: drawsInSoftware(renderer) ? 0 : 4,
      stencilBuffer: true,
      depthTexture,
    });
    common.depths.value = this.#depths.texture;
  }

  /** How much of the picture is covered before anything is drawn: 1, or 0 for what is laid over another. */
  clearTo(opacity: number): void {
    this.#opacity = opacity;
  }

  setSize(width: number, height: number): void {
    this.#target.setSize(width, height);
    this.pictureSize.value.set(width, height);
  }

  /** Prepares a mesh's program as these passes will want it. Resolves when it can be drawn with. */
  warm(mesh: THREE.Mesh, camera: THREE.Camera): Promise<unknown> {
    try {
      return this.#forTarget(() => this.renderer.compileAsync(mesh, camera, this.overs));
    } catch (error) {
      return Promise.reject(error as Error);
    }
  }

  /** Prepares the programs of what is solid. */
  warmSolids(camera: THREE.Camera): void {
    this.#forTarget(() => this.renderer.compile(this.solids, camera));
  }

  /** Compiles for what the passes draw into: its format is part of a program. */
  #forTarget<T>(compile: () => T): T {
    const before = this.renderer.getRenderTarget();
    this.renderer.setRenderTarget(this.#target);
    try {
      return compile();
    } finally {
      this.renderer.setRenderTarget(before);
    }
  }

  /** Draw calls and triangles of the last picture. */
  get calls(): { calls: number; triangles: number } {
    const { calls, triangles } = this.renderer.info.render;
    return { calls, triangles };
  }

  /** Draws a picture, into a target or onto the canvas. */
  draw(camera: THREE.PerspectiveCamera, needs: Needs, into: THREE.WebGLRenderTarget | null): void {
    this.renderer.info.reset();
    this.drawScene(camera, needs);
    this.lens.draw(this.renderer, this.#target, into);
  }

  /** Draws a picture as it is before the lens, and gives it; `onWhite`: of what is solid nothing but what that hides. */
  drawScene(camera: THREE.PerspectiveCamera, needs: Needs, onWhite = false): THREE.WebGLRenderTarget {
    const { renderer } = this;
    renderer.setRenderTarget(this.#target);
    renderer.setClearColor(0x000000, this.#opacity);
    renderer.clear();
    renderer.render(this.solids, camera);
    if (onWhite) {
      renderer.setClearColor(0xffffff, 1);
      renderer.clearColor();
    }
    if (needs.depth) {
      const { width, height } = this.#target;
      this.#depths.take(renderer, this.#target.depthTexture!, width, height, camera);
      this.#common.depths.value = this.#depths.texture;
      renderer.setRenderTarget(this.#target);
    }
    if (needs.hazes.length === 0) renderer.render(this.overs, camera);
    else this.#drawBetween(camera, needs.hazes);
    return this.#target;
  }

  /** Draws, if wanted nothing but one pixel, and reads what that holds; rows count from the top. */
  atPixel(isOnly: boolean, x: number, y: number, draw: () => void): PixelColour {
    const { renderer } = this;
    const target = this.#target;
    const row = target.height - 1 - y;
    target.scissor.set(x, row, 1, 1);
    target.scissorTest = isOnly;
    draw();
    target.scissorTest = false;
    const halves = new Uint16Array(4);
    renderer.readRenderTargetPixels(target, x, row, 1, 1, halves);
    renderer.setRenderTarget(null);
    const [red = 0, green = 0, blue = 0, opacity = 0] = Array.from(halves, THREE.DataUtils.fromHalfFloat);
    return [red, green, blue, opacity];
  }

  /** Draws something over nothing but a colour; what is solid in the picture before hides it still. */
  drawAlone(group: THREE.Object3D, camera: THREE.Camera, [red, green, blue, opacity]: PixelColour): void {
    const { renderer } = this;
    renderer.setRenderTarget(this.#target);
    renderer.setClearColor(new THREE.Color(red, green, blue), opacity);
    renderer.clearColor();
    renderer.setClearColor(0x000000, 1);
    renderer.render(group, camera);
  }

  /** How many pixels the picture has. */
  get size(): { width: number; height: number } {
    const { width, height } = this.#target;
    return { width, height };
  }

  /** Draws what is over, from back to front, with each haze in its place. */
  #drawBetween(camera: THREE.Camera, hazes: Needs['hazes']): void {
    const { renderer, overs } = this;
    const wereSeen = overs.children.map(({ visible }) => visible);
    const orderOf = (object: THREE.Object3D) => object.children[0]?.renderOrder ?? object.renderOrder;
    const draw = (isIn: (object: THREE.Object3D) => boolean) => {
      overs.children.forEach((object, n) => (object.visible = wereSeen[n]! && isIn(object)));
      renderer.render(overs, camera);
    };
    const groups = new Set(hazes.map(({ group }) => group));
    const sorted = [...hazes].sort((a, b) => a.order - b.order);
    let from = -Infinity;
    for (const { group, order } of sorted) {
      draw((object) => !groups.has(object) && orderOf(object) > from && orderOf(object) <= order);
      this.#copyPicture();
      draw((object) => object === group);
      from = order;
    }
    draw((object) => !groups.has(object) && orderOf(object) > from);
    overs.children.forEach((object, n) => (object.visible = wereSeen[n]!));
  }

  dispose(): void {
    this.#target.depthTexture?.dispose();
    this.#target.dispose();
    this.#copy?.dispose();
    this.#depths.dispose();
    this.lens.dispose();
  }

  #copyPicture(): void {
    const { width, height } = this.#target;
    this.#copy ??= new THREE.WebGLRenderTarget(1, 1, {
      type: THREE.HalfFloatType,
      depthBuffer: false,
      magFilter: THREE.LinearFilter,
      minFilter: THREE.LinearFilter,
    });
    this.#copy.setSize(width, height);
    this.renderer.initRenderTarget(this.#copy);
    this.renderer.copyTextureToTexture(this.#target.texture, this.#copy.texture);
    this.behindIt.value = this.#copy.texture;
    this.renderer.setRenderTarget(this.#target);
  }
}
