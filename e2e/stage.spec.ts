import { expect, goWithin, test, type Page } from './test.ts';
import {
  atEffect,
  collectionOf,
  drawnLook,
  newEffect,
  newLayer,
  setNumber,
  type Effect,
  type Layer,
} from '@jinx/core/document';
import { addEffect, differing, goTo, pixels, living } from './bench.ts';

const [WIDTH, HEIGHT] = [480, 300];
const COLOUR = '#b0602a';

/** One standing disc in the middle of the stage. */
function disc(change: (layer: Layer, effect: Effect) => void): Effect {
  const effect = newEffect('Disc', 7);
  const layer = newLayer('Disc', 1);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'life.size', 0.8);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: COLOUR } };
  layer.look = drawnLook('disc');
  change(layer, effect);
  effect.layers = collectionOf([['disc', layer]]);
  return effect;
}

let project = '';
test.beforeEach(async ({ page }) => {
  const made = (await (await page.request.post('/api/projects', { data: { name: 'Discs' } })).json()) as {
    id: string;
  };
  project = made.id;
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/projects/${project}`);
});

/** The picture with the effect and without it. */
async function pictures(page: Page, effect: Effect): Promise<{ without: Uint8Array; withIt: Uint8Array }> {
  await goWithin(page, `/effects/${await addEffect(page, project, effect)}`);
  await living(page, 0);
  await page.keyboard.press('c');
  await goTo(page, 60);
  const withIt = await pixels(page, WIDTH, HEIGHT);
  await page.getByRole('button', { name: /^Hide / }).click();
  return { withIt, without: await pixels(page, WIDTH, HEIGHT) };
}
test('on a screen of finer pixels the stage is drawn in all of them', async ({ browser }) => {
  const context = await browser.newContext({ deviceScaleFactor: 2, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(
    `/effects/${await addEffect(
      page,
      project,
      disc(() => undefined),
    )}`,
  );
  const canvas = page.locator('.stage canvas');
  const { width } = (await canvas.boundingBox())!;
  await expect.poll(() => canvas.evaluate((element: HTMLCanvasElement) => element.width)).toBe(Math.round(width * 2));
  await context.close();
});

test('workers that end are started again, and the picture is as it was', async ({ page }) => {
  const { withIt: before } = await pictures(
    page,
    disc(() => undefined),
  );
  await page
    .getByRole('row')
    .getByRole('button', { name: /^Show / })
    .click();
  for (const [part, said] of [
    ['simulationWorker', 'The simulation stopped: tried out'],
    ['/worker', 'The stage stopped: tried out'],
  ] as const) {
    const worker = page.workers().find((each) => each.url().includes(part))!;
    await worker.evaluate(() => {
      setTimeout(() => {
        throw new Error('tried out');
      });
    });
    await expect(page.getByRole('alert')).toContainText(said);
    await expect
      .poll(async () =>
        differing(before, await pixels(page, WIDTH, HEIGHT).catch(() => new Uint8Array(before.length))),
      )
      .toBe(0);
    await page.getByRole('button', { name: 'Close' }).click();
  }
});

test('a sprite has the size it is given, and lies flat when told to', async ({ page }) => {
  const extent = async (change: (layer: Layer) => void) => {
    const { without, withIt } = await pictures(page, disc(change));
    let [left, right, top, bottom] = [WIDTH, 0, HEIGHT, 0];
    for (let i = 0; i < without.length; i += 4)
      if (differing(without.subarray(i, i + 4), withIt.subarray(i, i + 4), 6)) {
        const [x, y] = [(i / 4) % WIDTH, Math.floor(i / 4 / WIDTH)];
        [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
      }
    return { width: right - left + 1, height: bottom - top + 1 };
  };
  const small = await extent((layer) => setNumber(layer, 'life.size', 0.4));
  const large = await extent(() => undefined);
  expect(large.width / small.width).toBeGreaterThan(1.9);
  expect(large.width / small.width).toBeLessThan(2.1);
  expect(Math.abs(large.width - large.height)).toBeLessThan(4);
  const flat = await extent(
    (layer) => (layer.settings['appearance.facing'].base = { kind: 'fixed', value: 'ground' }),
  );
  expect(Math.abs(flat.width - large.width)).toBeLessThan(0.15 * large.width);
  expect(flat.height).toBeLessThan(0.35 * large.height);
});
