import { expect, type Locator, type Page } from '@playwright/test';

/**
 * Works the bench as a person does, and counts the actions: a click 1; a typed value 1, with the Tab or Enter that ends
 * it; a drag 1; a command key 1; a choice from a menu or a list 2; a line in the box 2, its key included, and 1 for each
 * further part of it. Looking, orbiting and playing are free.
 */
export class Hand {
  readonly page: Page;
  /** What was done, with the actions it took. */
  readonly done: { readonly what: string; readonly actions: number }[] = [];
  constructor(page: Page) {
    this.page = page;
  }
  get actions(): number {
    return this.done.reduce((sum, { actions }) => sum + actions, 0);
  }
  note(what: string, actions: number): void {
    this.done.push({ what, actions });
  }

  /** A click, or a double click, on something. */
  async press(what: string, target: Locator, times: 1 | 2 = 1): Promise<void> {
    await (times === 1 ? target.click() : target.dblclick());
    this.note(what, 1);
  }
  async button(name: string | RegExp, nth = 0): Promise<void> {
    const target = this.page.getByRole('button', { name, exact: typeof name === 'string' });
    await this.press(`press ${String(name)}`, target.nth(nth));
  }
  /** A click on the picture, in shares of its width and its height. */
  async clickStage(across: number, down: number): Promise<void> {
    const { x, y, width, height } = (await this.page.getByLabel(/^Stage: drag/).boundingBox())!;
    await this.page.mouse.click(x + across * width, y + down * height);
    this.note('click the picture', 1);
  }
  /** A command key. */
  async key(key: string): Promise<void> {
    await this.page.keyboard.press(key);
    this.note(`key ${key}`, 1);
  }
  /** Looks at a chapter, which is free: it stands open on the page. */
  async chapter(name: string): Promise<void> {
    await this.page.getByRole('navigation', { name: 'Chapters' }).getByRole('button', { name }).click();
  }
  /** Chooses from a menu that acts at once. */
  async menu(label: string, item: string | RegExp, nth = 0): Promise<void> {
    await this.page.getByRole('button', { name: label, exact: true }).nth(nth).click();
    await this.page
      .getByRole('option', { name: item, exact: typeof item === 'string' })
      .first()
      .click();
    this.note(`${label} ${String(item)}`, 2);
  }
  /** Chooses what a chip of choices says, by its words. */
  async choose(label: string, words: string, nth = 0): Promise<void> {
    await this.page.getByRole('combobox', { name: label, exact: true }).nth(nth).click();
    await this.page.getByRole('option', { name: words, exact: true }).click();
    this.note(`${label}: ${words}`, 2);
  }
  /** Clicks a chip and types a number, a spread, a sum or a vector into it. */
  async type(chip: RegExp, text: string, nth = 0): Promise<void> {
    await this.page.getByRole('button', { name: chip }).nth(nth).click();
    await this.page.keyboard.press('ControlOrMeta+a');
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
    this.note(`${chip.source} ${text}`, 2);
  }
  /** Goes on in a row of chips: what is typed into the chip that has the focus, ended with Tab. Numbers, choices, colours alike. */
  async row(...values: readonly string[]): Promise<void> {
    for (const value of values) {
      await this.page.keyboard.type(value);
      await this.page.keyboard.press('Tab');
      this.note(`row: ${value}`, 1);
    }
  }
  /** Clicks a chip, and types it and those after it in a row. */
  async typeRow(chip: RegExp, ...values: readonly string[]): Promise<void> {
    await this.press(`chip ${chip.source}`, this.page.getByRole('button', { name: chip }).first());
    await this.page.keyboard.press('ControlOrMeta+a');
    await this.row(...values);
  }
  /** A line in the box: its key, and each of its parts. What is set by the last has the focus then. */
  async say(...parts: readonly string[]): Promise<void> {
    await this.page.keyboard.press('ControlOrMeta+k');
    const field = this.page.getByRole('combobox', { name: 'find, set or add anything' });
    for (const [n, part] of parts.entries()) {
      const isLast = n === parts.length - 1;
      await field.fill(isLast ? part : `${part};`);
      if (isLast) await field.press('Enter');
      else await expect(field).toHaveValue('');
    }
    await expect(field).toBeHidden();
    this.note(`box: ${parts.join('; ')}`, 1 + parts.length);
  }
  /** Clicks a field of text and types into it. */
  async field(label: string, text: string, nth = 0): Promise<void> {
    const field = this.page.getByLabel(label, { exact: true }).nth(nth);
    await field.click();
    await field.fill(text);
    await field.press('Enter');
    this.note(`${label} ${text}`, 2);
  }
  /** Clicks a colour and types it. */
  async colour(label: string, hex: string, nth = 0): Promise<void> {
    await this.page
      .getByRole('combobox', { name: `${label}, by name`, exact: true })
      .nth(nth)
      .click();
    await this.page.keyboard.type(hex);
    await this.page.keyboard.press('Enter');
    this.note(`${label} ${hex}`, 2);
  }
  /** Chooses a layer by its row. */
  async layer(name: string): Promise<void> {
    await this.press(`choose ${name}`, this.page.getByRole('row', { name, exact: true }).getByText(name).first());
  }
  /** Chooses one more layer, beside those that are chosen. */
  async layerToo(name: string): Promise<void> {
    await this.page
      .getByRole('row', { name, exact: true })
      .getByText(name)
      .first()
      .click({ modifiers: ['ControlOrMeta'] });
    this.note(`choose ${name} too`, 1);
  }
  /** Adds a layer that is something at once. */
  async ready(kind: string): Promise<void> {
    await this.menu('ready…', kind);
  }
  /** Puts a figure or a prop on the stage, and waits until it stands there. */
  async bring(name: string): Promise<void> {
    const clips = this.page.getByLabel('clip', { exact: true });
    const before = await clips.count();
    const offered = this.page.getByRole('button', { name: new RegExp(`^Put ${name} on the stage`, 'i') });
    if (!(await offered.isVisible()))
      await this.press('Figures', this.page.getByRole('button', { name: 'Figures', exact: true }));
    await this.press(`put ${name} there`, offered);
    await expect(clips).toHaveCount(before + 1, { timeout: 20_000 });
  }

  /** Chooses a line of the life sheet. */
  async line(word: string): Promise<void> {
    const line = this.page.getByRole('radio', { name: new RegExp(`^${word}`) });
    if ((await line.getAttribute('aria-checked')) === 'true') return;
    await this.press(`line ${word}`, line);
  }
  /** Gives the chosen line a ready shape. */
  async shape(name: string): Promise<void> {
    await this.menu('ready shapes…', name);
  }
  /** Adds a key to the chosen line at a share of life, by a double click. */
  async addKey(share: number): Promise<void> {
    await this.doubleClickAt(this.curve(), share, 0.5);
    this.note(`a key at ${share}`, 1);
  }
  /** Chooses a key of the chosen line. */
  async pickKey(nth: number): Promise<void> {
    await this.press(
      `key ${nth} of the line`,
      this.curve()
        .getByRole('button', { name: /^key at/ })
        .nth(nth),
    );
  }
  /** Types where the chosen key stands, or what it says. */
  async keyPlace(text: string): Promise<void> {
    await this.field('place of the key', text);
  }
  async keyValue(text: string): Promise<void> {
    await this.field('value of the key', text);
  }
  async keyAnchor(words: string): Promise<void> {
    await this.choose('where the key stands', words);
  }
  private curve(): Locator {
    return this.page.locator('.open .editor svg').first();
  }
  /** Adds a stop to the gradient of the open row at a share, by a double click. */
  async addStop(share: number): Promise<void> {
    await this.doubleClickAt(this.page.getByRole('group', { name: 'Colour over age' }), share, 0.5);
    this.note(`a stop at ${share}`, 1);
  }
  async pickStop(nth: number): Promise<void> {
    await this.press(
      `stop ${nth}`,
      this.page
        .locator('.open')
        .getByRole('button', { name: /^colour at/ })
        .nth(nth),
    );
  }
  async stopColour(hex: string): Promise<void> {
    await this.colour('colour of this stop', hex);
  }
  private async doubleClickAt(target: Locator, x: number, y: number): Promise<void> {
    const box = (await target.boundingBox())!;
    await target.dblclick({ position: { x: x * box.width, y: y * box.height } });
  }
}
