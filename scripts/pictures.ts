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
await page.locator('.card img').first().waitFor();
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
await browser.close();
