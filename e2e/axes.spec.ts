import { expect, test } from './test.ts';
import type { Effect } from '@jinx/core/document';
import { choose, openMantle, saved, type } from './bench.ts';

test('the axes of a size go together when told to, in proportion, and each by itself otherwise', async ({ page }) => {
  const id = await openMantle(page);
  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
  await choose(page, 'source', 'box');
  await type(page, /^box size, x/, '1');
  await type(page, /^box size, y/, '2');
  await type(page, /^box size, z/, '0.5');
  await page.getByRole('button', { name: 'box size, together' }).click();
  await type(page, /^box size, x/, '3');
  await saved(page);
  const { document } = (await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect };
  const motes = Object.values(document.layers.byId).find(({ name }) => name === 'Motes')!;
  expect(motes.settings['source.size'].base).toEqual({ kind: 'fixed', value: [3, 6, 1.5] });
  await page.getByRole('button', { name: 'box size, together' }).click();
  await type(page, /^box size, x/, '1');
  await expect(page.getByRole('button', { name: /^box size, y/ })).toHaveText(/6/);
  await page.request.delete(`/api/effects/${id}`);
});
