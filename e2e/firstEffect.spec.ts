import { expect, test, type Page } from './test.ts';
import { pickColour, drawer, closeDrawer } from './choose.ts';
import { readFileSync } from 'node:fs';
import { beginWith, chapter, choose, differing, goTo, living, particlesOf, pixels, saved, type } from './bench.ts';

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

/** A number of a chapter, typed. */
const typed = (chapterName: Parameters<typeof chapter>[1], what: RegExp, text: string) => async (page: Page) => {
  await chapter(page, chapterName);
  await type(page, what, text);
};
async function stop(page: Page, name: string, hex: string): Promise<void> {
  await page.getByRole('button', { name }).click();
  await pickColour(page, 'colour of this stop', hex);
}
const layer = async (page: Page, name: string) => {
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await page.getByLabel('layer name').fill(name);
  await page.getByLabel('layer name').press('Enter');
};
let parcel = '';

/** The steps of README, word for word, and how each is done. */
const STEPS: readonly (readonly [words: string, act: (page: Page) => Promise<void>])[] = [
  [
    'Open the address that `start` printed. Type a name into *Name of a new project* and press *Make project*.',
    async (page) => {
      await page.goto('/');
      await page.getByPlaceholder('Name of a new project').fill(FIRST);
      await page.getByRole('button', { name: 'Make project' }).click();
    },
  ],
  [
    'Type a name into *Name of a new effect* and press *Make effect*.',
    async (page) => {
      await page.getByPlaceholder('Name of a new effect').fill('First mantle');
      await page.getByRole('button', { name: 'Make effect' }).click();
      await expect(page.getByText('No layer yet')).toBeVisible();
    },
  ],
  [
    'Press *Figures* in the rail beside the picture, and *sedge* there. Choose the clip *walk* and the way *round a circle*, and press *Figures* again.',
    async (page) => {
      await drawer(page, 'Figures');
      await page.getByRole('button', { name: 'Put sedge on the stage' }).click();
      await expect(page.getByLabel('clip', { exact: true })).toBeVisible({ timeout: 60_000 });
      await choose(page, 'clip', { label: 'walk' });
      await choose(page, 'way', { label: 'round a circle' });
      await closeDrawer(page, 'Figures');
    },
  ],
  [
    'Press *Add a layer*: it starts as plain soft dots. Type *Motes* over its name at the right.',
    (page) => layer(page, 'Motes'),
  ],
  [
    'In **Source**, choose *on a mesh of the stage*.',
    async (page) => {
      await chapter(page, 'Source');
      await choose(page, 'source', { label: 'on a mesh of the stage' });
    },
  ],
  [
    'In **Births**, type `300+100` as the rate and `1.2-2` as the lifetime: sums are fine, and two numbers are a spread.',
    async (page) => {
      await typed('Births', /^rate/, '300+100')(page);
      await type(page, /^lifetime/, '1.2-2');
      await expect(page.getByRole('button', { name: 'rate: 400/s' })).toBeVisible();
      await expect(page.getByRole('button', { name: 'lifetime: 1.2 – 2 s' })).toBeVisible();
    },
  ],
  [
    'In **Motion**, type `0.1` as the speed. Press *Add a force* and choose *Attraction*, again for *Vortex*, again for *Drag*: the first two stand over the shoulder.',
    async (page) => {
      await typed('Motion', /^speed/, '0.1')(page);
      for (const force of ['Attraction', 'Vortex', 'Drag']) {
        await page.getByRole('button', { name: 'Add a force' }).click();
        await page.getByRole('option', { name: force }).click();
      }
    },
  ],
  [
    'Type `5` as the strength of the attraction, `1.5` as the spin of the vortex and `2` as the strength of the drag.',
    async (page) => {
      await type(page, /^attraction, strength/, '5');
      await type(page, /^vortex, spin/, '1.5');
      await type(page, /^drag, strength/, '2');
    },
  ],
  [
    'Below, on the **life sheet**, choose the line *size*, press *ready shapes…* and choose *swell*. In **Life**, type `4 cm` as the size.',
    async (page) => {
      await page.getByRole('radio', { name: /^size/ }).click();
      await beginWith(page, 'swell');
      await typed('Life', /^size/, '4 cm')(page);
    },
  ],
  [
    'Press *Change it over age* for a gradient. Press its first stop and type `#ff7a2e`, then its last and type `#dfe875`.',
    async (page) => {
      await page.getByRole('button', { name: 'Change it over age' }).click();
      await stop(page, 'colour at 0%', '#ff7a2e');
      await stop(page, 'colour at 100%', '#dfe875');
    },
  ],
  [
    'Press *Add a layer* again and call it *Ripples*. In **Source**, choose *at a point*, as its place *foot.left*, and *on the ground below*; type `0.12` as the height up to which it acts.',
    async (page) => {
      await layer(page, 'Ripples');
      await chapter(page, 'Source');
      await choose(page, 'source', { label: 'at a point' });
      await choose(page, 'source place', { label: 'foot.left' });
      await choose(page, 'dropped to the ground', { label: 'on the ground below' });
      await type(page, /^acts below/, '0.12');
    },
  ],
  [
    'In **Births**, type `0` as the rate and `12` per metre; in **Motion**, `0` as the speed; in **Life**, `0.6` as the size.',
    async (page) => {
      await typed('Births', /^rate/, '0')(page);
      await type(page, /^per metre/, '12');
      await typed('Motion', /^speed/, '0')(page);
      await typed('Life', /^size/, '0.6')(page);
    },
  ],
  [
    'In **Appearance**, choose *flat on the ground*, and *ring* as the drawn shape.',
    async (page) => {
      await chapter(page, 'Appearance');
      await choose(page, 'facing', { label: 'flat on the ground' });
      await choose(page, 'drawn shape, shape', { label: 'ring' });
      await saved(page);
    },
  ],
  [
    'Press *Hand over* and *Save the parcel*: one file with the effect and all it uses.',
    async (page) => {
      const download = page.waitForEvent('download');
      await page.getByRole('button', { name: 'Hand over' }).click();
      await page.getByRole('button', { name: 'Save the parcel' }).click();
      parcel = await (await download).path();
      await page.keyboard.press('Escape');
    },
  ],
];

test('a new user follows the first effect of README, and takes it to another project', async ({ page }) => {
  const readme = readFileSync(new URL('../README.md', import.meta.url), 'utf8');
  const section = /## The first effect\n([\s\S]*?)\n## /.exec(readme)![1]!;
  expect([...section.matchAll(/^\d+\. (.+)$/gm)].map(([, words]) => words)).toEqual(STEPS.map(([words]) => words));
  for (const [words, act] of STEPS) await test.step(words, () => act(page));

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

  // The first project and its figure deleted; the parcel brought into a second.
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
