import { expect, goWithin, test, type Page } from './test.ts';
import { atEffect, burst, collectionOf, newEffect, newLayer, setNumber, type Effect } from '@jinx/core/document';
import { addEffect, chapter, choose, differing, goTo, particlesOf, pixels } from './bench.ts';

/** Motes born all along on a ring about the middle; a flash beside them that is over in a fifth of a second. */
function ringAndFlash(): Effect {
  const effect = newEffect('Ring and flash', 11);
  const [motes, flash] = [newLayer('Motes', 3), newLayer('Flash', 4)];
  motes.source = { kind: 'ring', place: atEffect([0, 1, 0]) };
  setNumber(motes, 'source.radius', 0.3);
  setNumber(motes, 'births.rate', 120);
  setNumber(motes, 'births.life', 0.3);
  flash.source = { kind: 'sphere', place: atEffect([1.1, 1.2, 0]) };
  setNumber(flash, 'source.radius', 0.25);
  setNumber(flash, 'births.rate', 0);
  setNumber(flash, 'births.life', 0.2);
  setNumber(flash, 'life.size', 0.3);
  flash.bursts = collectionOf([['b', burst('opening', 0, 60)]]);
  for (const layer of [motes, flash]) setNumber(layer, 'motion.speed', 0);
  effect.layers = collectionOf([
    ['motes', motes],
    ['flash', flash],
  ]);
  effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  return effect;
}

let id = '';
test.beforeEach(async ({ page }) => {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  id = await addEffect(page, projects.find(({ name }) => name === 'Fenlight')!.id, ringAndFlash());
  await goWithin(page, `/effects/${id}`);
  await expect(page.getByRole('row', { name: 'Motes' })).toBeVisible();
  // Once round, so that the fullest instant of each layer has been seen.
  await expect.poll(() => page.evaluate(() => window.jinx.state().step), { timeout: 60_000 }).toBeGreaterThan(70);
  await goTo(page, 60);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

const handle = (page: Page, name: string) => page.getByRole('button', { name: `handle of the ${name}` });
/** Presses on the middle of something and drags from there; `during` happens before it is let go. */
async function drag(
  page: Page,
  from: { x: number; y: number },
  by: readonly [number, number],
  during: () => Promise<void> = async () => {},
): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + by[0] / 2, from.y + by[1] / 2, { steps: 3 });
  await page.mouse.move(from.x + by[0], from.y + by[1], { steps: 3 });
  await during();
  await page.mouse.up();
}
async function middleOf(page: Page, name: string): Promise<{ x: number; y: number }> {
  await expect(handle(page, name)).toBeVisible();
  const box = (await handle(page, name).locator('.rim').boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}
/** Where the motes are on the whole: the mean of their places. */
async function mean(page: Page): Promise<[number, number, number]> {
  const { positions } = await particlesOf(page, 'Motes');
  return [0, 1, 2].map(
    (axis) => positions.filter((_, n) => n % 3 === axis).reduce((sum, x) => sum + x, 0) / (positions.length / 3),
  ) as [number, number, number];
}
const number = async (page: Page, axis: string): Promise<number> =>
  Number.parseFloat((await page.getByRole('button', { name: `source place, moved by, ${axis}` }).textContent())!);

test('a source dragged on the stage goes there with its births, and one undo brings it back', async ({ page }) => {
  const before = await mean(page);
  await drag(page, await middleOf(page, 'ring'), [-150, -60]);
  await page.evaluate(() => window.jinx.hash());
  const after = await mean(page);
  // The camera looks along −z: a hundred pixels left and sixty up are left and up in the world.
  expect(after[0]).toBeLessThan(before[0] - 0.4);
  expect(after[1]).toBeGreaterThan(before[1] + 0.15);
  // The handle went with the pointer.
  const [x, y] = [await number(page, 'x'), await number(page, 'y')];
  expect(x).toBeLessThan(-0.4);
  expect(Math.abs(after[0] - x)).toBeLessThan(0.1);
  expect(Math.abs(after[1] - y)).toBeLessThan(0.1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.evaluate(() => window.jinx.hash());
  expect(await mean(page)).toEqual(before);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('an arm moves along its own axis alone, and Escape gives the drag up', async ({ page }) => {
  const arm = page.locator('.handles [data-axis="y"] .end');
  const box = (await arm.boundingBox())!;
  const tip = { x: box.x + 4, y: box.y + 4 };
  await drag(page, tip, [30, -80]);
  expect(await number(page, 'y')).toBeGreaterThan(1.2);
  expect([await number(page, 'x'), await number(page, 'z')]).toEqual([0, 0]);
  const kept = await number(page, 'y');
  const again = (await arm.boundingBox())!;
  await drag(page, { x: again.x + 4, y: again.y + 4 }, [0, 90], () => page.keyboard.press('Escape'));
  expect(await number(page, 'y')).toBe(kept);
});

test('with a key, dragging at another instant makes a key there, and births follow the way between', async ({
  page,
}) => {
  await goTo(page, 0);
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: 'key at 0 s', exact: true })).toBeVisible();
  await goTo(page, 60);
  const still = await pixels(page);
  await drag(page, await middleOf(page, 'ring'), [-180, 0]);
  await expect(page.getByRole('button', { name: 'key at 1 s', exact: true })).toBeVisible();
  await page.evaluate(() => window.jinx.hash());
  expect((await mean(page))[0]).toBeLessThan(-0.4);
  // The way there is drawn: the picture holds a line that was not there.
  expect(differing(still, await pixels(page))).toBeGreaterThan(60);
  // An arrow moves where it is at a key, and nothing else.
  const key = page.getByRole('button', { name: 'key at 1 s', exact: true });
  await key.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await goTo(page, 60);
  expect(await number(page, 'y')).toBeCloseTo(1.1, 6);
  await page.keyboard.press('Control+z');
  await goTo(page, 12);
  expect(Math.abs((await mean(page))[0])).toBeLessThan(0.2);
  // Both keys stand on the stage; pressing one goes to its instant.
  await key.locator('.end').click();
  await expect.poll(() => page.evaluate(() => window.jinx.state().step)).toBe(60);

  // On the time sheet it is dragged to an earlier time, and made to leap: then births stay behind until just there.
  const sheetKey = page.getByRole('button', { name: 'ring, key at 1 s' });
  const box = (await sheetKey.boundingBox())!;
  const start = (await page.locator('.ruler .border.first').boundingBox())!;
  const second = box.x + box.width / 2 - (start.x + start.width / 2);
  await drag(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, [-Math.round(second / 2), 0]);
  await expect(page.getByRole('button', { name: /ring, key at 0\.5/ })).toBeVisible();
  await goTo(page, 60);
  expect((await mean(page))[0]).toBeLessThan(-0.4);
  await goTo(page, 0);
  await choose(page, 'source place, on from this key', { label: 'by a leap' });
  await goTo(page, 28);
  expect(Math.abs((await mean(page))[0])).toBeLessThan(0.06);
});

test('a force is moved and sized where it stands, and what it does follows', async ({ page }) => {
  await chapter(page, 'Motion');
  await page.getByRole('button', { name: 'Add a force' }).click();
  await page.getByRole('option', { name: /^Attraction/ }).click();
  const force = handle(page, 'attraction');
  await expect(force).toBeVisible();
  await page.evaluate(() => window.jinx.hash());
  const before = await mean(page);
  // Far to the left it draws the motes there: they live for a third of a second at four metres a second squared.
  const from = (await force.locator('.rim').boundingBox())!;
  await drag(page, { x: from.x + 6, y: from.y + 6 }, [-220, 0]);
  await page.evaluate(() => window.jinx.hash());
  expect((await mean(page))[0]).toBeLessThan(before[0] - 0.02);
  // Its reach is pulled to nothing near it: there it no longer acts on them.
  await page
    .getByRole('button', { name: /^attraction, reach/ })
    .first()
    .click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await page.keyboard.press('3');
  const knob = page.getByRole('button', { name: 'reach of the attraction' });
  const box = (await knob.locator('.end').boundingBox())!;
  const middle = await force.locator('.rim').boundingBox();
  await drag(page, { x: box.x + 5, y: box.y + 5 }, [(middle!.x + 6 - box.x - 5) * 0.7, 0]);
  await expect(page.getByRole('button', { name: /^attraction, reach: 0\.[234]/ }).first()).toBeVisible();
  await page.evaluate(() => window.jinx.hash());
  expect(Math.abs((await mean(page))[0] - before[0])).toBeLessThan(0.02);
});

/** Light in the right half of the picture, where the flash was. */
function flash(rgba: Uint8Array): number {
  let sum = 0;
  for (let y = 80; y < 220; y++) for (let x = 300; x < 420; x++) sum += rgba[(y * 480 + x) * 4]!;
  return sum;
}

test('while one layer is dragged, the others stand at their fullest', async ({ page }) => {
  const clean = await pixels(page);
  let during = clean;
  await drag(page, await middleOf(page, 'ring'), [0, 40], async () => {
    during = await pixels(page);
  });
  await page.evaluate(() => window.jinx.hash());
  const after = await pixels(page);
  expect(flash(during)).toBeGreaterThan(flash(clean) * 1.5);
  expect(flash(after)).toBeLessThan(flash(clean) * 1.1);
});

test('so they do while a number of its source is dragged', async ({ page }) => {
  await chapter(page, 'Source');
  const clean = await pixels(page);
  let during = clean;
  const box = (await page.getByRole('button', { name: /^radius:/ }).boundingBox())!;
  await drag(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, [10, 0], async () => {
    during = await pixels(page);
  });
  await page.evaluate(() => window.jinx.hash());
  const after = await pixels(page);
  expect(flash(during)).toBeGreaterThan(flash(clean) * 1.5);
  expect(flash(after)).toBeLessThan(flash(clean) * 1.1);
});

test('a drawn path is walked to by Tab, and its points are moved, added and taken away by key', async ({ page }) => {
  await chapter(page, 'Source');
  await choose(page, 'source', 'path');
  const point = (n: number) => page.getByRole('button', { name: `point ${n} of the path` });
  await handle(page, 'path').focus();
  await page.keyboard.press('Tab');
  await expect(point(1)).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(point(2)).toBeFocused();
  const highest = async () => {
    await page.evaluate(() => window.jinx.hash());
    return Math.max(...(await particlesOf(page, 'Motes')).positions.filter((_, n) => n % 3 === 1));
  };
  const before = await highest();
  for (let n = 0; n < 3; n++) await page.keyboard.press('Shift+ArrowUp');
  expect(await highest()).toBeGreaterThan(before + 0.15);
  const count = await page.getByRole('button', { name: /^point \d of the path/ }).count();
  await page.keyboard.press('Insert');
  await expect(page.getByRole('button', { name: /^point \d of the path/ })).toHaveCount(count + 1);
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: /^point \d of the path/ })).toHaveCount(count);
});

test('by keyboard a handle is moved and turned, and a size is pulled on the stage', async ({ page }) => {
  await handle(page, 'ring').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+PageUp');
  expect([await number(page, 'x'), await number(page, 'z')]).toEqual([0.01, 0.1]);
  await page.keyboard.press('2');
  await handle(page, 'ring').focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'source place, turned by, y' })).toHaveText(/^5/);
  await page.keyboard.press('3');
  const knob = page.getByRole('button', { name: 'radius of the ring' });
  const box = (await knob.locator('.end').boundingBox())!;
  const [x, y] = [box.x + 5, box.y + 5];
  const middle = await middleOf(page, 'ring');
  await drag(page, { x, y }, [x - middle.x, y - middle.y]);
  await page.evaluate(() => window.jinx.hash());
  const { positions } = await particlesOf(page, 'Motes');
  const widths = positions.filter((_, n) => n % 3 === 0);
  // Twice as far from the middle is twice as large.
  expect(Math.max(...widths) - Math.min(...widths)).toBeGreaterThan(1.05);
  expect(Math.max(...widths) - Math.min(...widths)).toBeLessThan(1.35);
});
