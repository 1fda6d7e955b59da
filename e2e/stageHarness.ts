import { inflateRawSync } from 'node:zlib';
import { test, type Page } from './test.ts';
import type { Effect } from '@jinx/core/document';
import { build } from 'esbuild';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import type { PictureOrder } from './stagePage/page.ts';

const ADDRESS = 'http://localhost/';
export const [WIDTH, HEIGHT] = [480, 300] as const;

/** Canonical bytes of what effects use, by hash. */
export type Assets = Readonly<Record<string, Uint8Array>>;

/** The script of the page, built once for all files of a worker. */
let script: Promise<string> | null = null;
async function buildPage(): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [new URL('./stagePage/page.ts', import.meta.url).pathname],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    // What a library would ask Node for, and never does in a browser.
    external: ['node:*'],
  });
  return outputFiles[0]!.text;
}

/** The stage by itself in a browser: pictures of effects at a step, without the bench. It needs no server. */
export class StageHarness {
  #page!: Page;

  private constructor() {}

  /**
   * A stage for all tests of the file that calls this: opening one, and its first shaders, costs most of a test's time.
   * `assets` may be made when the first test begins.
   */
  static forFile(assets: Assets | (() => Promise<Assets>) = {}): StageHarness {
    const harness = new StageHarness();
    test.beforeAll(async ({ browser }) => {
      const made = typeof assets === 'function' ? await assets() : assets;
      harness.#page = await browser.newPage();
      await harness.#open(made);
    });
    test.afterAll(() => harness.#page.close());
    return harness;
  }

  async #open(assets: Assets): Promise<void> {
    const page = this.#page;
    const { shared, plain } = kernelBytes();
    const answers: Record<string, { body: string | Buffer; contentType: string }> = {
      '/': { body: '<!doctype html><title>stage</title><script src="/page.js"></script>', contentType: 'text/html' },
      '/page.js': { body: await (script ??= buildPage()), contentType: 'text/javascript' },
      '/shared.wasm': { body: Buffer.from(shared), contentType: 'application/wasm' },
      '/plain.wasm': { body: Buffer.from(plain), contentType: 'application/wasm' },
    };
    const headers = {
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-embedder-policy': 'require-corp',
    };
    await page.route(`${ADDRESS}**`, (route) => {
      const answer = answers[new URL(route.request().url()).pathname];
      return answer ? route.fulfill({ ...answer, headers }) : route.fulfill({ status: 404, body: '' });
    });
    await page.goto(ADDRESS);
    const coded = Object.entries(assets).map(([hash, bytes]) => [hash, Buffer.from(bytes).toString('base64')]);
    await page.evaluate((given) => window.stagePage.keep(given), Object.fromEntries(coded) as Record<string, string>);
  }

  /** The picture of an effect at a step: four bytes a pixel, rows from the top. */
  async picture(effect: Effect, step = 30, more: Partial<PictureOrder> = {}): Promise<Picture> {
    const { width = WIDTH, height = HEIGHT } = more;
    const order: PictureOrder = { effect, step, width, height, ...more };
    // As one text: to hand over a document part by part takes longer than to draw it.
    const coded = await this.#page.evaluate((given) => window.stagePage.picture(given), JSON.stringify(order));
    return new Picture(inflateRawSync(Buffer.from(coded, 'base64')), width, height);
  }

  /** An effect with some of its layers (all, unless named), and the same without them. */
  async pair(effect: Effect, step = 30, more: Partial<PictureOrder> = {}, layers = effect.layers.order) {
    const withIt = await this.picture(effect, step, more);
    const without = await this.picture(effect, step, { ...more, without: [...layers, ...(more.without ?? [])] });
    return { withIt, without };
  }

  loseContext(): Promise<{ lost: number; restored: number }> {
    return this.#page.evaluate(() => window.stagePage.loseContext());
  }

  calls(): Promise<{ calls: number; triangles: number; compiled: number }> {
    return this.#page.evaluate(() => window.stagePage.calls());
  }
}

/** Linear light of each value 0 to 255 that is shown, by sRGB. */
const LINEAR = Float64Array.from({ length: 256 }, (_, value) => {
  const c = value / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});

/** What the lens makes of linear light: the tone curve (Narkowicz, 2015), then sRGB, 0 to 255. */
export function shown(linear: number): number {
  const c = Math.min(1, (linear * (2.51 * linear + 0.03)) / (linear * (2.43 * linear + 0.59) + 0.14));
  return 255 * (c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055);
}
/** The linear light that is shown as a value 0 to 255. */
export function lightOf(value: number): number {
  let [low, high] = [0, 16];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (shown(middle) < value) low = middle;
    else high = middle;
  }
  return low;
}

export class Picture {
  readonly rgba: Uint8Array;
  readonly width: number;
  readonly height: number;

  constructor(rgba: Uint8Array, width: number, height: number) {
    this.rgba = rgba;
    this.width = width;
    this.height = height;
  }

  at(x: number, y: number): [number, number, number] {
    const i = (y * this.width + x) * 4;
    return [this.rgba[i]!, this.rgba[i + 1]!, this.rgba[i + 2]!];
  }
  /** Light before the lens, of one pixel. */
  lightAt(x: number, y: number): [number, number, number] {
    return this.at(x, y).map(lightOf) as [number, number, number];
  }
  /** Relative luminance on the screen, 0 to 1 (WCAG). */
  luminance(pixel: number): number {
    const [r, g, b] = [0, 1, 2].map((c) => LINEAR[this.rgba[pixel * 4 + c]!]!) as [number, number, number];
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  }

  /** Pixels that differ from another picture by more than `least` in any colour. */
  changed(other: Picture, least = 8): number[] {
    const found: number[] = [];
    for (let p = 0; p < this.width * this.height; p++)
      if ([0, 1, 2].some((c) => Math.abs(this.rgba[p * 4 + c]! - other.rgba[p * 4 + c]!) > least)) found.push(p);
    return found;
  }

  /** Where a picture differs from another: how many pixels, their middle and their extent. */
  shape(other: Picture, least = 8): Shape {
    const pixels = this.changed(other, least);
    let [left, right, top, bottom, sumX, sumY] = [this.width, -1, this.height, -1, 0, 0];
    for (const p of pixels) {
      const [x, y] = [p % this.width, Math.floor(p / this.width)];
      [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
      sumX += x;
      sumY += y;
    }
    return {
      count: pixels.length,
      width: right - left + 1,
      height: bottom - top + 1,
      x: sumX / pixels.length,
      y: sumY / pixels.length,
      left,
      top,
    };
  }

  /** Light that a picture has more than another, summed over all pixels and colours. */
  added(other: Picture): number {
    let sum = 0;
    for (let i = 0; i < this.rgba.length; i++)
      if (i % 4 !== 3 && this.rgba[i] !== other.rgba[i]) sum += lightOf(this.rgba[i]!) - lightOf(other.rgba[i]!);
    return sum;
  }
}

export interface Shape {
  readonly count: number;
  readonly width: number;
  readonly height: number;
  readonly x: number;
  readonly y: number;
  readonly left: number;
  readonly top: number;
}
