import { expect, goWithin, test, type Page } from './test.ts';
import { newStep, type Effect } from '@jinx/core/document';
import { addEffect, chapter, choose, differing, goTo, living, particlesOf, pixels } from './bench.ts';
import { one } from './oneLayer.ts';

interface Asset {
  readonly hash: string;
  readonly name: string;
  readonly kind: string;
}
let id = '';
let pictures: Asset[] = [];
async function open(page: Page, effect: (pictures: Asset[]) => Effect): Promise<void> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  const project = projects.find(({ name }) => name === 'Fenlight')!.id;
  const { assets } = (await (await page.request.get(`/api/projects/${project}`)).json()) as { assets: Asset[] };
  pictures = assets.filter(({ kind }) => kind === 'picture');
  expect(pictures.length).toBeGreaterThan(1);
  id = await addEffect(page, project, effect(pictures));
  await goWithin(page, `/effects/${id}`);
  await living(page, 0);
  await page.keyboard.press('c');
}
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});
async function addDial(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByRole('button', { name: 'Add a dial…' }).click();
  await page.getByRole('option', { name: kind, exact: true }).click();
}
const place = async (page: Page) => {
  await goTo(page, 5);
  return [...(await particlesOf(page, 'One')).positions].map((x) => Number(x.toFixed(3)));
};

test('a layer stands where a dial says, and stays there when the dial is taken away', async ({ page }) => {
  await open(page, () => one());
  await addDial(page, 'a place');
  await page.getByRole('row', { name: 'One', exact: true }).click();
  await chapter(page, 'Source');
  await choose(page, 'source place', { label: 'Target' });
  expect(await place(page)).toEqual([0, 1, 3]);
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByRole('button', { name: /^Target, x/ }).click();
  await page.keyboard.type('0.75');
  await page.keyboard.press('Enter');
  expect(await place(page)).toEqual([0.75, 1, 3]);
  await expect(page.getByText('One: where it stands')).toHaveCount(1);
  await page.getByRole('button', { name: 'Take Target away' }).click();
  expect(await place(page)).toEqual([0.75, 1, 3]);
});

test('a dial lets another picture be shown wherever one is', async ({ page }) => {
  await open(page, ([first]) =>
    one((layer) => {
      const step = newStep('picture');
      step.picture = { asset: first!.hash, name: first!.name };
      layer.look = { kind: 'own', steps: { order: ['s'], byId: { s: step } } };
    }),
  );
  await goTo(page, 5);
  const before = await pixels(page);
  await addDial(page, 'a mesh');
  await expect(page.getByText('No layer is drawn as a mesh yet')).toBeVisible();
  await addDial(page, 'a picture');
  expect(differing(before, await pixels(page))).toBe(0);
  await page.getByRole('button', { name: pictures[0]!.name, exact: true }).click();
  await page.getByRole('option', { name: pictures[1]!.name, exact: true }).click();
  await expect.poll(async () => differing(before, await pixels(page))).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => differing(before, await pixels(page))).toBe(0);
});
