// How long the project page takes to make the pictures of Fenlight's thirteen effects, from opening the page to the last
// picture on the server: once with nothing known, as after a restart of the browser, and once more.
import type { Browser } from '@playwright/test';
import { cpus } from 'node:os';
import { rounded } from './figures.ts';
import { inChromium } from './inChromium.ts';

const RUNS = 2;
const TOO_LONG = 300_000;
/** A picture of one pixel, of another revision than any: the page makes the picture of an effect that has it. */
const STAND_IN = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);

interface Listed {
  readonly id: string;
  readonly name: string;
  readonly effects: readonly { readonly id: string; readonly name: string }[];
}

/** Milliseconds until each of the pictures was saved, since the page was opened. */
async function made(browser: Browser, address: string): Promise<number[]> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  try {
    const projects = (await (await page.request.get(`${address}/api/projects`)).json()) as {
      id: string;
      name: string;
    }[];
    const { id } = projects.find(({ name }) => name === 'Fenlight')!;
    const { effects } = (await (await page.request.get(`${address}/api/projects/${id}`)).json()) as Listed;
    for (const effect of effects)
      await page.request.put(`${address}/api/effects/${effect.id}/picture?revision=1000000`, {
        data: STAND_IN,
        headers: { 'content-type': 'image/png', origin: address },
      });
    const times: number[] = [];
    const start = performance.now();
    const all = new Promise<void>((resolve, reject) => {
      setTimeout(() => reject(new Error('not all pictures were made')), TOO_LONG).unref();
      page.on('response', (answer) => {
        if (answer.request().method() !== 'PUT' || !answer.url().includes('/picture')) return;
        if (!answer.ok()) return reject(new Error(`a picture was answered ${answer.status()}`));
        times.push(performance.now() - start);
        if (times.length === effects.length) resolve();
      });
    });
    await page.goto(`${address}/projects/${id}`);
    await all;
    return times;
  } finally {
    await page.close();
  }
}

const runs = await inChromium(async (browser, address) => {
  const all: number[][] = [];
  for (let run = 0; run < RUNS; run++) all.push(await made(browser, address));
  return all;
});
console.log(
  JSON.stringify({
    benchmark: 'thumbnails',
    processors: cpus().length,
    pictures: runs[0]!.length,
    firstMs: rounded(runs[0]!.at(-1)!),
    againMs: rounded(runs.at(-1)!.at(-1)!),
    eachMs: runs[0]!.map((time, n, times) => rounded(time - (times[n - 1] ?? 0))),
  }),
);
