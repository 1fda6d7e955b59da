import { expect, test } from './test.ts';
import { pickColour, drawer, closeDrawer } from './choose.ts';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { beginWith, chapter, choose, differing, goTo, living, particlesOf, pixels, saved, type } from './bench.ts';

const SEDGE = fileURLToPath(new URL('../demo/kit/sedge.glb', import.meta.url));

/** Mean distance of particles to their common end, by the younger and the older half. */
function meanDistance(positions: number[], ages: number[], lamp: number[], from: number, to: number): number {
  let sum = 0;
  let count = 0;
  ages.forEach((age, i) => {
    if (age < from || age >= to) return;
    sum += Math.hypot(...[0, 1, 2].map((axis) => positions[i * 3 + axis]! - lamp[axis]!));
    count++;
  });
  return sum / count;
}

/** Own names, so that a run beside a used database finds its own things. */
const RUN = Date.now().toString(36);
const FIRST = `Reed kit ${RUN}`;
const SECOND = `Other kit ${RUN}`;

test('a new user makes a mantle, keeps it, and takes it to another project', async ({ page }) => {
  // An empty project, and an effect in it.
  await page.goto('/');
  await page.getByLabel('Name of a new project').fill(FIRST);
  await page.getByRole('button', { name: 'Make project' }).click();
  await page.getByLabel('Name of a new effect').fill('First mantle');
  await page.getByRole('button', { name: 'Make effect' }).click();
  await expect(page.getByText('No layer yet')).toBeVisible();

  // Sedge's file is dropped on the stage, and walks round her circle.
  const bytes = await page.evaluateHandle(async (base64) => {
    const data = new DataTransfer();
    const binary = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    data.items.add(new File([binary], 'sedge.glb'));
    return data;
  }, readFileSync(SEDGE).toString('base64'));
  await page.locator('.stage').dispatchEvent('drop', { dataTransfer: bytes });
  await drawer(page, 'Figures');
  await expect(page.getByLabel('clip', { exact: true })).toBeVisible({ timeout: 60_000 });
  await choose(page, 'clip', 'walk');
  await choose(page, 'way', 'circle');
  await closeDrawer(page, 'Figures');

  // Motes from her skin, drawn to a lamp over the shoulder and turned round it.
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await page.getByLabel('layer name').fill('Motes');
  await page.getByLabel('layer name').press('Enter');
  await chapter(page, 'Source');
  await choose(page, 'source', 'mesh');
  await chapter(page, 'Births');
  await type(page, /^rate/, '300+100');
  await type(page, /^lifetime/, '1.2 – 2');
  await expect(page.getByRole('button', { name: 'rate: 400/s' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'lifetime: 1.2 – 2 s' })).toBeVisible();
  await chapter(page, 'Motion');
  await type(page, /^speed/, '0.1');
  for (const force of ['Attraction', 'Vortex', 'Drag']) {
    await page.getByRole('button', { name: 'Add a force' }).click();
    await page.getByRole('option', { name: force }).click();
  }
  await type(page, /^attraction, strength/, '5');
  await type(page, /^vortex, spin/, '1.5');
  await type(page, /^drag, strength/, '2');

  // Size, colour and fade on the life sheet.
  await page.getByRole('radio', { name: /^size/ }).click();
  await beginWith(page, 'swell');
  await chapter(page, 'Life');
  await type(page, /^size/, '4 cm');
  await page.getByRole('button', { name: 'Change it over age' }).click();
  await page.getByRole('button', { name: 'colour at 0%' }).click();
  await pickColour(page, 'colour of this stop', '#ff7a2e');
  await page.getByRole('button', { name: 'colour at 100%' }).click();
  await pickColour(page, 'colour of this stop', '#dfe875');

  // Ripples where a foot travels.
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await page.getByLabel('layer name').fill('Ripples');
  await page.getByLabel('layer name').press('Enter');
  await chapter(page, 'Source');
  await choose(page, 'source', 'point');
  await choose(page, 'source place', { label: 'foot.left' });
  await choose(page, 'dropped to the ground', 'yes');
  await type(page, /^acts below/, '0.12');
  await chapter(page, 'Births');
  await type(page, /^rate/, '0');
  await type(page, /^per metre/, '12');
  await chapter(page, 'Motion');
  await type(page, /^speed/, '0');
  await chapter(page, 'Appearance');
  await choose(page, 'drawn shape, shape', 'ring');
  await choose(page, 'facing', 'ground');
  await chapter(page, 'Life');
  await type(page, /^size/, '0.6');
  await saved(page);

  // What is seen and counted.
  const first = await goTo(page, 150);
  expect(first.step).toBe(150);
  const counts = {
    motes: (await particlesOf(page, 'Motes')).ages.length,
    ripples: (await particlesOf(page, 'Ripples')).ages.length,
  };
  expect(counts.motes).toBeGreaterThan(400);
  expect(counts.ripples).toBeGreaterThan(1);

  const motes = await particlesOf(page, 'Motes');
  const oldest = motes.ages.map((age, i) => ({ age, i })).filter(({ age }) => age > 0.8);
  const lamp = [0, 1, 2].map(
    (axis) => oldest.reduce((sum, { i }) => sum + motes.positions[i * 3 + axis]!, 0) / oldest.length,
  );
  const near = meanDistance(motes.positions, motes.ages, lamp, 0.6, 1);
  const far = meanDistance(motes.positions, motes.ages, lamp, 0, 0.3);
  expect(near).toBeLessThan(far * 0.7);

  const whole = await pixels(page);
  await page.getByRole('row', { name: 'Motes' }).click();
  await page.getByRole('button', { name: 'Hide Motes', exact: true }).click();
  const without = await pixels(page);
  expect(differing(whole, without)).toBeGreaterThan(500);
  await page.getByRole('button', { name: 'Undo' }).click();

  // Another gradient turns their hue.
  await page.getByRole('button', { name: 'colour at 0%' }).click();
  await pickColour(page, 'colour of this stop', '#3060ff');
  await page.getByRole('button', { name: 'colour at 100%' }).click();
  await pickColour(page, 'colour of this stop', '#3060ff');
  const blue = await pixels(page);
  let warmer = 0;
  let bluer = 0;
  for (let i = 0; i < whole.length; i += 4) {
    if (Math.abs(whole[i]! - without[i]!) + Math.abs(whole[i + 2]! - without[i + 2]!) < 24) continue;
    warmer += whole[i]! - whole[i + 2]!;
    bluer += blue[i]! - blue[i + 2]!;
  }
  expect(warmer).toBeGreaterThan(0);
  expect(bluer).toBeLessThan(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect(await goTo(page, 150)).toEqual(first);

  // A reload finds all of it.
  await page.reload();
  await expect(page.getByRole('row', { name: 'Motes' })).toBeVisible();
  await living(page, 50);
  expect(await goTo(page, 150)).toEqual(first);

  // Handed over; the first project and its figure deleted; brought into a second.
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Hand over' }).click();
  await page.getByRole('button', { name: 'Save the parcel' }).click();
  const parcel = await (await download).path();
  await page.goto('/');
  await page.getByRole('button', { name: `Delete ${FIRST}` }).click();
  await page.locator('.ant-popconfirm').getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByRole('link', { name: FIRST })).toHaveCount(0);
  await page.getByLabel('Name of a new project').fill(SECOND);
  await page.getByRole('button', { name: 'Make project' }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Bring in files…' }).click();
  await (await chooser).setFiles({ name: 'mantle.zip', mimeType: 'application/zip', buffer: readFileSync(parcel) });
  await page.getByRole('link', { name: 'First mantle' }).click();
  await living(page, 50);
  const again = await goTo(page, 150);
  expect(again.hash).not.toBeNull();
  expect(again).toEqual(first);
  expect((await particlesOf(page, 'Motes')).ages.length).toBe(counts.motes);
});
