// The guide: opened at the right place from a tooltip, found by the box, read beside the effect; and the tour.
import { newEffect } from '@jinx/core/document';
import { help } from './choose.ts';
import { addEffect, differing, goTo, openMantle, pixels } from './bench.ts';
import { expect, test } from './test.ts';

test('F1 opens the guide at what is pointed at, the box finds its pages, and a page leaves out a layer', async ({
  page,
}) => {
  const id = await openMantle(page);
  await goTo(page, 150);
  await page.getByRole('row', { name: 'Motes', exact: true }).click();
  // What is pointed at may be moved by what is still loading.
  await expect(async () => {
    await page.mouse.move(0, 0);
    await page.getByRole('button', { name: /^rate:/ }).hover();
    await expect(page.locator('.help-tip')).toContainText('F1 tells more.', { timeout: 1500 });
  }).toPass();
  await page.keyboard.press('F1');
  const guide = page.getByRole('region', { name: 'Guide' });
  const row = guide.getByRole('row', { name: /^rate spawn rate/ });
  await expect(row).toBeInViewport();
  await expect(row).toContainText('Births a second.');
  await page.keyboard.press('F1');
  await expect(guide).toBeHidden();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('flashes that may harm');
  await page.getByRole('option', { name: /Flashes that may harm people/ }).click();
  await expect(guide.getByRole('heading', { name: 'Flashes that may harm people' })).toBeInViewport();

  // A starting point's page: the effect is seen without a layer from one press to the next.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('help mantle');
  await page.getByRole('option', { name: /^Mantle/ }).click();
  const whole = await pixels(page);
  const motes = guide.getByRole('definition').filter({ hasText: 'they leave the skin' });
  await expect(motes).toContainText('Without it: only a glow is left');
  await guide.getByText('Motes', { exact: false }).getByRole('button', { name: 'See without it' }).first().click();
  await expect.poll(async () => differing(whole, await pixels(page))).toBeGreaterThan(1000);
  await guide.getByRole('button', { name: 'See it again' }).click();
  await expect.poll(async () => differing(whole, await pixels(page))).toBe(0);
  await page.request.delete(`/api/effects/${id}`);
});

test('the tour leads to a first effect, goes on as each step is done, and is left at any time', async ({ page }) => {
  const [fenlight] = (await (await page.request.get('/api/projects?find=fenlight')).json()) as { id: string }[];
  const id = await addEffect(page, fenlight!.id, newEffect('Toured', 3));
  await page.goto(`/effects/${id}`);
  await page.getByRole('button', { name: 'Show me, in five steps' }).click();
  const tour = page.locator('.ant-tour');
  await expect(tour).toContainText('Somebody to make it on');
  await page.keyboard.press('Escape');
  await expect(tour).toHaveCount(0);
  await help(page, 'Show me, in five steps');
  await page.getByRole('toolbar', { name: 'The picture' }).getByRole('button', { name: 'Figures' }).click();
  await page.getByRole('button', { name: 'Put Sedge on the stage' }).click();
  await expect(tour).toContainText('Press Add a layer.');
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await expect(tour).toContainText('Born on the body');
  await page.getByRole('combobox', { name: 'source', exact: true }).click();
  await page.getByRole('option', { name: 'on a mesh of the stage' }).click();
  await expect(tour).toContainText('More of them');
  await page.getByRole('button', { name: /^rate:/ }).click();
  await page.keyboard.type('300');
  await page.keyboard.press('Enter');
  await expect(tour).toContainText('A force');
  await page.getByRole('button', { name: 'Add a force' }).click();
  await page.getByRole('option', { name: 'Attraction' }).click();
  await expect(page.getByText('That is a first effect.')).toBeVisible();
  await expect(tour).toHaveCount(0);
  await page.request.delete(`/api/effects/${id}`);
});
