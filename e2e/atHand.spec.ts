import type { Effect, Layer } from '@jinx/core/document';
import { turnShown, below } from './choose.ts';
import { atRest, choose, differing, goTo, openMantle, particlesOf, pixels, saved } from './bench.ts';
import { expect, test, type Page } from './test.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});
const documentOf = async (page: Page): Promise<Effect> => {
  await saved(page);
  return ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect }).document;
};
const layerOf = async (page: Page, name: string): Promise<Layer> =>
  Object.values((await documentOf(page)).layers.byId).find((layer) => layer.name === name)!;
const row = (page: Page, name: string) => page.getByRole('row', { name, exact: true });
const stage = (page: Page) => page.getByLabel(/^Stage: drag/);
/** A place of the stage, in shares of its width and its height. */
async function onStage(page: Page, across: number, down: number): Promise<{ x: number; y: number }> {
  const { x, y, width, height } = (await stage(page).boundingBox())!;
  return { x: x + across * width, y: y + down * height };
}

test('a click on the picture chooses the layer seen there, again the one behind; twice it opens its row', async ({
  page,
}) => {
  await goTo(page, 120);
  await turnShown(page, 'Guides');
  await atRest(page);
  const ground = await onStage(page, 0.4, 0.85);
  const chosen = () => page.locator('[role=row][aria-selected=true]').getAttribute('aria-label');
  const onGround = ['Marsh water', 'Lamplight', 'Lamplight on the water'];
  await page.mouse.click(ground.x, ground.y);
  await expect.poll(chosen).not.toBe('Motes');
  const first = (await chosen())!;
  expect(onGround).toContain(first);
  await page.waitForTimeout(600);
  await page.mouse.click(ground.x, ground.y);
  await expect.poll(chosen).not.toBe(first);
  const behind = (await chosen())!;
  expect(onGround).toContain(behind);
  await below(page, 'Living');
  await page.waitForTimeout(600);
  await page.mouse.dblclick(ground.x, ground.y);
  await expect(row(page, behind)).toBeInViewport();
  // A drag is no click: it moves the camera.
  const before = await pixels(page);
  await page.mouse.move(ground.x, ground.y);
  await page.mouse.down();
  await page.mouse.move(ground.x + 90, ground.y, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => differing(before, await pixels(page))).toBeGreaterThan(1000);
  await expect(row(page, behind)).toHaveAttribute('aria-selected', 'true');
});

test('with the strike tool a click strikes there, and not elsewhere', async ({ page }) => {
  await row(page, 'Embers').getByText('Embers').click();
  await choose(page, 'source', 'hits');
  await goTo(page, 60);
  await page.getByRole('button', { name: 'Strike where it is clicked' }).click();
  const head = await onStage(page, 0.5, 0.32);
  await page.mouse.click(head.x, head.y);
  await page.keyboard.press('Escape');
  await goTo(page, 64);
  const high = (await particlesOf(page, 'Embers')).positions;
  expect(high.length).toBeGreaterThan(0);
  await goTo(page, 60);
  await page.getByRole('button', { name: 'Strike where it is clicked' }).click();
  const knees = await onStage(page, 0.5, 0.78);
  await page.mouse.click(knees.x, knees.y);
  await page.keyboard.press('Escape');
  await goTo(page, 64);
  const both = (await particlesOf(page, 'Embers')).positions;
  const heights = (positions: number[]) => positions.filter((_, n) => n % 3 === 1);
  expect(Math.min(...heights(both))).toBeLessThan(Math.min(...heights(high)) - 0.4);
});

test('what is done on the life sheet is done in all chosen layers, and says where they differ', async ({ page }) => {
  await row(page, 'Motes').getByText('Motes').click();
  await row(page, 'Embers')
    .getByText('Embers')
    .click({ modifiers: ['ControlOrMeta'] });
  await expect(page.locator('[data-mixed]')).toBeVisible();
  await page.getByRole('button', { name: 'ready shapes…' }).click();
  await page.getByRole('option', { name: 'falling', exact: true }).click();
  await expect(page.locator('[data-mixed]')).toBeHidden();
  const curves = await Promise.all(
    ['Motes', 'Embers'].map(async (name) => {
      const { shapers } = (await layerOf(page, name)).settings['life.size'];
      return shapers.order.map((one) => shapers.byId[one]!.mapping);
    }),
  );
  expect(curves[0]).toEqual(curves[1]);
});

test('anything is muted in place: a choice, a burst, a row of numbers; marked numbers change together', async ({
  page,
}) => {
  await goTo(page, 100);
  const before = await atRest(page);
  const blending = page.locator('[data-address$="appearance.blend"]');
  await choose(page, 'blending', 'multiply');
  await expect.poll(async () => differing(before, await pixels(page))).toBeGreaterThan(50);
  // Muted, it does what it does where nothing is set; what is set stays.
  await blending.click({ button: 'right' });
  await page.getByRole('option', { name: /^mute it/ }).click();
  await expect(blending).toHaveClass(/muted/);
  expect((await layerOf(page, 'Motes')).settings['appearance.blend']).toMatchObject({
    muted: true,
    base: { value: 'multiply' },
  });
  await expect.poll(async () => differing(before, await pixels(page))).toBe(0);
  await blending.focus();
  await page.keyboard.press('Control+m');
  await expect.poll(async () => differing(before, await pixels(page))).toBeGreaterThan(50);

  await page.getByRole('button', { name: 'Add a burst' }).click();
  await page.getByRole('button', { name: 'Mute this burst' }).click();
  const { bursts } = await layerOf(page, 'Motes');
  expect(bursts.byId[bursts.order[0]!]).toMatchObject({ count: 18, muted: true });

  const marked = ['births.rate', 'births.life'];
  for (const name of marked) await page.locator(`[data-address$=":${name}"]`).click({ modifiers: ['ControlOrMeta'] });
  await page.getByLabel('entry for all marked numbers').fill('*2');
  await page.keyboard.press('Enter');
  const { settings } = await layerOf(page, 'Motes');
  expect(settings['births.rate'].base).toEqual({ kind: 'fixed', value: 1800 });
  expect(settings['births.life'].base).toEqual({ kind: 'spread', low: 2.4, high: 4.4 });
});

test('once and holds until let go, meshes and back, out beside an axis, and lines in words that are pasted', async ({
  page,
}) => {
  const before = await documentOf(page);
  await choose(page, 'how it plays', 'once');
  await expect(page.getByRole('button', { name: 'Let go' })).toHaveCount(0);
  expect((await documentOf(page)).stretches.hold.kind).toBe('none');
  await choose(page, 'how it plays', 'held');
  await expect(page.getByRole('button', { name: 'Let go' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();

  await choose(page, 'drawn as', 'mesh');
  await expect(page.getByText(/^Drawn so with what suits it: .*solid/)).toBeVisible();
  await choose(page, 'drawn as', 'sprite');
  expect((await documentOf(page)).layers).toEqual(before.layers);

  // Out is no axis: said beside one, it is another launch.
  await choose(page, 'launch', 'axis');
  await page.getByRole('button', { name: 'launch axis: up' }).click();
  await page.getByRole('option', { name: 'out', exact: true }).click();
  expect((await layerOf(page, 'Motes')).settings['motion.launch'].base.value).toBe('outward');
  for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();

  await below(page, 'In words');
  await page.getByRole('button', { name: 'Paste lines…' }).click();
  await page.getByLabel('lines to be set').fill('rate: 120/s\nblending: normal\nshine: much');
  await page.getByRole('button', { name: 'Set them' }).click();
  await expect(page.getByRole('list', { name: 'Lines that were left' })).toContainText('shine: much');
  const { settings } = await layerOf(page, 'Motes');
  expect([settings['births.rate'].base, settings['appearance.blend'].base]).toMatchObject([
    { value: 120 },
    { value: 'normal' },
  ]);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect((await documentOf(page)).layers).toEqual(before.layers);
});
