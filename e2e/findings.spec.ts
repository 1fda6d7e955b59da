import { expect, test } from './test.ts';
import { turnShown } from './choose.ts';
import { chapter, differing, goTo, openMantle, pixels, type } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  await turnShown(page, 'Guides');
  await page.getByRole('row', { name: 'Embers', exact: true }).getByText('Embers').click();
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

test('findings are told as they arise, lead to where they are put right, and are mended in one step', async ({
  page,
}) => {
  await expect(page.getByTitle('Go where it is put right')).toHaveCount(0);
  await chapter(page, 'Life');
  await type(page, /^turning:/, '90');
  const turning = page.getByRole('button', { name: /Embers turns, which shows nothing on a round dot/ });
  await expect(turning).toBeVisible();
  await type(page, /^size:/, '0.2 mm');
  await page.getByRole('button', { name: '1 more' }).click();
  await expect(page.getByRole('button', { name: /Embers is 0.2 mm large/ })).toBeVisible();

  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
  await chapter(page, 'Births');
  await turning.click();
  await expect(
    page.getByRole('navigation', { name: 'Chapters' }).getByRole('button', { name: 'Life' }),
  ).toHaveAttribute('aria-current', 'true');
  await expect(page.getByRole('textbox', { name: 'layer name' })).toHaveValue('Embers');

  await page.getByRole('button', { name: 'Let it not turn' }).click();
  await expect(turning).toHaveCount(0);
  await goTo(page, 150);
  const tiny = await pixels(page);
  await page.getByRole('button', { name: 'Make it a hundred times as large' }).click();
  await expect(page.getByText(/mm large/)).toHaveCount(0);
  await goTo(page, 150);
  expect(differing(tiny, await pixels(page), 20)).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/mm large/)).toBeVisible();
});
