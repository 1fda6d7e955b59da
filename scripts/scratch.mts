import { chromium } from '@playwright/test';
import { CHROMIUM } from './chromium.ts';
import { readFileSync } from 'node:fs';
const [name, out, steps] = process.argv.slice(2);
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: 'http://localhost:7411' });
page.on('pageerror', (e) => console.log('PAGE ERROR', e.message));
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text().slice(0, 400)));
await page.goto('http://localhost:7411/');
const shot = (n) => page.screenshot({ path: `/tmp/s/${n}.png` });
const seek = (step) => page.evaluate(async (to) => { window.jinx.seek(to); await window.jinx.hash(); }, step);
if (name !== '-') {
  const projects = await (await page.request.get('/api/projects')).json();
  const p = projects.find((x) => x.name === 'Fenlight');
  const full = await (await page.request.get(`/api/projects/${p.id}`)).json();
  const e = full.effects.find((x) => x.name === name);
  // A copy, so that the demo stays as it is.
  const doc = (await (await page.request.get(`/api/effects/${e.id}`)).json()).document;
  const made = await (await page.request.post(`/api/projects/${p.id}/effects`, { data: { document: { ...doc, name: 'Scratch' } } })).json();
  await page.goto(`http://localhost:7411/effects/${made.id}`);
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 60, undefined, { timeout: 120_000 });
  var made_id = made.id;
}
try {
  if (steps) await (new (Object.getPrototypeOf(async function () {}).constructor)('page', 'seek', 'shot', readFileSync(steps, 'utf8')))(page, seek, shot);
} finally {
  await page.waitForTimeout(500);
  if (out) await page.screenshot({ path: out });
  if (made_id) await page.request.delete(`/api/effects/${made_id}`);
  await browser.close();
}
