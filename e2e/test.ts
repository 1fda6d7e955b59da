import { test as base, type BrowserContext, type Page } from '@playwright/test';
import { addressOf } from './addresses.ts';

export { expect, type Locator, type Page, type TestInfo } from '@playwright/test';

/** Lets a test's own requests be sent again where the server had closed a connection that was kept for the next one. */
function resend({ request }: BrowserContext): void {
  for (const method of ['get', 'post', 'put', 'delete'] as const) {
    const send = request[method].bind(request);
    request[method] = (url, options) => send(url, { maxRetries: 3, ...options });
  }
}

/** What leaves something behind in a page, so that the next test needs another. */
const MARKS = ['addInitScript', 'emulateMedia', 'exposeFunction', 'on', 'route', 'setViewportSize'] as const;

/** Pages in which a test did what would be felt by the next. */
const marked = new WeakSet<Page>();

function watchMarks(page: Page): void {
  for (const name of MARKS) {
    const act = page[name].bind(page) as (...args: unknown[]) => unknown;
    Object.assign(page, { [name]: (...args: unknown[]) => (marked.add(page), act(...args)) });
  }
}

/** A page that finds nothing stored in the browser. */
async function freshPage(context: BrowserContext, origin: string): Promise<Page> {
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'local_storage,indexeddb' });
  await session.detach();
  watchMarks(page);
  return page;
}

/** Goes to a place of the application, within it where the page shows it already: that spares most of a test's time. */
export async function goWithin(page: Page, path: string): Promise<void> {
  const isElsewhere = await page.evaluate(
    (to) => (document.querySelector('#app')?.childElementCount ?? 0) > 0 && location.pathname !== to,
    path,
  );
  if (!isElsewhere) return void (await page.goto(path));
  await page.evaluate(async (to) => {
    const before = window.jinx as unknown;
    // As the router itself leaves it, which goes on from there.
    const state = { back: null, current: to, forward: null, position: history.length, replaced: false, scroll: null };
    history.pushState(state, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state }));
    while (before !== undefined && (window.jinx as unknown) === before)
      await new Promise((later) => setTimeout(later, 10));
  }, path);
}

/** A browser context, and the page in it that goes on to the next test. */
interface Kept {
  readonly context: BrowserContext;
  page: Page | null;
}

/**
 * Tests with a server, a browser context and, as long as nothing is wrong with it, a page each worker: Chromium loads and
 * compiles the application once. Each test finds the application on a page without an effect.
 */
export const test = base.extend<{ kept: Kept }, { keptFor: (deviceScaleFactor: number) => Promise<Kept> }>({
  keptFor: [
    async ({ browser }, use, { project, parallelIndex }) => {
      const { viewport, actionTimeout = 0 } = project.use;
      const all = new Map<number, Kept>();
      // A screen of other pixels is a context of its own.
      await use(async (deviceScaleFactor) => {
        const known = all.get(deviceScaleFactor);
        if (known) return known;
        const baseURL = addressOf(parallelIndex);
        const context = await browser.newContext({ viewport, baseURL, deviceScaleFactor });
        context.setDefaultTimeout(actionTimeout);
        resend(context);
        const made: Kept = { context, page: null };
        all.set(deviceScaleFactor, made);
        return made;
      });
      for (const { context } of all.values()) await context.close();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({}, use, { parallelIndex }) => use(addressOf(parallelIndex)),
  kept: async ({ keptFor, deviceScaleFactor }, use) => use(await keptFor(deviceScaleFactor ?? 1)),
  context: async ({ kept }, use) => {
    const { context } = kept;
    await use(context);
    await context.setOffline(false);
    await context.clearCookies();
    for (const page of context.pages()) if (page !== kept.page) await page.close();
  },
  page: async ({ context, kept, baseURL }, use, info) => {
    const page = kept.page ?? (await freshPage(context, baseURL!));
    kept.page = null;
    await use(page);
    const isWhole = info.status === info.expectedStatus && !marked.has(page) && !page.isClosed();
    if (!isWhole || !page.url().startsWith(baseURL!)) return;
    await goWithin(page, '/sign-in');
    await page.getByRole('heading', { name: 'Sign in' }).waitFor();
    kept.page = page;
  },
});
