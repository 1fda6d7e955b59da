// Lamplit Mantle: milliseconds a simulation step (here, one thread) and a drawn frame (in Chromium), how many live, and
// how the bench keeps up while it plays: steps a second, and the page's longest task, also while a value is dragged.
import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { importGlb } from '@jinx/core/formats';
import { playAlone } from '@jinx/core/simulation';
import { KIT, lamplitMantle } from '@jinx/demo';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { median, rounded } from './figures.ts';
import { goToChapter, inChromium } from './inChromium.ts';

const WARM_STEPS = 240;
const STEPS = 600;
const FRAMES = 40;
const PLAYING_SECONDS = 8;
const DRAG_MOVES = 60;
const HASH = 'a'.repeat(64);

async function stepping(kernels: boolean): Promise<{ milliseconds: number; living: number }> {
  const rig = await importGlb(new Uint8Array(readFileSync(new URL('sedge.glb', KIT))), 'Sedge');
  const world = playAlone(lamplitMantle(HASH), new Map([[HASH, rig]]), {}, kernels ? { kernels: kernelBytes() } : {});
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
declare const window: { jinx?: Door; longest?: number; observer?: PerformanceObserver };

/** Does something for a while; returns the page's longest task meanwhile, 0 where none was over 50 ms. */
async function longestTask(page: Page, work: () => Promise<unknown>): Promise<number> {
  await page.evaluate(() => {
    window.longest = 0;
    window.observer = new PerformanceObserver((list) => {
      for (const task of list.getEntries()) window.longest = Math.max(window.longest!, task.duration);
    });
    window.observer.observe({ entryTypes: ['longtask'] });
  });
  await work();
  return page.evaluate(() => (window.observer!.disconnect(), window.longest!));
}

/** The page while the effect plays by itself, and while a size is dragged meanwhile. */
async function playing(page: Page) {
  const from = await page.evaluate(() => window.jinx!.state().step);
  const started = performance.now();
  const longestTaskMilliseconds = await longestTask(page, () => page.waitForTimeout(PLAYING_SECONDS * 1000));
  const to = await page.evaluate(() => window.jinx!.state().step);
  const stepsPerSecond = ((to - from) * 1000) / (performance.now() - started);
  await goToChapter(page, 'Life');
  const chip = (await page.getByRole('button', { name: /^size/ }).boundingBox())!;
  const longestDraggingMilliseconds = await longestTask(page, async () => {
    await page.mouse.move(chip.x + 8, chip.y + 8);
    await page.mouse.down();
    for (let i = 1; i <= DRAG_MOVES; i++) await page.mouse.move(chip.x + 8 + 2 * i, chip.y + 8);
    await page.mouse.up();
  });
  await page.getByRole('button', { name: 'Undo' }).click();
  return { stepsPerSecond, longestTaskMilliseconds, longestDraggingMilliseconds };
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

const step = await stepping(true);
const twin = await stepping(false);
const seen = await inChromium(async (browser, address) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/`);
  await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 120);
  return { ...(await playing(page)), frameMilliseconds: await drawing(page) };
});
const result = {
  benchmark: 'mantle',
  living: step.living,
  stepMilliseconds: rounded(step.milliseconds),
  twinStepMilliseconds: rounded(twin.milliseconds),
  frameMilliseconds: rounded(seen.frameMilliseconds),
  stepsPerSecondPlaying: rounded(seen.stepsPerSecond),
  longestTaskMilliseconds: rounded(seen.longestTaskMilliseconds),
  longestDraggingMilliseconds: rounded(seen.longestDraggingMilliseconds),
  stage: '896x392',
  cores: cpus().length,
};
console.log(
  `A step takes ${result.stepMilliseconds} ms with ${result.living} living (${result.twinStepMilliseconds} ms with the twins); a frame ${result.frameMilliseconds} ms at ${result.stage}. Playing, ${result.stepsPerSecondPlaying} steps a second; no task of the page over ${Math.max(50, Math.ceil(result.longestTaskMilliseconds))} ms, ${Math.max(50, Math.ceil(result.longestDraggingMilliseconds))} ms while a value is dragged.`,
);
console.log(JSON.stringify(result));
