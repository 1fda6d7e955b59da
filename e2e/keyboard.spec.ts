import { expect, test, type Page } from './test.ts';
import { goTo, particlesOf, saved } from './bench.ts';
import { help } from './choose.ts';

/** Tabs on until what is focused has this name. */
async function tabTo(page: Page, name: RegExp, most = 140): Promise<void> {
  const focused = () =>
    page.evaluate(() => {
      const element = document.activeElement as HTMLElement;
      return element.getAttribute('aria-label') ?? element.innerText?.trim() ?? '';
    });
  for (let i = 0; i < most; i++) {
    if (name.test(await focused())) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never came to ${name}; it stands on "${await focused()}"`);
}

test('an effect is made by the keyboard alone', async ({ page }) => {
  const name = `Keys ${Date.now().toString(36)}`;
  await page.goto('/');
  await tabTo(page, /^Name of a new project$/);
  await page.keyboard.type(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name })).toBeVisible();
  const project = page.url().split('/').pop()!;
  await tabTo(page, /^Name of a new effect$/);
  await page.keyboard.type('By keys');
  await page.keyboard.press('Enter');
  await expect(page.getByText('No layer yet')).toBeVisible();

  await tabTo(page, /^Add a layer$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: 'Layer 1' })).toBeVisible();

  // A ring instead of a sphere, born faster, drawn to a point: chip after chip of one row, then by the box.
  await tabTo(page, /^source$/);
  await page.keyboard.type('along a ring');
  await page.keyboard.press('Enter');
  await tabTo(page, /^radius: 0.5/);
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: /^radius: 0.53/ })).toBeVisible();
  await tabTo(page, /^rate: 40/);
  await page.keyboard.type('100+20');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'rate: 120/s' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('add attraction');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^attraction, strength/ })).toBeVisible();

  // A key of the fade, moved along the ruler.
  await tabTo(page, /^opacity\s+100%/, 300);
  await page.keyboard.press('Enter');
  await tabTo(page, /^key at 15%/);
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: /^key at 20%/ })).toBeVisible();
  await saved(page);

  await goTo(page, 60);
  const { ages, positions } = await particlesOf(page, 'Layer 1');
  expect(ages.length).toBeGreaterThan(80);
  const newest = ages.indexOf(Math.min(...ages));
  expect(Math.abs(Math.hypot(positions[newest * 3]!, positions[newest * 3 + 2]!) - 0.53)).toBeLessThan(0.05);
  await page.request.delete(`/api/projects/${project}`);
});

test('the bench lists its keys', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
  await page.getByRole('button', { name: 'Pause' }).waitFor();
  await help(page, 'Keys');
  await expect(page.getByText('clear the stage of guides')).toBeVisible();
});
