import { expect, test, type Page } from './test.ts';
import { closeDrawer, drawer, turnShown } from './choose.ts';
import type { Effect } from '@jinx/core/document';
import { differing, goTo, pixels, saved } from './bench.ts';

let project = '';
test.beforeEach(async ({ page }) => {
  const made = await page.request.post('/api/projects', { data: { name: `Starts ${Date.now().toString(36)}` } });
  project = ((await made.json()) as { id: string }).id;
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/projects/${project}`);
});

const effectOf = async (page: Page): Promise<Effect> => {
  await saved(page);
  const answer = await page.request.get(`/api${new URL(page.url()).pathname}`);
  return ((await answer.json()) as { document: Effect }).document;
};
const isPlaying = (page: Page) =>
  expect.poll(() => page.evaluate(() => window.jinx?.state().living ?? 0), { timeout: 60_000 }).toBeGreaterThan(0);
const lookFrom = async (page: Page, camera: string) => {
  await drawer(page, 'Camera');
  await page.getByRole('button', { name: camera, exact: true }).click();
  await closeDrawer(page, 'Camera');
};

test('an empty project begins with a bolt, whose picture plays under the pointer', async ({ page }) => {
  await page.goto(`/projects/${project}`);
  await page.getByRole('textbox', { name: 'Name of a new effect' }).fill('Marsh bolt');
  const bolt = page.getByRole('button', { name: /^Bolt a thrown/ });
  const strip = bolt.locator('.strip');
  await bolt.scrollIntoViewIfNeeded();
  await page.mouse.move(5, 5);
  // Once its picture has come it stands still.
  let still = await strip.screenshot();
  const standsStill = async () => {
    const before = still;
    await page.waitForTimeout(500);
    still = await strip.screenshot();
    return still.equals(before);
  };
  await expect.poll(standsStill).toBe(true);
  await bolt.hover();
  await expect.poll(async () => (await strip.screenshot()).equals(still)).toBe(false);
  const first = await strip.screenshot();
  await expect.poll(async () => (await strip.screenshot()).equals(first)).toBe(false);

  await bolt.click();
  await expect(page.getByRole('row', { name: 'Fan of light', exact: true })).toBeVisible();
  await isPlaying(page);
  await goTo(page, 70);
  expect(await page.evaluate(() => window.jinx.state().living)).toBeGreaterThan(60);
  expect((await effectOf(page)).name).toBe('Marsh bolt');
});

test('a camera is kept with the effect, named, and opens it again', async ({ page }) => {
  await page.request.post(`/api/projects/${project}/starts`, { data: { start: 'overhead', name: '' } });
  await page.goto(`/projects/${project}`);
  await page.getByRole('link', { name: 'Seed Wreath' }).click();
  await isPlaying(page);
  await turnShown(page, 'Guides');
  await goTo(page, 120);
  const near = await pixels(page);
  await lookFrom(page, 'game');
  const game = await pixels(page);
  // The figure is much smaller: most of what was bright is dark now.
  expect(differing(near, game, 30)).toBeGreaterThan(4000);
  await page.getByLabel(/^Stage/).focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  const turned = await pixels(page);
  expect(differing(game, turned, 20)).toBeGreaterThan(100);
  await lookFrom(page, 'Keep this camera');
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByRole('textbox', { name: 'name of the camera' }).fill('From the reeds');
  await page.keyboard.press('Enter');
  await lookFrom(page, 'near');
  expect(differing(near, await pixels(page))).toBe(0);
  await lookFrom(page, 'From the reeds');
  expect(differing(turned, await pixels(page))).toBe(0);
  const { order, byId } = (await effectOf(page)).stage.cameras;
  expect(order.map((id) => byId[id]!.name)).toEqual(['From the reeds']);

  await page.reload();
  await isPlaying(page);
  await turnShown(page, 'Guides');
  await goTo(page, 120);
  expect(differing(turned, await pixels(page))).toBe(0);
});
