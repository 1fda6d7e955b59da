import { expect, test } from './test.ts';
import { budgetField } from './choose.ts';
import { beginWith, chapter, differing, goTo, openMantle, particlesOf, pixels, saved, type, play } from './bench.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  id = await openMantle(page);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});

test('layers are added, copied, renamed, moved, hidden, seen alone and deleted, and every step undone', async ({
  page,
}) => {
  const names = () =>
    page
      .getByRole('row')
      .evaluateAll((rows) =>
        rows.filter((row) => row.hasAttribute('data-row')).map((row) => row.getAttribute('aria-label')),
      );
  const before = await names();
  await page.getByRole('row', { name: 'Embers' }).click();
  await page.getByRole('button', { name: 'Duplicate', exact: true }).click();
  expect(await names()).toContain('Embers, copy');
  await page.getByLabel('layer name').fill('Sparks');
  await page.getByLabel('layer name').press('Enter');
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('option', { name: 'toward the front' }).click();
  expect((await names()).indexOf('Sparks')).toBe(before.indexOf('Embers') - 1);

  await goTo(page, 120);
  const whole = await pixels(page);
  await page.getByRole('row', { name: 'Motes' }).click();
  await page.getByRole('button', { name: 'See Motes alone' }).click();
  const alone = await pixels(page);
  expect(differing(whole, alone)).toBeGreaterThan(200);
  await page.getByRole('row', { name: 'Motes' }).focus();
  await page.keyboard.press('h');
  expect(differing(alone, await pixels(page))).toBeGreaterThan(200);
  await page.getByRole('row', { name: 'Sparks' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  expect(await names()).toEqual(before);
  for (let i = 0; i < 6; i++) await page.keyboard.press('ControlOrMeta+z');
  expect(await names()).toEqual(before);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await page.getByRole('button', { name: 'Redo' }).click();
  expect(await names()).toContain('Embers, copy');
  await page.keyboard.press('ControlOrMeta+z');
  await saved(page);
});

test('one drag of a chip, and one pull of a key, are one step of undo each', async ({ page }) => {
  await goTo(page, 100);
  await chapter(page, 'Motion');
  const text = () => page.getByRole('button', { name: /^ride/ }).textContent();
  const start = await text();
  const chip = (await page.getByRole('button', { name: /^ride/ }).boundingBox())!;
  await page.mouse.move(chip.x + 8, chip.y + 8);
  await page.mouse.down();
  for (let x = 0; x < 40; x += 4) await page.mouse.move(chip.x + 8 + x, chip.y + 8);
  await page.mouse.up();
  expect(await text()).not.toBe(start);

  const key = page.getByRole('group', { name: 'size over age' }).last().getByRole('button').nth(1);
  const label = await key.getAttribute('aria-label');
  const box = (await key.boundingBox())!;
  const largest = async () => Math.max(...(await particlesOf(page, 'Motes')).ages);
  expect(await largest()).toBeGreaterThan(0.5);
  await page.mouse.move(box.x + 4, box.y + 4);
  await page.mouse.down();
  for (let y = 0; y < 40; y += 5) await page.mouse.move(box.x + 4 + y, box.y + 4 + y);
  await page.mouse.up();
  await expect(key).not.toHaveAttribute('aria-label', label!);

  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.getByRole('group', { name: 'size over age' }).last().getByRole('button').nth(1)).toHaveAttribute(
    'aria-label',
    label!,
  );
  await page.keyboard.press('ControlOrMeta+z');
  expect(await text()).toBe(start);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('an edit of dress changes the picture and simulates nothing; one of state does', async ({ page }) => {
  await goTo(page, 120);
  const places = async () => JSON.stringify((await particlesOf(page, 'Motes')).positions);
  const before = await places();
  const picture = await pixels(page);
  await chapter(page, 'Life');
  await type(page, /^size/, '12 cm');
  expect(differing(picture, await pixels(page))).toBeGreaterThan(400);
  expect(await places()).toBe(before);
  await chapter(page, 'Motion');
  await type(page, /^attraction, strength/, '9');
  await goTo(page, 120);
  expect(await places()).not.toBe(before);
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  await goTo(page, 120);
  expect(await places()).toBe(before);
});

test('what is wrong is said, with a mend that works', async ({ page }) => {
  await goTo(page, 100);
  await chapter(page, 'Births');
  await type(page, /^cap/, '300');
  await expect(page.getByText(/births refused: 300 may live at once/)).toBeVisible();
  await page.getByRole('button', { name: /^Let \d+ live/ }).click();
  await expect(page.getByText(/births refused/)).toHaveCount(0);
  await chapter(page, 'Life');
  await type(page, /^opacity/, '0');
  await expect(page.getByText('Motes shows nothing: it is fully transparent.')).toBeVisible();
  await page.getByRole('button', { name: 'Make it opaque' }).click();
  await expect(page.getByText(/shows nothing/)).toHaveCount(0);
  await page.getByRole('radio', { name: /^opacity/ }).click();
  await beginWith(page, 'level');
  await expect(page.getByText(/Motes pops in at birth/)).toBeVisible();
  await page.getByRole('button', { name: 'Fade in over 0.08 s' }).click();
  await expect(page.getByText(/pops in at birth/)).toHaveCount(0);
});

test('a place is moved by dragging its numbers, in one step of undo', async ({ page }) => {
  await goTo(page, 100);
  await chapter(page, 'Motion');
  const meanX = async () => {
    await goTo(page, 100);
    const { positions, ages } = await particlesOf(page, 'Motes');
    return ages.reduce((sum, _, i) => sum + positions[i * 3]!, 0) / ages.length;
  };
  const before = await meanX();
  const chip = page.getByRole('button', { name: 'attraction, place, moved by, x: 0.36' });
  const box = (await chip.boundingBox())!;
  await page.mouse.move(box.x + 8, box.y + 8);
  await page.mouse.down();
  for (let x = 0; x <= 120; x += 10) await page.mouse.move(box.x + 8 + x, box.y + 8);
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'attraction, place, moved by, x: 0.96' })).toBeVisible();
  expect((await meanX()) - before).toBeGreaterThan(0.05);
  await page.keyboard.press('ControlOrMeta+z');
  await expect(chip).toBeVisible();
  // The simulation may still be on its way to the instant with the document as it was.
  await expect.poll(meanX).toBe(before);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('what is typed wrongly is told, and nothing is lost', async ({ page }) => {
  await chapter(page, 'Motion');
  await page.getByRole('button', { name: /^ride/ }).click();
  await page.keyboard.type('2**');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('is not a number or a sum');
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('900');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('ride may be 0 to 100%');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'ride: 55%' })).toBeVisible();
  const moved = (axis: string) => page.getByRole('button', { name: `attraction, place, moved by, ${axis}` });
  await moved('x: 0.36').click();
  await page.keyboard.type('abc');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“abc” is not a number or a sum');
  // The number beside it is not covered.
  await moved('y: 0.46').click({ trial: true });
  await page.keyboard.press('Escape');
  await expect(moved('x: 0.36')).toBeVisible();
});

test('what is being typed is not overwritten while the effect plays', async ({ page }) => {
  await play(page);
  const budget = await budgetField(page);
  await budget.click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('123', { delay: 400 });
  await expect(budget).toHaveValue('123');
  await page.keyboard.press('Escape');
  await expect(budget).toHaveValue('100,000');
});

test('a change made while it plays acts at once, and is exact soon after, without a pause', async ({ page }) => {
  await play(page);
  const motes = () => page.evaluate(() => window.jinx.state().layers.map(({ living }) => living));
  await page.getByRole('row', { name: 'Motes' }).click();
  await chapter(page, 'Births');
  await expect.poll(() => page.evaluate(() => window.jinx.state().step), { timeout: 60_000 }).toBeGreaterThan(90);
  await type(page, /^rate:/, '90');
  await expect.poll(() => page.evaluate(() => window.jinx.state().isExact)).toBe(false);
  await expect
    .poll(() => page.evaluate(() => window.jinx.state().isExact && window.jinx.state().isPlaying), {
      timeout: 60_000,
    })
    .toBe(true);
  // As few live as a tenth of the births leaves, though thousands were born before the change.
  expect(Math.max(...(await motes()))).toBeLessThan(300);
});

test('letting go ends the hold; what lives lives out; then it begins again', async ({ page }) => {
  await play(page);
  await expect.poll(() => page.evaluate(() => window.jinx.state().step), { timeout: 60_000 }).toBeGreaterThan(60);
  await page.getByRole('button', { name: 'Let go' }).click();
  await expect(page.getByRole('button', { name: 'Let go' })).toBeDisabled();
  await expect.poll(() => page.evaluate(() => window.jinx.state().step), { timeout: 60_000 }).toBeLessThan(60);
  await expect(page.getByRole('button', { name: 'Let go' })).toBeEnabled();
});

test('a lost connection is said; nothing typed is lost', async ({ page, context }) => {
  await context.setOffline(true);
  await page.getByLabel('layer name').fill('Motes in the dark');
  await page.getByLabel('layer name').press('Enter');
  await expect(page.locator('[data-saving]')).toHaveAttribute('data-state', 'away');
  await context.setOffline(false);
  await saved(page);
  await page.reload();
  await expect(page.getByRole('row', { name: 'Motes in the dark' })).toBeVisible();
});
