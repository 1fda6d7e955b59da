import { test as base, type BrowserContext } from '@playwright/test';
import { addressOf } from './addresses.ts';

export { expect, type Locator, type Page, type TestInfo } from '@playwright/test';

/** Lets a test's own requests be sent again where the server had closed a connection that was kept for the next one. */
function resend({ request }: BrowserContext): void {
  for (const method of ['get', 'post', 'put', 'delete'] as const) {
    const send = request[method].bind(request);
    request[method] = (url, options) => send(url, { maxRetries: 3, ...options });
  }
}

/**
 * Tests with a server and one browser context a worker, so that Chromium compiles the application once and keeps what it compiled. Each
 * test has a page of its own, and finds nothing stored in the browser.
 */
export const test = base.extend<object, { workerContext: BrowserContext }>({
  workerContext: [
    async ({ browser }, use, { project, parallelIndex }) => {
      const { viewport, deviceScaleFactor } = project.use;
      const baseURL = addressOf(parallelIndex);
      const context = await browser.newContext({ viewport, baseURL, deviceScaleFactor });
      context.setDefaultTimeout(project.use.actionTimeout ?? 0);
      resend(context);
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({}, use, { parallelIndex }) => use(addressOf(parallelIndex)),
  context: async ({ workerContext, browser, baseURL, viewport, deviceScaleFactor }, use, { project }) => {
    // A screen of other pixels is a context of its own.
    if (deviceScaleFactor !== project.use.deviceScaleFactor) {
      const own = await browser.newContext({ viewport, baseURL, deviceScaleFactor });
      own.setDefaultTimeout(project.use.actionTimeout ?? 0);
      await use(own);
      return own.close();
    }
    await use(workerContext);
    await workerContext.setOffline(false);
    await workerContext.clearCookies();
    for (const page of workerContext.pages()) await page.close();
  },
  page: async ({ context, baseURL }, use) => {
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    await session.send('Storage.clearDataForOrigin', {
      origin: new URL(baseURL!).origin,
      storageTypes: 'local_storage,indexeddb',
    });
    await session.detach();
    await use(page);
  },
});
