// What the stage's drawing costs, in Chromium at 1280 × 800: milliseconds a frame for sprites in one layer, beside three.js
// drawing the same particles as barely as it can. From both is taken what a frame without particles costs, for the bare
// one has no sky, ground or lens; the two are drawn in turns, and the lower quartiles compared.
import { chromium, type Page } from '@playwright/test';
import { build } from 'esbuild';
import { cpus } from 'node:os';
import { CHROMIUM } from '../server/chromium.ts';
import type { TimeOrder } from './drawPage/page.ts';
import { lowerQuartile, rounded } from './figures.ts';

const COUNTS = [1000, 10_000, 50_000];
const ROUNDS = 5;
const FRAMES = 10;

async function open(page: Page): Promise<void> {
  const entry = new URL('./drawPage/page.ts', import.meta.url).pathname;
  const built = await build({
    entryPoints: [entry],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    external: ['node:*'],
  });
  const headers = { 'cross-origin-opener-policy': 'same-origin', 'cross-origin-embedder-policy': 'require-corp' };
  const bodies: Record<string, [string, string]> = {
    '/': ['<!doctype html><title>draw</title><script src="/page.js"></script>', 'text/html'],
    '/page.js': [built.outputFiles[0]!.text, 'text/javascript'],
  };
  await page.route('http://localhost/**', (route) => {
    const answer = bodies[new URL(route.request().url()).pathname];
    return answer
      ? route.fulfill({ body: answer[0], contentType: answer[1], headers })
      : route.fulfill({ status: 404, body: '' });
  });
  await page.goto('http://localhost/');
}

const browser = await chromium.launch({
  ...CHROMIUM,
  args: [...CHROMIUM.args, '--js-flags=--expose-gc', '--enable-precise-memory-info'],
});
const page = await browser.newPage();
page.on('pageerror', (error) => {
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
});
await open(page);
const timed = (order: Omit<TimeOrder, 'frames'>) =>
  page.evaluate((given) => window.drawing.time(given), { ...order, frames: FRAMES });

/** Lower quartiles of several orders, drawn in turns so that a busy moment meets them all. */
async function inTurns<K extends string>(
  orders: Record<K, Omit<TimeOrder, 'frames'>>,
  rounds = ROUNDS,
): Promise<Record<K, number>> {
  const times = Object.fromEntries(Object.keys(orders).map((name) => [name, [] as number[]])) as Record<K, number[]>;
  for (let round = 0; round < rounds; round++)
    for (const name of Object.keys(orders) as K[]) times[name].push(...(await timed(orders[name])));
  return Object.fromEntries(
    Object.entries(times).map(([name, all]) => [name, lowerQuartile(all as number[])]),
  ) as Record<K, number>;
}

const one = { layers: 1 } as const;
const ratioAt2px: Record<string, number> = {};
const msAt2px: Record<string, number> = {};
const msAt48px: Record<string, number> = {};
const bareAt48px: Record<string, number> = {};
for (const pixels of [2, 48])
  for (const count of COUNTS) {
    // At 48 px the cost is that of the pixels alone: fifty thousand cover the picture a hundred times.
    const { ours, empty, bare, bareEmpty } = await inTurns(
      {
        ours: { who: 'stage', count, pixels, ...one },
        empty: { who: 'stage', count: 0, pixels, ...one },
        bare: { who: 'bare', count, pixels, ...one },
        bareEmpty: { who: 'bare', count: 0, pixels, ...one },
      },
      count === 1000 ? 4 * ROUNDS : ROUNDS,
    );
    if (pixels === 2) {
      ratioAt2px[count] = rounded((ours - empty) / (bare - bareEmpty));
      msAt2px[count] = rounded(ours - empty);
    } else {
      msAt48px[count] = rounded(ours - empty);
      bareAt48px[count] = rounded(bare - bareEmpty);
    }
    process.stderr.write(
      `${count} at ${pixels} px: ours ${(ours - empty).toFixed(2)} ms (frame ${ours.toFixed(2)}), bare ${(bare - bareEmpty).toFixed(2)} ms\n`,
    );
  }
const layers = await inTurns({
  ten: { who: 'stage', count: 50_000, layers: 10, pixels: 2 },
  single: { who: 'stage', count: 50_000, layers: 1, pixels: 2 },
  empty: { who: 'stage', count: 0, layers: 1, pixels: 2 },
});
const beside = await inTurns({
  plain: { who: 'stage', count: 1000, pixels: 2, ...one },
  bloom: { who: 'stage', count: 1000, pixels: 2, beside: 'bloom', ...one },
  haze: { who: 'stage', count: 1000, pixels: 2, beside: 'haze', ...one },
  lights: { who: 'stage', count: 1000, pixels: 2, beside: 'lights', ...one },
});
const callsOf = async (count: number) => {
  await timed({ who: 'stage', count: 1000 * count, pixels: 2, layers: count });
  return (await page.evaluate(() => window.drawing.calls())).calls;
};
const [callsOfOne, callsOfTen] = [await callsOf(1), await callsOf(10)];
// A layer with a look that nothing has yet is added while all goes on: its shader is made ready behind the frames.
const adding = await page.evaluate((order) => window.drawing.adding(order, 60), {
  who: 'stage',
  count: 10_000,
  pixels: 2,
  frames: 0,
  layers: 2,
} as TimeOrder);
// Every allocation of so many frames, by sampling: what is collected meanwhile counts as well.
const SAMPLED = 200;
const profiler = await page.context().newCDPSession(page);
await page.evaluate((order) => window.drawing.prepare(order), {
  who: 'stage',
  count: 10_000,
  pixels: 2,
  frames: 0,
  layers: 10,
} as TimeOrder);
await profiler.send('HeapProfiler.startSampling', {
  samplingInterval: 64,
  includeObjectsCollectedByMajorGC: true,
  includeObjectsCollectedByMinorGC: true,
});
await page.evaluate((frames) => window.drawing.run(frames), SAMPLED);
const { profile } = await profiler.send('HeapProfiler.stopSampling');
type ProfileNode = (typeof profile)['head'];
const allocated = new Map<string, number>();
const visit = ({ callFrame, selfSize, children }: ProfileNode): void => {
  if (selfSize > 0)
    allocated.set(callFrame.functionName, (allocated.get(callFrame.functionName) ?? 0) + selfSize / SAMPLED);
  children.forEach(visit);
};
visit(profile.head);
const bytesPerFrame = [...allocated.values()].reduce((sum, bytes) => sum + bytes, 0);
for (const [name, bytes] of [...allocated].sort((a, b) => b[1] - a[1]).slice(0, 12))
  process.stderr.write(`${bytes.toFixed(0)} bytes a frame in ${name || 'a function without a name'}\n`);
await browser.close();
console.log(
  JSON.stringify({
    bench: 'draw',
    cores: cpus().length,
    ratioAt2px,
    msAt2px,
    tenLayersRatio: rounded((layers.ten - layers.empty) / (layers.single - layers.empty)),
    msAt48px,
    bareMsAt48px: bareAt48px,
    emptyFrameMs: rounded(layers.empty),
    bloomMs: rounded(beside.bloom - beside.plain),
    hazeMs: rounded(beside.haze - beside.plain),
    sixteenLightsMs: rounded(beside.lights - beside.plain),
    drawCallsPerLayer: (callsOfTen - callsOfOne) / 9,
    drawCallsOfOneLayer: callsOfOne,
    adding: {
      worstMsBefore: rounded(Math.max(...adding.before)),
      worstMsUntilSeen: rounded(Math.max(...adding.after)),
      framesUntilSeen: adding.after.length,
    },
    bytesPerFrame: Math.round(bytesPerFrame),
  }),
);
