import { expect, goWithin, test, type Page } from './test.ts';
import {} from './choose.ts';
import {
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newEffect,
  newForce,
  newLayer,
  setNumber,
  type Effect,
} from '@jinx/core/document';
import { addEffect, chapter, choose, differing, goTo, living, particlesOf, pixels } from './bench.ts';

/** Thirty drops fall from two metres up, all at once, and live long; a layer of sparks has no births of its own. */
function rain(): Effect {
  const effect = newEffect('Rain', 11);
  const [drops, sparks] = [newLayer('Drops', 3), newLayer('Sparks', 4)];
  drops.source = { kind: 'disc', place: atEffect([0, 2, 0]) };
  setNumber(drops, 'births.rate', 0);
  setNumber(drops, 'births.life', 3);
  setNumber(drops, 'motion.speed', 0);
  setNumber(drops, 'life.size', 0.12);
  drops.bursts = collectionOf([['b', burst('opening', 0, 30)]]);
  drops.forces = collectionOf([['g', newForce('gravity')]]);
  sparks.source = { kind: 'point', place: inWorld([0, 5, 0]) };
  setNumber(sparks, 'births.rate', 0);
  setNumber(sparks, 'births.life', 2);
  setNumber(sparks, 'motion.speed', 0);
  effect.layers = collectionOf([
    ['drops', drops],
    ['sparks', sparks],
  ]);
  effect.stretches = { opening: 4, hold: { kind: 'none' }, closing: 0.5, preRoll: 0 };
  return effect;
}

let id = '';
async function open(page: Page): Promise<void> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  id = await addEffect(page, projects.find(({ name }) => name === 'Fenlight')!.id, rain());
  await goWithin(page, `/effects/${id}`);
  await expect(page.getByRole('row', { name: 'Drops' })).toBeVisible();
  await living(page, 0);
}
test.beforeEach(({ page }) => open(page));
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

const chooseRow = (page: Page, name: string) =>
  page
    .locator('.row', { has: page.locator(`[data-count="${name}"]`) })
    .locator('[data-count]')
    .click();
const heights = async (page: Page, layer: string) => {
  const { positions } = await particlesOf(page, layer);
  return positions.filter((_, n) => n % 3 === 1);
};

test('drops bounce on a ground that is added, and each first hit sets off sparks that lie there', async ({
  page,
}) => {
  await chooseRow(page, 'Drops');
  await goTo(page, 100);
  expect(Math.min(...(await heights(page, 'Drops')))).toBeLessThan(-1);

  await chapter(page, 'Motion');
  await page.getByRole('button', { name: 'Add a surface' }).click();
  await page.getByRole('option', { name: 'Ground' }).click();
  await goTo(page, 50);
  const met = await heights(page, 'Drops');
  expect(met.length).toBe(30);
  expect(Math.min(...met)).toBeGreaterThan(-0.001);
  expect(Math.max(...met)).toBeGreaterThan(0.05);

  await chapter(page, 'Links');
  await page.getByRole('button', { name: 'Set off…' }).click();
  await page.getByRole('option', { name: 'Sparks' }).click();
  await choose(page, 'link to Sparks, when', { label: 'hits a surface' });
  await choose(page, /link to Sparks, only its first/, { label: 'only the first time' });
  await goTo(page, 100);
  const sparks = await heights(page, 'Sparks');
  // Five each, as a link begins.
  expect(sparks.length).toBe(150);
  for (const y of sparks) expect(Math.abs(y)).toBeLessThan(0.01);

  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await goTo(page, 100);
  expect((await heights(page, 'Sparks')).length).toBe(0);
});

test('drops are drawn as trails where they have come from, and as dots again', async ({ page }) => {
  await chooseRow(page, 'Drops');
  await page.keyboard.press('c');
  await goTo(page, 30);
  const dots = await pixels(page);
  await chapter(page, 'Appearance');
  await choose(page, 'drawn as', { label: 'trails behind them' });
  await goTo(page, 30);
  const trails = await pixels(page);
  // Long lines where dots were: many more pixels are lit, above the dots.
  expect(differing(dots, trails)).toBeGreaterThan(300);
  await choose(page, 'drawn as', { label: 'sprites, each by itself' });
  await goTo(page, 30);
  expect(differing(dots, await pixels(page))).toBe(0);
});

test('strikes bear particles where the picture is hit, at that instant again after going back', async ({ page }) => {
  await chooseRow(page, 'Sparks');
  await chapter(page, 'Source');
  await choose(page, 'source', { label: 'by hits' });
  await expect(page.getByText('Sparks shows nothing: nothing hits it yet')).toBeVisible();
  await goTo(page, 40);
  // By keys: the tool is taken up, and Enter strikes the middle.
  await page.getByRole('button', { name: 'Strike where it is clicked' }).click();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await goTo(page, 50);
  const struck = await particlesOf(page, 'Sparks');
  expect(struck.positions.length).toBe(3);
  expect(struck.ages[0]).toBeCloseTo(10 / 60 / 2, 3);
  await goTo(page, 20);
  expect((await particlesOf(page, 'Sparks')).positions.length).toBe(0);
  await goTo(page, 50);
  expect(await particlesOf(page, 'Sparks')).toEqual(struck);
});
