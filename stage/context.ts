import * as THREE from 'three';

/** The graphics of a canvas: all scenes that are drawn with them share their shader programs. */
export class StageContext {
  readonly renderer: THREE.WebGLRenderer;
  readonly #listeners = new Set<(isLost: boolean) => void>();

  /** @throws where the browser gives no WebGL 2. */
  constructor(canvas: OffscreenCanvas) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: false, powerPreference: 'high-performance' });
    this.renderer.autoClear = false;
    this.renderer.info.autoReset = false;
    // The renderer itself lets the context come back, and then uploads all anew.
    const tell = (isLost: boolean) => this.#listeners.forEach((heard) => heard(isLost));
    canvas.addEventListener('webglcontextlost', () => tell(true));
    canvas.addEventListener('webglcontextrestored', () => tell(false));
  }

  /** Hears when the graphics are taken away, and when they are back. Returns what ends it. */
  listen(heard: (isLost: boolean) => void): () => void {
    this.#listeners.add(heard);
    return () => this.#listeners.delete(heard);
  }
}
