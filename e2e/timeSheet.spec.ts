import { expect, test, type Locator, type Page } from './test.ts';
import type { Effect, Layer } from '@jinx/core/document';
import { goTo, openMantle, particlesOf, saved } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  await page.getByRole('row', { name: 'Embers', exact: true }).getByText('Embers').click();
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

async function effectOf(page: Page): Promise<Effect> {
  await saved(page);
  return ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect }).document;
}
const embers = async (page: Page): Promise<Layer> =>
  Object.values((await effectOf(page)).layers.byId).find(({ name }) => name === 'Embers')!;
const strip = (page: Page) => page.getByRole('group', { name: /^Embers over time/ });

const count = async (page: Page, layer: string) => (await particlesOf(page, layer)).ages.length;

/** Drags what is held by so many pixels, sideways. */
async function drag(page: Page, what: Locator, by: number, keys: readonly string[] = []): Promise<void> {
  const box = (await what.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  for (const key of keys) await page.keyboard.down(key);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + by / 2, y, { steps: 3 });
  await page.mouse.move(x + by, y, { steps: 3 });
  await page.mouse.up();
  for (const key of keys) await page.keyboard.up(key);
}

test('a burst is set on the time sheet, dragged, doubled and taken away, and its particles come with it', async ({
  page,
}) => {
  const box = (await strip(page).boundingBox())!;
  await strip(page).dblclick({ position: { x: box.width * 0.25, y: 50 } });
  const [burst] = Object.values((await embers(page)).bursts.byId);
  // The sheet is 0.8 s, 4 s and 1.2 s long, from 10 pixels inside its ends.
  const seconds = (pixels: number) => ((pixels - 10) / (box.width - 20)) * 6 - 0.8;
  expect(burst).toMatchObject({ stretch: 'hold', count: 18, times: 1 });
  expect(burst!.at).toBeCloseTo(seconds(box.width * 0.25), 1);
  const after = Math.ceil((burst!.at + 0.8) * 60) + 3;
  await goTo(page, after);
  const withIt = await count(page, 'Embers');
  const mark = page.getByRole('button', { name: /^A burst of 18/ });
  await expect(mark).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(mark).toHaveCount(0);
  await goTo(page, after);
  expect(withIt - (await count(page, 'Embers'))).toBe(18);
  await page.getByRole('button', { name: 'Redo' }).click();

  await drag(page, mark.first(), 60);
  const [moved] = Object.values((await embers(page)).bursts.byId);
  expect(moved!.at).toBeCloseTo(burst!.at + (60 / (box.width - 20)) * 6, 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(Object.values((await embers(page)).bursts.byId)[0]!.at).toBe(burst!.at);

  await drag(page, mark.first(), 90, ['Control']);
  await expect(mark).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(mark).toHaveCount(1);

  await mark.focus();
  await page.keyboard.press('d');
  await expect(mark).toHaveCount(2);
  await mark.first().focus();
  await page.keyboard.press('Delete');
  await expect(mark).toHaveCount(1);
});

test('the borders of the stretches and the ends of births are dragged', async ({ page }) => {
  const width = (await strip(page).boundingBox())!.width - 20;
  await drag(page, page.getByRole('slider', { name: 'End of the opening' }), 40);
  const { stretches } = await effectOf(page);
  expect(stretches.opening).toBeCloseTo(0.8 + (40 / width) * 6, 1);
  expect(stretches.hold).toMatchObject({ seconds: 4 });
  expect(stretches.closing).toBe(1.2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await effectOf(page)).stretches.opening).toBe(0.8);

  await drag(page, page.getByRole('slider', { name: 'Births begin' }), 70);
  const { births } = await embers(page);
  expect(births.from.seconds).toBeGreaterThan(0.5);
  await goTo(page, Math.floor(births.from.seconds * 60) - 2);
  expect(await count(page, 'Embers')).toBe(0);
  await goTo(page, Math.floor(births.from.seconds * 60) + 30);
  expect(await count(page, 'Embers')).toBeGreaterThan(0);
});

test('seconds in which nothing lives are marked on the sheet', async ({ page }) => {
  await expect(page.locator('.ruler .dead')).toHaveCount(0);
  for (const name of ['Embers', 'Motes']) {
    await page.getByRole('row', { name, exact: true }).getByText(name).click();
    await page.getByRole('button', { name: `See ${name} alone` }).click();
  }
  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
  await page.getByRole('button', { name: 'See Motes alone' }).click();
  await page.getByRole('row', { name: 'Embers', exact: true }).getByText('Embers').click();
  await drag(page, page.getByRole('slider', { name: 'Births begin' }), 120);
  const dead = page.locator('.ruler .dead');
  await expect(dead).toHaveCount(1);
  const from = (await embers(page)).births.from.seconds;
  const [, begun, ended] = /^Nothing lives from (.*) s to (.*) s$/.exec((await dead.getAttribute('title'))!)!;
  expect(Number(begun)).toBe(0);
  expect(Math.abs(Number(ended) - from)).toBeLessThan(0.06);
});
