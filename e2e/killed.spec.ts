import { expect, test } from './test.ts';
import type { Effect } from '@jinx/core/document';
import { ServerProcess } from '../server/testing/serverProcess.ts';
import { saved, living } from './bench.ts';
import { CLUSTER_URL, freshDatabase } from './freshDatabase.ts';

// Needs a server that may be killed: one of its own, on a database of its own in the cluster of ./jinx test.
let server: ServerProcess;
test.beforeAll(async () => {
  test.skip(!CLUSTER_URL, 'JINX_TEST_DATABASE_URL is not set: ./jinx test sets it');
  server = new ServerProcess(7435, await freshDatabase('jinx_killed'));
  await server.start();
});
test.afterAll(() => server?.kill());

test('the server killed in mid-edit and back: nothing is lost, and the page says all the while how it stands', async ({
  page,
}) => {
  const address = `http://localhost:${server.port}`;
  await page.goto(`${address}/`);
  await page.getByRole('link', { name: 'Wick Flame' }).first().click();
  await living(page, 0);
  const id = page.url().split('/').pop()!;
  const name = page.getByLabel('layer name');
  const first = await name.inputValue();
  await name.fill('Before it fell');
  await name.press('Enter');
  await saved(page);

  const edits = page.waitForRequest((request) => request.url().endsWith('/edits'));
  await name.fill('As it fell');
  await name.press('Enter');
  await edits;
  await server.kill();
  await name.fill('While it lay');
  await name.press('Enter');
  const state = page.locator('[data-saving]');
  await expect(state).toHaveText(/^Kept in this browser for .*, until the server is back$/);
  // The effect plays on, and typing waits for nothing.
  const step = await page.evaluate(() => window.jinx.state().step);
  await expect.poll(() => page.evaluate(() => window.jinx.state().step)).not.toBe(step);
  await server.start();
  await saved(page);

  const stored = (await (await page.request.get(`${address}/api/effects/${id}`)).json()) as { document: Effect };
  const names = Object.values(stored.document.layers.byId).map((layer) => layer.name);
  expect(names).toContain('While it lay');
  expect(names).not.toContain(first);
  // Each change once: what was on its way as the server fell is either its own revision or part of the next.
  const revisions = (await (await page.request.get(`${address}/api/effects/${id}/revisions`)).json()) as {
    revision: number;
    labels: string[];
  }[];
  const labels = revisions.flatMap((revision) => revision.labels);
  expect(new Set(labels).size).toBe(labels.length);
});
