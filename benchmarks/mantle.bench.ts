// Lamplit Mantle: milliseconds a simulation step (here, one thread) and a drawn frame (in Chromium), and how many live.
import { chromium } from '@playwright/test';
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

async function drawing(): Promise<{ milliseconds: number; living: number }> {
  const wasRunning = runningServer() !== null;
  if (!wasRunning) await startJinx();
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://localhost:${runningServer()?.port ?? PORT}/`);
    await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
    await page.waitForFunction(
      () => (window as unknown as { jinx?: { state(): { living: number } } }).jinx?.state().living,
    );
    return await page.evaluate(
      async ([step, frames]) => {
        const door = (
          window as unknown as {
            jinx: {
              seek(step: number): void;
              hash(): Promise<unknown>;
              timeDrawing(times: number): Promise<number[]>;
              state(): { living: number };
            };
          }
        ).jinx;
        (document.querySelector('[aria-label="Pause"]') as HTMLElement).click();
        door.seek(step!);
        await door.hash();
        await door.timeDrawing(5);
        const times = (await door.timeDrawing(frames!)).sort((a, b) => a - b);
        return { milliseconds: times[times.length >> 1]!, living: door.state().living };
      },
      [WARM_STEPS, FRAMES],
    );
  } finally {
    await browser.close();
    if (!wasRunning) await stopJinx();
  }
}

const step = await stepping(true);
const twin = await stepping(false);
const frame = await drawing();
const result = {
  benchmark: 'mantle',
  living: step.living,
  stepMilliseconds: rounded(step.milliseconds),
  twinStepMilliseconds: rounded(twin.milliseconds),
  frameMilliseconds: rounded(frame.milliseconds),
  stage: '896x392',
  cores: cpus().length,
};
console.log(
  `A step takes ${result.stepMilliseconds} ms with ${result.living} living (${result.twinStepMilliseconds} ms with the twins); a frame ${result.frameMilliseconds} ms at ${result.stage}.`,
);
console.log(JSON.stringify(result));
