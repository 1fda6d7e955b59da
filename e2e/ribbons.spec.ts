import { expect, goWithin, test, type Page } from './test.ts';
import {
  atEffect,
  burst,
  collectionOf,
  listed,
  newEffect,
  newLayer,
  setNumber,
  type Effect,
  type Layer,
} from '@jinx/core/document';
import { addEffect, chapter, choose, goTo, living, openMantle, particlesOf, pixels, type } from './bench.ts';

/** A layer whose light is seen all along; nothing of it moves. */
function still(shape: (layer: Layer) => void): Effect {
  const effect = newEffect('Ribbons', 11);
  const layer = newLayer('Ribbons', 3);
  layer.source = { kind: 'line', place: { ...atEffect([0, 1, 0]), turn: [0, 0, 90] } };
  setNumber(layer, 'source.length', 1.6);
  layer.settings['source.order'].base = { kind: 'fixed', value: 'walking' };
  setNumber(layer, 'source.walk', 6);
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', 5);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'life.size', 0.06);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  layer.bursts = collectionOf([['b', burst('opening', 0, 6)]]);
  shape(layer);
  effect.layers = collectionOf([['ribbons', layer]]);
  effect.stretches = { opening: 3, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  return effect;
}

let id = '';
async function open(page: Page, document: Effect, step = 60): Promise<void> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  id = await addEffect(page, projects.find(({ name }) => name === 'Fenlight')!.id, document);
  await goWithin(page, `/effects/${id}`);
  await expect(page.getByRole('row', { name: 'Ribbons' })).toBeVisible();
  await living(page, 0);
  await goTo(page, step);
  await page.keyboard.press('c');
}
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

interface Light {
  /** Bright pixels, the box they lie in, and the lowest of the middle column of that box. */
  count: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Columns of that box in which none is bright. */
  gaps: number;
}
async function light(page: Page): Promise<Light> {
  await page.evaluate(() => window.jinx.hash());
  const [width, height] = [480, 300];
  const rgba = await pixels(page, width, height);
  const columns = new Set<number>();
  const found = { count: 0, left: width, right: 0, top: height, bottom: 0 };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (rgba[(y * width + x) * 4]! < 110) continue;
      columns.add(x);
      found.count++;
      found.left = Math.min(found.left, x);
      found.right = Math.max(found.right, x);
      found.top = Math.min(found.top, y);
      found.bottom = Math.max(found.bottom, y);
    }
  return { ...found, gaps: Math.max(0, found.right - found.left + 1 - columns.size) };
}
const drawAs = async (page: Page, kind: string) => {
  await chapter(page, 'Appearance');
  await choose(page, 'drawn as', { label: kind });
};

test('a strand closes the gaps between the particles it is strung through', async ({ page }) => {
  await open(
    page,
    still(() => {}),
  );
  const dots = await light(page);
  expect(dots.gaps).toBeGreaterThan(60);
  await drawAs(page, 'strands through them');
  await expect.poll(async () => (await light(page)).gaps).toBeLessThan(4);
  const strand = await light(page);
  expect(Math.abs(strand.left - dots.left)).toBeLessThan(10);
  expect(strand.count).toBeGreaterThan(dots.count);
  // Cut at gaps wider than what is said: none is left where all neighbours lie further apart.
  await type(page, /cut at|longest|gap/, '0.1');
  await expect.poll(async () => (await light(page)).count).toBeLessThan(10);
});

test('a beam reaches from place to place, sags, and goes where its end is set', async ({ page }) => {
  const one = (layer: Layer) => (layer.bursts = collectionOf([['b', burst('opening', 0, 1)]]));
  await open(page, still(one));
  await drawAs(page, 'beams');
  await type(page, /^thrown aside|^jag/, '0');
  await expect.poll(async () => (await light(page)).right - (await light(page)).left).toBeGreaterThan(100);
  const straight = await light(page);
  expect(straight.bottom - straight.top).toBeLessThan(30);
  await type(page, /^sag/, '0.5');
  await expect.poll(async () => (await light(page)).bottom).toBeGreaterThan(straight.bottom + 25);
  await type(page, /^sag/, '0');
  await type(page, /^ribbon, to, moved by, y/, '2');
  await expect.poll(async () => (await light(page)).top).toBeLessThan(straight.top - 40);
});

test('a blade leaves what it has passed over, and it fades', async ({ page }) => {
  id = await openMantle(page);
  for (const row of [
    'Lamp',
    'Motes',
    'Mote haloes',
    'Embers',
    'Lamp glow',
    'Ripples, left foot',
    'Ripples, right foot',
  ])
    await page
      .getByRole('row', { name: row, exact: true })
      .focus()
      .then(() => page.keyboard.press('h'));
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await chapter(page, 'Births');
  await type(page, /^standing:/, '1');
  await type(page, /^rate:/, '0');
  await drawAs(page, 'the sweep of a blade');
  await goTo(page, 70);
  await page.keyboard.press('c');
  await page.evaluate(() => window.jinx.hash());
  const swept = await pixels(page);
  await type(page, /^lasts|stays/, '0.02');
  await page.evaluate(() => window.jinx.hash());
  await expect
    .poll(async () => {
      const now = await pixels(page);
      let count = 0;
      for (let i = 0; i < now.length; i += 4) if (swept[i]! - now[i]! > 6) count++;
      return count;
    })
    .toBeGreaterThan(150);
});

test('a front frees what it has passed, and says beforehand how much it will', async ({ page }) => {
  const held = still((layer) => {
    layer.source = { kind: 'box', place: atEffect([0, 1, 0]) };
    setNumber(layer, 'births.life', 5);
    setNumber(layer, 'motion.speed', 0);
    layer.settings['motion.velocity'].base = { kind: 'fixed', value: [2, 0, 0] };
    layer.bursts = collectionOf([['b', burst('opening', 0, 300)]]);
  });
  await open(page, held, 90);
  await chapter(page, 'Source');
  await page.getByRole('button', { name: 'hold and free them…' }).click();
  await page.getByRole('option', { name: 'as a plane climbs' }).click();
  // The box reaches from half a metre to one and a half; the border climbs two thirds of that way in three seconds.
  await type(page, /^front, border/, '1.2');
  await type(page, /^front, raggedness/, '0');
  await expect(page.locator('[data-preview]')).toContainText(/(6\d|7\d)% will be freed/);
  await page.evaluate(() => window.jinx.hash());
  const { positions } = await particlesOf(page, 'Ribbons');
  // Half way through, the border stands at 0.6: whoever lay below it has flown off to the side, the others wait.
  const moved = (n: number) => positions[n * 3]! > 0.51;
  const heights = Array.from({ length: positions.length / 3 }, (_, n) => ({
    y: positions[n * 3 + 1]!,
    moved: moved(n),
  }));
  expect(heights).toHaveLength(300);
  expect(heights.filter(({ y, moved: isMoved }) => isMoved && y > 0.62)).toEqual([]);
  expect(heights.filter(({ moved: isMoved }) => isMoved).length).toBeGreaterThan(10);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(listed(held.fronts)).toEqual([]);
});
