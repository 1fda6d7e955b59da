// Makes the pictures of the starting points that play, from a started Jinx with the demo: run with
// `npx tsx scripts/pictures/starts.ts [ID…]` when one of their effects changed.
import { mkdirSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { START_EVERY, START_INSTANTS, STARTS } from '@jinx/demo';
import { CHROMIUM } from '../../server/chromium.ts';
import { takeInstants } from './instants.ts';
import { portForWeb, runningServer } from '../start.mjs';

/** Points of each instant. */
const [WIDE, TALL] = [200, 125];

const folder = new URL('../../web/public/starts/', import.meta.url).pathname;
mkdirSync(folder, { recursive: true });
const address = `http://localhost:${runningServer()?.port ?? portForWeb()}`;
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const [project] = (await (await page.request.get(`${address}/api/projects`)).json()) as { id: string }[];
const asked = process.argv.slice(2);
for (const { id, from } of STARTS) {
  if (asked.length > 0 && !asked.includes(id)) continue;
  const begun = await page.request.post(`${address}/api/projects/${project!.id}/starts`, {
    data: { start: id, name: '' },
  });
  const { id: effect } = (await begun.json()) as { id: string };
  const picture = await takeInstants(page, {
    address: `${address}/effects/${effect}`,
    steps: Array.from({ length: START_INSTANTS }, (_, n) => from + n * START_EVERY),
    size: [WIDE, TALL],
    quality: 0.78,
  });
  writeFileSync(`${folder}${id}.webp`, picture);
  await page.request.delete(`${address}/api/effects/${effect}`);
  console.log(id);
}
await browser.close();
