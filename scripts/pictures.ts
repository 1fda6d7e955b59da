// Takes the pictures of docs/screenshots/ from a started Jinx: run with `npx tsx scripts/pictures.ts` when a view changed.
import { chromium } from '@playwright/test';
import { CHROMIUM } from './chromium.ts';
import type {} from '../e2e/bench.ts';
import { PORT, runningServer } from './start.mjs';

/** The mantle at this step: every layer is at work, and she stands half turned to the camera. */
const STEP = 172;

const folder = new URL('../docs/screenshots/', import.meta.url).pathname;
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shoot = (name: string) => page.screenshot({ path: `${folder}${name}.png` });

await page.goto(`http://localhost:${runningServer()?.port ?? PORT}/`);
await page.locator('.card img').first().waitFor({ timeout: 120_000 });
await shoot('home');
await page.getByRole('link', { name: 'Fenlight', exact: true }).click();
await page.waitForURL('**/projects/**');
await page.locator('.card img').first().waitFor({ timeout: 120_000 });
await page.waitForTimeout(1000);
await shoot('project');
await page.getByRole('link', { name: 'Lamplit Mantle' }).first().click();
await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 300, undefined, { timeout: 120_000 });
await page.getByRole('tab', { name: 'Motion' }).click();
await page.getByRole('button', { name: 'Pause' }).click();
await page.evaluate(async (step) => {
  window.jinx.seek(step);
  await window.jinx.hash();
}, STEP);
await page.waitForTimeout(1500);
await shoot('bench');
// The same layer as ribbons: what it is drawn as, and where that is set.
await page
  .locator('.row', { has: page.locator('[data-count="Embers"]') })
  .locator('[data-count]')
  .click();
await page.getByRole('tab', { name: 'Appearance' }).click();
await page.getByLabel('drawn as').selectOption('trail');
await page.evaluate(async (step) => {
  window.jinx.seek(step);
  await window.jinx.hash();
}, STEP);
await page.waitForTimeout(1500);
await shoot('ribbons');
await page.getByRole('button', { name: 'Undo' }).click();
// A number shaped by something else than age, and a tint: both are taken off again.
await page.getByRole('tab', { name: 'Life' }).click();
await page.getByRole('button', { name: 'tint it…' }).click();
await page.getByRole('menuitem', { name: 'by speed' }).click();
await page.getByRole('button', { name: /^size:/ }).click();
await page.getByRole('button', { name: 'Shape it…' }).click();
await page.getByRole('menuitem', { name: 'by distance travelled' }).click();
await page.evaluate(async (step) => {
  window.jinx.seek(step);
  await window.jinx.hash();
}, STEP);
await page.waitForTimeout(1500);
await shoot('shaping');
await page.keyboard.press('Escape');
for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();
await page.waitForTimeout(1500);
await browser.close();
