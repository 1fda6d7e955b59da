import { expect, test, type Page } from './test.ts';
import { turnShown, below } from './choose.ts';
import type { Effect } from '@jinx/core/document';
import { addEffect, choose, differing, goTo, openMantle, pixels, saved } from './bench.ts';

let id = '';
let otherId = '';
/** A second mantle with bigger motes, slower births and another colour of the lamp. */
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  const stored = (await (await page.request.get(`/api/effects/${id}`)).json()) as {
    projectId: string;
    document: Effect;
  };
  const other = stored.document;
  const motes = Object.values(other.layers.byId).find(({ name }) => name === 'Motes')!;
  motes.settings['life.size'].base = { kind: 'fixed', value: 0.09 };
  motes.settings['births.rate'].base = { kind: 'fixed', value: 300 };
  otherId = await addEffect(page, stored.projectId, { ...other, name: 'Mantle of few' });
  await turnShown(page, 'Guides');
});
test.afterEach(async ({ page }) => {
  for (const each of [id, otherId]) await page.request.delete(`/api/effects/${each}`);
});
const document = async (page: Page, effect: string) =>
  ((await (await page.request.get(`/api/effects/${effect}`)).json()) as { document: Effect }).document;

test('another effect is compared in words, and what it has is taken over line by line', async ({ page }) => {
  await goTo(page, 150);
  const before = await pixels(page);
  await below(page, 'Compared');
  await choose(page, 'effect to compare with', { label: 'Mantle of few' });
  await expect(page.getByText('2 differences')).toBeVisible();
  const row = page.getByRole('row', { name: /^size/ });
  await expect(row).toContainText('0.01 to 0.036 m');
  await expect(row).toContainText('0.09 m');
  await page.getByRole('button', { name: 'Take size of Motes from Mantle of few' }).click();
  await expect(page.getByText('1 difference')).toBeVisible();
  await saved(page);
  const motes = (effect: Effect) => Object.values(effect.layers.byId).find(({ name }) => name === 'Motes')!;
  const own = motes(await document(page, id)).settings;
  expect(own['life.size'].base).toEqual({ kind: 'fixed', value: 0.09 });
  expect(own['births.rate'].base).toMatchObject({ value: 900 });
  await goTo(page, 150);
  expect(differing(before, await pixels(page), 20)).toBeGreaterThan(500);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('2 differences')).toBeVisible();
});

test('where something is used is found across the effects of a project', async ({ page }) => {
  const { projectId } = (await (await page.request.get(`/api/effects/${id}`)).json()) as { projectId: string };
  await page.goto(`/projects/${projectId}`);
  const field = page.getByLabel('what to look for in all effects');
  await field.fill('moth picture');
  await page.keyboard.press('Enter');
  const found = page.getByRole('list', { name: 'Where it is used' });
  await expect(found.getByRole('link')).toHaveText(['Lamp Bolt', 'Moth Unmaking']);
  await expect(found).toContainText('picture (moth)');
  await field.fill('reed mesh');
  await page.keyboard.press('Enter');
  await expect(found.getByRole('link', { name: 'Tide Sigil' })).toBeVisible();
  await field.fill('no such thing');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“no such thing” is used in no effect of this project.')).toBeVisible();
});
