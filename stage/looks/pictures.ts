import * as THREE from 'three';
import { SRGB_TO_LINEAR } from '@jinx/core/maths';
import type { DrawnStep, StagePicture } from '../protocol.ts';

const STOPS_ACROSS = 256;

/** A gradient as a texture of one row, linear. */
export function gradientTexture(stops: DrawnStep['stops']): THREE.DataTexture {
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  const words = new Uint16Array(STOPS_ACROSS * 4);
  for (let n = 0; n < STOPS_ACROSS; n++) {
    const at = n / (STOPS_ACROSS - 1);
    const next = sorted.findIndex((stop) => stop.at >= at);
    const b = sorted[next < 0 ? sorted.length - 1 : next];
    const a = next > 0 ? sorted[next - 1]! : b;
    const t = a && b && b.at > a.at ? Math.min(1, (at - a.at) / (b.at - a.at)) : 0;
    for (let c = 0; c < 3; c++)
      words[n * 4 + c] = THREE.DataUtils.toHalfFloat(a && b ? a.rgb[c]! + (b.rgb[c]! - a.rgb[c]!) * t : 1);
    words[n * 4 + 3] = THREE.DataUtils.toHalfFloat(a && b ? a.opacity + (b.opacity - a.opacity) * t : 1);
  }
  const texture = new THREE.DataTexture(words, STOPS_ACROSS, 1, THREE.RGBAFormat, THREE.HalfFloatType);
  texture.magFilter = texture.minFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

/** Eight bits of sRGB for a linear value. */
const toSrgb8 = (x: number) => Math.round(255 * (x <= 0.0031308 ? x * 12.92 : 1.055 * x ** (1 / 2.4) - 0.055));

/** Colour times alpha, so that blending neighbouring pixels never brings in the colour of clear ones. */
function premultiplied(rgba: Uint8Array): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(rgba);
  for (let i = 0; i < out.length; i += 4) {
    const alpha = out[i + 3]!;
    if (alpha === 255) continue;
    for (let c = 0; c < 3; c++) out[i + c] = toSrgb8((SRGB_TO_LINEAR[rgba[i + c]!]! * alpha) / 255);
  }
  return out;
}

/** Pictures that looks show, by the hash of their asset; each is uploaded once. */
export class Pictures {
  readonly #textures = new Map<string, THREE.DataTexture>();
  /** Stands for a picture that is not here, or not yet: nothing is seen of it. */
  readonly #none = new THREE.DataTexture(new Uint8Array([0, 0, 0, 0]), 1, 1);

  readonly #raw = new Map<string, THREE.DataTexture>();
  readonly #mirrored = new Map<string, THREE.DataTexture>();
  /** A normal map that bends nothing. */
  readonly flat = new THREE.DataTexture(new Uint8Array([128, 128, 255, 255]), 1, 1);

  constructor() {
    this.flat.needsUpdate = true;
    this.#none.needsUpdate = true;
  }

  /** Takes the pictures that an effect has: those no longer named are forgotten. */
  set(pictures: readonly StagePicture[]): void {
    const wanted = new Set(pictures.map(({ hash }) => hash));
    for (const [hash, texture] of this.#textures)
      if (!wanted.has(hash)) {
        texture.dispose();
        this.#textures.delete(hash);
        this.#raw.get(hash)?.dispose();
        this.#raw.delete(hash);
        this.#mirrored.get(hash)?.dispose();
        this.#mirrored.delete(hash);
      }
    for (const { hash, texture } of pictures) {
      if (this.#textures.has(hash)) continue;
      const raw = new THREE.DataTexture(texture.rgba, texture.width, texture.height);
      raw.magFilter = raw.minFilter = THREE.LinearFilter;
      raw.wrapS = raw.wrapT = THREE.RepeatWrapping;
      raw.needsUpdate = true;
      this.#raw.set(hash, raw);
      const made = new THREE.DataTexture(premultiplied(texture.rgba), texture.width, texture.height);
      made.colorSpace = THREE.SRGBColorSpace;
      made.magFilter = THREE.LinearFilter;
      made.minFilter = THREE.LinearMipmapLinearFilter;
      made.generateMipmaps = true;
      made.anisotropy = 4;
      made.needsUpdate = true;
      this.#textures.set(hash, made);
    }
  }

  dispose(): void {
    this.set([]);
    this.#none.dispose();
    this.flat.dispose();
  }

  /** A picture whose numbers are no colours, as of a normal map; flat where it is not there. */
  raw(hash: string): THREE.Texture {
    return this.#raw.get(hash) ?? this.flat;
  }

  /** A picture of all directions, that goes round without a seam; null where it is not there. */
  mirrored(hash: string): THREE.DataTexture | null {
    const known = this.#mirrored.get(hash);
    const picture = this.#textures.get(hash);
    if (known || !picture) return known ?? null;
    const made = picture.clone();
    made.wrapS = THREE.RepeatWrapping;
    made.needsUpdate = true;
    this.#mirrored.set(hash, made);
    return made;
  }

  /** The texture of a picture; clear where it is not there. */
  of(hash: string): THREE.Texture {
    return this.#textures.get(hash) ?? this.#none;
  }
}
