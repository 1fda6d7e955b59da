import { expect, goWithin, test, type Page } from './test.ts';
import { closeDrawer, drawer, surround } from './choose.ts';
import { encode } from 'fast-png';
import {
  atEffect,
  collectionOf,
  newDrawn,
  newEffect,
  newLayer,
  newThing,
  setNumber,
  type Effect,
} from '@jinx/core/document';
import { addEffect, chapter, choose, differing, goTo, living, pixels, type } from './bench.ts';

/** Two still dots side by side, and a layer without a particle. */
function dots(): Effect {
  const effect = newEffect('Dots', 7);
  effect.stage.lens.bloom.isOn = false;
  const layer = (name: string, salt: number, x: number) => {
    const made = newLayer(name, salt);
    made.source = { kind: 'point', place: atEffect([x, 1, 0]) };
    setNumber(made, 'births.rate', 0);
    setNumber(made, 'births.standing', 1);
    setNumber(made, 'motion.speed', 0);
    setNumber(made, 'life.size', 0.7);
    made.settings['life.opacity'].shapers = collectionOf([]);
    return made;
  };
  const none = newLayer('None', 3);
  setNumber(none, 'births.rate', 0);
  effect.layers = collectionOf([
    ['left', layer('Left', 1, -0.6)],
    ['right', layer('Right', 2, 0.6)],
    ['none', none],
  ]);
  return effect;
}

let project = '';
test.beforeEach(async ({ page }) => {
  project = (await (await page.request.post('/api/projects', { data: { name: 'Looks' } })).json()).id;
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/projects/${project}`);
});

async function open(page: Page, effect = dots()): Promise<void> {
  await goWithin(page, `/effects/${await addEffect(page, project, effect)}`);
  await living(page, 0);
  await page.keyboard.press('c');
  await goTo(page, 30);
  await page.getByRole('row', { name: 'Left' }).click();
  await chapter(page, 'Appearance');
}
const WIDTH = 480;
/** Pixels that differ between two pictures in the left and in the right half. */
function halves(a: Uint8Array, b: Uint8Array): [left: number, right: number] {
  const found: [number, number] = [0, 0];
  for (let i = 0; i < a.length; i += 4)
    if (differing(a.subarray(i, i + 4), b.subarray(i, i + 4), 6)) found[(i / 4) % WIDTH < WIDTH / 2 ? 0 : 1]++;
  return found;
}
/** The picture once it is another than before, by so many pixels. */
async function changed(page: Page, before: Uint8Array, least = 100): Promise<Uint8Array> {
  let now = before;
  await expect
    .poll(async () => {
      now = await pixels(page);
      return differing(before, now, 6);
    })
    .toBeGreaterThan(least);
  return now;
}
/** The brightest byte of the first step's picture. */
const brightest = (page: Page) =>
  page
    .locator('.steps canvas')
    .first()
    .evaluate((one: HTMLCanvasElement) => {
      const { data } = one.getContext('2d')!.getImageData(0, 0, one.width, one.height);
      return data.reduce((most, byte, n) => (n % 4 < 3 ? Math.max(most, byte) : most), 0);
    });
const add = async (page: Page, name: string) => {
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('option', { name }).click();
};
const steps = (page: Page) =>
  page.locator('.steps > li').evaluateAll((all) => all.map((one) => one.getAttribute('data-step')));

test('steps are added, muted, moved, seen alone and taken away, and the stage and their pictures follow', async ({
  page,
}) => {
  await open(page);
  const plain = await pixels(page);
  await add(page, 'Dissolve');
  expect(await steps(page)).toEqual(['drawn', 'dissolve']);
  await type(page, /^dissolve, amount/, '50');
  const dissolved = await changed(page, plain);
  const [left, right] = halves(plain, dissolved);
  expect(left).toBeGreaterThan(100);
  expect(right).toBe(0);
  // The small picture after the second step is another than that after the first.
  const picture = (n: number) =>
    page
      .locator('.steps canvas')
      .nth(n)
      .evaluate((c: HTMLCanvasElement) => c.toDataURL());
  await expect.poll(async () => (await picture(0)) === (await picture(1))).toBe(false);
  // A layer that has no particle now has pictures as well.
  await page.getByRole('row', { name: 'None' }).click();
  await expect(page.locator('.steps > li')).toHaveCount(1);
  await expect.poll(() => brightest(page)).toBeGreaterThan(100);
  await page.getByRole('row', { name: 'Left' }).click();
  const second = page.locator('.steps > li').nth(1);
  await second.getByRole('button', { name: /^Mute/ }).click();
  await expect.poll(async () => differing(plain, await pixels(page), 6)).toBe(0);
  await second.getByRole('button', { name: /^Unmute/ }).click();
  await changed(page, plain);
  await second.getByRole('button', { name: /alone$/ }).click();
  const alone = await changed(page, dissolved);
  // Without the shape before it, the dissolve is seen in the corners too.
  expect(halves(plain, alone)[0]).toBeGreaterThan(left);
  await second.getByRole('button', { name: /alone$/ }).click();
  await expect.poll(async () => differing(dissolved, await pixels(page), 6)).toBe(0);
  await second.getByRole('button', { name: 'Order of Dissolve' }).press('Alt+ArrowUp');
  expect(await steps(page)).toEqual(['dissolve', 'drawn']);
  await page.getByRole('button', { name: 'Remove Dissolve' }).click();
  expect(await steps(page)).toEqual(['drawn']);
  await expect.poll(async () => differing(plain, await pixels(page), 6)).toBe(0);
  await page.keyboard.press('Control+z');
  expect(await steps(page)).toEqual(['dissolve', 'drawn']);
});

test('a look is named and used by another layer: a change shows in both, but where a number differs', async ({
  page,
}) => {
  await open(page);
  await choose(page, 'drawn shape, shape', 'ring');
  await page.getByRole('button', { name: 'Name it' }).click();
  await expect(page.getByLabel('name of the look')).toHaveValue('Left look');
  await page.getByRole('row', { name: 'Right' }).click();
  const before = await pixels(page);
  await page.getByRole('button', { name: 'Use a look…' }).click();
  await page.getByRole('option', { name: 'Left look' }).click();
  await expect(page.getByText('with Left: a change here is a change there.')).toBeVisible();
  const rings = await changed(page, before);
  expect(halves(before, rings)[0]).toBe(0);
  await type(page, /^drawn shape, width/, '60');
  const wide = await changed(page, rings);
  const [left, right] = halves(rings, wide);
  expect(Math.abs(left - right)).toBeLessThan(0.25 * left);
  // From now on the width is the right layer's own.
  await page.getByRole('button', { name: /^drawn shape, width/ }).click();
  await page.getByRole('button', { name: 'Only in this layer' }).click();
  await page.keyboard.press('Escape');
  await type(page, /^drawn shape, width/, '10');
  const thin = await changed(page, wide);
  expect(halves(wide, thin)[0]).toBe(0);
  expect(halves(wide, thin)[1]).toBeGreaterThan(100);
  await expect(page.getByText('1 of its numbers differs in this layer.')).toBeVisible();
});

/** Drops a file on an element. */
async function drop(page: Page, selector: string, name: string, bytes: Uint8Array): Promise<void> {
  const transfer = await page.evaluateHandle(
    ([file, data]) => {
      const made = new DataTransfer();
      made.items.add(new File([Uint8Array.from(data as number[])], file as string));
      return made;
    },
    [name, [...bytes]] as const,
  );
  await page.dispatchEvent(selector, 'drop', { dataTransfer: transfer });
}
/** Eight by eight pixels of one colour. */
const png = (rgb: readonly [number, number, number]) =>
  encode({
    width: 8,
    height: 8,
    channels: 4,
    data: Uint8Array.from({ length: 256 }, (_, i) => (i % 4 < 3 ? rgb[i % 4]! : 255)),
  });

test('a picture dropped on a row, on the stage or in the chapter is shown at once', async ({ page }) => {
  await open(page);
  const plain = await pixels(page);
  await drop(page, '[data-row="right"]', 'reeds.png', png([255, 0, 0]));
  const onRow = await changed(page, plain);
  expect(halves(plain, onRow)[0]).toBe(0);
  await drop(page, '.stage canvas', 'water.png', png([0, 0, 255]));
  const onStage = await changed(page, onRow);
  expect(halves(onRow, onStage)[1]).toBe(0);
  await expect(page.getByRole('button', { name: 'water', exact: true })).toBeVisible();
  await drop(page, '.chapters', 'moss.png', png([0, 255, 0]));
  await changed(page, onStage);
  await expect(page.getByRole('button', { name: 'moss', exact: true })).toBeVisible();
  // In one step back it is the picture before.
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'water', exact: true })).toBeVisible();
});

test('a file that is no picture is refused with a sentence, and all stays as it was', async ({ page }) => {
  await open(page);
  const plain = await pixels(page);
  await drop(page, '.stage canvas', 'reeds.png', new Uint8Array([1, 2, 3, 4]));
  await expect(page.getByText(/pictures are read from PNG, JPEG and WebP/)).toBeVisible();
  await drop(page, '.stage canvas', 'empty.png', new Uint8Array(0));
  await expect(page.getByText(/empty/)).toBeVisible();
  expect(differing(plain, await pixels(page), 3)).toBe(0);
  expect(await steps(page)).toEqual(['drawn']);
});

test('a picture that is gone is a finding with its layer, its name and a mend; the rest goes on', async ({
  page,
}) => {
  await page.route('**/api/assets/*', (route) =>
    route.fulfill({ status: 404, json: { sentence: 'There is no such asset.' } }),
  );
  await open(page);
  await drop(page, '.stage canvas', 'reeds.png', png([255, 0, 0]));
  await expect(
    page.getByText(/Left shows nothing of reeds, for it could not be had: There is no such asset/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Draw a soft dot instead' }).click();
  expect(await steps(page)).toEqual(['drawn']);
});

test('a mesh that is gone is a finding with its layer, its name and a mend; figures and the other layers go on', async ({
  page,
}) => {
  const bring = async (file: string) =>
    (await (await page.request.post(`/api/projects/${project}/kit`, { data: { file } })).json()) as { hash: string };
  const [sedge, funnel] = [await bring('sedge.glb'), await bring('funnel.glb')];
  const effect = dots();
  effect.stage.things = collectionOf([['sedge', newThing('Sedge', sedge.hash)]]);
  const left = effect.layers.byId['left']!;
  left.drawn = newDrawn('mesh');
  left.drawn.meshes = collectionOf([['a', { asset: funnel.hash, name: 'funnel', chance: 1 }]]);
  await page.route(`**/api/assets/${funnel.hash}`, (route) =>
    route.fulfill({ status: 404, json: { sentence: 'There is no such asset.' } }),
  );
  await open(page, effect);
  await expect(
    page.getByText('Left is drawn without funnel, for it could not be had: There is no such asset.'),
  ).toBeVisible();
  const shown = await pixels(page);
  // The other layer is there, and so is the figure.
  await page.getByRole('row', { name: 'Right' }).click();
  await page.getByRole('button', { name: 'Hide Right' }).click();
  const withoutRight = await changed(page, shown);
  expect(halves(shown, withoutRight)[1]).toBeGreaterThan(500);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'Take funnel out' }).first().click();
  await expect(page.getByText('Left shows nothing: it has no mesh to draw')).toBeVisible();
});

test('lens and air are set in words, and seen raw or dimmed by a key', async ({ page }) => {
  await open(page);
  await surround(page, 'busy');
  const plain = await pixels(page);
  await drawer(page, 'Lens and air');
  await choose(page, 'fog', 'on');
  const foggy = await changed(page, plain, 5000);
  await page.getByRole('button', { name: /^exposure/ }).click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await changed(page, foggy, 5000);
  await page.keyboard.press('Escape');
  await page.locator('.stage canvas').focus();
  await page.keyboard.press('r');
  await drawer(page, 'Shown');
  await expect(page.getByRole('switch', { name: 'Raw', exact: true })).toBeChecked();
  await closeDrawer(page, 'Shown');
  await expect.poll(async () => differing(plain, await pixels(page), 3)).toBeLessThan(200);
  await page.keyboard.press('d');
  await changed(page, plain, 20_000);
});

test('what particles are drawn as is chosen in words: meshes, lights, haze and skins are seen at once', async ({
  page,
}) => {
  await open(page);
  await drawer(page, 'Figures');
  await page.getByRole('button', { name: 'Put sedge on the stage' }).click();
  await expect(page.getByRole('combobox', { name: 'figure', exact: true })).toHaveText(/sedge/i);
  await closeDrawer(page, 'Figures');
  await page.waitForTimeout(500);
  await goTo(page, 30);
  await page.getByRole('row', { name: 'Left' }).click();
  await chapter(page, 'Appearance');
  let before = await pixels(page);
  for (const kind of ['light', 'haze', 'body']) {
    await choose(page, 'drawn as', kind);
    before = await changed(page, before, 60);
  }
  await choose(page, 'drawn as', 'mesh');
  await expect(page.getByText(/Left shows nothing: it has no mesh to draw/)).toBeVisible();
  before = await pixels(page);
  await page.getByRole('button', { name: 'Choose a mesh' }).click();
  await page.getByRole('option', { name: /sedge/ }).click();
  await changed(page, before, 200);
});

test('a mesh goes over into its other shape, mirrors a picture, and is met by another layer, all in words', async ({
  page,
}) => {
  const kit = await page.request.post(`/api/projects/${project}/kit`, { data: { file: 'funnel.glb' } });
  expect(kit.ok()).toBe(true);
  await open(page);
  await choose(page, 'drawn as', 'mesh');
  let before = await pixels(page);
  await page.getByRole('button', { name: 'Choose a mesh' }).click();
  await page.getByRole('option', { name: /funnel/ }).click();
  before = await changed(page, before, 200);
  await type(page, /^other shape/, '100');
  before = await changed(page, before, 200);
  // A red picture in place of the sky.
  await choose(page, 'lit', 'card');
  await type(page, /^metalness/, '100');
  await drop(page, '[data-row="right"]', 'reeds.png', png([255, 0, 0]));
  await changed(page, before, 200);
  // A picture is white until it has come.
  await expect
    .poll(async () => {
      const was = before;
      before = await pixels(page);
      return differing(was, before, 1);
    })
    .toBe(0);
  await drawer(page, 'Lens and air');
  await page.getByRole('button', { name: 'the sky of the surround' }).click();
  await page.getByRole('option', { name: 'reeds' }).click();
  const mirrored = await changed(page, before, 200);
  expect(halves(before, mirrored)[1]).toBe(0);
  await choose(page, 'mirrored picture', 'off');
  await expect.poll(async () => differing(before, await pixels(page), 3)).toBe(0);
  await page.keyboard.press('Escape');
  // The other layer meets the mesh; what turns with the view can not be met, and says so.
  await choose(page, 'facing', 'camera');
  await page.getByRole('row', { name: 'Right' }).click();
  await chapter(page, 'Motion');
  await page.getByRole('button', { name: 'Add a surface' }).click();
  await page.getByRole('option', { name: 'The mesh of Left' }).click();
  await expect(page.locator('[data-surface="layer"]')).toContainText('the mesh that');
  await expect(page.getByText('The mesh of Left is never met: it turns with the view.')).toBeVisible();
  await page.getByRole('row', { name: 'Left' }).click();
  await chapter(page, 'Appearance');
  await choose(page, 'facing', 'own frame');
  await expect(page.getByText('The mesh of Left is never met')).toBeHidden();
});
