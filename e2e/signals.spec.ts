import { expect, goWithin, test, type Page } from './test.ts';
import { below, segment } from './choose.ts';
import { setNumber } from '@jinx/core/document';
import { addEffect, chapter, choose, goTo, screen } from './bench.ts';
import { one } from './oneLayer.ts';

let id = '';
test.beforeEach(async ({ page }) => {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string }[];
  const effect = one((layer) => {
    setNumber(layer, 'births.standing', 0);
    setNumber(layer, 'births.life', 0.5);
  });
  effect.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 2 }, closing: 1, preRoll: 0 };
  id = await addEffect(page, projects[0]!.id, effect);
  await goWithin(page, `/effects/${id}`);
  await expect
    .poll(() => page.evaluate(() => window.jinx?.state().step ?? 0), { timeout: 60_000 })
    .toBeGreaterThan(0);
});
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/effects/${id}`);
});
const living = async (page: Page, step: number) => {
  await goTo(page, step);
  return page.evaluate(() => window.jinx.state().living);
};

/** Adds a signal, and a burst of the only layer that waits for it. */
async function waitForContact(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await page.getByRole('button', { name: 'Add a signal' }).click();
  await page.getByRole('row', { name: 'One', exact: true }).click();
  await chapter(page, 'Births');
  await page.getByRole('button', { name: 'Add a burst' }).click();
  await choose(page, 'burst stretch', { label: 'after Contact' });
}

test('a burst waits for a signal: tried on the stage at a time, or announced by hand', async ({ page }) => {
  await waitForContact(page);
  // It says why nothing is seen, and offers a way out.
  await expect(page.getByText('it waits for Contact, which is not tried on the stage')).toBeVisible();
  expect(await living(page, 40)).toBe(0);

  await goTo(page, 20);
  await page.getByRole('button', { name: 'Announce…' }).click();
  await page.getByRole('option', { name: 'Contact' }).click();
  expect(await living(page, 21)).toBe(18);
  expect(await living(page, 10)).toBe(0);
  expect(await living(page, 30)).toBe(18);
  // From the beginning it plays without what was announced by hand.
  await page.getByRole('button', { name: /Let Contact come at 0.2 s/ }).click();
  await expect(page.getByText('it waits for Contact')).toHaveCount(0);
  await page.getByRole('button', { name: 'Whole effect' }).click();
  await expect(page.getByText('Bursts of One wait for it.')).toBeVisible();
  expect(await living(page, 13)).toBe(18);
  expect(await living(page, 30)).toBe(36);

  await page.getByRole('button', { name: 'Take Contact away' }).click();
  expect(await living(page, 13)).toBe(18);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Bursts of One wait for it.')).toBeVisible();
});

test('what is announced here comes in the other picture too', async ({ page }) => {
  await waitForContact(page);
  await page.keyboard.press('c');
  await goTo(page, 20);
  await below(page, 'Compared');
  await choose(page, 'effect to compare with', { label: 'itself, as it is now' });
  await segment(page, 'side by side');
  await expect(page.locator('[data-other=shown]')).toBeVisible();
  /** Bright pixels of this picture, and of the other. */
  const bright = async () => {
    const both = await screen(page, { x: 0, y: 120, width: 896, height: 240 });
    const counts = [0, 0];
    for (let p = 0; p < both.length; p += 4)
      if (both[p]! > 200 && both[p + 1]! > 200) counts[(p / 4) % 896 < 448 ? 0 : 1]!++;
    return counts;
  };
  expect(Math.max(...(await bright()))).toBeLessThan(100);
  await page.getByRole('button', { name: 'Announce…' }).click();
  await page.getByRole('option', { name: 'Contact' }).click();
  await goTo(page, 24);
  await expect.poll(async () => Math.min(...(await bright()))).toBeGreaterThan(300);
  const [own, other] = await bright();
  expect(Math.abs(own! - other!)).toBeLessThan(own! * 0.05);
});
