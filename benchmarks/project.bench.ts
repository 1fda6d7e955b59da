// How quick the page of a project with 1,000 effects is, beside that of a project with thirteen: until its list is there,
// until one effect is found by its name, and until another page of the list is there.
import type { Browser, Page } from '@playwright/test';
import { cpus } from 'node:os';
import { newEffect } from '@jinx/core/document';
import { median, rounded } from './figures.ts';
import { freshWindow, inChromium } from './inChromium.ts';

const MANY = 1000;
const FEW = 13;
/** Effects on a page of the list. */
const A_PAGE = 60;
const OPENINGS = 5;
/** Requests that are under way at once while effects are made. */
const AT_ONCE = 20;

async function made(page: Page, address: string, count: number): Promise<string> {
  const post = async (path: string, data: unknown) => {
    const answer = await page.request.post(`${address}/api/${path}`, { data, headers: { origin: address } });
    if (!answer.ok()) throw new Error(`${path} was answered ${answer.status()}: ${await answer.text()}`);
    return (await answer.json()) as { id: string };
  };
  const { id } = await post('projects', { name: `List of ${count}` });
  for (let n = 0; n < count; n += AT_ONCE)
    await Promise.all(
      Array.from({ length: Math.min(AT_ONCE, count - n) }, (_, k) =>
        post(`projects/${id}/effects`, { document: newEffect(`Reed ${n + k}`, n + k) }),
      ),
    );
  return id;
}

const hasCards = (page: Page, count: number) =>
  page.waitForFunction((cards) => document.querySelectorAll('a.card').length === cards, count, {
    polling: 10,
    timeout: 60_000,
  });
/** Milliseconds from an act until the list has so many cards. */
async function until(page: Page, count: number, act: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await act();
  await hasCards(page, count);
  return performance.now() - begun;
}

interface Visit {
  readonly open: number;
  readonly find: number;
  readonly turn: number;
}
/** Milliseconds of an opening, a search and a turned page, in a profile that has nothing kept. */
async function visited(browser: Browser, address: string, project: string, count: number): Promise<Visit> {
  const page = await freshWindow(browser);
  const go = () => page.goto(`${address}/projects/${project}`, { waitUntil: 'commit' });
  const open = await until(page, Math.min(count, A_PAGE), go);
  const field = page.getByRole('searchbox', { name: 'Find an effect by its name' });
  const find = await until(page, 1, () => field.fill(`reed ${count - 1}`));
  await field.fill('');
  await hasCards(page, Math.min(count, A_PAGE));
  const last = page.locator('.ant-pagination-item').last();
  const turn = count > A_PAGE ? await until(page, count % A_PAGE, () => last.click()) : 0;
  await page.context().close();
  return { open, find, turn };
}

const result = await inChromium(async (browser, address) => {
  const page = await browser.newPage();
  const [many, few] = [await made(page, address, MANY), await made(page, address, FEW)];
  try {
    const ofMany: Visit[] = [];
    const ofFew: Visit[] = [];
    for (let n = 0; n < OPENINGS; n++) {
      ofMany.push(await visited(browser, address, many, MANY));
      ofFew.push(await visited(browser, address, few, FEW));
    }
    const of = (all: Visit[], what: keyof Visit) => median(all.map((each) => each[what]));
    const [openMs, fewOpenMs] = [of(ofMany, 'open'), of(ofFew, 'open')];
    return {
      benchmark: 'project',
      effects: MANY,
      openMs: rounded(openMs),
      fewOpenMs: rounded(fewOpenMs),
      openRatio: rounded(openMs / fewOpenMs),
      findMs: rounded(of(ofMany, 'find')),
      turnMs: rounded(of(ofMany, 'turn')),
      cores: cpus().length,
    };
  } finally {
    for (const id of [many, few])
      await page.request.delete(`${address}/api/projects/${id}`, { headers: { origin: address } });
  }
});
console.log(
  `The list of ${result.effects} effects is there ${result.openMs} ms after its address, that of ${FEW} after ${result.fewOpenMs}; one is found by its name in ${result.findMs} ms, and the last page turned to in ${result.turnMs}.`,
);
console.log(JSON.stringify(result));
