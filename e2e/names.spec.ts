import { expect, test, type Page } from './test.ts';
import { turnShown, pickColour } from './choose.ts';
import type { Effect } from '@jinx/core/document';
import { chapter, choose, differing, goTo, openMantle, pixels, saved } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
  await turnShown(page, 'Guides');
  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
  await goTo(page, 150);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

async function effectOf(page: Page): Promise<Effect> {
  await saved(page);
  return ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: Effect }).document;
}
const whole = (page: Page) => page.getByRole('button', { name: 'Whole effect' }).click();
async function typeInto(page: Page, label: string, text: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${label}:`) }).click();
  await page.getByRole('textbox', { name: label, exact: true }).fill(text);
  await page.keyboard.press('Enter');
}

test('a colour of the palette recolours all that use it, and what is made of it follows', async ({ page }) => {
  const before = await pixels(page);
  await whole(page);
  await pickColour(page, 'colour of Lamp', '#3060ff');
  await goTo(page, 150);
  const blue = await pixels(page);
  expect(differing(before, blue, 30)).toBeGreaterThan(1500);
  const sum = (picture: Uint8Array, channel: number) => {
    let total = 0;
    for (let i = channel; i < picture.length; i += 4) total += picture[i]!;
    return total;
  };
  expect(sum(blue, 2)).toBeGreaterThan(sum(before, 2) * 1.2);
  // Its place in the list is chosen from where it is dragged by, or moved by key.
  const order = async () => Object.values((await effectOf(page)).palette.order);
  const first = await order();
  await page.getByRole('button', { name: 'Order of Lamp', exact: true }).click();
  await page.getByRole('option', { name: 'to the end' }).click();
  expect(await order()).toEqual([...first.slice(1), first[0]]);
  await page.getByRole('button', { name: 'Undo' }).click();
  const grip = (name: string) => page.getByRole('button', { name: `Order of ${name}`, exact: true });
  await grip('Ember').dragTo(grip('Lamp'));
  expect(await order()).toEqual([first[1], first[0], ...first.slice(2)]);
  await page.getByRole('button', { name: 'Undo' }).click();
  // A derived colour is turned by its hue: from blue back toward what it was.
  await typeInto(page, 'hue of Marsh light turned by', '-120');
  await goTo(page, 150);
  expect(differing(blue, await pixels(page), 12)).toBeGreaterThan(60);
  for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await goTo(page, 150);
  expect(differing(before, await pixels(page))).toBe(0);
});

test('a number is brought out as a dial without a change, and the dial turns it', async ({ page }) => {
  const before = await pixels(page);
  await chapter(page, 'Life');
  await page.getByRole('button', { name: /^size:/ }).click();
  await page.getByRole('button', { name: 'Bring it out' }).click();
  await goTo(page, 150);
  expect(differing(before, await pixels(page), 2)).toBe(0);
  await whole(page);
  await expect(page.getByRole('textbox', { name: 'name of the dial' })).toHaveValue('Motes size');
  await typeInto(page, 'Motes size', '0.046');
  await goTo(page, 150);
  const large = await pixels(page);
  expect(differing(before, large, 20)).toBeGreaterThan(800);
  // Taken away, it leaves the motes as large as it had made them.
  await page.getByRole('button', { name: 'Take Motes size away' }).click();
  await goTo(page, 150);
  expect(differing(large, await pixels(page), 2)).toBe(0);
  const { base } = Object.values((await effectOf(page)).layers.byId).find(({ name }) => name === 'Motes')!.settings[
    'life.size'
  ];
  expect(base.kind === 'spread' && base.low).toBeCloseTo(0.02, 3);
});

test('a switch turns layers off, and says so where nothing is seen', async ({ page }) => {
  await whole(page);
  await page.getByRole('button', { name: 'Add a dial…' }).click();
  await page.getByRole('option', { name: 'a switch' }).click();
  await page.getByRole('row', { name: 'Motes', exact: true }).getByText('Motes').click();
  await chapter(page, 'Appearance');
  await choose(page, 'when it is seen', { label: 'while Switch is on' });
  await goTo(page, 150);
  const lit = await pixels(page);
  await whole(page);
  await choose(page, 'Switch', 'off');
  await goTo(page, 150);
  expect(differing(lit, await pixels(page), 20)).toBeGreaterThan(300);
  await expect(page.getByText('Motes shows nothing: its switch, Switch, is off.')).toBeVisible();
  await page.getByRole('button', { name: 'Switch Switch on' }).click();
  await goTo(page, 150);
  expect(differing(lit, await pixels(page), 2)).toBe(0);
});

test('a size that is named as a measure is shared by another layer', async ({ page }) => {
  await page.getByRole('row', { name: 'Lamp', exact: true }).getByText('Lamp').click();
  await chapter(page, 'Life');
  await page.getByRole('button', { name: /^size:/ }).click();
  await page.getByRole('button', { name: 'Measured by…' }).click();
  await page.getByRole('option', { name: 'a new measure, as it is' }).click();
  await page.getByRole('row', { name: 'Lamp glow', exact: true }).getByText('Lamp glow').click();
  await page.getByRole('button', { name: /^size:/ }).click();
  await page.getByRole('button', { name: 'Measured by…' }).click();
  await page.getByRole('option', { name: 'Lamp size' }).click();
  await whole(page);
  await expect(page.getByText('used in 2 places').last()).toBeVisible();
  await typeInto(page, 'Lamp size', '0.9');
  const { layers, measures } = await effectOf(page);
  expect(Object.values(measures.byId)).toMatchObject([{ name: 'Lamp size', quantity: 'length', value: 0.9 }]);
  const users = Object.values(layers.byId).filter(({ settings }) => settings['life.size'].base.kind === 'measure');
  expect(users.map(({ name }) => name)).toEqual(expect.arrayContaining(['Lamp', 'Lamp glow']));
});
