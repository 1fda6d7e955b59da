import type { Page } from '@playwright/test';
import { build } from 'esbuild';
import type { Route } from './bits.ts';
import type { BitsAnswer } from './browser/bitsPage.ts';
import { kernelBytes } from './kernelBytes.ts';

const ADDRESS = 'http://localhost/';

const bundled = async (name: string): Promise<string> => {
  const entry = new URL(`./browser/${name}.ts`, import.meta.url).pathname;
  const built = await build({ entryPoints: [entry], bundle: true, write: false, format: 'iife', target: 'es2022' });
  return built.outputFiles[0]!.text;
};

/** Worlds of random effects in a browser: the page needs no server, all it asks for is answered here. */
export class BrowserBits {
  readonly #page: Page;

  private constructor(page: Page) {
    this.#page = page;
  }

  static async open(page: Page): Promise<BrowserBits> {
    const [script, worker, helper] = await Promise.all(['bitsPage', 'bitsWorker', 'bitsHelper'].map(bundled));
    const { shared, plain } = kernelBytes();
    const answers: Record<string, { body: string | Buffer; contentType: string }> = {
      '/': { body: '<!doctype html><title>bits</title><script src="/page.js"></script>', contentType: 'text/html' },
      '/page.js': { body: script!, contentType: 'text/javascript' },
      '/worker.js': { body: worker!, contentType: 'text/javascript' },
      '/helper.js': { body: helper!, contentType: 'text/javascript' },
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
    return new BrowserBits(page);
  }

  /** The hashes of a random effect on a route, on so many threads. */
  of(seed: number, route: Route, threads: number): Promise<BitsAnswer> {
    return this.#page.evaluate(([n, way, count]) => window.bitsOf(n, way, count), [seed, route, threads] as const);
  }
}
