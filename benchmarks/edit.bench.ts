// How long after a key is pressed its change is drawn, on the bench with Lamplit Mantle playing: 200 edits of ten kinds,
// dress (seen of the same particles) and state (simulated anew) apart. Every drawn frame carries the number of its edit.
import { chromium, type Page } from '@playwright/test';
import { cpus } from 'node:os';
import { CHROMIUM } from '../scripts/chromium.ts';
import { run as startJinx, runningServer, portForWeb } from '../scripts/start.mjs';
import { run as stopJinx } from '../scripts/stop.mjs';
import { median, rounded } from './figures.ts';

const EDITS_A_KIND = 20;
const KINDS = [
  { chapter: 'Life', chip: /^size:/, acts: 'dress' },
  { chapter: 'Life', chip: /^opacity:/, acts: 'dress' },
  { chapter: 'Life', chip: /^intensity:/, acts: 'dress' },
  { chapter: 'Appearance', chip: /^width:/, acts: 'dress' },
  { chapter: 'Appearance', chip: /^height:/, acts: 'dress' },
  { chapter: 'Births', chip: /^rate:/, acts: 'state' },
  { chapter: 'Births', chip: /^lifetime:/, acts: 'state' },
  { chapter: 'Motion', chip: /^speed:/, acts: 'state' },
  { chapter: 'Motion', chip: /^attraction, strength/, acts: 'state' },
  { chapter: 'Motion', chip: /^vortex, spin/, acts: 'state' },
] as const;
/** Milliseconds after which an edit that is not drawn is given up. */
const TOO_LONG = 20_000;

interface Door {
  state(): { step: number; drawMilliseconds: number };
  edits(): { made: number; shown: { edit: number; at: number }[] };
}
interface Pressed {
  pressedAt: number;
  /** When tasks of over 50 ms ended, and how long they were. */
  long: number[];
}
declare const window: { jinx?: Door; pressed?: Pressed } & EventTarget;

async function listen(page: Page): Promise<void> {
  await page.evaluate(() => {
    window.pressed = { pressedAt: 0, long: [] };
    window.addEventListener('keydown', ({ timeStamp }) => (window.pressed!.pressedAt = timeStamp), true);
    new PerformanceObserver((list) => {
      for (const task of list.getEntries()) window.pressed!.long.push(task.duration);
    }).observe({ entryTypes: ['longtask'] });
  });
}

/** Milliseconds from the press of a key to the picture that has its edit. */
async function press(page: Page, key: string): Promise<number> {
  const before = await page.evaluate(() => window.jinx!.edits().made);
  await page.keyboard.press(key);
  const handle = await page.waitForFunction(
    (edit) => {
      const shown = window.jinx!.edits().shown.find((each) => each.edit >= edit);
      return shown ? { latency: shown.at - window.pressed!.pressedAt } : null;
    },
    before + 1,
    { polling: 10, timeout: TOO_LONG },
  );
  return (await handle.jsonValue())!.latency;
}

async function measured(page: Page) {
  await page.getByRole('listitem', { name: 'Motes', exact: true }).getByText('Motes').click();
  await page.waitForTimeout(1500);
  await listen(page);
  const latencies = { dress: [] as number[], state: [] as number[] };
  for (const { chapter, chip, acts } of KINDS) {
    await page.getByRole('tab', { name: chapter }).click();
    await page.getByRole('button', { name: chip }).first().focus();
    for (let n = 0; n < EDITS_A_KIND; n++) {
      latencies[acts].push(await press(page, n % 2 ? 'ArrowUp' : 'ArrowDown'));
      await page.waitForTimeout(60);
    }
  }
  const long = await page.evaluate(() => window.pressed!.long);
  return { latencies, long };
}

/** Milliseconds that the stage takes for a picture while it plays. */
async function frameMilliseconds(page: Page): Promise<number> {
  await page.waitForTimeout(4000);
  const times: number[] = [];
  for (let n = 0; n < 12; n++) {
    times.push(await page.evaluate(() => window.jinx!.state().drawMilliseconds));
    await page.waitForTimeout(450);
  }
  return median(times);
}

const wasRunning = runningServer() !== null;
if (!wasRunning) await startJinx();
const browser = await chromium.launch(CHROMIUM);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const address = `http://localhost:${runningServer()?.port ?? portForWeb()}`;
  await page.goto(`${address}/`);
  await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 120, undefined, { timeout: 120_000 });
  // Each edit is undone by the next one, so the demo is left as it was.
  const frameMs = await frameMilliseconds(page);
  const { latencies, long } = await measured(page);
  const result = {
    benchmark: 'edit',
    edits: latencies.dress.length + latencies.state.length,
    frameMs: rounded(frameMs),
    dressMedianMs: rounded(median(latencies.dress)),
    dressWorstMs: rounded(Math.max(...latencies.dress)),
    stateMedianMs: rounded(median(latencies.state)),
    stateWorstMs: rounded(Math.max(...latencies.state)),
    longTasks: long.filter((duration) => duration > 50).length,
    longestTaskMs: rounded(Math.max(0, ...long)),
    cores: cpus().length,
  };
  console.log(
    `A change is drawn ${result.dressMedianMs} ms after its key (dress; ${result.stateMedianMs} ms state), at worst ${result.dressWorstMs} (${result.stateWorstMs}); a picture takes ${result.frameMs} ms. ${result.longTasks} tasks of the page were over 50 ms, the longest ${result.longestTaskMs}.`,
  );
  console.log(JSON.stringify(result));
} finally {
  await browser.close();
  if (!wasRunning) await stopJinx();
}
