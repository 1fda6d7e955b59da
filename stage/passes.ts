import * as THREE from 'three';
import { Depths } from './depths.ts';
import { drawsInSoftware, Lens } from './lens.ts';
import type { CommonUniforms } from './looks/light.ts';

/** What the layers of a picture ask for beside being drawn. */
export interface Needs {
  /** How far away what is solid is. */
  readonly depth: boolean;
}

/**
 * Draws a picture pass by pass: what is solid; how far away that is, if anything asks; what lies over it; then the lens. All
 * but the last go into one linear half-float target, which keeps its depth throughout.
 */
export class Passes {
  readonly solids = new THREE.Scene();
  readonly overs = new THREE.Scene();
  readonly lens = new Lens();
  readonly renderer: THREE.WebGLRenderer;
  readonly #common: CommonUniforms;
  readonly #depths = new Depths();
  readonly #target: THREE.WebGLRenderTarget;

  constructor(renderer: THREE.WebGLRenderer, common: CommonUniforms) {
    this.renderer = renderer;
    this.#common = common;
    renderer.autoClear = false;
    renderer.info.autoReset = false;
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

  setSize(width: number, height: number): void {
    this.#target.setSize(width, height);
  }

  /** Prepares a mesh's program as these passes will want it; calls back when it can be drawn with. */
  warm(mesh: THREE.Mesh, camera: THREE.Camera, ready: () => void): void {
    const { renderer } = this;
    const before = renderer.getRenderTarget();
    renderer.setRenderTarget(this.#target);
    const compiled = renderer.compileAsync(mesh, camera, this.overs);
    renderer.setRenderTarget(before);
    void compiled.then(ready);
  }

  /** Draw calls and triangles of the last picture. */
  get calls(): { calls: number; triangles: number } {
    const { calls, triangles } = this.renderer.info.render;
    return { calls, triangles };
  }

  draw(camera: THREE.PerspectiveCamera, needs: Needs, into: THREE.WebGLRenderTarget | null): void {
    const { renderer } = this;
    renderer.info.reset();
    renderer.setRenderTarget(this.#target);
    renderer.clear();
    renderer.render(this.solids, camera);
    if (needs.depth) {
      const { width, height } = this.#target;
      this.#depths.take(renderer, this.#target.depthTexture!, width, height, camera);
      this.#common.depths.value = this.#depths.texture;
      renderer.setRenderTarget(this.#target);
    }
    renderer.render(this.overs, camera);
    this.lens.draw(renderer, this.#target, into);
  }
}
