import { expect, goWithin, test, type Page } from './test.ts';
import { atEffect, collectionOf, drawnLook, newEffect, newLayer, setNumber, type Effect } from '@jinx/core/document';
import { particleKey, rotate } from '@jinx/core/maths';
import { orientationOf, ownFrames } from '@jinx/core/simulation';
import { FIRST_VIEW } from '@jinx/player/scene';
import { addEffect, chapter, choose, goTo, pixels } from './bench.ts';

/** One white disc of half a metre that stands in the middle of the stage and is seen all along. */
function disc(shape = 'disc', velocity: [number, number, number] = [0, 0, 0]): Effect {
  const effect = newEffect('Disc', 11);
  const layer = newLayer('Disc', 3);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.speed', 0);
  layer.settings['motion.velocity'].base = { kind: 'fixed', value: velocity };
  setNumber(layer, 'life.size', 0.5);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  layer.look = drawnLook(shape);
  effect.layers = collectionOf([['disc', layer]]);
  effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  return effect;
}

let id = '';
async function open(page: Page, document: Effect): Promise<void> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  id = await addEffect(page, projects.find(({ name }) => name === 'Fenlight')!.id, document);
  await goWithin(page, `/effects/${id}`);
  await expect(page.getByRole('row', { name: 'Disc' })).toBeVisible();
  await expect.poll(() => page.evaluate(() => window.jinx.state().living), { timeout: 60_000 }).toBe(1);
  await goTo(page, 30);
  // Guides and handles would be counted with the light.
  await page.keyboard.press('c');
}
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

/** How many pixels are bright. */
async function lit(page: Page): Promise<number> {
  await page.evaluate(() => window.jinx.hash());
  const rgba = await pixels(page);
  let count = 0;
  for (let i = 0; i < rgba.length; i += 4) if (rgba[i]! > 150) count++;
  return count;
}
const settle = async (page: Page, test: (count: number) => boolean) =>
  expect.poll(async () => test(await lit(page))).toBe(true);
const shapeBy = async (page: Page, chip: RegExp, what: string) => {
  await page.getByRole('button', { name: chip }).first().click();
  await page.getByRole('button', { name: 'Shape it…' }).click();
  await page.getByRole('option', { name: what }).click();
};

test('a size is shaped by a channel that the particles carry: by its value, and by its name everywhere', async ({
  page,
}) => {
  await open(page, disc());
  const whole = await lit(page);
  await chapter(page, 'Life');
  await page.getByRole('button', { name: 'carry a channel…' }).click();
  await page.getByRole('option', { name: 'something new' }).click();
  await page.getByLabel('name of the channel').fill('wetness');
  await page.keyboard.press('Enter');
  await expect(page.getByText('It shapes nothing yet')).toBeVisible();
  await shapeBy(page, /^size:/, 'by wetness');
  await page.keyboard.press('Escape');
  await expect(page.getByText('It shapes size.')).toBeVisible();
  await page.getByRole('button', { name: /^wetness:/ }).click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('0.5');
  await page.keyboard.press('Enter');
  // Half as wide is a quarter of the area.
  await settle(page, (count) => count > 0.15 * whole && count < 0.35 * whole);

  // Carried no more, it counts as nothing, and a finding says so and mends it.
  await page.getByRole('button', { name: 'Carry wetness no more' }).click();
  await settle(page, (count) => count < 0.02 * whole);
  await expect(page.getByText('Disc is shaped by wetness, which its particles do not carry')).toBeVisible();
  await page.getByRole('button', { name: 'Let them carry wetness' }).click();
  await settle(page, (count) => count > 0.9 * whole);
});

test('a size is shaped by the time of the stretch, along a curve drawn in the chip’s drawer', async ({ page }) => {
  await open(page, disc());
  const whole = await lit(page);
  await chapter(page, 'Life');
  await shapeBy(page, /^size:/, 'by the stretch’s time');
  // Half a second into an opening of two: a quarter as wide.
  await settle(page, (count) => count > 0.02 * whole && count < 0.12 * whole);
  await choose(page, 'size, the stretch’s time, how', { label: 'added to' });
  await settle(page, (count) => count > 1.5 * whole);
  await page.getByRole('button', { name: 'Take off what the stretch’s time does to size' }).click();
  await settle(page, (count) => Math.abs(count - whole) < 0.05 * whole);
});

test('a colour is tinted along a gradient by whatever is read, as far as it runs', async ({ page }) => {
  // It flies half a metre in its first second, and is past the end of a gradient that runs so far.
  await open(page, disc('disc', [0.5, 0, 0]));
  const blueOf = async () => {
    await page.evaluate(() => window.jinx.hash());
    return page.evaluate(
      async () => (await window.jinx.particles(Object.values(window.jinx.layers())[0]!)).colours[2]!,
    );
  };
  expect(await blueOf()).toBeCloseTo(1, 3);
  await chapter(page, 'Life');
  await page.getByRole('button', { name: 'tint it…' }).click();
  await page.getByRole('option', { name: 'by distance travelled' }).click();
  // A quarter of a metre along a gradient of two: an eighth of the way from white to orange.
  const part = await blueOf();
  expect(part).toBeLessThan(0.96);
  expect(part).toBeGreaterThan(0.8);
  await page.getByRole('button', { name: /^colour, distance travelled, up to/ }).click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('0.2');
  await page.keyboard.press('Enter');
  await expect.poll(blueOf).toBeLessThan(0.1);
  await page.getByRole('button', { name: 'Take off what distance travelled does to colour' }).click();
  await expect.poll(blueOf).toBeGreaterThan(0.99);
});

test('a sprite is turned from where it is going', async ({ page }) => {
  // It flies up and to the right, half a metre a second; a flare has four rays.
  await open(page, disc('flare', [0.35, 0.35, 0]));
  await chapter(page, 'Life');
  /** Light on the upright cross through the brightest place, and on the slanted one. */
  async function rays(): Promise<{ upright: number; slanted: number }> {
    await page.evaluate(() => window.jinx.hash());
    const [width, height] = [480, 300];
    const rgba = await pixels(page, width, height);
    const at = (x: number, y: number) => rgba[(y * width + x) * 4]!;
    let [bx, by, most] = [0, 0, -1];
    for (let y = 40; y < height - 40; y++)
      for (let x = 40; x < width - 40; x++) {
        const sum = at(x, y) + at(x - 1, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1);
        if (sum > most) [bx, by, most] = [x, y, sum];
      }
    const ways = (list: number[][]) =>
      list.reduce((sum, [dx, dy]) => sum + at(Math.round(bx + 14 * dx!), Math.round(by + 14 * dy!)), 0);
    const half = Math.SQRT1_2;
    return {
      upright: ways([
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ]),
      slanted: ways([
        [half, half],
        [-half, half],
        [half, -half],
        [-half, -half],
      ]),
    };
  }
  const before = await rays();
  expect(before.upright).toBeGreaterThan(before.slanted * 1.3);
  await choose(page, 'along its motion', { label: 'where it is going' });
  await expect.poll(async () => (await rays()).slanted).toBeGreaterThan(before.upright * 0.8);
  const after = await rays();
  expect(after.slanted).toBeGreaterThan(after.upright * 1.3);
});

test('a sprite in its own frame is tilted per axis: edge-on little is seen of it, turned about its axle it is whole again', async ({
  page,
}) => {
  await open(page, disc());
  const whole = await lit(page);
  await chapter(page, 'Appearance');
  await choose(page, 'facing', { label: 'as it is turned' });
  await chapter(page, 'Life');
  await settle(page, (count) => Math.abs(count - whole) < 0.25 * whole);
  const type = async (label: string, text: string) => {
    await page.getByRole('button', { name: new RegExp(`^${label}`) }).click();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  // A quarter turn round the upright: the camera, a little to the side, looks at its edge.
  await type('tilt, y', '90');
  await settle(page, (count) => count < 0.45 * whole);
  // It turns about the upright by its angle: a quarter turn back.
  await type('axle, y', '1');
  await type('axle, z', '0');
  await type('starting angle', '-90');
  await settle(page, (count) => Math.abs(count - whole) < 0.25 * whole);
});

test('the stage draws a sprite in its own frame as core says it stands, its lots included', async ({ page }) => {
  const effect = disc();
  const layer = effect.layers.byId['disc']!;
  layer.settings['appearance.facing'].base = { kind: 'fixed', value: 'own frame' };
  setNumber(layer, 'life.angle', 70);
  const standing = (shape: (target: typeof layer) => void) => {
    shape(layer);
    // The particle's lot: the upper bits of its key, by the effect's seed and the layer's salt.
    const lot = particleKey(effect.seed, layer.salt, 0) >>> 8;
    const facing = rotate(orientationOf(ownFrames(layer), lot, (70 * Math.PI) / 180), [0, 0, 1]);
    const way = FIRST_VIEW.position.map((x, axis) => x - [0, 1, 0][axis]!);
    return Math.abs(facing.reduce((sum, x, axis) => sum + x * way[axis]!, 0) / Math.hypot(...way));
  };
  /** Bright pixels of the disc, whose share of a whole one is the cosine between its face and the sight. */
  const seen = async () => {
    await open(page, effect);
    const count = await lit(page);
    await page.request.delete(`/api/effects/${id}`);
    return count;
  };
  layer.settings['appearance.facing'].base.value = 'camera';
  const whole = await seen();
  layer.settings['appearance.facing'].base.value = 'own frame';
  const shapes: ((target: typeof layer) => void)[] = [
    (target) => (target.settings['life.tilt'].base = { kind: 'fixed', value: [35, 50, -20] }),
    (target) => (target.settings['life.axle'].base = { kind: 'fixed', value: [0.3, 1, 0] }),
    (target) => (target.settings['life.tilt'].base = { kind: 'spread', low: [-90, -60, -40], high: [90, 80, 40] }),
    (target) => (target.settings['life.axle'].base = { kind: 'spread', low: [-1, -1, -1], high: [1, 1, 1] }),
  ];
  for (const shape of shapes) {
    const share = standing(shape);
    expect(Math.abs((await seen()) / whole - share)).toBeLessThan(0.04);
  }
});
