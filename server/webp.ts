import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import decode, { init } from '@jsquash/webp/decode.js';
import type { Texture } from '@jinx/core/geometry';

/** What the decoder hands its pixels back in; browsers have it, Node does not. */
class Pixels {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
  constructor(data: Uint8ClampedArray, width: number, height: number) {
    this.data = data;
    this.width = width;
    this.height = height;
  }
}

let isReady: Promise<void> | null = null;

async function start(): Promise<void> {
  (globalThis as { ImageData?: unknown }).ImageData ??= Pixels;
  const file = createRequire(import.meta.url).resolve('@jsquash/webp/codec/dec/webp_dec.wasm');
  await init(await WebAssembly.compile(readFileSync(file)));
}

/** Decodes WebP, still ones: eight bits of sRGB with straight alpha. */
export async function fromWebp(bytes: Uint8Array): Promise<Texture> {
  await (isReady ??= start());
  const { data, width, height } = await decode(new Uint8Array(bytes).buffer);
  return { width, height, rgba: new Uint8Array(data.buffer, data.byteOffset, data.byteLength) };
}
