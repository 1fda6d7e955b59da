import { expect, goWithin, test, type Page } from './test.ts';
import { atEffect, newEffect, setNumber, type Effect } from '@jinx/core/document';
import { addEffect, differing, goTo, living, particlesOf, pixels, saved } from './bench.ts';
import { one, standing } from './oneLayer.ts';

const made: string[] = [];
test.afterEach(async ({ page }) => {
  for (const id of made.splice(0)) await page.request.delete(`/api/effects/${id}`);
});
async function add(page: Page, effect: Effect): Promise<string> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string }[];
  const id = await addEffect(page, projects[0]!.id, effect);
  made.push(id);
  return id;
}
async function open(page: Page, id: string): Promise<void> {
  await goWithin(page, `/effects/${id}`);
  await living(page, 0);
}
const place = async (page: Page) => [...(await particlesOf(page, 'Wick')).positions].map((x) => Number(x.toFixed(3)));

test('another effect stands in a group, moves with it, and is as it was saved last, until it is taken in', async ({
  page,
}) => {
  const lantern = newEffect('Small lantern', 1);
  const wick = standing('Wick', 9);
  wick.source = { kind: 'point', place: atEffect([0.5, 1, 0]) };
  setNumber(wick, 'life.size', 0.3);
  lantern.layers = { order: ['wick'], byId: { wick } };
  const lanternId = await add(page, lantern);
  const host = one();
  host.name = 'Lantern post';
  const hostId = await add(page, host);
  await open(page, hostId);
  await page.keyboard.press('c');
  await goTo(page, 10);
  const before = await pixels(page);

  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByRole('button', { name: 'Link an effect…' }).click();
  await page.getByRole('option', { name: 'Small lantern' }).click();
  await expect(page.getByRole('row', { name: 'group Small lantern' })).toContainText('linked');
  await goTo(page, 10);
  expect(await place(page)).toEqual([0.5, 1, 0]);
  expect(differing(before, await pixels(page))).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'Hide it' }).click();
  await expect.poll(async () => differing(before, await pixels(page))).toBe(0);
  await page.getByRole('button', { name: 'Show it' }).click();

  await page.getByRole('button', { name: /group stands at.*x/ }).click();
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await goTo(page, 10);
  expect(await place(page)).toEqual([1.5, 1, 0]);
  await saved(page);

  const { revision, head } = (await (await page.request.get(`/api/effects/${lanternId}`)).json()) as {
    revision: number;
    head: string;
  };
  const path = ['layers', 'byId', 'wick', 'source', 'place', 'offset'];
  const changes = [{ path, before: [0.5, 1, 0], after: [0.5, 2, 0] }];
  const edits = [{ id: crypto.randomUUID(), changes, labels: ['lift the wick'] }];
  const answer = await page.request.post(`/api/effects/${lanternId}/edits`, { data: { revision, head, edits } });
  expect(answer.status()).toBe(200);
  // Whoever has the host open takes it in, and is told.
  await expect(page.getByText(/Another window changed this too: .*follow|It was taken in/)).toBeVisible();
  await open(page, hostId);
  await goTo(page, 10);
  expect(await place(page)).toEqual([1.5, 2, 0]);

  await page.getByRole('row', { name: 'group Small lantern' }).click();
  await page.getByRole('button', { name: 'Make its layers my own' }).click();
  await expect(page.getByRole('row', { name: 'Wick', exact: true })).toBeVisible();
  await goTo(page, 10);
  expect(await place(page)).toEqual([1.5, 2, 0]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('row', { name: 'Wick', exact: true })).toHaveCount(0);
  await expect(page.getByRole('row', { name: 'group Small lantern' })).toContainText('linked');
});
