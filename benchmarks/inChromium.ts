import { chromium, type Browser, type Page } from '@playwright/test';
import { CHROMIUM } from '../server/chromium.ts';
import { portForWeb, run as startJinx, runningServer } from '../scripts/start.mjs';
import { run as stopJinx } from '../scripts/stop.mjs';

/**
 * Measures in Chromium, at the address of a running Jinx: where none runs, it is started, and stopped again. Results are
 * printed afterwards, so that they come last.
 */
export async function inChromium<T>(measure: (browser: Browser, address: string) => Promise<T>): Promise<T> {
  const wasRunning = runningServer() !== null;
  if (!wasRunning) await startJinx();
  const browser = await chromium.launch(CHROMIUM);
  try {
    return await measure(browser, `http://localhost:${runningServer()?.port ?? portForWeb()}`);
  } finally {
    await browser.close();
    if (!wasRunning) await stopJinx();
  }
}

/** How long a new window takes to make what is the browser's own. */
const WINDOW_MILLISECONDS = 2500;
/** A window in a profile that has nothing kept, once the browser has made what is its own. */
export async function freshWindow(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto('about:blank');
  await page.waitForTimeout(WINDOW_MILLISECONDS);
  return page;
}

/** Goes to a chapter of the chosen layer's page, by its name above it. */
export const goToChapter = (page: Page, name: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Chapters' }).getByRole('button', { name }).click();
