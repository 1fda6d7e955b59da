// Makes the pictures of the starting points that play, from a started Jinx with the demo: run with
// `npx tsx scripts/pictures/starts.ts [ID…]` when one of their effects changed.
import { mkdirSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { START_EVERY, START_INSTANTS, STARTS } from '@jinx/demo';
import { CHROMIUM } from '../../server/chromium.ts';
import type {} from '../../e2e/bench.ts';
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
  await page.goto(`${address}/effects/${effect}`);
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 5, undefined, { timeout: 120_000 });
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.keyboard.press('c');
  const coded = await page.evaluate(
    async ([first, instants, every, wide, tall]) => {
      const strip = new OffscreenCanvas(wide! * instants!, tall!);
      const drawn = strip.getContext('2d')!;
      drawn.imageSmoothingQuality = 'high';
      for (let n = 0; n < instants!; n++) {
        window.jinx.seek(first! + n * every!);
        await window.jinx.hash();
        const bytes = Uint8ClampedArray.from(atob(await window.jinx.pixels(wide! * 2, tall! * 2)), (c) =>
          c.charCodeAt(0),
        );
        const picture = await createImageBitmap(new ImageData(bytes, wide! * 2, tall! * 2));
        drawn.drawImage(picture, n * wide!, 0, wide!, tall!);
      }
      const blob = await strip.convertToBlob({ type: 'image/webp', quality: 0.78 });
      return new Promise<string>((resolve) => {
        const reader = new FileReader();
        reader.onload = () => resolve((reader.result as string).split(',')[1]!);
        reader.readAsDataURL(blob);
      });
    },
    [from, START_INSTANTS, START_EVERY, WIDE, TALL],
  );
  writeFileSync(`${folder}${id}.webp`, Buffer.from(coded, 'base64'));
  await page.request.delete(`${address}/api/effects/${effect}`);
  console.log(id);
}
await browser.close();
