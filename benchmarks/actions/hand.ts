import { expect, type Locator, type Page } from '@playwright/test';

/**
 * Works the bench as a person does, and counts what that takes: a press is one event, a choice from a list two (it is
 * opened and one is pressed), a number two (its chip is pressed; what is typed ends with Enter).
 */
export class Hand {
  readonly page: Page;
  /** What was done, with the events it took. */
  readonly done: { readonly what: string; readonly events: number }[] = [];
  constructor(page: Page) {
    this.page = page;
  }
  get events(): number {
    return this.done.reduce((sum, { events }) => sum + events, 0);
  }

  async press(what: string, target: Locator): Promise<void> {
    await target.click();
    this.done.push({ what, events: 1 });
  }
  async button(name: string | RegExp): Promise<void> {
    await this.press(
      `press ${String(name)}`,
      this.page.getByRole('button', { name, exact: typeof name === 'string' }),
    );
  }
  /** Opens a chapter. */
  async chapter(name: string): Promise<void> {
    await this.press(`open ${name}`, this.page.getByRole('tab', { name }));
  }
  /** Chooses from a menu that acts at once. */
  async menu(label: string, item: string | RegExp): Promise<void> {
    await this.page.getByRole('button', { name: label, exact: true }).click();
    await this.page.getByRole('menuitem', { name: item, exact: typeof item === 'string' }).click();
    this.done.push({ what: `${label} ${String(item)}`, events: 2 });
  }
  /** Chooses what a chip of choices says, by its words. */
  async choose(label: string, words: string): Promise<void> {
    await this.page.getByLabel(label, { exact: true }).selectOption({ label: words });
    this.done.push({ what: `${label}: ${words}`, events: 2 });
  }
  /** Types a number, a spread or a sum into a chip. */
  async type(chip: RegExp, text: string): Promise<void> {
    await this.page.getByRole('button', { name: chip }).first().click();
    await this.page.keyboard.press('ControlOrMeta+a');
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
    this.done.push({ what: `${chip.source} ${text}`, events: 2 });
  }
  /** Chooses a layer by its row. */
  async row(name: string): Promise<void> {
    await this.press(`choose ${name}`, this.page.getByRole('listitem', { name, exact: true }).getByText(name));
  }
  /** Adds a layer that is something at once. */
  async ready(kind: string): Promise<void> {
    await this.menu('ready…', kind);
  }
  /** Puts a figure on the stage, and waits until it stands there. */
  async bring(name: string): Promise<void> {
    await this.menu('Put a figure on the stage…', name);
    await expect(this.page.getByLabel('clip', { exact: true })).toBeVisible();
  }
}
