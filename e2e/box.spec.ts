import { expect, test, type Page } from './test.ts';
import { atRest, choose, differing, goTo, openMantle, pixels, saved } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});
const documentOf = async (page: Page) =>
  ((await (await page.request.get(`/api/effects/${id}`)).json()) as { document: { layers: unknown } }).document;

test('the box finds by words of the trade, sets what is given a value, and adds; all of it is one undo', async ({
  page,
}) => {
  const before = await documentOf(page);
  // What is found is gone to: typing there goes on in the row.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('lifespan');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^lifetime:/ })).toBeFocused();
  await page.keyboard.type('0.7-0.9');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'lifetime: 0.7 – 0.9 s' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^cap:/ })).toBeFocused();
  await page.keyboard.type('*2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'cap: 8000' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();

  // So are controls of the stage, by the words on them.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('exposure');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Lens and air' })).toBeFocused();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('spawn rate 35; turbulence; size 3-5 cm over age 0, 100%, 0; normal');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'rate: 35/s' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'size: up to 3 – 5 cm' })).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'blending' })).toHaveText('normal');
  await expect(page.getByRole('combobox', { name: 'blending' })).toBeFocused();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  await expect.poll(() => documentOf(page)).toEqual(before);

  // What cannot be is refused with the reason, and changes nothing.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('opacity 300');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText(/opacity may be 0 to 100%/);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Redo' })).toBeEnabled();
});

test('what a menu offers is seen in the effect while it is pointed at, and gone when it is left', async ({
  page,
}) => {
  await goTo(page, 60);
  const whole = await atRest(page);
  const blending = page.getByRole('combobox', { name: 'blending' });
  await blending.click();
  await page.getByRole('option', { name: 'multiply' }).hover();
  await expect.poll(async () => differing(whole, await pixels(page))).toBeGreaterThan(300);
  await page.keyboard.press('Escape');
  await expect.poll(async () => differing(whole, await pixels(page))).toBe(0);
  await expect(blending).toHaveText('additive');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();

  // Held, B shows how it was before the last change.
  await choose(page, 'blending', 'multiply');
  const after = await atRest(page);
  await page.locator('canvas').first().focus();
  await page.keyboard.down('b');
  await expect.poll(async () => differing(whole, await pixels(page))).toBe(0);
  await page.keyboard.up('b');
  await expect.poll(async () => differing(after, await pixels(page))).toBe(0);
});
