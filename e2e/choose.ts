import type { Page } from '@playwright/test';

/** Chooses in a chip of choices, by the value or the words of what is chosen. */
export async function choose(page: Page, label: string | RegExp, what: string | { label: string }): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: typeof label === 'string' }).click();
  const option =
    typeof what === 'string'
      ? page.locator(`[role=option][data-value="${what}"]`)
      : page.getByRole('option', { name: what.label, exact: true });
  await option.click();
}
