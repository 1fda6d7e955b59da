import { expect, test, type Page } from './test.ts';
import type { Effect } from '@jinx/core/document';
import { chapter, goTo, openMantle, particlesOf, saved } from './bench.ts';

let id = '';
let project = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
  if (project) await page.request.delete(`/api/projects/${project}`);
});
const row = (page: Page, name: string) => page.getByRole('row', { name, exact: true });

test('layers are copied into an effect of another project, with a list of what had no match', async ({ page }) => {
  await row(page, 'Motes').focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('ControlOrMeta+c');
  await expect(page.getByText('2 layers copied.')).toBeVisible();

  await page.goto('/');
  const name = `Other ${Date.now().toString(36)}`;
  await page.getByLabel('Name of a new project').fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name })).toBeVisible();
  project = page.url().split('/').pop()!;
  await page.getByLabel('Name of a new effect').fill('Bare');
  await page.keyboard.press('Enter');
  await expect(page.getByText('No layer yet')).toBeVisible();
  await page.keyboard.press('ControlOrMeta+v');
  await expect(page.getByText(/^2 layers put in\. Brought along: .*No match here: the thing Sedge/)).toBeVisible();
  await expect(row(page, 'Motes')).toBeVisible();
  await expect(row(page, 'Mote haloes')).toBeVisible();
  await saved(page);
  const effect = page.url().split('/').pop()!;
  const { document } = (await (await page.request.get(`/api/effects/${effect}`)).json()) as { document: Effect };
  const byName = Object.fromEntries(Object.entries(document.layers.byId).map(([key, layer]) => [layer.name, key]));
  expect(document.layers.byId[byName['Mote haloes']!]!.population).toEqual({
    kind: 'follows',
    layer: byName['Motes'],
  });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'Motes')).toHaveCount(0);

  // Words in the clipboard are no layers.
  await page.evaluate(() => navigator.clipboard.writeText('only words').catch(() => undefined));
  await page.keyboard.press('ControlOrMeta+v');
  await expect(page.getByText('No layer yet')).toBeVisible();
});

test('layers put in beside themselves are a throw of their own', async ({ page }) => {
  await row(page, 'Embers').getByText('Embers').click();
  await row(page, 'Embers').focus();
  await page.keyboard.press('ControlOrMeta+c');
  await page.keyboard.press('ControlOrMeta+v');
  await expect(page.getByText('The layer put in.')).toBeVisible();
  await expect(row(page, 'Embers')).toHaveCount(2);
  await goTo(page, 120);
  const ids = await page.evaluate(() => window.jinx.layers());
  expect(ids['Embers']).toBeTruthy();
  expect((await particlesOf(page, 'Embers')).positions.length).toBeGreaterThan(100);
});

test('a chapter is given to many layers, and a setting to another of its unit', async ({ page }) => {
  await row(page, 'Motes').getByText('Motes').click();
  await chapter(page, 'Motion');
  await page.getByRole('button', { name: 'Copy Motion of this layer' }).click();
  await row(page, 'Lamp glow').getByText('Lamp glow').click();
  await row(page, 'Embers')
    .getByText('Embers')
    .click({ modifiers: ['ControlOrMeta'] });
  await page.getByRole('button', { name: 'Give these 2 layers Motion of Motes' }).click();
  await saved(page);
  const read = async () =>
    ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect }).document.layers.byId;
  const layerOf = async (name: string) => Object.values(await read()).find((layer) => layer.name === name)!;
  const motes = await layerOf('Motes');
  for (const name of ['Lamp glow', 'Embers']) {
    const given = await layerOf(name);
    expect(given.forces).toEqual(motes.forces);
    expect(given.settings['motion.speed']).toEqual(motes.settings['motion.speed']);
    expect(given.settings['life.size']).not.toEqual(motes.settings['life.size']);
  }
  await page.getByRole('button', { name: 'Undo' }).click();

  await row(page, 'Motes').getByText('Motes').click();
  await chapter(page, 'Life');
  await page.getByRole('button', { name: /^size:/ }).click();
  await page.getByRole('button', { name: 'Copy', exact: true }).first().click();
  await row(page, 'Embers').getByText('Embers').click();
  await page.getByRole('button', { name: /^size:/ }).click();
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await saved(page);
  expect((await layerOf('Embers')).settings['life.size']).toEqual(motes.settings['life.size']);
  // A number of another unit takes none of it.
  await page.getByRole('button', { name: /^opacity:/ }).click();
  await expect(page.getByRole('button', { name: 'Paste', exact: true })).toHaveCount(0);
});
