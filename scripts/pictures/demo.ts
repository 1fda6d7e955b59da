// Makes the thumbnails that ship with Jinx, of the demo's effects and of the kit's files, from a started Jinx with the demo as
// it is seeded: run with `npx tsx scripts/pictures/demo.ts` when one of them changed. The pages draw them as they draw those
// of anybody's effects; they are only told that the server has none yet, and what they send to it is kept here.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import type { AssetSummary, EffectSummary, ProjectDetail, ProjectSummary } from '@jinx/core/answers';
import { canonicalText, parseEffect } from '@jinx/core/document';
import { hashName } from '@jinx/core/formats';
import { PICTURED, pictureFileOf } from '@jinx/demo';
import { CHROMIUM } from '../../server/chromium.ts';
import { portForWeb, runningServer } from '../start.mjs';

const address = `http://localhost:${runningServer()?.port ?? portForWeb()}`;
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const ask = async <T>(at: string) => (await (await page.request.get(`${address}/api${at}`)).json()) as T;

const { id } = (await ask<ProjectSummary[]>('/projects')).find(({ name }) => name === 'Fenlight')!;
const { effects, assets } = await ask<ProjectDetail>(`/projects/${id}`);
const files = new Map<string, URL>([
  ...effects.map((effect: EffectSummary) => [effect.id, pictureFileOf('effect', effect.name)] as const),
  ...assets.map((asset: AssetSummary) => [asset.hash, pictureFileOf('kit', asset.name)] as const),
]);

/** A picture as WebP, made by the page. */
const asWebp = (of: Page, png: Buffer) =>
  of.evaluate(async (coded) => {
    const bytes = Uint8Array.from(atob(coded), (letter) => letter.charCodeAt(0));
    const picture = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
    const canvas = new OffscreenCanvas(picture.width, picture.height);
    canvas.getContext('2d')!.drawImage(picture, 0, 0);
    const blob = await canvas.convertToBlob({ type: 'image/webp', quality: 0.82 });
    return btoa(Array.from(new Uint8Array(await blob.arrayBuffer()), (byte) => String.fromCharCode(byte)).join(''));
  }, png.toString('base64'));

await page.route(`**/api/projects/${id}`, async (route) => {
  const answer = await route.fetch();
  const project = (await answer.json()) as ProjectDetail;
  await route.fulfill({
    json: {
      ...project,
      effects: project.effects.map((effect) => ({ ...effect, pictureRevision: null })),
      assets: project.assets.map((asset) => ({ ...asset, hasThumbnail: false })),
    },
  });
});
let rest = files.size;
const isDone = new Promise<void>((done) => {
  const keep = async (png: Buffer, key: string) => {
    const file = files.get(key)!;
    mkdirSync(path.dirname(fileURLToPath(file)), { recursive: true });
    writeFileSync(file, Buffer.from(await asWebp(page, png), 'base64'));
    console.log(path.basename(file.pathname));
    if (--rest === 0) done();
  };
  void page.route(/\/api\/(effects\/[^/]+\/picture|projects\/[^/]+\/assets\/[^/]+\/thumbnail)/, async (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    const key = /(?:effects|assets)\/([^/]+)\//.exec(route.request().url())![1]!;
    await route.fulfill({ status: 204 });
    await keep(route.request().postDataBuffer()!, key);
  });
});
await page.goto(`${address}/projects/${id}`);
await isDone;
const pictured: Record<string, string> = {};
for (const effect of effects) {
  const { document } = await ask<{ document: unknown }>(`/effects/${effect.id}`);
  pictured[effect.name] = hashName(new TextEncoder().encode(canonicalText(parseEffect(document))));
}
writeFileSync(PICTURED, `${JSON.stringify(pictured, null, 2)}\n`);
await browser.close();
