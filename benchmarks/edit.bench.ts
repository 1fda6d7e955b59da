// How long after a key is pressed its change is drawn, on the bench with Lamplit Mantle playing: 200 edits of ten kinds,
// dress (seen of the same particles) and state (simulated anew) apart. Every drawn frame carries the number of its edit.
import type { Browser, Page } from '@playwright/test';
import { cpus } from 'node:os';
import { median, rounded } from './figures.ts';
import { freshWindow, goToChapter, inChromium } from './inChromium.ts';

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
  state(): { step: number; drawMilliseconds: number; isExact: boolean };
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

interface Traced {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  readonly ts: number;
  readonly dur?: number;
  /** Of `dur`, what the thread ran: the rest it waited for a core. */
  readonly tdur?: number;
  readonly args?: { readonly name?: string };
}
/** What of a task is the page's own: its script, and the layout that follows from it. */
const OWN = new Set([
  'FunctionCall',
  'EvaluateScript',
  'EventDispatch',
  'TimerFire',
  'FireAnimationFrame',
  'RunMicrotasks',
  'MinorGC',
  'MajorGC',
  'UpdateLayoutTree',
  'Layout',
]);

/** Milliseconds of script and layout in a task of the page's main thread: by the clock, and those it had a core for. */
interface Script {
  readonly clock: number;
  readonly run: number;
}

function scriptsOf(trace: Buffer): Script[] {
  const { traceEvents } = JSON.parse(trace.toString('utf8')) as { traceEvents: Traced[] };
  const main = mainThreads(traceEvents);
  const own = traceEvents.filter(({ pid, tid, ph }) => ph === 'X' && main.has(`${pid}/${tid}`));
  const parts = own.filter(({ name }) => OWN.has(name)).sort((a, b) => a.ts - b.ts);
  return own
    .filter(({ name }) => name === 'RunTask' || name === 'ThreadControllerImpl::RunTask')
    .map(({ pid, tid, ts, dur = 0 }) => {
      let [clock, run, until] = [0, 0, ts];
      for (const part of parts) {
        if (part.ts >= ts + dur) break;
        if (part.pid !== pid || part.tid !== tid || part.ts < until) continue;
        // What is nested in another part is in that already.
        clock += part.dur ?? 0;
        run += part.tdur ?? 0;
        until = part.ts + (part.dur ?? 0);
      }
      return { clock: clock / 1000, run: run / 1000 };
    });
}

/** The main threads of pages; there is one page. */
function mainThreads(events: readonly Traced[]): ReadonlySet<string> {
  const mains = events.filter(({ name, args }) => name === 'thread_name' && args?.name === 'CrRendererMain');
  return new Set(mains.map(({ pid, tid }) => `${pid}/${tid}`));
}

async function measured(browser: Browser, page: Page) {
  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
  await page.waitForTimeout(1500);
  await listen(page);
  await browser.startTracing(page, { categories: ['toplevel', 'devtools.timeline', 'blink.user_timing', 'v8'] });
  const latencies = { dress: [] as number[], state: [] as number[] };
  for (const { chapter, chip, acts } of KINDS) {
    await goToChapter(page, chapter);
    await page.getByRole('button', { name: chip }).first().focus();
    for (let n = 0; n < EDITS_A_KIND; n++) {
      latencies[acts].push(await press(page, n % 2 ? 'ArrowUp' : 'ArrowDown'));
      await page.waitForTimeout(60);
    }
  }
  const long = await page.evaluate(() => window.pressed!.long);
  const scripts = scriptsOf(await browser.stopTracing());
  return { latencies, long, scripts };
}

/** Seconds that are played before it is measured how long an edit takes to be exact. */
const PLAYED_SECONDS = 60;

/** Milliseconds from the press of a key to the run that is exact with its edit, after a minute of playing. */
async function settleMilliseconds(page: Page): Promise<number[]> {
  await page.waitForFunction((steps) => window.jinx!.state().step > steps, PLAYED_SECONDS * 60, { timeout: 300_000 });
  await goToChapter(page, 'Births');
  await page
    .getByRole('button', { name: /^lifetime:/ })
    .first()
    .focus();
  const all: number[] = [];
  for (const key of ['ArrowDown', 'ArrowUp', 'ArrowDown', 'ArrowUp']) {
    await page.keyboard.press(key);
    await page.waitForFunction(() => !window.jinx!.state().isExact, undefined, { polling: 10, timeout: TOO_LONG });
    await page.waitForFunction(() => window.jinx!.state().isExact, undefined, { polling: 10, timeout: 120_000 });
    all.push(await page.evaluate(() => performance.now() - window.pressed!.pressedAt));
    await page.waitForTimeout(500);
  }
  return all;
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

/** How often the pages are opened, each time in a browser profile that has nothing kept. */
const OPENINGS = 3;

/** The demo's effect of the longest document. */
async function largestEffect(page: Page, address: string): Promise<string> {
  const get = async <T>(path: string) => (await (await page.request.get(`${address}/api/${path}`)).json()) as T;
  const projects = await get<{ id: string; name: string }[]>('projects');
  const { effects } = await get<{ effects: { id: string }[] }>(
    `projects/${projects.find(({ name }) => name === 'Fenlight')!.id}`,
  );
  const sizes = await Promise.all(
    effects.map(async ({ id }) => ({ id, size: JSON.stringify(await get(`effects/${id}`)).length })),
  );
  return sizes.reduce((largest, each) => (each.size > largest.size ? each : largest)).id;
}

/** Milliseconds from the address of a page to `isThere`, in a fresh profile each time. */
async function openings(browser: Browser, address: string, isThere: (page: Page) => Promise<unknown>) {
  const times: number[] = [];
  for (let n = 0; n < OPENINGS; n++) {
    const page = await freshWindow(browser);
    const begun = performance.now();
    await page.goto(address, { waitUntil: 'commit' });
    await isThere(page);
    times.push(performance.now() - begun);
    await page.context().close();
  }
  return median(times);
}
/** The first picture of an effect is on the stage. */
const isDrawn = (page: Page) =>
  page.waitForFunction(() => (window.jinx?.edits().shown.length ?? 0) > 0, undefined, {
    polling: 10,
    timeout: 120_000,
  });
/** Every effect that home lists has its picture. */
const isPictured = (page: Page) =>
  page.waitForFunction(
    () => {
      const cards = [...document.querySelectorAll('a.card')];
      return (
        cards.length >= 13 &&
        cards.every((card) => card.querySelector('canvas, img') !== null) &&
        [...document.querySelectorAll<HTMLImageElement>('a.card img')].every(
          ({ complete, naturalWidth }) => complete && naturalWidth > 0,
        )
      );
    },
    undefined,
    { polling: 10, timeout: 120_000 },
  );

const { frameMs, latencies, long, scripts, settles, openMs, homeMs } = await inChromium(async (browser, address) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const largest = await largestEffect(page, address);
  await page.goto('about:blank');
  const homeMs = await openings(browser, `${address}/`, isPictured);
  const openMs = await openings(browser, `${address}/effects/${largest}`, isDrawn);
  await page.goto(`${address}/`);
  await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 120, undefined, { timeout: 120_000 });
  // Each edit is undone by the next one, so the demo is left as it was.
  const frameMs = await frameMilliseconds(page);
  return { frameMs, openMs, homeMs, ...(await measured(browser, page)), settles: await settleMilliseconds(page) };
});
const result = {
  benchmark: 'edit',
  openMs: rounded(openMs),
  homeMs: rounded(homeMs),
  edits: latencies.dress.length + latencies.state.length,
  frameMs: rounded(frameMs),
  dressMedianMs: rounded(median(latencies.dress)),
  dressWorstMs: rounded(Math.max(...latencies.dress)),
  stateMedianMs: rounded(median(latencies.state)),
  stateWorstMs: rounded(Math.max(...latencies.state)),
  settleMs: rounded(median(settles)),
  longScriptTasks: scripts.filter(({ clock }) => clock > 50).length,
  longestScriptMs: rounded(Math.max(0, ...scripts.map(({ clock }) => clock))),
  longScriptRunTasks: scripts.filter(({ run }) => run > 50).length,
  longestScriptRunMs: rounded(Math.max(0, ...scripts.map(({ run }) => run))),
  longTasks: long.filter((duration) => duration > 50).length,
  longestTaskMs: rounded(Math.max(0, ...long)),
  cores: cpus().length,
};
console.log(
  `The largest demo effect shows its first picture ${result.openMs} ms after its address, home all its thumbnails after ${result.homeMs} ms.`,
);
console.log(
  `A change is drawn ${result.dressMedianMs} ms after its key (dress; ${result.stateMedianMs} ms state), at worst ${result.dressWorstMs} (${result.stateWorstMs}); a picture takes ${result.frameMs} ms. ${result.longScriptTasks} tasks of the page had over 50 ms of script and layout, the longest ${result.longestScriptMs} (${result.longScriptRunTasks} had a core for so long, the longest ${result.longestScriptRunMs}); ${result.longTasks} were over 50 ms with the browser's own painting, the longest ${result.longestTaskMs}. After ${PLAYED_SECONDS} s of playing an edit is exact after ${result.settleMs} ms.`,
);
console.log(JSON.stringify(result));
