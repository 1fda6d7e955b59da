// The picture's room: panes that are dragged, folded and kept, the picture alone and in a window of its own, keys that are
// given to other commands, and what stands on the stage to judge by.
import { encode } from 'fast-png';
import { choose, closeDrawer, drawer, help, turnShown } from './choose.ts';
import { chapter, differing, goTo, openMantle, pixels } from './bench.ts';
import { expect, test, type Page } from './test.ts';

test.describe.configure({ mode: 'serial' });
let page: Page;
let id = '';
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  id = await openMantle(page);
  await goTo(page, 100);
});
test.afterAll(async () => {
  const { projectId } = await (await page.request.get(`/api/effects/${id}`)).json();
  await page.request.patch(`/api/projects/${projectId}`, { data: { tone: 'filmic' } });
  await page.close();
});

const picture = async () => (await page.locator('.stage canvas').boundingBox())!;
const chapters = () => page.getByRole('complementary', { name: 'What is chosen' });

test('the picture has its room, and panes are moved by their borders, folded, and kept', async () => {
  const { width, height } = await picture();
  expect([width >= 856, height >= 440]).toEqual([true, true]);
  const border = page.getByRole('separator', { name: 'Width of the chapters' });
  await border.focus();
  const before = Number(await border.getAttribute('aria-valuenow'));
  await page.keyboard.press('ArrowLeft');
  await expect(border).toHaveAttribute('aria-valuenow', String(before + 2));
  const { x, y } = (await border.boundingBox())!;
  await page.mouse.move(x + 1, y + 200);
  await page.mouse.down();
  await page.mouse.move(x - 150, y + 200, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await picture()).width).toBeLessThan(width - 100);
  const narrow = (await picture()).width;
  await page.getByRole('separator', { name: 'Height of what stands below the picture' }).dblclick();
  await expect.poll(async () => (await picture()).height).toBeGreaterThan(height + 200);
  await page.reload();
  await expect(page.locator('.stage canvas')).toBeVisible();
  await expect.poll(async () => Math.abs((await picture()).width - narrow)).toBeLessThan(3);
  expect((await picture()).height).toBeGreaterThan(height + 200);
  await page.getByRole('separator', { name: 'Height of what stands below the picture' }).dblclick();
  await expect(page.getByRole('row', { name: 'Motes', exact: true })).toBeVisible();
  await goTo(page, 100);
});

test('one key shows the picture alone, with transport and the chip that was used last', async () => {
  await chapter(page, 'Life');
  await page.getByRole('button', { name: /^size:/ }).focus();
  await page.keyboard.press('f');
  await expect.poll(async () => (await picture()).width).toBe(1280);
  await expect(chapters()).toBeHidden();
  const before = await pixels(page);
  await page.getByRole('toolbar', { name: 'Playing' }).getByRole('button', { name: /size:/ }).click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('9 cm');
  await page.keyboard.press('Enter');
  await expect.poll(async () => differing(before, await pixels(page))).toBeGreaterThan(1000);
  await page.keyboard.press('Escape');
  await expect(chapters()).toBeVisible();
  await page.keyboard.press('Control+z');
});

test('the picture opens in a window of its own, and goes along', async () => {
  const opened = page.waitForEvent('popup');
  await page.getByRole('button', { name: 'The picture in a window of its own' }).click();
  const other = await opened;
  const shot = async () => (await other.screenshot()).toString('base64');
  // A canvas that nothing was drawn on is 300 across.
  await expect.poll(() => other.evaluate(() => document.querySelector('canvas')!.width)).toBeGreaterThan(300);
  await other.waitForTimeout(500);
  const still = await shot();
  await goTo(page, 140);
  await expect.poll(shot).not.toBe(still);
  await other.close();
});

test('keys are given to other commands and taken back, and single letters can be switched off', async () => {
  const isRaw = async () => {
    await drawer(page, 'Shown');
    const checked = await page.getByRole('switch', { name: 'Raw', exact: true }).isChecked();
    await page.getByRole('button', { name: 'Shown', exact: true }).click();
    await page.locator('.stage canvas').focus();
    return checked;
  };
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await help(page, 'Keys');
  await keys.getByRole('textbox', { name: 'find a key' }).fill('bloom');
  await keys.getByRole('button', { name: /change the key of raw/ }).click();
  await page.keyboard.press('d');
  await expect(keys.getByRole('status')).toContainText('D was the key of “dim');
  await keys.getByRole('button', { name: 'Close', exact: true }).click();
  await page.locator('.stage canvas').focus();
  await page.keyboard.press('r');
  expect(await isRaw()).toBe(false);
  await page.keyboard.press('d');
  expect(await isRaw()).toBe(true);
  await help(page, 'Keys');
  await keys.getByRole('switch', { name: 'Single letters act' }).click();
  await keys.getByRole('button', { name: 'Close', exact: true }).click();
  await page.locator('.stage canvas').focus();
  await page.keyboard.press('d');
  expect(await isRaw()).toBe(true);
  await help(page, 'Keys');
  await keys.getByRole('button', { name: 'As they were' }).click();
  await keys.getByRole('button', { name: 'Close', exact: true }).click();
  await page.locator('.stage canvas').focus();
  await page.keyboard.press('r');
  expect(await isRaw()).toBe(false);
});

test('a light of one’s own shines on the figure; hidden, she is gone and what is born on her is not', async () => {
  await turnShown(page, 'Guides');
  await page.keyboard.press('Alt+6');
  const bare = await pixels(page);
  await page.keyboard.press('Alt+2');
  await expect.poll(async () => differing(bare, await pixels(page))).toBeGreaterThan(10_000);
  await drawer(page, 'Light');
  const dark = await pixels(page);
  await page.getByRole('button', { name: 'Put a light there' }).click();
  await expect.poll(async () => differing(dark, await pixels(page))).toBeGreaterThan(1000);
  const { hash } = await page.evaluate(() => window.jinx.hash());
  await drawer(page, 'Figures');
  const seen = await pixels(page);
  await page.getByRole('button', { name: 'Hide Sedge' }).click();
  await expect.poll(async () => differing(seen, await pixels(page))).toBeGreaterThan(1000);
  expect((await page.evaluate(() => window.jinx.hash())).hash).toBe(hash);
  await closeDrawer(page, 'Figures');
});

test('the picture alone is judged in a surround of its own, without bloom, and the bench is as it was', async () => {
  const effect = async () => JSON.stringify((await (await page.request.get(`/api/effects/${id}`)).json()).document);
  const [before, own] = [await effect(), await pixels(page)];
  await drawer(page, 'Shown');
  await choose(page, 'surround of the picture alone', 'noon');
  await page.getByRole('switch', { name: 'the picture alone is raw' }).click();
  await closeDrawer(page, 'Shown');
  expect(differing(own, await pixels(page))).toBe(0);
  await page.locator('.stage canvas').focus();
  await page.keyboard.press('f');
  await expect.poll(async () => differing(own, await pixels(page))).toBeGreaterThan(100_000);
  await page.keyboard.press('Escape');
  await expect.poll(async () => differing(own, await pixels(page))).toBe(0);
  expect(await effect()).toBe(before);
});

test('the project keeps a tone curve and a reference: there after the page is loaded anew', async () => {
  const brought = async (open: () => Promise<void>, name: string, mimeType: string, bytes: Uint8Array) => {
    const chooser = page.waitForEvent('filechooser');
    await open();
    await (await chooser).setFiles({ name, mimeType, buffer: Buffer.from(bytes) });
  };
  const curve = () => page.getByRole('combobox', { name: 'tone curve of the project' });
  await drawer(page, 'Lens and air');
  const filmic = await pixels(page);
  await choose(page, 'tone curve of the project', 'none');
  await expect.poll(async () => differing(filmic, await pixels(page))).toBeGreaterThan(10_000);
  // A table that turns bright and dark round.
  await brought(
    () => choose(page, 'tone curve of the project', { label: 'a table of the game…' }),
    'turned.cube',
    'text/plain',
    Buffer.from('LUT_1D_SIZE 2\n1 1 1\n0 0 0\n'),
  );
  const light = (rgba: Uint8Array) => rgba.reduce((sum, value) => sum + value, 0) / rgba.length;
  await expect.poll(async () => light(await pixels(page))).toBeGreaterThan(light(filmic) + 30);
  await drawer(page, 'Reference');
  await brought(
    () => page.getByRole('button', { name: /^Choose (one|another)…$/ }).click(),
    'dusk sketch.png',
    'image/png',
    encode({ width: 4, height: 4, channels: 4, data: new Uint8Array(64).fill(200) }),
  );
  const shown = page.getByRole('img', { name: /dusk sketch/ });
  await expect(shown).toBeVisible();

  await page.reload();
  await expect(page.getByRole('row', { name: 'Motes', exact: true })).toBeVisible();
  await goTo(page, 140);
  await expect.poll(async () => light(await pixels(page))).toBeGreaterThan(light(filmic) + 30);
  await expect(shown).toBeHidden();
  await drawer(page, 'Reference');
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(shown).toBeVisible();
  await page.getByRole('button', { name: 'Take dusk sketch.png out of the project' }).click();
  await expect(shown).toBeHidden();
  await closeDrawer(page, 'Reference');
  await drawer(page, 'Lens and air');
  await expect(curve()).toContainText('turned.cube');
  await choose(page, 'tone curve of the project', 'filmic');
  await closeDrawer(page, 'Lens and air');
});

test('who asks for less motion is shown the effect standing still, and nothing slides', async () => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.reload();
  await expect.poll(() => page.evaluate(() => window.jinx?.state().step ?? 0)).toBeGreaterThan(30);
  const step = await page.evaluate(() => window.jinx.state().step);
  await drawer(page, 'Shown');
  const slides = await page.getByRole('group', { name: 'Shown', exact: true }).evaluate((opened) =>
    [opened, ...opened.querySelectorAll('*')].some((one) => {
      const { transitionDuration, animationDuration } = getComputedStyle(one);
      return [transitionDuration, animationDuration].some((all) =>
        all.split(', ').some((s) => parseFloat(s) > 0.001),
      );
    }),
  );
  expect(slides).toBe(false);
  await closeDrawer(page, 'Shown');
  expect(await page.evaluate(() => window.jinx.state())).toMatchObject({ step, isPlaying: false });
  await page.emulateMedia({ reducedMotion: 'no-preference' });
});

test('a setting’s tooltip says what it does, its limits, where it begins and when it acts', async () => {
  await chapter(page, 'Life');
  await page.getByRole('button', { name: /^opacity:/ }).hover();
  const tip = page.locator('.help-tip');
  await expect(tip).toContainText('How opaque a particle is.');
  await expect(tip).toContainText('0 to 100%');
  await expect(tip).toContainText('nothing is simulated again');
  await page.keyboard.press('Escape');
  await expect(tip).toBeHidden();
  await page.getByRole('combobox', { name: 'blending' }).hover();
  await expect(tip).toContainText('One of: ');
});
