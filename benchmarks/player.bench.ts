// The player: how large it is, how soon an effect is seen in a page that has nothing yet, and what a picture costs beside
// the bench's stage, both standing at the same instant of Fenlight's mantle, at the same size and seen alike, in turns.
import { readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { gzipSync } from 'node:zlib';
import type { Browser, Page } from '@playwright/test';
import { buildPlayer } from '../scripts/build.mjs';
import { lowerQuartile, rounded } from './figures.ts';
import { inChromium } from './inChromium.ts';

const [ROUNDS, DRAWINGS, OPENINGS] = [7, 10, 3];
const STEP = 60;
const NAME = 'Lamplit Mantle';

interface Door extends Timed {
  seek(step: number): void;
  hash(): Promise<{ step: number }>;
  state(): { isPlaying: boolean };
}
interface Timed {
  timeDrawing(times: number): Promise<number[]>;
}
/** The inspection door, in the bench's page. */
declare const jinx: Door;
declare global {
  interface Window {
    timed: Timed;
    firstPicture: Promise<number>;
  }
}

buildPlayer();
const script = readFileSync('player/dist/player.js');

/** A page of nothing but the player and a parcel. */
const pageOf = (width: number, height: number, isStanding: boolean) => `<!doctype html>
  <canvas id="c" style="width:${width}px;height:${height}px;display:block"></canvas>
  <script type="module">
    import { createPlayer } from '/apart/player.js';
    const player = createPlayer(document.getElementById('c'), { pixelRatio: 1, pausesOffScreen: false });
    ${isStanding ? 'player.pause();' : ''}
    const playing = (await player.load('/apart/mantle.zip')).play();
    window.timed = player;
    window.firstPicture = ${
      isStanding
        ? `(playing.seek(${STEP / 60}), playing.state())`
        : `new Promise((done) => playing.on('firstLight', done)).then(() => player.pixels(320, 200)).then(() => performance.now())`
    };
  </script>`;

async function openPlayer(browser: Browser, address: string, html: string, parcel: Buffer): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1400, height: 900 } });
  const headers = { 'cross-origin-opener-policy': 'same-origin', 'cross-origin-embedder-policy': 'require-corp' };
  await page.route('**/apart/**', (route) => {
    const { pathname } = new URL(route.request().url());
    if (pathname.endsWith('.js')) return route.fulfill({ body: script, contentType: 'text/javascript', headers });
    if (pathname.endsWith('.zip')) return route.fulfill({ body: parcel, contentType: 'application/zip', headers });
    return route.fulfill({ body: html, contentType: 'text/html', headers });
  });
  await page.goto(`${address}/apart/`);
  await page.waitForFunction(() => window.firstPicture !== undefined);
  return page;
}

const result = await inChromium(async (browser, address) => {
  const bench = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const json = async (path: string) => (await (await bench.request.get(`${address}/api${path}`)).json()) as never;
  const projects: { id: string; name: string }[] = await json('/projects');
  const { id: project } = projects.find(({ name }) => name === 'Fenlight')!;
  const { effects }: { effects: { id: string; name: string }[] } = await json(`/projects/${project}`);
  const { id } = effects.find(({ name }) => name === NAME)!;
  const parcel = await (await bench.request.get(`${address}/api/effects/${id}/parcel`)).body();

  const firsts: number[] = [];
  for (let n = 0; n < OPENINGS; n++) {
    const page = await openPlayer(browser, address, pageOf(1280, 800, false), parcel);
    firsts.push(await page.evaluate(() => window.firstPicture));
    await page.close();
  }

  await bench.goto(`${address}/effects/${id}`);
  await bench.waitForFunction(() => 'jinx' in window);
  await bench.keyboard.press('c');
  const size = await bench
    .locator('canvas')
    .first()
    .evaluate((canvas) => ({
      width: (canvas as HTMLCanvasElement).clientWidth,
      height: (canvas as HTMLCanvasElement).clientHeight,
    }));
  // It begins to play by itself.
  const isPlaying = (wanted: boolean) => bench.waitForFunction((is) => jinx.state().isPlaying === is, wanted);
  await isPlaying(true);
  await bench.keyboard.press(' ');
  await isPlaying(false);
  await bench.evaluate(async (step) => {
    jinx.seek(step);
    await jinx.hash();
  }, STEP);
  const player = await openPlayer(browser, address, pageOf(size.width, size.height, true), parcel);
  await player.evaluate(() => window.firstPicture);
  const times = { bench: [] as number[], player: [] as number[] };
  for (let round = 0; round < ROUNDS; round++) {
    await bench.bringToFront();
    times.bench.push(...(await bench.evaluate((n) => jinx.timeDrawing(n), DRAWINGS)));
    await player.bringToFront();
    times.player.push(...(await player.evaluate((n) => window.timed.timeDrawing(n), DRAWINGS)));
  }
  return { firsts, times, size };
});

const [mine, theirs] = [lowerQuartile(result.times.player), lowerQuartile(result.times.bench)];
console.log(
  JSON.stringify({
    gzipKilobytes: rounded(gzipSync(script, { level: 9 }).length / 1000),
    firstPictureMs: Math.round([...result.firsts].sort((a, b) => a - b)[Math.floor(OPENINGS / 2)]!),
    frameRatio: rounded(mine / theirs),
    playerMs: rounded(mine),
    benchMs: rounded(theirs),
    size: `${result.size.width}x${result.size.height}`,
    cpu: cpus()[0]!.model,
  }),
);
