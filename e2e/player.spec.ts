import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { decode } from 'fast-png';
import { expect, test, type Page } from './test.ts';
import { parcelOf, parcelPage, readRig, writeParcel } from '@jinx/core/formats';
import { playAlone } from '@jinx/core/simulation';
import { KIT, lamplitMantle, makeKit } from '@jinx/demo';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import type { Playing, SceneEffects } from '../player/inScene/index.ts';
import { lamp } from '../player/testing/lamp.ts';
import { buildPlayer } from '../scripts/build.mjs';
import { imported } from '../server/workers/imported.ts';

const TYPES: Readonly<Record<string, string>> = { '.html': 'text/html', '.js': 'text/javascript' };
let folder = '';
/** What the bench computes of the mantle after a second. */
let benchHash: string | null = null;

test.beforeAll(async () => {
  buildPlayer();
  folder = mkdtempSync(path.join(tmpdir(), 'jinx-player-'));
  const npm = (...words: string[]) => execFileSync('npm', words, { cwd: folder, stdio: 'pipe' });
  npm('pack', path.resolve('player/dist'), '--pack-destination', folder);
  const { version } = JSON.parse(readFileSync('player/dist/package.json', 'utf8')) as { version: string };
  npm('install', `./jinx-player-${version}.tgz`, '--offline', '--no-audit', '--no-fund', '--loglevel', 'error');
  await makeKit();
  const sedge = await imported(new Uint8Array(readFileSync(new URL('sedge.glb', KIT))), 'sedge.glb');
  const mantle = lamplitMantle(sedge.hash);
  writeFileSync(path.join(folder, 'mantle.parcel.zip'), await writeParcel(parcelOf(mantle, [sedge])));
  writeFileSync(path.join(folder, 'lamp.parcel.zip'), await writeParcel(parcelOf(lamp(), [])));
  const world = playAlone(mantle, new Map([[sedge.hash, readRig(sedge.bytes)]]), {}, { kernels: kernelBytes() });
  world.advance(60);
  benchHash = world.hash();
});
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Serves the folder to a page, which may share memory or not. */
async function serve(page: Page, isIsolated: boolean): Promise<void> {
  const headers: Record<string, string> = isIsolated
    ? { 'cross-origin-opener-policy': 'same-origin', 'cross-origin-embedder-policy': 'require-corp' }
    : {};
  await page.route('http://localhost/**', (route) => {
    const { pathname } = new URL(route.request().url());
    const file = path.join(folder, pathname === '/' ? 'index.html' : decodeURIComponent(pathname));
    if (!existsSync(file)) return route.fulfill({ status: 404, body: '' });
    return route.fulfill({
      body: readFileSync(file),
      contentType: TYPES[path.extname(file)] ?? 'application/zip',
      headers,
    });
  });
}

/** What the test holds of a page with a three.js scene. */
declare const held: {
  readonly THREE: typeof import('three');
  readonly effects: SceneEffects;
  readonly playing: Playing;
};

/** The n-th page of code that docs/player.md shows. */
const shownPage = (n: number): string =>
  [...readFileSync('docs/player.md', 'utf8').matchAll(/```html\n([\s\S]*?)```/g)][n]![1]!;

/** How many tones a picture of the page has: a black one, or one that nothing is in, has few. */
async function tonesOf(page: Page): Promise<number> {
  const bytes = await page.screenshot();
  return page.evaluate(async (coded) => {
    const bitmap = await createImageBitmap(await (await fetch(`data:image/png;base64,${coded}`)).blob());
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    const context = canvas.getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    return new Set(new Uint32Array(context.getImageData(0, 0, bitmap.width, bitmap.height).data.buffer)).size;
  }, bytes.toString('base64'));
}

test('a newcomer who follows the page about the player sees the effect in a page of their own', async ({ page }) => {
  writeFileSync(path.join(folder, 'index.html'), shownPage(0));
  await page.setViewportSize({ width: 480, height: 300 });
  const faults: string[] = [];
  page.on('pageerror', ({ message }) => faults.push(message));
  await serve(page, false);
  await page.goto('http://localhost/');
  await expect.poll(() => tonesOf(page), { timeout: 15_000 }).toBeGreaterThan(2000);
  expect(faults).toEqual([]);
});

for (const isIsolated of [true, false])
  test(`it has the bits of the bench, ${isIsolated ? 'in shared memory' : 'and without shared memory'}`, async ({
    page,
  }) => {
    writeFileSync(path.join(folder, 'index.html'), '<canvas id="c" style="width:320px;height:200px"></canvas>');
    await serve(page, isIsolated);
    await page.goto('http://localhost/');
    const found = await page.evaluate(async () => {
      const player = await import('/node_modules/@jinx/player/player.js' as string);
      const played = player.createPlayer(document.getElementById('c'), { pausesOffScreen: false });
      played.pause();
      const mantle = (await played.load('mantle.parcel.zip')).play();
      mantle.seek(2);
      await mantle.state();
      mantle.seek(1);
      const { step } = await mantle.state();
      const hash = await mantle.hash();
      const parcel = await played.load('lamp.parcel.zip');
      const told: string[] = [];
      const lamp = parcel.play('Lamp', { at: [0.5, 0, 0], dials: { Charge: 10 } });
      for (const event of ['firstLight', 'ended']) lamp.on(event, () => told.push(event));
      const others = [1, 2, 3].map((n) => parcel.play(0, { at: [n, 0, 0], seed: n }));
      lamp.letGo();
      played.setSpeed(8);
      played.resume();
      await new Promise<void>((done) => lamp.on('ended', () => done()));
      const living = await Promise.all(others.map(async (other) => (await other.state()).living));
      for (const other of others) other.stop();
      const gone = await others[0].state().catch((error: Error) => error.message);
      let refused = '';
      await played.load(new Uint8Array([1, 2, 3])).catch((error: Error) => (refused = error.message));
      const { isShared } = played;
      played.dispose();
      return { hash, step, told, living, gone, refused, isShared };
    });
    expect(found).toMatchObject({ hash: benchHash, step: 60, told: ['firstLight', 'ended'], isShared: isIsolated });
    expect(found.living.every((count: number) => count > 0)).toBe(true);
    expect(found.gone).toBe('"Lamp" does not play any more');
    expect(found.refused).toMatch(/this is not a parcel/);
  });

test('as an element it plays what it is told to, and says what it cannot have', async ({ page }) => {
  writeFileSync(
    path.join(folder, 'index.html'),
    `<script type="module">
       import { defineElement } from '/node_modules/@jinx/player/player.js';
       window.faults = [];
       document.addEventListener('fault', ({ detail }) => window.faults.push(detail.sentence), true);
       defineElement();
     </script>
     <jinx-effect src="nothing.zip" alt="a lamp" style="width:320px;height:200px"></jinx-effect>`,
  );
  await serve(page, true);
  await page.goto('http://localhost/');
  await expect(page.getByRole('img', { name: 'a lamp' })).toBeVisible();
  const faults = () => page.evaluate(() => (window as never as { faults: string[] }).faults);
  await expect
    .poll(faults)
    .toEqual(['The parcel at http://localhost/nothing.zip cannot be had: the answer was 404.']);
  const ready = page.evaluate(
    () =>
      new Promise((done) =>
        document
          .querySelector('jinx-effect')!
          .addEventListener('ready', (event) => done((event as CustomEvent).detail)),
      ),
  );
  await page.evaluate(() => document.querySelector('jinx-effect')!.setAttribute('src', 'lamp.parcel.zip'));
  expect(await ready).toMatchObject({ effects: [{ name: 'Lamp' }] });
  await page.evaluate(() => document.querySelector('jinx-effect')!.remove());
  expect(await faults()).toHaveLength(1);
});

test('as one file it is opened from disk: played, scrubbed, let go and dialled, whatever its names are', async ({
  page,
}) => {
  const effect = { ...lamp(), name: 'Lamp </script><b id="x">' };
  const { before, after } = parcelPage(readFileSync('player/dist/page.html', 'utf8'), effect.name);
  const parcel = Buffer.from(await writeParcel(parcelOf(effect, [], 'Fenlight </script> only')));
  const file = path.join(folder, 'lamp.html');
  writeFileSync(file, before + parcel.toString('base64') + after);
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(`file://${file}`);
  await expect(page).toHaveTitle(effect.name);
  await expect(page.locator('#x')).toHaveCount(0);
  const seconds = async () => parseFloat((await page.locator('#seconds').textContent())!);
  await expect.poll(seconds, { timeout: 15_000 }).toBeGreaterThan(0.3);
  await expect.poll(() => tonesOf(page), { timeout: 15_000 }).toBeGreaterThan(500);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('slider', { name: 'Time' }).fill('0.5');
  await expect.poll(seconds).toBe(0.5);
  const before0 = await page.screenshot();
  await page.getByText('Dials').click();
  await page.getByRole('slider', { name: 'Charge' }).fill('0');
  await page.getByText('Dials').click();
  await expect.poll(async () => before0.equals(await page.screenshot())).toBe(false);
  // Within the closing it is let go.
  await page.getByRole('slider', { name: 'Time' }).fill('1.4');
  await expect.poll(seconds).toBe(1.4);
  expect(asked.filter((url) => !/^(file|blob|data):/.test(url))).toEqual([]);
  await expect(page.locator('#fault')).toBeHidden();
});

test('in a three.js scene it is drawn among what else is there, and goes where an object goes', async ({ page }) => {
  const three = path.join(folder, 'node_modules/three');
  if (!existsSync(three)) symlinkSync(path.resolve('node_modules/three'), three);
  // The page as it is shown, with ends by which the test takes hold of it.
  const html = shownPage(2)
    .replace('mantle.parcel.zip', 'lamp.parcel.zip')
    .replace('</script>\n', '</script>')
    .replace('renderer.setAnimationLoop', 'window.held = { THREE, effects, playing }; renderer.setAnimationLoop');
  writeFileSync(path.join(folder, 'index.html'), `<body style="margin:0; background:#000">${html}`);
  await page.setViewportSize({ width: 480, height: 300 });
  const faults: string[] = [];
  page.on('pageerror', ({ message }) => faults.push(message));
  page.on('console', (message) => /INVALID|rror/.test(message.text()) && faults.push(message.text()));
  await serve(page, false);
  await page.goto('http://localhost/');
  /** How far across the picture the middle of what shines is, 0 to 1. */
  const middle = async () => {
    const { data, width, channels } = decode(await page.screenshot());
    let [sum, seen] = [0, 0];
    for (let pixel = 0; pixel * channels < data.length; pixel++)
      if (data[pixel * channels]! > 60) [sum, seen] = [sum + (pixel % width) / width, seen + 1];
    return seen > 10 ? sum / seen : 0;
  };
  await page.waitForFunction(() => 'held' in window);
  await expect.poll(middle, { timeout: 15_000 }).toBeGreaterThan(0);
  await expect.poll(async () => Math.abs((await middle()) - 0.5)).toBeLessThan(0.06);
  await page.evaluate(() => {
    const { THREE, effects, playing } = held;
    const anchor = new THREE.Object3D();
    anchor.position.set(0.8, 0, 0);
    effects.follow(playing, anchor);
  });
  await expect.poll(middle, { timeout: 10_000 }).toBeGreaterThan(0.6);
  expect(faults.filter((text) => !text.includes('404'))).toEqual([]);
});
