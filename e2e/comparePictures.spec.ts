import { writeFileSync } from 'node:fs';
import { closeDrawer, drawer, turnShown, surround, below, segment } from './choose.ts';
import { expect, test, type Page, type TestInfo } from './test.ts';
import { chapter, choose, differing, goTo, openMantle, pixels, screen, type } from './bench.ts';

// What is compared is what is on the screen.
test.use({ deviceScaleFactor: 1 });

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  await turnShown(page, 'Guides');
  await goTo(page, 150);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

/** The lower part of the stage as it is on the screen, free of the bar above and the words below. */
async function seen(page: Page): Promise<Uint8Array> {
  const look = () => screen(page, { x: 0, y: 116, width: 890, height: 240 });
  // A tooltip of what has the focus would lie over it: any key hides it.
  await page.keyboard.press('Shift');
  // All that was asked for is drawn, and has come to rest on the screen.
  await pixels(page, 8, 8);
  let before = await look();
  let rests = 0;
  const lookAgain = async () => {
    const last = before;
    before = await look();
    return (rests = differing(last, before, 0) === 0 ? rests + 1 : 0);
  };
  await expect.poll(lookAgain, { intervals: [150] }).toBeGreaterThan(1);
  return before;
}
/** The same, once it is as it should be, or as it is when that takes too long: what was pressed is drawn a little later. */
async function seenOnce(page: Page, isIt: (picture: Uint8Array) => boolean): Promise<Uint8Array> {
  const end = Date.now() + 10_000;
  let picture = await seen(page);
  while (!isIt(picture) && Date.now() < end) picture = await seen(page);
  return picture;
}
/** The columns of a picture of 890 across. */
function columns(picture: Uint8Array, from: number, to: number): Uint8Array {
  const parts: Uint8Array[] = [];
  for (let y = 0; y < 240; y++) parts.push(picture.subarray((y * 890 + from) * 4, (y * 890 + to) * 4));
  return Buffer.concat(parts);
}
const shown = (page: Page) => expect(page.locator('[data-other=shown]')).toBeVisible();

test('the other picture is of the same instant, seed and camera, up to a border that is moved', async ({ page }) => {
  const alone = await seen(page);
  await below(page, 'Compared');
  await choose(page, 'effect to compare with', { label: 'itself, as it was opened' });
  await segment(page, 'one over the other');
  await shown(page);
  const right = (picture: Uint8Array) => differing(columns(alone, 480, 890), columns(picture, 480, 890));
  const same = await seenOnce(page, (now) => right(now) < 20);
  // The rail at the left is lit where it was pressed last.
  expect(differing(columns(alone, 40, 430), columns(same, 40, 430))).toBe(0);
  expect(right(same)).toBeLessThan(20);

  // A change is seen on this side only, and again on both once the border has passed.
  await chapter(page, 'Life');
  await type(page, /^size:/, '0.2');
  await goTo(page, 150);
  await shown(page);
  const changed = await seen(page);
  expect(differing(columns(same, 0, 430), columns(changed, 0, 430))).toBeGreaterThan(500);
  expect(differing(columns(same, 480, 890), columns(changed, 480, 890))).toBeLessThan(20);
  const border = page.getByRole('slider', { name: 'where one picture ends and the other begins' });
  await border.focus();
  await page.keyboard.press('Home');
  const offFromAlone = (now: Uint8Array) => differing(columns(alone, 60, 890), columns(now, 60, 890));
  expect(offFromAlone(await seenOnce(page, (now) => offFromAlone(now) < 20))).toBeLessThan(20);
});

test('two effects stand side by side', async ({ page }) => {
  await below(page, 'Compared');
  await choose(page, 'effect to compare with', { label: 'Seed Wreath' });
  await segment(page, 'side by side');
  await shown(page);
  // Both are drawn by one worker, with the graphics of one canvas.
  const stages = page.workers().filter((one) => /\/worker-[^/]*\.js$/.test(one.url()));
  expect(stages.map((one) => one.url())).toHaveLength(1);
  const both = await seen(page);
  expect(differing(columns(both, 0, 440), columns(both, 450, 890), 30)).toBeGreaterThan(3000);
  await segment(page, 'this one');
  await expect(page.locator('[data-other]')).toHaveCount(0);
});

test('a contact sheet shows many instants, is taken again after a change, and leads to each', async ({ page }) => {
  await below(page, 'Instants');
  await segment(page, '8');
  const instants = page.getByRole('list', { name: 'Instants' }).locator('canvas');
  await expect(page.getByRole('button', { name: 'Save as one picture' })).toBeEnabled({ timeout: 60_000 });
  await expect(instants).toHaveCount(8);
  const pictures = () => instants.evaluateAll((all) => all.map((one) => (one as HTMLCanvasElement).toDataURL()));
  const before = await pictures();
  const looks = new Set<string>();
  for (const one of await instants.all()) looks.add((await one.screenshot()).toString('base64'));
  expect(looks.size).toBe(8);
  await page.getByRole('button', { name: 'Go to 2.63 s' }).click();
  await expect.poll(() => page.evaluate(() => window.jinx.state().step)).toBe(158);
  await surround(page, 'noon');
  await expect(page.getByText('8 of 8 taken')).toBeVisible({ timeout: 60_000 });
  await expect.poll(async () => (await pictures()).some((one) => before.includes(one))).toBe(false);
});

async function bring(page: Page, path: string): Promise<void> {
  await drawer(page, 'Reference');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: /^Choose/ }).click();
  await (await chooser).setFiles(path);
  await closeDrawer(page, 'Reference');
}
/** A second and a half of film, made by the browser itself. */
async function film(page: Page, info: TestInfo): Promise<string> {
  const coded = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [160, 100];
    const context = canvas.getContext('2d')!;
    const recorder = new MediaRecorder(canvas.captureStream(20), { mimeType: 'video/webm' });
    const parts: Blob[] = [];
    recorder.ondataavailable = ({ data }) => parts.push(data);
    const ended = new Promise((resolve) => (recorder.onstop = resolve));
    recorder.start();
    for (let n = 0; n < 30; n++) {
      context.fillStyle = n < 15 ? '#c02020' : '#2020c0';
      context.fillRect(0, 0, 160, 100);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    recorder.stop();
    await ended;
    const bytes = new Uint8Array(await new Blob(parts).arrayBuffer());
    return btoa(String.fromCharCode(...bytes));
  });
  const path = info.outputPath('film.webm');
  writeFileSync(path, Buffer.from(coded, 'base64'));
  return path;
}

test('a picture of one’s own stands beside the effect, or is laid over it', async ({ page }) => {
  const alone = await seen(page);
  await bring(page, new URL('../docs/screenshots/fenlight.png', import.meta.url).pathname);
  await expect(page.getByRole('img', { name: 'Reference: fenlight.png' })).toBeVisible();
  expect(differing(columns(alone, 460, 890), columns(await seen(page), 460, 890), 20)).toBeGreaterThan(5000);
  await page.getByRole('button', { name: 'Lay it over' }).click();
  const over = await seen(page);
  expect(differing(alone, over, 8)).toBeGreaterThan(10_000);
  await page.getByRole('button', { name: 'Hide the reference' }).click();
  const offFromAlone = (now: Uint8Array) => differing(columns(alone, 40, 890), columns(now, 40, 890));
  expect(offFromAlone(await seenOnce(page, (now) => offFromAlone(now) === 0))).toBe(0);
});

test('a film beside the effect stands where the effect’s clock stands', async ({ page }, info) => {
  await bring(page, await film(page, info));
  const video = page.locator('[data-reference] video');
  const at = () => video.evaluate((one) => (one as HTMLVideoElement).currentTime);
  await goTo(page, 30);
  await expect.poll(at).toBeCloseTo(0.5, 1);
  await goTo(page, 66);
  await expect.poll(at).toBeCloseTo(1.1, 1);
  await page.getByRole('button', { name: /^where the video begins/ }).click();
  await page.keyboard.type('0.6');
  await page.keyboard.press('Enter');
  await expect.poll(at).toBeCloseTo(0.5, 1);
});
