import * as THREE from 'three';
import type { Drawings } from './drawings.ts';
import type { CommonUniforms } from './looks/light.ts';
import { VIEW_KINDS } from './looks/viewTones.ts';
import type { Passes } from './passes/passes.ts';
import { Reduced } from './passes/reduced.ts';
import type { Mark } from './protocol.ts';

/** What is wanted of one instant. */
export interface Shot {
  readonly width: number;
  readonly height: number;
  /** How many times as large it is drawn each way, before it is brought to its size. */
  readonly supersampling: number;
  /** Whether there is nothing behind it. */
  readonly isCutOut: boolean;
  /** The picture as the lens shows it: in bytes, or as floats of 0 to 1 where those are too coarse; or not at all. */
  readonly picture: 'bytes' | 'floats' | null;
  /** The linear picture before the lens. */
  readonly linear: boolean;
  /** Whether what is added to the picture comes apart from what covers it. */
  readonly apart: boolean;
  /** Whether that by which layers multiply what is behind them comes too. */
  readonly factor: boolean;
}

/** Four numbers a pixel, colours times opacity; rows from the bottom. */
export interface ShotLayer {
  /** Encoded as sRGB. */
  readonly picture: Uint8Array<ArrayBuffer> | Float32Array<ArrayBuffer> | null;
  /** Half floats. */
  readonly linear: Uint16Array<ArrayBuffer> | null;
}

/** All of it, and where it was asked for apart, what covers and what is added: both together are all of it, before the lens. */
export interface ShotPixels {
  readonly whole: ShotLayer;
  readonly covering: ShotLayer | null;
  readonly added: ShotLayer | null;
  /** What is behind is multiplied by it; null where it was not asked for, or nothing multiplies. */
  readonly factor: ShotLayer | null;
}

/** What is wanted of one instant as numbers; the next picture comes `seconds` later. */
export interface MarkShot {
  readonly width: number;
  readonly height: number;
  readonly marks: readonly Mark[];
  readonly seconds: number;
}

/**
 * Four half floats a pixel, rows from the bottom. `distance`: metres from the eye, and 1 where anything covers by a quarter;
 * `identity`: there, the number of the layer from 1 on plus 256 times the upper two bits of the particle's lot, its lower and its middle eleven bits; `bend`:
 * pixels by which bent air shifts what is behind, across and up, and how much of it. `motion`: shares of the picture's width
 * and height by which what is there moves until the next picture; `normal`: which way it faces, seen from the eye; both times
 * how much it covers, which is the fourth.
 */
export type ShotMarks = { readonly [M in Mark]?: Uint16Array<ArrayBuffer> };

/** Takes pictures to be handed out: at a size of their own, with how much they cover, before the lens and behind it. */
export class Shots {
  readonly #passes: Passes;
  readonly #drawings: Drawings;
  readonly #camera: THREE.PerspectiveCamera;
  readonly #common: CommonUniforms;
  readonly #whole = new Reduced();
  readonly #covering = new Reduced();
  readonly #added = new Reduced();
  readonly #shown: Record<'bytes' | 'floats', THREE.WebGLRenderTarget>;

  constructor(passes: Passes, drawings: Drawings, camera: THREE.PerspectiveCamera, common: CommonUniforms) {
    [this.#passes, this.#drawings, this.#camera, this.#common] = [passes, drawings, camera, common];
    const made = (type: THREE.TextureDataType) => new THREE.WebGLRenderTarget(1, 1, { depthBuffer: false, type });
    this.#shown = { bytes: made(THREE.UnsignedByteType), floats: made(THREE.FloatType) };
  }

  /** Draws what was prepared. Bent air has nothing to bend where there is nothing behind. */
  async take(shot: Shot): Promise<ShotPixels> {
    if (shot.isCutOut) this.#drawings.keepHazeOut(true);
    try {
      return await this.#take(shot);
    } finally {
      this.#drawings.keepHazeOut(false);
    }
  }

  async #take(shot: Shot): Promise<ShotPixels> {
    const { supersampling, apart } = shot;
    const { renderer } = this.#passes;
    const draw = () => this.#passes.drawScene(this.#camera, this.#drawings.needs);
    this.#passes.setSize(shot.width * supersampling, shot.height * supersampling);
    if (!apart) {
      this.#whole.take(renderer, draw(), supersampling);
      return {
        whole: await this.#read(this.#whole, shot),
        covering: null,
        added: null,
        factor: await this.#factor(shot),
      };
    }
    this.#common.added.value = 0;
    this.#covering.take(renderer, draw(), supersampling);
    this.#common.added.value = 1;
    const drawn = draw();
    this.#whole.take(renderer, drawn, supersampling);
    this.#added.take(renderer, drawn, supersampling, this.#covering);
    return {
      whole: await this.#read(this.#whole, shot),
      covering: await this.#read(this.#covering, shot),
      added: await this.#read(this.#added, shot),
      factor: await this.#factor(shot),
    };
  }

  /** Draws numbers in place of what was prepared: in a scene that has such a view. What bends nothing has no `bend`. */
  async takeMarks({ width, height, marks, seconds }: MarkShot): Promise<ShotMarks> {
    this.#passes.setSize(width, height);
    this.#common.moving_seconds.value = seconds;
    const { hazes } = this.#drawings.needs;
    const found: { [M in Mark]?: Uint16Array<ArrayBuffer> } = {};
    for (const mark of marks) {
      if (mark === 'bend' && hazes.length === 0) continue;
      this.#common.view_kind.value = VIEW_KINDS[mark];
      const drawn = this.#passes.drawScene(this.#camera, { depth: true, hazes: mark === 'bend' ? hazes : [] });
      found[mark] = await this.#readInto(drawn, new Uint16Array(width * height * 4));
    }
    return found;
  }

  /** What the layers that multiply would make of white. */
  async #factor(shot: Shot): Promise<ShotLayer | null> {
    if (!shot.factor || !this.#drawings.showMultiplying(true)) return null;
    const drawn = this.#passes.drawScene(this.#camera, this.#drawings.needs, true);
    this.#added.take(this.#passes.renderer, drawn, shot.supersampling);
    this.#drawings.showMultiplying(false);
    return this.#read(this.#added, shot);
  }

  async #read(from: Reduced, { picture, linear, width, height }: Shot): Promise<ShotLayer> {
    const { lens, renderer } = this.#passes;
    let shown: ShotLayer['picture'] = null;
    if (picture) {
      const target = this.#shown[picture];
      target.setSize(width, height);
      lens.drawCutOut(renderer, from.target, target);
      const words = width * height * 4;
      shown = await this.#readInto(target, picture === 'bytes' ? new Uint8Array(words) : new Float32Array(words));
    }
    return {
      picture: shown,
      linear: linear ? await this.#readInto(from.target, new Uint16Array(width * height * 4)) : null,
    };
  }

  async #readInto<T extends THREE.TypedArray>(target: THREE.WebGLRenderTarget, pixels: T): Promise<T> {
    const { width, height } = target;
    await this.#passes.renderer.readRenderTargetPixelsAsync(target, 0, 0, width, height, pixels);
    return pixels;
  }

  dispose(): void {
    for (const each of [this.#whole, this.#covering, this.#added]) each.dispose();
    for (const target of Object.values(this.#shown)) target.dispose();
  }
}
