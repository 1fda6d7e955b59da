// Takes the pictures of docs/screenshots/ from a started Jinx: run with `npx tsx scripts/pictures/docs.ts` when a view changed.
import { rmSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import type { Effect } from '@jinx/core/document';
import { RELEASED } from '@jinx/demo';
import { encode } from 'fast-png';
import { CHROMIUM } from '../../server/chromium.ts';
import type {} from '../../e2e/bench.ts';
import { below, choose, segment, showAs } from '../../e2e/choose.ts';
import { portForWeb, runningServer } from '../start.mjs';

/** The mantle at this step: every layer is at work, and she stands half turned to the camera. */
const STEP = 172;

const folder = new URL('../../docs/screenshots/', import.meta.url).pathname;
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const chapter = (name: string) =>
  page.getByRole('navigation', { name: 'Chapters' }).getByRole('button', { name }).click();
const shoot = (name: string) => page.screenshot({ path: `${folder}${name}.png` });

await page.goto(`http://localhost:${runningServer()?.port ?? portForWeb()}/`);
await page.locator('.card img').first().waitFor({ timeout: 120_000 });
await shoot('home');
await page.getByRole('link', { name: 'Fenlight', exact: true }).click();
await page.waitForURL('**/projects/**');
const project = page.url();
await page.locator('.card img').nth(8).waitFor({ timeout: 240_000 });
await page.waitForTimeout(1000);
await shoot('project');
// What is handed over: the dialog, and the page that plays it.
await page.getByRole('button', { name: 'Hand over Lamplit Mantle' }).click();
await page.getByRole('checkbox', { name: 'Reed Cleave' }).check();
await page.getByRole('checkbox', { name: 'Salt Ward' }).check();
await page.waitForTimeout(1000);
await shoot('handover');
const saved = page.waitForEvent('download');
await page.getByRole('button', { name: 'Save as something else' }).click();
await page.getByRole('menuitem', { name: /web page/ }).click();
const player = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const pageFile = `${folder}page.html`;
await (await saved).saveAs(pageFile);
await player.goto(`file://${pageFile}`);
await player.waitForTimeout(5000);
await player.getByRole('button', { name: 'Pause' }).click();
await player.waitForTimeout(2500);
await player.screenshot({ path: `${folder}page.png` });
await player.close();
rmSync(pageFile);
await page.keyboard.press('Escape');
await page.getByRole('button', { name: 'Hand over Lamplit Mantle' }).click();
await page.getByRole('button', { name: 'Pictures and film…' }).click();
await page.getByRole('img', { name: 'One of the pictures' }).waitFor();
await page.waitForTimeout(2500);
await shoot('film');
await page.getByRole('button', { name: 'Close', exact: true }).last().click();
await page.getByRole('heading', { name: 'Starting points' }).evaluate((heading) => heading.scrollIntoView());
await page.getByRole('button', { name: /^Bolt a thrown/ }).hover();
await page.waitForTimeout(700);
await shoot('starts');
await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 300, undefined, { timeout: 120_000 });
await chapter('Motion');
await page.getByRole('button', { name: 'Pause' }).click();
await page.evaluate(async (step) => {
  window.jinx.seek(step);
  await window.jinx.hash();
}, STEP);
await page.waitForTimeout(1500);
await shoot('bench');
// The guide beside the work: a starting point, and why each of its layers is there.
await page.keyboard.press('F1');
await choose(page, 'Page of the guide', 'starts/mantle');
await page.waitForTimeout(1500);
await shoot('guide');
await page.keyboard.press('F1');
await page
  .locator('.row', { has: page.locator('[data-count="Embers"]') })
  .locator('[data-count]')
  .click();
// A number shaped by something else than age, and a tint: both are taken off again.
await chapter('Life');
await page.getByRole('button', { name: 'tint it…' }).click();
await page.getByRole('option', { name: 'by speed' }).click();
await page.getByRole('button', { name: /^size:/ }).click();
await page.getByRole('button', { name: 'Shape it…' }).click();
await page.getByRole('option', { name: 'by distance travelled' }).click();
await page.evaluate(async (step) => {
  window.jinx.seek(step);
  await window.jinx.hash();
}, STEP);
await page.waitForTimeout(1500);
await shoot('shaping');
await page.keyboard.press('Escape');
for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();
await page.waitForTimeout(1500);

// What is named, and what lives: below the stage and beside it.
await page.getByRole('button', { name: 'Whole effect' }).click();
await page.getByRole('heading', { name: 'Quality' }).scrollIntoViewIfNeeded();
await page.waitForTimeout(800);
await shoot('names');
await page
  .locator('.row', { has: page.locator('[data-count="Motes"]') })
  .locator('[data-count]')
  .click();
await below(page, 'Living');
await page.locator('tbody tr').nth(12).waitFor();
await page.getByRole('columnheader', { name: /^age/ }).click();
await page.locator('tbody tr').nth(9).click();
await page.waitForTimeout(1500);
await shoot('living');
await page.getByRole('button', { name: 'Put the glass away' }).click();
// What made one pixel, at the edge of the lamp's light.
await page.keyboard.press('p');
const stage = (await page.getByRole('button', { name: /Press a pixel/ }).boundingBox())!;
await page.mouse.click(stage.x + stage.width * 0.53, stage.y + stage.height * 0.3);
await page.locator('[data-made=stage]').waitFor();
await page.getByRole('button', { name: 'Its look, step by step' }).first().click();
await page.locator('[data-step] .swatch:not(.none)').first().waitFor();
await page.waitForTimeout(1500);
await shoot('pixel');
await page.getByRole('button', { name: 'Put the glass away' }).click();
// Two effects of one instant, and many instants of one.

await below(page, 'Compared');
await choose(page, 'effect to compare with', { label: 'Seed Wreath' });
await segment(page, 'side by side');
await page.locator('[data-other=shown]').waitFor({ timeout: 120_000 });
await page.waitForTimeout(2500);
await shoot('compared');
await segment(page, 'this one');
await below(page, 'Instants');
await page.getByRole('button', { name: 'Go to 5.75 s' }).waitFor({ timeout: 120_000 });
await page.waitForTimeout(1500);
await shoot('instants');
await below(page, 'Rulers');
// An effect and its siblings, which are gone again afterwards.
const mantle = page.url().split('/').pop()!;
const siblings: string[] = [];
for (const [name, hex] of [
  ['Cold mantle', '#5aa8ff'],
  ['Ember mantle', '#ff6a3c'],
] as const) {
  const made = await page.request.post(`${new URL(project).origin}/api/effects/${mantle}/siblings`, {
    data: { name },
  });
  const address = `${new URL(project).origin}/api/effects/${((await made.json()) as { id: string }).id}`;
  siblings.push(address);
  const { revision, head, document } = (await (await page.request.get(address)).json()) as {
    revision: number;
    head: string;
    document: Effect;
  };
  const changes = Object.entries(document.palette.byId)
    .filter(([, { colour }]) => colour.kind === 'fixed')
    .map(([id]) => ({ path: ['palette', 'byId', id, 'colour', 'hex'], after: hex }));
  const edits = [{ id: crypto.randomUUID(), changes, labels: ['another colour'] }];
  const answer = await page.request.post(`${address}/edits`, { data: { revision, head, edits } });
  if (!answer.ok()) throw new Error(`a sibling could not be coloured: ${await answer.text()}`);
}
await stand('Lamplit Mantle', STEP);
await page.getByRole('button', { name: 'Whole effect' }).click();
await page.getByRole('heading', { name: 'Siblings' }).evaluate((heading) => heading.scrollIntoView());
await page.getByRole('button', { name: 'Lay them side by side' }).click();
await page.getByText('3 of one family').waitFor({ timeout: 60_000 });
await shoot('siblings');
for (const address of siblings) await page.request.delete(address);

/** Goes to an effect of the project, stands it at a step, and waits until it is drawn. */
async function stand(name: string, step: number): Promise<void> {
  await page.goto(project);
  await page.getByRole('link', { name }).first().click();
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 5, undefined, { timeout: 120_000 });
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.evaluate(async (to) => {
    window.jinx.seek(to);
    await window.jinx.hash();
  }, step);
}
// What was done and what was put by.
await stand('Wick Flame', RELEASED['Wick Flame']![0]!);
const type = async (label: RegExp, text: string) => {
  await page.getByRole('button', { name: label }).first().click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};
await page.keyboard.press('Escape');
await chapter('Births');
await type(/^rate:/, '320');
await page.waitForTimeout(1500);
await type(/^lifetime:/, '1.4');
await page.waitForTimeout(1500);
await page.getByLabel('layer name').fill('Tall flame');
await page.getByLabel('layer name').press('Enter');
await page.getByRole('button', { name: 'Undo' }).click();
await below(page, 'History');
await page.waitForTimeout(1500);
await shoot('history');
for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();
await page.waitForTimeout(1500);
// A look, step by step.
await stand('Peat Smoke', 157);
await page.getByRole('row', { name: 'Puff 1' }).click();
await chapter('Appearance');
await page.locator('.steps').scrollIntoViewIfNeeded();
await page.waitForTimeout(6000);
// No tooltip lies over its words.
await page.mouse.move(640, 8);
await page.waitForTimeout(600);
await shoot('look');
// What a game shows of it: silhouettes of several instants.
await stand('Salt Ward', RELEASED['Salt Ward']![0]!);
await showAs(page, 'as silhouettes');
await page.waitForTimeout(12_000);
await shoot('silhouette');
// All effects on one sheet.
const [wide, tall, across] = [384, 240, 4];
const names = Object.keys(RELEASED);
const rows = Math.ceil(names.length / across);
const sheet = new Uint8Array(wide * across * tall * rows * 4).map((_, n) => (n % 4 === 3 ? 255 : 20));
for (const [n, name] of names.entries()) {
  await stand(name, RELEASED[name]![0]!);
  await page.keyboard.press('c');
  const coded = await page.evaluate(([w, h]) => window.jinx.pixels(w!, h!), [wide, tall]);
  const pixels = Buffer.from(coded, 'base64');
  const [left, top] = [(n % across) * wide, Math.floor(n / across) * tall];
  for (let y = 0; y < tall; y++)
    sheet.set(pixels.subarray(y * wide * 4, (y + 1) * wide * 4), ((top + y) * wide * across + left) * 4);
}
writeFileSync(
  `${folder}fenlight.png`,
  encode({ width: wide * across, height: tall * rows, data: sheet, channels: 4 }),
);
await browser.close();
