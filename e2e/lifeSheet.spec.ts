import { expect, test, type Locator, type Page } from './test.ts';
import { turnShown } from './choose.ts';
import type { Curve, Effect, NumberSetting } from '@jinx/core/document';
import { chapter, choose, differing, goTo, openMantle, pixels, saved } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  await turnShown(page, 'Guides');
  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

const layerOf = async (page: Page, name: string) => {
  await saved(page);
  const { document } = (await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect };
  return Object.values(document.layers.byId).find((layer) => layer.name === name)!;
};
const byAge = ({ shapers }: NumberSetting) => Object.values(shapers.byId).find(({ reads }) => reads.kind === 'age')!;
const curveOf = (setting: NumberSetting): Curve => {
  const { mapping } = byAge(setting);
  if (mapping.kind !== 'curve') throw new Error(`a ${mapping.kind}, not a curve`);
  return mapping.curve;
};
const places = (curve: Curve) => curve.keys.order.map((key) => curve.keys.byId[key]!);
const line = (page: Page, name: string): Locator => page.getByRole('group', { name: `${name} over age` });
const keysOf = (page: Page, name: string) => line(page, name).getByRole('button');
async function more(page: Page, what: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'this shape…' }).click();
  await page.getByRole('option', { name: what }).click();
}

test('keys are boxed, moved together, held and turned round, each one step of undo', async ({ page }) => {
  const before = places(curveOf((await layerOf(page, 'Motes')).settings['life.size']));
  expect(before.length).toBe(4);
  const box = (await line(page, 'size').boundingBox())!;
  await page.mouse.move(box.x + 0.08 * box.width, box.y + 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 0.9 * box.width, box.y + box.height - 2, { steps: 4 });
  await page.mouse.up();
  await expect(keysOf(page, 'size').and(page.locator('[aria-pressed=true]'))).toHaveCount(2);
  await keysOf(page, 'size').nth(1).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  const moved = places(curveOf((await layerOf(page, 'Motes')).settings['life.size']));
  moved.forEach(({ at, value }, n) => {
    expect(at.value).toBeCloseTo(before[n]!.at.value - (n === 1 || n === 2 ? 0.03 : 0), 3);
    expect(value).toBe(before[n]!.value);
  });
  await page.getByRole('button', { name: 'held', exact: true }).click();
  const held = places(curveOf((await layerOf(page, 'Motes')).settings['life.size']));
  expect(held.map((key) => key.held ?? false)).toEqual([false, true, true, false]);
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
  expect(places(curveOf((await layerOf(page, 'Motes')).settings['life.size']))).toEqual(before);
  // Of several chosen layers all are changed, also after the sheet was pressed.
  const embers = page.getByRole('row', { name: 'Embers', exact: true });
  await embers.getByText('Embers').click({ modifiers: ['ControlOrMeta'] });
  await keysOf(page, 'size').nth(1).click();
  await page.keyboard.press('ArrowUp');
  const [motes, others] = [await layerOf(page, 'Motes'), await layerOf(page, 'Embers')];
  expect(places(curveOf(others.settings['life.size']))).toEqual(places(curveOf(motes.settings['life.size'])));
  expect(places(curveOf(motes.settings['life.size']))).not.toEqual(before);
});

test('keys are copied from one setting to another of another layer', async ({ page }) => {
  await more(page, /^copy its chosen keys/);
  await page.getByRole('row', { name: 'Embers', exact: true }).getByText('Embers').click();
  await page.getByRole('radio', { name: /^opacity/ }).click();
  await more(page, /^paste keys/);
  const from = places(curveOf((await layerOf(page, 'Motes')).settings['life.size']));
  const to = places(curveOf((await layerOf(page, 'Embers')).settings['life.opacity']));
  expect(to).toEqual(from);
});

test('a band gives each its own way; another way of combining keeps what is seen', async ({ page }) => {
  await goTo(page, 120);
  const before = await pixels(page);
  await choose(page, 'how age shapes size', 'replace');
  const replaced = byAge((await layerOf(page, 'Motes')).settings['life.size']);
  expect(replaced.combine).toBe('replace');
  const highest = Math.max(
    ...places(curveOf((await layerOf(page, 'Motes')).settings['life.size'])).map(({ value }) => value),
  );
  expect(highest).toBeCloseTo(0.036, 3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await more(page, /^a band/);
  await expect(line(page, 'size, upper edge')).toBeVisible();
  await page.getByRole('button', { name: 'upper edge' }).click();
  await keysOf(page, 'size, lower edge').nth(1).focus();
  await page.keyboard.press('Shift+ArrowDown');
  const { mapping } = byAge((await layerOf(page, 'Motes')).settings['life.size']);
  expect(mapping.kind).toBe('band');
  await page.evaluate(() => window.jinx.hash());
  expect(differing(before, await pixels(page))).toBeGreaterThan(50);
});

test('any number of a layer that age shapes has a line of its own', async ({ page }) => {
  await chapter(page, 'Life');
  await page.getByRole('button', { name: /^turning:/ }).click();
  await page.getByRole('button', { name: 'Shape it…' }).click();
  await page.getByRole('option', { name: 'by age' }).click();
  await expect(page.getByRole('radio', { name: /^turning/ })).toBeChecked();
  await expect(line(page, 'turning')).toBeVisible();
  await page.getByRole('button', { name: 'ready shapes…' }).click();
  await page.getByRole('option', { name: 'falling' }).click();
  expect(places(curveOf((await layerOf(page, 'Motes')).settings['life.turning'])).map(({ value }) => value)).toEqual([
    1, 0,
  ]);
});

test('the filmstrip shows the layer’s own look, and an age pointed at is lit on the stage', async ({ page }) => {
  await goTo(page, 150);
  const film = page.getByRole('slider', { name: 'one particle at successive ages' });
  /** Red over blue of what is drawn in one part of the strip, 0 where nothing is. */
  const warmth = (from: number, to: number) =>
    film.evaluate(
      (canvas: HTMLCanvasElement, [a, b]) => {
        const { width, height } = canvas;
        const { data } = canvas
          .getContext('2d')!
          .getImageData(Math.floor(a! * width), 0, Math.max(1, Math.floor((b! - a!) * width)), height);
        let [red, green, blue] = [0, 0, 0];
        for (let i = 0; i < data.length; i += 4) {
          red += data[i]!;
          green += data[i + 1]!;
          blue += data[i + 2]!;
        }
        return { red, green, blue };
      },
      [from, to],
    );
  await expect.poll(async () => (await warmth(0.05, 0.3)).red).toBeGreaterThan(2000);
  // Orange while young, and greener than red when old, as its gradient says.
  const [young, old] = [await warmth(0.05, 0.2), await warmth(0.75, 0.95)];
  expect(young.red).toBeGreaterThan(young.green * 1.2);
  expect(old.green).toBeGreaterThan(old.red * 0.95);

  const before = await pixels(page);
  const sum = (picture: Uint8Array) => picture.reduce((total, byte, i) => (i % 4 === 3 ? total : total + byte), 0);
  await film.hover({ position: { x: 160, y: 12 } });
  const lit = await pixels(page);
  expect(sum(lit)).toBeLessThan(sum(before) * 0.97);
  await film.focus();
  await page.keyboard.press('ArrowRight');
  await expect(film).toHaveAttribute('aria-valuetext', /% is lit on the stage$/);
  expect(differing(lit, await pixels(page))).toBeGreaterThan(20);
  await chapter(page, 'Life');
  await page.mouse.move(300, 200);
  expect(differing(before, await pixels(page), 2)).toBe(0);
});
