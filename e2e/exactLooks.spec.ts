import { expect, goWithin, test } from './test.ts';
import { collectionOf, newDrawn, parseEffect, setNumber, type Effect } from '@jinx/core/document';
import { writePicture } from '@jinx/core/formats';
import { decode } from 'fast-png';
import { readFileSync } from 'node:fs';
import { KIT } from '@jinx/demo';
import { addEffect, chapter, goTo, living, pixels, saved } from './bench.ts';
import { look, one, step } from './looks.ts';
import { METRE, MIDDLE_X, MIDDLE_Y, standing, view } from './oneLayer.ts';
import { StageHarness } from './stageHarness.ts';

const RIPPLE = 'd'.repeat(64);
const stage = StageHarness.forFile(() => {
  const { width, height, data } = decode(readFileSync(new URL('ripple.png', KIT)));
  return Promise.resolve({ [RIPPLE]: writePicture({ width, height, rgba: Uint8Array.from(data) }) });
});

/** A standing sign of a metre, drawn as a thin ring, in an effect of two seconds. */
const sign = (): Effect =>
  one((layer, effect) => {
    effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    layer.look = look(step('drawn', { shape: 'ring', width: 10, softness: 0 }));
  });

let project = '';
test.afterEach(async ({ page }) => {
  if (project) await page.request.delete(`/api/projects/${project}`);
});

test('a flare is added to a ring, crackles as a bolt, and its colour is named and brought out in a press', async ({
  page,
}) => {
  project = (await (await page.request.post('/api/projects', { data: { name: 'Exact looks' } })).json()).id;
  const id = await addEffect(page, project, sign());
  await goWithin(page, `/effects/${id}`);
  await living(page);
  await goTo(page, 30);
  /** Light of the whole picture. */
  const light = async () => (await pixels(page)).reduce((sum, value, n) => (n % 4 === 3 ? sum : sum + value), 0);
  const ring = await light();
  await chapter(page, 'Appearance');
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('option', { name: 'Drawn shape' }).click();
  const added = page.locator('[data-step="drawn"]').nth(1);
  const choose = async (chip: string, name: string) => {
    await added.getByRole('combobox', { name: `drawn shape, ${chip}`, exact: true }).click();
    await page.getByRole('option', { name, exact: true }).click();
  };
  await choose('shape', 'flare');
  const multiplied = await light();
  await choose('combines', 'added');
  const both = await light();
  // Multiplied, next to nothing of either is left; added, all of both is there.
  expect(multiplied).toBeLessThan(ring);
  expect(both - multiplied).toBeGreaterThan((ring - multiplied) * 1.2);

  await choose('shape', 'bolt');
  const at = async (frame: number) => {
    await goTo(page, frame);
    return pixels(page);
  };
  const [first, later, next] = [await at(4), await at(20), await at(50)];
  const changes = (a: Uint8Array, b: Uint8Array) => a.filter((value, n) => Math.abs(value - b[n]!) > 40).length;
  // Four ways in its life: it keeps one for half a second.
  expect(changes(first, later)).toBeLessThan(20);
  expect(changes(first, next)).toBeGreaterThan(100);

  await added.getByRole('button', { name: 'Name this colour and make it a dial' }).click();
  await expect(added.getByRole('button', { name: /is a dial: keep it in/ })).toHaveAttribute('aria-pressed', 'true');
  await saved(page);
  const kept = async () => {
    const { document } = (await (await page.request.get(`/api/effects/${id}`)).json()) as { document: unknown };
    return parseEffect(document).palette;
  };
  const { order, byId } = await kept();
  expect([order.length, byId[order[0]!]!.isDial]).toEqual([1, true]);
  await page.keyboard.press('ControlOrMeta+z');
  await expect.poll(async () => (await kept()).order.length).toBe(0);
});

test('haze bends by a ripple that is tiled and moves', async () => {
  /** A striped wall behind a pane of haze of a metre. */
  const pane = (repeats: number, speed: number) =>
    one((layer, effect) => {
      const stripes = standing('Stripes', 2);
      stripes.look = look(step('scroll', { repeatAcross: 24 }), step('drawn', { shape: 'band', softness: 0 }));
      setNumber(stripes, 'life.size', 2);
      layer.drawn = { ...newDrawn('haze'), picture: { asset: RIPPLE, name: 'ripple' } };
      layer.drawn.settings.bends.base = { kind: 'fixed', value: 'by a picture' };
      layer.drawn.settings.strength.base = { kind: 'fixed', value: 12 };
      layer.drawn.settings.softness.base = { kind: 'fixed', value: 1 };
      layer.look = look(step('scroll', { repeatAcross: repeats, repeatAlong: repeats, across: speed }));
      effect.layers = collectionOf([
        ['one', layer],
        ['stripes', stripes],
      ]);
    });
  const seen = (effect: Effect, frame: number) => stage.picture(effect, frame, view);
  type Seen = Awaited<ReturnType<typeof seen>>;
  /** How far two pictures are from each other over the pane, one of them shifted across by so many pixels. */
  const off = (a: Seen, b: Seen, shift: number) => {
    let sum = 0;
    for (let y = -40; y <= 40; y += 2)
      for (let x = -40; x <= 10; x++)
        sum += Math.abs(a.at(MIDDLE_X + x, MIDDLE_Y + y)[0]! - b.at(MIDDLE_X + x + shift, MIDDLE_Y + y)[0]!);
    return sum;
  };
  const [once, tiled] = [await seen(pane(1, 0), 30), await seen(pane(4, 0), 30)];
  // Four times across, it is the same again after a quarter of a metre; once across it is not.
  const quarter = Math.round(METRE / 4);
  expect(off(tiled, tiled, quarter)).toBeLessThan(off(tiled, tiled, quarter / 2) * 0.25);
  expect(off(once, once, quarter)).toBeGreaterThan(off(tiled, tiled, quarter) * 3);
  // It moves across by half of its tile in half a second.
  const moved = await seen(pane(4, 1), 30);
  expect(off(moved, tiled, 0)).toBeGreaterThan(off(tiled, tiled, quarter) * 3);
});
