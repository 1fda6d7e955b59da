import { expect, test, type Page } from './test.ts';
import { turnShown, below, segment } from './choose.ts';
import { readFileSync } from 'node:fs';
import { chapter, goTo, openMantle, particlesOf, pixels } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  await page.getByRole('row', { name: 'Embers', exact: true }).getByText('Embers').click();
  await goTo(page, 150);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});
const cells = (page: Page, column: number) => page.locator(`tbody tr td:nth-child(${column})`).allInnerTexts();

test('the table of the living is sorted, filtered and saved, and holds what the simulation does', async ({
  page,
}) => {
  const { ages, positions } = await particlesOf(page, 'Embers');
  await below(page, 'Living');
  await expect(page.locator('[data-shown]')).toHaveText(`${ages.length} of ${ages.length} living`);
  const shown = await cells(page, 5);
  expect(Number(shown[0])).toBeCloseTo(positions[0]!, 1);

  await page.getByRole('columnheader', { name: /^size/ }).click();
  await page.getByRole('columnheader', { name: /^size/ }).click();
  await expect(page.getByRole('columnheader', { name: /^size/ })).toHaveAttribute('aria-sort', 'descending');
  const sizes = (await cells(page, 12)).map(Number);
  expect(sizes).toEqual([...sizes].sort((a, b) => b - a));

  await page.getByLabel('at least').fill('50');
  await page.getByLabel('at most').fill('60');
  const middling = ages.filter((age) => age >= 0.5 && age <= 0.6).length;
  expect(middling).toBeGreaterThan(2);
  await expect(page.locator('[data-shown]')).toHaveText(`${middling} of ${ages.length} living`);

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Lamplit Mantle, Embers, step 150.csv');
  const lines = readFileSync(await file.path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(lines.length).toBe(middling + 1);
  expect(lines[0]).toMatch(/^key,birth,age \(%\)/);
});

test('a particle that is pressed on the stage goes under the glass, and is followed as it goes', async ({ page }) => {
  await turnShown(page, 'Guides');
  // What is pressed is what is drawn.
  await pixels(page);
  await page.keyboard.press('g');
  const catching = page.getByRole('button', { name: /Press a particle/ });
  const box = (await catching.boundingBox())!;
  // The motes swarm about her back, right of the middle of the stage.
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.42);
  await expect(page.getByRole('heading', { name: 'Under the glass' })).toBeVisible();
  const value = (name: string) => page.locator(`[data-probe] [data-value="${name}"]`);
  await expect(value('age')).toBeVisible();
  const number = async (name: string) => parseFloat(await value(name).innerText());
  const before = { age: await number('age'), birth: await number('number') };
  const ring = page.locator('[data-glass]');
  const at = (await ring.boundingBox())!;
  expect(
    Math.hypot(at.x + at.width / 2 - (box.x + box.width * 0.5), at.y + at.height / 2 - (box.y + box.height * 0.42)),
  ).toBeLessThan(25);
  for (let step = 0; step < 4; step++) await page.getByRole('button', { name: 'One step on' }).click();
  await expect.poll(() => number('age')).toBeGreaterThan(before.age);
  expect(await number('number')).toBe(before.birth);
  await page.getByRole('button', { name: 'After it' }).click();
  await expect.poll(() => number('number')).toBeGreaterThan(before.birth);
  await page.getByRole('button', { name: 'Put the glass away' }).click();
  await expect(ring).toHaveCount(0);
});

test('what lived and was born is drawn over the effect’s time', async ({ page }) => {
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => page.evaluate(() => window.jinx.state().step), { timeout: 60_000 }).toBeGreaterThan(260);
  await page.getByRole('button', { name: 'Pause' }).click();
  await below(page, 'Over time');
  // One that stands all along is a flat line, which has no height.
  await expect.poll(() => page.locator('.apexcharts-line-series path.apexcharts-line').count()).toBeGreaterThan(5);
  const peak = async () =>
    Number(/at most ([\d,.]+)/.exec(await page.locator('[data-peak]').innerText())![1]!.replace(/,/g, ''));
  // A name is a name: the charts show it, and run nothing that stands in it.
  const name = `<img src=x onerror="document.title='run'">`;
  await page.getByLabel('layer name').fill(name);
  await page.getByLabel('layer name').press('Enter');
  await expect(page.locator('.apexcharts-legend-text', { hasText: name })).toBeVisible();
  await expect(page.locator('.apexcharts-legend img')).toHaveCount(0);
  expect(await page.title()).not.toBe('run');
  const living = await page.evaluate(() => window.jinx.state().living);
  expect(await peak()).toBeGreaterThan(living * 0.5);
  await segment(page, 'Births a second');
  // The motes are born at 900 a second.
  expect(await peak()).toBeGreaterThan(700);
  expect(await peak()).toBeLessThan(1300);
  await segment(page, 'Births refused');
  await expect(page.getByText('No births were refused, as far as it was played.')).toBeVisible();
});

test('everything that is set stands on one page, and changes with it', async ({ page }) => {
  await chapter(page, 'Births');
  await page.getByRole('button', { name: /^rate:/ }).click();
  await page.keyboard.type('77');
  await page.keyboard.press('Enter');
  await below(page, 'In words');
  // In the sentences of the chapters, and line by line.
  await page.getByLabel('find in the page').fill('born at 77/s');
  await expect(page.getByLabel('The page', { exact: true })).toContainText(
    'They are born at 77/s, and 0/m the source travels.',
  );
  // Neither what is pressed to change something nor its mark is a part of them.
  await page.getByLabel('find in the page').fill('skin of');
  await expect(page.getByLabel('The page', { exact: true })).toContainText(
    /skin of chest spine shoulder.left[^×…]*$/,
  );
  await page.getByLabel('find in the page').fill('Drawn shape');
  await expect(page.getByLabel('The page', { exact: true })).toContainText('Drawn shape: soft dot, 30% soft');
  await segment(page, 'Line by line');
  await page.getByLabel('find in the page').fill('77/s');
  await expect(page.getByLabel('The page', { exact: true }).getByRole('heading')).toHaveText(['Embers']);
  await expect(page.getByLabel('The page', { exact: true })).toContainText('rate: 77/s');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Nothing that is set has “77/s” in it.')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByLabel('find in the page').fill('');
  await page.getByRole('button', { name: 'Save as text' }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
  expect(text).toContain('Lamplit Mantle\n=');
  expect(text).toMatch(/\nMotes\n-----\n(.+\n)*rate: 900\/s/);
});
