import { expect, goWithin, test } from './test.ts';
import { atEffect, collectionOf, newEffect, newLayer, newThing, setNumber, type Effect } from '@jinx/core/document';
import { linearOf } from '@jinx/core/maths';
import { readFileSync } from 'node:fs';
import { KIT, KIT_FIGURES, makeKit } from '@jinx/demo';
import { imported } from '../server/workers/imported.ts';
import { layerTone, RAMP } from '../stage/views.ts';
import { addEffect, goTo, pixels } from './bench.ts';
import { showAs } from './choose.ts';
import { HEIGHT, StageHarness, WIDTH, type Picture } from './stageHarness.ts';

const VIEW = { position: [0, 1, 5], target: [0, 1, 0], fieldOfView: 30, follows: false } as const;
const METRE = HEIGHT / (2 * 5 * Math.tan((15 * Math.PI) / 180));
const LIFE_SECONDS = 2;

/** Discs side by side, a metre apart; the right one rises at 3 m/s when it has a speed. */
function discs(): Effect {
  const effect = newEffect('Discs', 7);
  effect.stretches = { ...effect.stretches, opening: LIFE_SECONDS, hold: { kind: 'none' }, closing: 0 };
  const layer = (name: string, salt: number, x: number) => {
    const made = newLayer(name, salt);
    made.source = { kind: 'point', place: atEffect([x, 1, 0]) };
    setNumber(made, 'births.rate', 0);
    setNumber(made, 'births.standing', 1);
    setNumber(made, 'motion.speed', 0);
    setNumber(made, 'life.size', 0.6);
    made.settings['life.opacity'].shapers = collectionOf([]);
    made.settings['appearance.blend'].base = { kind: 'fixed', value: 'normal' };
    made.look = { kind: 'own', steps: collectionOf([]) };
    return made;
  };
  effect.layers = collectionOf([
    ['left', layer('Left', 1, -0.5)],
    ['right', layer('Right', 2, 0.5)],
  ]);
  return effect;
}

let figure = '';
const stage = StageHarness.forFile(async () => {
  await makeKit();
  const file = KIT_FIGURES[0]!;
  const { hash, bytes } = await imported(new Uint8Array(readFileSync(new URL(file, KIT))), file);
  figure = hash;
  return { [hash]: bytes };
});

const at = (picture: Picture, x: number, y = 1): readonly number[] =>
  picture.at(WIDTH / 2 + Math.round(x * METRE), HEIGHT / 2 - Math.round((y - 1) * METRE));
const near = (got: readonly number[], expected: readonly number[], what: string, off = 4) =>
  got.forEach((value, n) =>
    expect(Math.abs(value - expected[n]!), `${what}: ${got} for ${expected}`).toBeLessThan(off),
  );
/** sRGB 0 to 255 of linear light. */
const shownPlain = (light: number) => 255 * (light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055);
/** The tone of the ramp at a share: mixed as light. */
function tone(share: number): number[] {
  const place = share * (RAMP.length - 1);
  const from = Math.min(RAMP.length - 2, Math.floor(place));
  const [a, b] = [linearOf(RAMP[from]!), linearOf(RAMP[from + 1]!)];
  return a.map((light, n) => shownPlain(light + (b[n]! - light) * (place - from)));
}

test('grey values are the luminance of the picture, pixel by pixel', async () => {
  const effect = discs();
  effect.stage.surround = 'busy';
  effect.layers.byId['left']!.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#d02818' } };
  const picture = await stage.picture(effect, 30, { view: VIEW as never });
  const grey = await stage.picture(effect, 30, { view: VIEW as never, shown: 'grey' });
  let [coloured, off] = [0, 0];
  for (let p = 0; p < WIDTH * HEIGHT; p++) {
    const [r, g, b] = [...grey.rgba.subarray(p * 4, p * 4 + 3)] as [number, number, number];
    coloured = Math.max(coloured, Math.max(r, g, b) - Math.min(r, g, b));
    off = Math.max(off, Math.abs(r - shownPlain(picture.luminance(p))));
  }
  expect(coloured).toBeLessThanOrEqual(1);
  expect(off).toBeLessThan(3);
});

test('ages and speeds are read off the scale, and layers have the tones their legend gives them', async () => {
  const effect = discs();
  for (const [step, share] of [
    [12, 0.1],
    [60, 0.5],
    [108, 0.9],
  ] as const) {
    const picture = await stage.picture(effect, step, { view: VIEW as never, shown: 'age' });
    near(at(picture, -0.5), tone(share), `age ${share}`, 6);
  }
  setNumber(effect.layers.byId['right']!, 'motion.speed', 3);
  effect.layers.byId['right']!.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
  const fast = await stage.picture(effect, 6, { view: VIEW as never, shown: 'speed' });
  near(at(fast, -0.5), tone(0), 'standing still', 6);
  near(at(fast, 0.5, 1.25), tone(0.5), '3 m/s, half way up the scale', 6);
  const layers = await stage.picture(discs(), 12, { view: VIEW as never, shown: 'layer' });
  for (const [n, x] of [
    [0, -0.5],
    [1, 0.5],
  ] as const)
    near(
      at(layers, x),
      layerTone(n).map((c) => c * 255),
      `layer ${n}`,
    );
});

test('each particle has a tone of its own, however it mixes with what is behind', async () => {
  const effect = discs();
  for (const layer of Object.values(effect.layers.byId)) {
    layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'additive' };
    layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
  }
  const picture = await stage.picture(effect, 12, { view: VIEW as never, shown: 'particle' });
  const [left, right] = [at(picture, -0.5), at(picture, 0.5)];
  expect(Math.hypot(...left.map((value, n) => value - right[n]!)), `${left} beside ${right}`).toBeGreaterThan(20);
  const again = await stage.picture(effect, 60, { view: VIEW as never, shown: 'particle' });
  near(at(again, -0.5), left, 'the same particle later');
});

test('silhouettes are as large as a game shows them, with other instants laid over', async () => {
  const effect = discs();
  effect.stage.things = collectionOf([['sedge', newThing('Sedge', figure)]]);
  const right = effect.layers.byId['right']!;
  setNumber(right, 'motion.speed', 2);
  right.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
  const alone = await stage.picture(effect, 6, {
    view: VIEW as never,
    shown: 'silhouette',
    without: ['left', 'right'],
  });
  const bare = await stage.picture({ ...effect, stage: { ...effect.stage, things: collectionOf([]) } }, 6, {
    view: VIEW as never,
    shown: 'silhouette',
    without: ['left', 'right'],
  });
  const { height } = alone.shape(bare);
  expect(height / HEIGHT, 'a figure of about 1.8 m').toBeGreaterThan(0.14);
  expect(height / HEIGHT).toBeLessThan(0.19);

  const now = await stage.picture(effect, 6, { view: VIEW as never, shown: 'silhouette' });
  const white = (picture: Picture) => {
    let count = 0;
    for (let p = 0; p < WIDTH * HEIGHT; p++) if (picture.luminance(p) > 0.9) count++;
    return count;
  };
  // Two squares of 0.6 m where 10.8 m fill the height.
  expect(white(now) / (2 * (0.6 * (HEIGHT / 10.8)) ** 2)).toBeGreaterThan(0.8);
  expect(white(now) / (2 * (0.6 * (HEIGHT / 10.8)) ** 2)).toBeLessThan(1.2);
  const laid = await stage.picture(effect, 6, { view: VIEW as never, shown: 'silhouette', instants: [1.5] });
  expect(white(laid)).toBe(white(now));
  const { count, top } = laid.shape(now);
  expect(count).toBeGreaterThan(60);
  // The right disc has risen by three metres less its first tenth of a second.
  expect(Math.abs((HEIGHT / 2 - top) / (HEIGHT / 10.8) - 3.3)).toBeLessThan(0.3);
});

test('a view is chosen above the stage or by its key, tells what its tones mean, and the picture comes back', async ({
  page,
}) => {
  const project = (await (await page.request.post('/api/projects', { data: { name: 'Views' } })).json()).id;
  await goWithin(page, `/effects/${await addEffect(page, project, discs())}`);
  await expect.poll(() => page.evaluate(() => window.jinx?.state().living ?? 0), { timeout: 60_000 }).toBe(2);
  await page.keyboard.press('c');
  await goTo(page, 30);
  const before = await pixels(page);
  const legend = page.getByRole('status', { name: 'what the tones mean' });
  await showAs(page, 'by layer');
  await expect(legend).toContainText('LeftRight');
  expect(Buffer.compare(await pixels(page), before)).not.toBe(0);
  await page.keyboard.press('Escape');
  await page.locator('canvas').first().focus();
  await page.keyboard.press('v');
  await expect(legend).toHaveCount(0);
  expect(Buffer.compare(await pixels(page), before)).toBe(0);
  await showAs(page, 'as silhouettes');
  await expect(legend).toContainText('other instants');
  await expect(page.getByText('computing', { exact: false })).toHaveCount(0);
  await page.request.delete(`/api/projects/${project}`);
});
