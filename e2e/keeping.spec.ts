import { expect, test, type Page } from './test.ts';
import { turnShown, below } from './choose.ts';
import type { Effect } from '@jinx/core/document';
import { differing, goTo, openMantle, pixels, saved } from './bench.ts';

const row = (page: Page, name: string) => page.getByRole('row', { name, exact: true });
const playing = (page: Page) =>
  expect.poll(() => page.evaluate(() => window.jinx?.state().living ?? 0), { timeout: 60_000 }).toBeGreaterThan(0);
async function rename(page: Page, layer: string, name: string): Promise<void> {
  await below(page, 'Rulers');
  await row(page, layer).getByText(layer, { exact: true }).click();
  await page.getByLabel('layer name').fill(name);
  await page.getByLabel('layer name').press('Enter');
}
const stored = async (page: Page, id: string): Promise<Effect> =>
  ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect }).document;
const layerNames = async (page: Page, id: string) =>
  Object.values((await stored(page, id)).layers.byId).map(({ name }) => name);
const state = (page: Page) => page.locator('[data-saving]');

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
});
test.afterEach(async ({ page, context }) => {
  await context.setOffline(false);
  await page.request.delete(`/api/effects/${id}`);
});

test('two windows on one effect: both changes are kept, both are told, and each sees the other', async ({
  page,
  context,
}) => {
  await expect(page.locator('[data-others]')).toHaveCount(0);
  const other = await context.newPage();
  await other.goto(`/effects/${id}`);
  await playing(other);
  await expect(page.locator('[data-others]')).toHaveText('Also in another window');
  await expect(other.locator('[data-others]')).toBeVisible();

  // While this window is at something, the other renames a layer: it is taken in here without a word lost.
  await page.getByLabel('layer name').fill('Half-typ');
  await rename(other, 'Embers', 'Cinders');
  await saved(other);
  await expect(row(page, 'Cinders')).toBeVisible();
  await expect(page.getByText(/Another window changed this too: .*Cinders/)).toBeVisible();
  await expect(page.getByLabel('layer name')).toHaveValue('Half-typ');
  await page.getByLabel('layer name').fill('Motes of two');
  await page.getByLabel('layer name').press('Enter');
  await saved(page);
  await expect(row(other, 'Motes of two')).toBeVisible();
  expect(await layerNames(page, id)).toEqual(expect.arrayContaining(['Cinders', 'Motes of two']));

  // Undo takes back what was done here, and nothing of the other's.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  await expect(row(other, 'Motes')).toBeVisible();
  expect(await layerNames(page, id)).toEqual(expect.arrayContaining(['Cinders', 'Motes']));
  await other.close();
  await expect(page.locator('[data-others]')).toHaveCount(0);
});

test('a real clash is shown side by side and chosen from, and what is given up lies in the tray', async ({
  page,
  context,
}) => {
  // The other changes while this one hears nothing.
  const other = await context.newPage();
  await other.goto(`/effects/${id}`);
  await playing(other);
  await page.route('**/api/effects/*/edits**', (route) => route.abort());
  await rename(page, 'Motes', 'Motes of mine');
  await rename(page, 'Embers', 'Embers of mine');
  await expect(state(page)).toHaveAttribute('data-state', 'away');
  await rename(other, 'Motes', 'Motes of theirs');
  await saved(other);
  await page.unroute('**/api/effects/*/edits**');

  const notice = page.getByRole('alertdialog', { name: 'Changed by two' });
  await expect(notice).toBeVisible();
  await expect(state(page)).toHaveText('Kept in this browser: choose what to keep');
  // Only what both changed is asked.
  await expect(notice.getByRole('radio')).toHaveCount(2);
  await expect(notice).toContainText('Motes of mine');
  await expect(notice).toContainText('Motes of theirs');
  expect(await layerNames(page, id)).toEqual(expect.arrayContaining(['Motes of theirs', 'Embers']));
  await notice.getByRole('radio', { name: /^theirs/ }).check();
  await notice.getByRole('button', { name: 'Go on with what is chosen' }).click();
  await saved(page);
  await expect(row(other, 'Embers of mine')).toBeVisible();
  expect(await layerNames(page, id)).toEqual(expect.arrayContaining(['Motes of theirs', 'Embers of mine']));

  // What was given up is in the tray, and comes back from there.
  await below(page, 'Tray');
  const tray = page.getByRole('region', { name: 'Tray' });
  await expect(tray.getByLabel('name of the state')).toHaveValue('Mine, before the choice');
  await tray.getByRole('button', { name: 'Go on' }).click();
  const both = expect.arrayContaining(['Motes of mine', 'Embers of mine']);
  await expect.poll(() => layerNames(page, id)).toEqual(both);
});

test('a tab closed while away: what was made is sent, once, when Jinx is opened again', async ({ page, context }) => {
  await context.setOffline(true);
  await rename(page, 'Motes', 'Motes in the dark');
  await expect(state(page)).toHaveText(/^Kept in this browser for .*, until the server is back$/);
  await rename(page, 'Embers', 'Embers in the dark');
  // Chromium is online again for a closing page before the page has gone: this one's last try must fail as well.
  await page.evaluate(() => (window.fetch = () => Promise.reject(new TypeError('offline'))));
  await page.close({ runBeforeUnload: true });
  await expect.poll(() => page.isClosed()).toBe(true);
  await context.setOffline(false);
  const later = await context.newPage();
  expect(await layerNames(later, id)).toEqual(expect.arrayContaining(['Motes', 'Embers']));
  // Not on its own page: wherever Jinx is opened.
  await later.goto('/');
  await expect(later.getByText(/Saved now, from a window that was closed: Lamplit Mantle/)).toBeVisible();
  expect(await layerNames(later, id)).toEqual(expect.arrayContaining(['Motes in the dark', 'Embers in the dark']));
  const revision = async () =>
    ((await (await later.request.get(`/api/effects/${id}`)).json()) as { revision: number }).revision;
  const before = await revision();
  await later.goto(`/effects/${id}`);
  await playing(later);
  await expect(row(later, 'Motes in the dark')).toBeVisible();
  expect(await revision()).toBe(before);
  await later.close();
});

test('history tells each step in words, goes back and on, and restores a named revision', async ({ page }) => {
  await below(page, 'History');
  const steps = page.getByRole('region', { name: 'Steps since it was opened' });
  await expect(steps).toContainText('Nothing yet');
  await rename(page, 'Motes', 'Moths');
  await saved(page);
  await rename(page, 'Moths', 'Gnats');
  await saved(page);
  await below(page, 'History');
  await expect(steps.getByRole('button')).toHaveText([
    'Renamed: layer Moths to Gnats',
    'Renamed: layer Motes to Moths',
    'as it was opened',
  ]);
  const revisions = page.getByRole('region', { name: 'Revisions' });
  await expect(revisions).toContainText('Renamed: layer Motes to Moths; Renamed: layer Moths to Gnats');
  await revisions.getByLabel('name of revision 3').fill('With gnats');
  await revisions.getByLabel('name of revision 3').press('Enter');

  const name = page.getByLabel('layer name');
  await steps.getByRole('button', { name: 'as it was opened' }).click();
  await expect(name).toHaveValue('Motes');
  await steps.getByRole('button', { name: 'Motes to Moths' }).click();
  await expect(name).toHaveValue('Moths');
  await steps.getByRole('button', { name: 'as it was opened' }).click();
  await saved(page);
  await page.reload();
  await playing(page);
  await below(page, 'History');
  await expect(page.getByLabel('name of revision 3')).toHaveValue('With gnats');
  const named = revisions.getByRole('listitem').filter({ has: page.getByLabel('name of revision 3') });
  await named.getByRole('button', { name: 'Restore' }).click();
  await expect(name).toHaveValue('Gnats');
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(name).toHaveValue('Motes');
  await named.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByRole('combobox', { name: 'effect to compare with' })).toHaveAttribute(
    'data-value',
    'revision 3',
  );
});

test('one key keeps the present state with its picture; it is compared, gone on from, thrown away and brought back', async ({
  page,
}) => {
  await goTo(page, 90);
  await turnShown(page, 'Guides');
  const before = await pixels(page, 400, 250);
  await turnShown(page, 'Guides');
  await page.keyboard.press('t');
  await expect(page.getByText('Kept in the tray.')).toBeVisible();
  await rename(page, 'Motes', 'Moths');
  await below(page, 'Tray');
  const tray = page.getByRole('region', { name: 'Tray' });
  // Its picture is what the stage showed.
  const shown = await tray.getByRole('img').evaluate(async (image: HTMLImageElement) => {
    await image.decode();
    const canvas = new OffscreenCanvas(400, 250);
    const context2d = canvas.getContext('2d')!;
    context2d.drawImage(image, 0, 0);
    return [...context2d.getImageData(0, 0, 400, 250).data];
  });
  expect(differing(new Uint8Array(shown), before, 24)).toBeLessThan(2000);
  expect(shown.some((value, n) => n % 4 !== 3 && value > 120)).toBe(true);
  await tray.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByRole('region', { name: 'Differences' })).toContainText('Moths');
  await below(page, 'Tray');
  await tray.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByLabel('layer name')).toHaveValue('Motes');
  await tray.getByRole('button', { name: /^Throw .* away$/ }).click();
  await expect(tray.getByRole('img')).toHaveCount(0);
  await tray.getByRole('button', { name: 'Bring it back' }).click();
  await expect(tray.getByRole('img')).toHaveCount(1);
});
