import type { Locator, Page } from '@playwright/test';

/** Chooses in a chip of choices, by the value or the words of what is chosen. */
export async function choose(page: Page, label: string | RegExp, what: string | { label: string }): Promise<void> {
  const chip = page.getByRole('combobox', { name: label, exact: typeof label === 'string' });
  const option =
    typeof what === 'string'
      ? page.locator(`[role=option][data-value="${what}"]`)
      : page.getByRole('option', { name: what.label, exact: true });
  await chip.click();
  // What is pressed may be moved by what is still loading: then it was no press.
  const isOpen = await option.waitFor({ timeout: 5000 }).then(
    () => true,
    () => false,
  );
  if (!isOpen) await chip.click();
  await option.click();
}

/** Opens a drawer of the rail beside the picture, if it is closed. */
export async function drawer(page: Page, name: string): Promise<void> {
  const button = page.getByRole('toolbar', { name: 'The picture' }).getByRole('button', { name, exact: true });
  if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
}
/** Closes it again. */
export async function closeDrawer(page: Page, name: string): Promise<void> {
  await page.getByRole('toolbar', { name: 'The picture' }).getByRole('button', { name, exact: true }).click();
  await page.getByRole('group', { name, exact: true }).waitFor({ state: 'detached' });
  // What is pointed at is lit: the pictures of tests have nothing lit.
  await page.mouse.move(640, 8);
}

/** Turns guides, the raw picture or another switch of what is shown. */
export async function turnShown(page: Page, name: string): Promise<void> {
  await drawer(page, 'Shown');
  await page.getByRole('switch', { name, exact: true }).click();
  await closeDrawer(page, 'Shown');
}
/** Chooses what the stage stands in. */
export async function surround(page: Page, name: string): Promise<void> {
  await drawer(page, 'Light');
  await page.getByRole('radio', { name, exact: true }).click();
  await closeDrawer(page, 'Light');
}

/** Chooses what the stage shows in place of the picture. */
export async function showAs(page: Page, name: string): Promise<void> {
  await drawer(page, 'Shown');
  await page.getByRole('radio', { name, exact: true }).click();
  await closeDrawer(page, 'Shown');
}

const PAGES: Record<string, string> = {
  Rulers: '',
  Living: 'Read',
  'Over time': 'Read',
  'In words': 'Read',
  Compared: 'Compare',
  Instants: 'Compare',
};
/** Shows a page below the picture. */
export async function below(page: Page, name: string): Promise<void> {
  const menu = PAGES[name];
  const own = page.getByRole('button', { name: menu || name, exact: true });
  // On the rulers there is nothing to go back from.
  if (menu === '' && !(await own.isVisible())) return;
  await own.click();
  if (menu)
    await page.getByRole('option', { name: name === 'Compared' ? 'With another' : name, exact: true }).click();
}

/** Chooses in the menu of help. */
export async function help(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Help', exact: true }).click();
  await page.getByRole('option', { name, exact: true }).click();
}

/** Chooses one of a few that stand side by side. */
export const segment = (page: Page, name: string) =>
  page.locator('.ant-segmented-item', { hasText: new RegExp(`^${name}$`) }).click();

/** The field of the budget, which stands behind the counts. */
export async function budgetField(page: Page): Promise<Locator> {
  const field = page.getByLabel(/^Budget/);
  if (!(await field.isVisible())) await page.getByRole('button', { name: 'Counts and cost' }).click();
  return field;
}

/** Types a colour into its picker. */
export async function pickColour(page: Page, label: string | RegExp, hex: string): Promise<void> {
  const field = page.getByRole('button', { name: label, exact: typeof label === 'string' });
  await field.click();
  await page.getByRole('textbox', { name: 'Hex' }).fill(hex);
  await page.keyboard.press('Escape');
}
