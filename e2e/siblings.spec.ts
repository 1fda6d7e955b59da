import { expect, goWithin, test, type Page } from './test.ts';
import { below } from './choose.ts';
import { chapter, choose, goTo, openMantle, saved, type } from './bench.ts';

let id = '';
let made = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  made = '';
});
test.afterEach(async ({ page }) => {
  for (const one of [id, made]) if (one) await page.request.delete(`/api/effects/${one}`);
});
const embers = (page: Page) => page.getByRole('row', { name: 'Embers', exact: true }).getByText('Embers').click();
const playing = (page: Page) =>
  expect.poll(() => page.evaluate(() => window.jinx?.state().living ?? 0), { timeout: 60_000 }).toBeGreaterThan(0);
const rate = (page: Page) => page.getByRole('button', { name: /^rate:/ }).innerText();

test('a sibling follows what it does not change, and is laid side by side with whom it follows', async ({ page }) => {
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByLabel('name of the sibling').fill('Cold mantle');
  await page.getByRole('button', { name: 'Make a sibling' }).click();
  await page.waitForURL((url) => !url.pathname.endsWith(id));
  made = page.url().split('/').pop()!;
  await expect(page.getByLabel('effect name')).toHaveValue('Cold mantle');
  await playing(page);
  await embers(page);
  await chapter(page, 'Births');
  await type(page, /^rate:/, '33');
  await saved(page);

  // In whom it follows, the same and another setting are changed.
  await goWithin(page, `/effects/${id}`);
  await playing(page);
  await embers(page);
  await chapter(page, 'Births');
  await type(page, /^rate:/, '44');
  await type(page, /^lifetime:/, '3.5');
  await saved(page);
  // That the sibling follows is said until it has.
  await expect(page.locator('[data-saving]')).toHaveText('Saved');
  await goWithin(page, `/effects/${made}`);
  await playing(page);
  await embers(page);
  await chapter(page, 'Births');
  expect(await rate(page)).toContain('33');
  await expect(page.getByRole('button', { name: /^lifetime:/ })).toContainText('3.5');

  await goTo(page, 150);
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByRole('button', { name: 'Lay them side by side' }).click();
  const wall = page.getByRole('region', { name: 'Siblings' });
  await expect(wall.locator('canvas')).toHaveCount(2, { timeout: 60_000 });
  await wall.getByRole('button', { name: 'Compare with Lamplit Mantle' }).click();
  await expect(page.locator('tbody td:first-child').filter({ hasText: 'rate' })).toHaveCount(1);
  // Taken over from there, it is the same, and follows from then on.
  await page.getByRole('button', { name: 'Take rate of Embers from Lamplit Mantle' }).click();
  await saved(page);
  await goWithin(page, `/effects/${id}`);
  await playing(page);
  await embers(page);
  await chapter(page, 'Births');
  await type(page, /^rate:/, '55');
  await saved(page);
  await expect(page.locator('[data-saving]')).toHaveText('Saved');
  const kept = (await (await page.request.get(`/api/effects/${made}`)).json()) as {
    document: { layers: { byId: Record<string, { name: string; settings: Record<string, { base: object }> }> } };
  };
  const layer = Object.values(kept.document.layers.byId).find(({ name }) => name === 'Embers')!;
  expect(layer.settings['births.rate']!.base).toEqual({ kind: 'fixed', value: 55 });
});

test('a revision that was saved over is compared with, and taken from', async ({ page }) => {
  await embers(page);
  await chapter(page, 'Births');
  const before = await rate(page);
  await type(page, /^rate:/, '12');
  await saved(page);
  await below(page, 'Compared');
  await choose(page, 'effect to compare with', 'revision 1');
  await page.getByRole('button', { name: 'Take rate of Embers from as it was at revision 1' }).click();
  await expect(page.getByText('the same throughout')).toBeVisible();
  expect(await rate(page)).toBe(before);
});
