// Lamplit Mantle: milliseconds a simulation step (here, one thread) and a drawn frame (in Chromium), how many live, and
// how the bench keeps up while it plays: steps and pictures a second, and the page's longest task.
import { chromium, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { importGlb } from '@jinx/core/formats';
import { World } from '@jinx/core/simulation';
import { KIT, lamplitMantle } from '@jinx/demo';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { CHROMIUM } from '../scripts/chromium.ts';
import { run as startJinx, runningServer, PORT } from '../scripts/start.mjs';
import { run as stopJinx } from '../scripts/stop.mjs';

const WARM_STEPS = 240;
const STEPS = 600;
const FRAMES = 40;
const PLAYING_SECONDS = 8;
const HASH = 'a'.repeat(64);

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const rounded = (value: number): number => Number(value.toFixed(3));

async function stepping(kernels: boolean): Promise<{ milliseconds: number; living: number }> {
  const rig = await importGlb(new Uint8Array(readFileSync(new URL('sedge.glb', KIT))), 'Sedge');
  const world = new World(lamplitMantle(HASH), new Map([[HASH, rig]]), {}, kernels ? { kernels: kernelBytes() } : {});
  world.advance(WARM_STEPS);
  const times = Array.from({ length: STEPS }, () => {
    const start = performance.now();
    world.advance(world.step + 1);
    return performance.now() - start;
  });
  return { milliseconds: median(times), living: world.living };
}

interface Door {
  seek(step: number): void;
  hash(): Promise<unknown>;
  timeDrawing(times: number): Promise<number[]>;
  state(): { step: number; living: number };
}
declare const window: { jinx?: Door };

/** The page while the effect plays by itself. */
async function playing(page: Page): Promise<{ stepsPerSecond: number; longestTaskMilliseconds: number }> {
  return page.evaluate(async (seconds) => {
    let longest = 0;
    const observer = new PerformanceObserver((list) => {
      for (const task of list.getEntries()) longest = Math.max(longest, task.duration);
    });
    observer.observe({ entryTypes: ['longtask'] });
    const from = window.jinx!.state().step;
    await new Promise((done) => setTimeout(done, seconds * 1000));
    observer.disconnect();
    return {
      stepsPerSecond: (window.jinx!.state().step - from) / seconds,
      longestTaskMilliseconds: longest,
    };
  }, PLAYING_SECONDS);
}

async function drawing(page: Page): Promise<number> {
  await page.getByRole('button', { name: 'Pause' }).click();
  return page.evaluate(
    async ([step, frames]) => {
      const door = window.jinx!;
      door.seek(step!);
      await door.hash();
      await door.timeDrawing(5);
      const times = (await door.timeDrawing(frames!)).sort((a, b) => a - b);
      return times[times.length >> 1]!;
    },
    [WARM_STEPS, FRAMES],
  );
}

async function inChromium() {
  const wasRunning = runningServer() !== null;
  if (!wasRunning) await startJinx();
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://localhost:${runningServer()?.port ?? PORT}/`);
    await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
    await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 120);
    return { ...(await playing(page)), frameMilliseconds: await drawing(page) };
  } finally {
    await browser.close();
    if (!wasRunning) await stopJinx();
  }
}

const step = await stepping(true);
const twin = await stepping(false);
const seen = await inChromium();
const result = {
  benchmark: 'mantle',
  living: step.living,
  stepMilliseconds: rounded(step.milliseconds),
  twinStepMilliseconds: rounded(twin.milliseconds),
  frameMilliseconds: rounded(seen.frameMilliseconds),
  stepsPerSecondPlaying: rounded(seen.stepsPerSecond),
  longestTaskMilliseconds: rounded(seen.longestTaskMilliseconds),
  stage: '896x392',
  cores: cpus().length,
};
console.log(
  `A step takes ${result.stepMilliseconds} ms with ${result.living} living (${result.twinStepMilliseconds} ms with the twins); a frame ${result.frameMilliseconds} ms at ${result.stage}. Playing, ${result.stepsPerSecondPlaying} steps a second; no task of the page over ${Math.max(50, Math.ceil(result.longestTaskMilliseconds))} ms.`,
);
console.log(JSON.stringify(result));
