import { expect, test, type Page } from './test.ts';
import { turnShown } from './choose.ts';
import { type Effect, type NumberSetting, settingsByName } from '@jinx/core/document';
import { chapter, choose, differing, goTo, openMantle, pixels, saved, type } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  // Guides are of what is chosen: without them, pictures tell of the effect alone.
  await turnShown(page, 'Guides');
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

const row = (page: Page, name: string) => page.getByRole('row', { name, exact: true });
const documentOf = async (page: Page): Promise<Effect> =>
  ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect }).document;
const layerOf = ({ layers }: Effect, name: string) =>
  Object.values(layers.byId).find((layer) => layer.name === name)!;
const rowNames = (page: Page) =>
  page
    .locator('[data-row]')
    .evaluateAll((rows) => rows.map((one) => `${one.getAttribute('data-kind')} ${one.getAttribute('aria-label')}`));

/** Chooses the motes, their haloes and the embers, which stand one under the other. */
async function chooseThree(page: Page): Promise<void> {
  await row(page, 'Motes').focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('and Mote haloes, Embers: what is set here')).toBeVisible();
}

test('layers are grouped, folded, moved in and out and taken apart, and no pixel changes', async ({ page }) => {
  await goTo(page, 120);
  const before = await pixels(page);
  const looksTheSame = async () => {
    await page.evaluate(() => window.jinx.hash());
    expect(differing(before, await pixels(page), 2)).toBe(0);
  };
  await chooseThree(page);
  await page.keyboard.press('Control+g');
  await expect(row(page, 'group Group 1')).toBeVisible();
  await looksTheSame();
  const names = await rowNames(page);
  const at = names.indexOf('group group Group 1');
  expect(names.slice(at, at + 4)).toEqual([
    'group group Group 1',
    'layer Motes',
    'layer Mote haloes',
    'layer Embers',
  ]);

  await page.getByRole('button', { name: 'Fold Group 1' }).click();
  expect(await rowNames(page)).not.toContain('layer Embers');
  await row(page, 'Lamp glow').getByText('Lamp glow').dragTo(row(page, 'group Group 1'));
  await page.getByRole('button', { name: 'Unfold Group 1' }).click();
  expect(await rowNames(page)).toContain('layer Lamp glow');
  await looksTheSame();
  // Between the rows of a group, a layer is put there; from there, before its first: one step of undo each.
  await row(page, 'Lamp glow').locator('.head-cell').dragTo(row(page, 'Motes').locator('.head-cell'));
  const order = await rowNames(page);
  const head = order.indexOf('group group Group 1');
  expect(order[head + 1]).toBe('layer Lamp glow');
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  const grouped = await documentOf(page);
  const [group] = grouped.groups.order;
  expect(['Motes', 'Embers', 'Lamp glow'].map((name) => layerOf(grouped, name).parent)).toEqual([
    group,
    group,
    group,
  ]);
  expect(layerOf(grouped, 'Lamp').parent).toBeNull();

  await row(page, 'group Group 1').focus();
  await page.keyboard.press('Enter');
  await type(page, /^group size: 1$/, '0.6');
  await page.evaluate(() => window.jinx.hash());
  expect(differing(before, await pixels(page))).toBeGreaterThan(200);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Take apart' }).click();
  await expect(row(page, 'group Group 1')).toHaveCount(0);
  await looksTheSame();
});

test('several layers are edited at once, what differs is shown, and what is locked is left alone', async ({
  page,
}) => {
  await chooseThree(page);
  await chapter(page, 'Life');
  const size = page.getByRole('button', { name: /^size: mixed, Motes up to 1 – 3.6 cm, Mote haloes/ });
  await expect(size).toHaveText('mixed');
  await type(page, /^size: mixed/, '7 cm');
  await expect(page.getByRole('button', { name: 'size: up to 7 cm' })).toBeVisible();
  await saved(page);
  const sizeOf = (effect: Effect, name: string) => layerOf(effect, name).settings['life.size'].base;
  const edited = await documentOf(page);
  for (const name of ['Motes', 'Mote haloes', 'Embers'])
    expect(sizeOf(edited, name)).toEqual({ kind: 'fixed', value: 0.07 });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(size).toBeVisible();

  // Embers are locked: the others go on without them; alone, they say why not.
  await row(page, 'Embers').getByText('Embers').click();
  await page.getByRole('button', { name: 'Lock Embers' }).click();
  await chooseThree(page);
  await type(page, /^glow|^intensity: mixed/, '2');
  await saved(page);
  const kept = await documentOf(page);
  const glow = (name: string) => (layerOf(kept, name).settings['life.intensity'] as NumberSetting).base;
  expect(glow('Motes')).toEqual({ kind: 'fixed', value: 2 });
  expect(glow('Embers')).toEqual((layerOf(edited, 'Embers').settings['life.intensity'] as NumberSetting).base);
  await row(page, 'Embers').getByText('Embers').click();
  await type(page, /^intensity:/, '9');
  await expect(page.getByText('Embers is locked. Unlock it in its row to change it.')).toBeVisible();
  await page.keyboard.press('Escape');
  await row(page, 'Embers').focus();
  await page.keyboard.press('Delete');
  await expect(row(page, 'Embers')).toBeVisible();
});

test('sources, bursts, forces and colours of several layers are set together', async ({ page }) => {
  await chooseThree(page);
  const both = async () => {
    await saved(page);
    const effect = await documentOf(page);
    return [layerOf(effect, 'Motes'), layerOf(effect, 'Embers')] as const;
  };
  await chapter(page, 'Source');
  await choose(page, 'source', 'ring');
  for (const { source } of await both()) expect(source.kind).toBe('ring');
  await chapter(page, 'Births');
  await page.getByRole('button', { name: 'Add a burst' }).click();
  await type(page, /^burst count: 18/, '12');
  for (const { bursts } of await both())
    expect(Object.values(bursts.byId)).toMatchObject([{ count: 12, stretch: 'hold', at: 0 }]);
  await chapter(page, 'Motion');
  await page.getByRole('button', { name: 'Add a force' }).click();
  await page.getByRole('option', { name: 'Wind' }).click();
  await type(page, /^wind, wind speed/, '5');
  for (const { forces } of await both()) {
    const wind = Object.values(forces.byId).find(({ kind }) => kind === 'wind')!;
    expect(settingsByName(wind)['speed']!.base).toMatchObject({ value: 5 });
  }
  await chapter(page, 'Life');
  await page.getByRole('button', { name: 'No gradient' }).click();
  for (const { settings } of await both()) expect(settings['life.colour'].shapers.order).toEqual([]);
});

test('the whole effect is made larger and faster by law, and mirrored, each one step of undo', async ({ page }) => {
  await goTo(page, 120);
  const before = await pixels(page);
  await saved(page);
  const made = await documentOf(page);
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await type(page, /^times as large: 1$/, '1.5');
  await type(page, /^times as fast: 1$/, '2');
  await page.getByRole('checkbox', { name: 'births', exact: true }).click();
  await expect(page.getByText('Births a second stay: 50% as many are alive at once.')).toBeVisible();
  await saved(page);
  const larger = await documentOf(page);
  const motes = (effect: Effect) => layerOf(effect, 'Motes').settings;
  expect(motes(larger)['life.size'].base).toEqual({ kind: 'spread', low: 0.015, high: 0.054 });
  expect(motes(larger)['births.life'].base).toEqual({ kind: 'spread', low: 0.6, high: 1.1 });
  expect(motes(larger)['births.rate'].base).toEqual(motes(made)['births.rate'].base);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'times as large: 1' })).toBeVisible();

  await page.getByRole('button', { name: 'Mirror left and right' }).click();
  await page.evaluate(() => window.jinx.hash());
  expect(differing(before, await pixels(page))).toBeGreaterThan(200);
  await page.getByRole('button', { name: 'Mirror left and right' }).click();
  await page.evaluate(() => window.jinx.hash());
  expect(differing(before, await pixels(page), 2)).toBe(0);
});
