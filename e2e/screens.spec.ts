import { expect, test, type Page } from './test.ts';
import { surround, below, segment, budgetField, closeDrawer, drawer, help } from './choose.ts';
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { beginWith, chapter, choose, differing, goTo, living, openMantle, pixels, play, type } from './bench.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What the accessibility checker holds against the page as it stands. */
async function complaints(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  return page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: {
          run(options: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
        };
      }
    ).axe;
    // What is on its way to another colour is neither.
    const passing = document.getAnimations().filter((one) => one.effect?.getComputedTiming().endTime !== Infinity);
    await Promise.allSettled(passing.map((one) => one.finished));
    const runOnly = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
    const { violations } = await axe.run({ runOnly });
    const small = [...document.querySelectorAll<HTMLElement>('body *')].filter(
      (one) =>
        [...one.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent!.trim() !== '') &&
        one.checkVisibility({ visibilityProperty: true }) &&
        parseFloat(getComputedStyle(one).fontSize) < 12.5,
    );
    // The end of a stretch is dragged over the ruler that is scrubbed. Its length is typed beside it, in a field that is
    // large enough: the standard excepts a target that has such an equivalent.
    const hasEquivalent = (id: string, html: string) =>
      id === 'target-size' && html.includes('aria-label="End of the ');
    return [
      ...violations.flatMap(({ id, nodes }) =>
        nodes.filter(({ html }) => !hasEquivalent(id, html)).map(({ html }) => `${id}: ${html.slice(0, 140)}`),
      ),
      ...small.map(({ outerHTML }) => `smaller than 12.5 px: ${outerHTML.slice(0, 140)}`),
    ];
  });
}

async function freshProject(page: Page): Promise<string> {
  const { id } = (await (await page.request.post('/api/projects', { data: { name: 'Trial' } })).json()) as {
    id: string;
  };
  await page.goto(`/projects/${id}`);
  return id;
}

test.describe('the bench', () => {
  let id = '';
  test.beforeEach(async ({ page }) => {
    id = await openMantle(page);
  });
  test.afterEach(async ({ page }) => {
    await page.request.delete(`/api/effects/${id}`);
  });

  test('gives the stage, the chapters and the rulers their room', async ({ page }) => {
    const size = async (selector: string) => (await page.locator(selector).first().boundingBox())!;
    const [stage, chapters, rulers] = [await size('.stage'), await size('.chapters'), await size('.rulers')];
    expect(stage.width).toBeGreaterThanOrEqual(760);
    expect(stage.height).toBeGreaterThanOrEqual(390);
    expect(chapters.width).toBeGreaterThanOrEqual(320);
    expect(chapters.width).toBeLessThanOrEqual(390);
    expect(rulers.height).toBeGreaterThanOrEqual(260);
    expect((await size('.row.open')).height).toBeGreaterThan(140);
  });

  test('has enough contrast and a name for everything, in every chapter', async ({ page }) => {
    for (const name of ['Source', 'Births', 'Motion', 'Life', 'Appearance', 'Links']) {
      await chapter(page, name);
      expect(await complaints(page)).toEqual([]);
    }
  });

  test('has them in everything that stands below the stage, and on every page', async ({ page }) => {
    for (const name of ['Living', 'Over time', 'In words', 'Compared', 'Instants', 'Rulers']) {
      await below(page, name);
      await page.waitForTimeout(700);
      expect(await complaints(page), name).toEqual([]);
    }
    await below(page, 'Compared');
    await choose(page, 'effect to compare with', 'now');
    for (const name of ['one over the other', 'side by side', 'this one']) {
      await segment(page, name);
      expect(await complaints(page), name).toEqual([]);
    }
    await below(page, 'Rulers');
    await page.getByRole('button', { name: 'Whole effect' }).click();
    await page.getByRole('button', { name: 'Add a dial…' }).click();
    await page.getByRole('option', { name: 'a number' }).click();
    await page.getByRole('button', { name: 'Name…' }).click();
    await page.getByRole('option', { name: 'a time' }).click();
    for (const kind of ['a place', 'a direction']) {
      await page.getByRole('button', { name: 'Add a dial…' }).click();
      await page.getByRole('option', { name: kind, exact: true }).click();
    }
    await page.getByRole('button', { name: 'Add a signal' }).click();
    await page.getByRole('button', { name: 'Link an effect…' }).click();
    await page.getByRole('option', { name: 'Wick Flame' }).click();
    await expect(page.getByText('Without a match here')).toBeVisible();
    expect(await complaints(page), 'a linked effect').toEqual([]);
    await page.getByRole('button', { name: 'Whole effect' }).click();
    expect(await complaints(page), 'the whole effect').toEqual([]);
    await page.keyboard.press('p');
    await page.getByRole('button', { name: /Press a pixel/ }).press('Enter');
    await expect(page.locator('[data-made=stage]')).toBeVisible();
    expect(await complaints(page), 'a pixel').toEqual([]);
    await page.keyboard.press('g');
    await page.keyboard.press('Escape');
    for (const name of ['Light', 'Figures', 'Carrier', 'Camera', 'Lens and air', 'Shown', 'Reference']) {
      await drawer(page, name);
      await expect(page.getByRole('group', { name, exact: true })).toBeVisible();
      expect(await complaints(page), name).toEqual([]);
      await closeDrawer(page, name);
    }
    for (const name of ['History', 'Tray']) {
      await page.getByRole('button', { name, exact: true }).click();
      expect(await complaints(page), name).toEqual([]);
    }
    await help(page, 'Findings and their remedies');
    await expect(page.getByRole('heading', { name: 'A layer shows nothing' })).toBeVisible();
    expect(await complaints(page), 'the guide').toEqual([]);
    await page.keyboard.press('Escape');
    await help(page, 'Show me, in five steps');
    await expect(page.locator('.ant-tour')).toContainText('Somebody to make it on');
    expect(await complaints(page), 'the tour').toEqual([]);
    await page.keyboard.press('Escape');
    await page.keyboard.press('?');
    await page.getByLabel('find a key').fill('copy');
    expect(await complaints(page), 'the keys').toEqual([]);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Hand over', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Save the parcel' })).toBeEnabled();
    expect(await complaints(page), 'handing over').toEqual([]);
    await page.getByRole('button', { name: 'Pictures and film…' }).click();
    await expect(page.getByRole('img', { name: 'One of the pictures' })).toBeVisible();
    expect(await complaints(page), 'pictures and film').toEqual([]);
  });

  test('lists every key, and finds one by what it does', async ({ page }) => {
    await page.keyboard.press('?');
    await expect(page.getByLabel('find a key')).toBeFocused();
    await page.keyboard.type('mirror');
    await expect(page.locator('dl.keys dt')).toHaveText(['no key', 'Shift M']);
    await page.keyboard.press('Escape');
    await expect(page.getByLabel('find a key')).toBeHidden();
  });

  test('plays, pauses, steps and scrubs, by hand and by key', async ({ page }) => {
    await play(page);
    const step = () => page.evaluate(() => window.jinx.state().step);
    const first = await step();
    await expect.poll(step).toBeGreaterThan(first + 5);
    await page.keyboard.press('Space');
    await expect.poll(() => page.evaluate(() => window.jinx.state().isPlaying)).toBe(false);
    await goTo(page, 60);
    await page.keyboard.press('.');
    await expect.poll(step).toBe(61);
    await page.keyboard.press(',');
    await page.keyboard.press(',');
    await expect.poll(step).toBe(59);

    const ruler = (await page.locator('.ruler').boundingBox())!;
    await page.mouse.move(ruler.x + ruler.width * 0.2, ruler.y + 3);
    await page.mouse.down();
    await page.mouse.move(ruler.x + ruler.width * 0.6, ruler.y + 3, { steps: 4 });
    await page.mouse.up();
    await expect.poll(step).toBeGreaterThan(200);
    const late = await page.evaluate(async () => (await window.jinx.hash()).hash);
    await page.mouse.click(ruler.x + ruler.width * 0.2, ruler.y + 3);
    await expect.poll(step).toBeLessThan(90);
    await page.mouse.click(ruler.x + ruler.width * 0.6, ruler.y + 3);
    await expect.poll(step).toBeGreaterThan(200);
    expect(await page.evaluate(async () => (await window.jinx.hash()).hash)).toBe(late);
  });

  test('plays slower when told to', async ({ page }) => {
    await play(page);
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Slow motion' }).click();
    await expect(page.getByRole('button', { name: 'Slow motion' })).toHaveText('0.1×');
    // As the simulation says, which has heard of the speed by then: what the page last heard may be behind.
    const now = () =>
      page.evaluate(async () => {
        const { step } = await window.jinx.hash();
        return { step, seconds: performance.now() / 1000 };
      });
    const before = await now();
    await expect.poll(async () => (await now()).step - before.step).toBeGreaterThan(8);
    const after = await now();
    expect((after.step - before.step) / (after.seconds - before.seconds)).toBeLessThan(20);
  });

  test('clears the stage of guides by one key, and changes its surround', async ({ page }) => {
    await goTo(page, 90);
    const guided = await pixels(page);
    await page.keyboard.press('c');
    const clear = await pixels(page);
    expect(differing(guided, clear, 4)).toBeGreaterThan(300);
    const brightness = (rgba: Uint8Array) =>
      rgba.reduce((sum, value, i) => (i % 4 === 3 ? sum : sum + value), 0) / rgba.length;
    const dusk = brightness(clear);
    await surround(page, 'overcast');
    const overcast = brightness(await pixels(page));
    await surround(page, 'noon');
    const noon = brightness(await pixels(page));
    expect(overcast).toBeGreaterThan(dusk + 20);
    expect(noon).toBeGreaterThan(overcast + 20);
  });

  test('shows what the figure does: another clip moves her limbs', async ({ page }) => {
    await goTo(page, 40);
    await page.keyboard.press('c');
    await drawer(page, 'Figures');
    await choose(page, 'clip', 'idle');
    await goTo(page, 40);
    const idle = await pixels(page);
    await choose(page, 'clip', 'cast');
    await goTo(page, 40);
    expect(differing(idle, await pixels(page))).toBeGreaterThan(400);
  });

  test('keeps to the budget it is given', async ({ page }) => {
    await (await budgetField(page)).fill('1000');
    await page.getByLabel(/^Budget/).press('Enter');
    await page.getByRole('button', { name: 'Counts and cost' }).click();
    await goTo(page, 150);
    await expect.poll(() => page.evaluate(() => window.jinx.state().living)).toBeLessThanOrEqual(1000);
    await expect(page.getByText(/over the project’s budget of 1000: most of them, [\d.]+, are Motes/)).toBeVisible();
    await page.getByRole('button', { name: /^\d+ more$/ }).click();
    await expect(page.getByText(/births refused/).first()).toBeVisible();
    await (await budgetField(page)).fill('100000');
    await page.getByLabel(/^Budget/).press('Enter');
    await living(page, 1000);
  });

  test('lets a layer show another’s particles, and undoes it', async ({ page }) => {
    await goTo(page, 120);
    await page.getByRole('button', { name: 'Add a layer' }).click();
    await chapter(page, 'Links');
    await choose(page, 'population', { label: 'those of Motes' });
    const living = (name: string) => page.locator(`[data-count="${name}"]`).textContent();
    await expect.poll(async () => [await living('Layer 12'), await living('Motes')]).not.toContain('0');
    await expect.poll(async () => (await living('Layer 12')) === (await living('Motes'))).toBe(true);
    await chapter(page, 'Motion');
    await expect(page.getByText('Source, births and motion are those of Motes')).toBeVisible();
    await chapter(page, 'Life');
    await type(page, /^size/, '10 cm');
    await goTo(page, 120);
    const glowing = await pixels(page);
    await page.getByRole('button', { name: 'Hide Layer 12' }).click();
    expect(differing(glowing, await pixels(page))).toBeGreaterThan(300);
  });

  test('draws the size of a particle’s life where its curve is pulled', async ({ page }) => {
    await goTo(page, 120);
    const before = await pixels(page);
    await page.getByRole('radio', { name: /^intensity/ }).click();
    await beginWith(page, 'falling');
    expect(differing(before, await pixels(page))).toBeGreaterThan(50);
    const key = page.getByRole('group', { name: 'intensity over age' }).last().getByRole('button').first();
    await key.focus();
    for (let i = 0; i < 10; i++) await page.keyboard.press('Shift+ArrowDown');
    await expect(key).toHaveAttribute('aria-label', /value [0-5]?\d%$/);
    await page
      .getByRole('group', { name: 'intensity over age' })
      .last()
      .dblclick({ position: { x: 200, y: 30 } });
    await expect(page.getByRole('group', { name: 'intensity over age' }).last().getByRole('button')).toHaveCount(3);
    await choose(page, 'where the key stands', 'beforeDeath');
    await page.getByLabel('place of the key').fill('0.32');
    await page.getByLabel('place of the key').press('Enter');
    await page.getByLabel('value of the key').fill('20+20');
    await page.getByLabel('value of the key').press('Enter');
    const keys = page.getByRole('group', { name: 'intensity over age' }).last().getByRole('button');
    // Lives of 1.2 to 2.2 s are drawn by their middle, 1.7 s: 0.32 s before death is 81% of it.
    await expect(keys.nth(1)).toHaveAttribute('aria-label', 'key at 81%, value 40%');
    await keys.nth(1).focus();
    await page.keyboard.press('Delete');
    await expect(keys).toHaveCount(2);
  });
});

test.describe('a curve on the life sheet', () => {
  let id = '';
  test.beforeEach(async ({ page }) => {
    id = await openMantle(page);
    await goTo(page, 120);
  });
  test.afterEach(async ({ page }) => {
    await page.request.delete(`/api/effects/${id}`);
  });

  test('is turned at a key by its arms, in one step of undo', async ({ page }) => {
    const editor = page.getByRole('group', { name: 'size over age' }).last();
    const line = () => editor.locator('path.curve').getAttribute('d');
    const before = await line();
    const picture = await pixels(page);
    await editor.getByRole('button').nth(1).focus();
    const arm = (await editor.locator('circle.hand').last().boundingBox())!;
    await page.mouse.move(arm.x + 4, arm.y + 4);
    await page.mouse.down();
    for (let y = 0; y <= 30; y += 5) await page.mouse.move(arm.x + 4, arm.y + 4 + y);
    await page.mouse.up();
    const turned = await line();
    expect(turned).not.toBe(before);
    expect(differing(picture, await pixels(page))).toBeGreaterThan(30);
    await page.getByRole('button', { name: 'Undo' }).click();
    expect(await line()).toBe(before);
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });

  test('takes each ready shape, and each is another', async ({ page }) => {
    const editor = page.getByRole('group', { name: 'size over age' }).last();
    const seen = new Set<string | null>();
    const shapes = ['level', 'rising', 'falling', 'in and out', 'swell', 'burst', 'late bloom', 'flicker'];
    for (const shape of shapes) {
      await beginWith(page, shape);
      seen.add(await editor.locator('path.curve').getAttribute('d'));
    }
    expect(seen.size).toBe(shapes.length);
    await beginWith(page, 'rising');
    const rising = await pixels(page);
    await beginWith(page, 'falling');
    expect(differing(rising, await pixels(page))).toBeGreaterThan(300);
    for (let i = 0; i <= shapes.length + 1; i++) await page.keyboard.press('ControlOrMeta+z');
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });
});

test.describe('a project', () => {
  let id = '';
  test.beforeEach(async ({ page }) => {
    id = await freshProject(page);
  });
  test.afterEach(async ({ page }) => {
    await page.request.delete(`/api/projects/${id}`);
  });

  test('that is empty says what comes next, and reads well', async ({ page }) => {
    await expect(page.getByText('Name the first above')).toBeVisible();
    expect(await complaints(page)).toEqual([]);
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Fenlight' })).toBeVisible();
    expect(await complaints(page)).toEqual([]);
    for (const at of ['starts/mantle', 'words', 'settings']) {
      await page.goto(`/help/${at}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      expect(await complaints(page), at).toEqual([]);
    }
  });

  test('refuses what is no parcel and what is no figure, with a sentence, and stays empty', async ({ page }) => {
    const bring = async (name: string, text: string) => {
      const chooser = page.waitForEvent('filechooser');
      await page.getByRole('button', { name: 'Bring in files…' }).click();
      await (await chooser).setFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(text) });
    };
    await bring('bad.zip', 'this is no zip');
    await expect(page.getByText(/this is not a parcel/)).toBeVisible();
    await bring('bad.glb', 'nor is this a figure');
    await expect(page.getByText(/this is not a GLB file/)).toBeVisible();
    await page.reload();
    await expect(page.getByText('None yet. Name the first above')).toBeVisible();
    await expect(page.getByText('None yet: effects can do without')).toBeVisible();
  });

  test('takes Sedge from the kit, and pictures its effects', async ({ page }) => {
    await page.getByRole('button', { name: /Take sedge/ }).click();
    await expect(page.getByRole('listitem').filter({ hasText: 'sedge' })).toBeVisible({ timeout: 60_000 });
    await page.getByLabel('Name of a new effect').fill('Still air');
    await page.getByRole('button', { name: 'Make effect' }).click();
    await expect(page.getByText('No layer yet')).toBeVisible();
    await page.goto(`/projects/${id}`);
    const picture = page.getByRole('link', { name: 'Still air' }).locator('canvas');
    await expect(picture).toBeVisible({ timeout: 60_000 });
    // The server keeps it for the next who comes.
    await expect
      .poll(async () => {
        await page.reload();
        const card = page.getByRole('link', { name: 'Still air' });
        await card.waitFor();
        return card.locator('img').count();
      })
      .toBe(1);
  });
});
