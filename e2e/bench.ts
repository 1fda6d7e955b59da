import { expect, goWithin, type Page } from './test.ts';
export { choose } from './choose.ts';
import { decode } from 'fast-png';
import type { Effect } from '@jinx/core/document';
import { lamplitMantle } from '@jinx/demo';

interface Door {
  state(): {
    step: number;
    living: number;
    progress: number;
    isPlaying: boolean;
    isExact: boolean;
    layers: { salt: number; living: number }[];
  };
  layers(): Record<string, string>;
  seek(step: number): void;
  hash(): Promise<{ step: number; hash: string | null }>;
  particles(layer: string): Promise<{ step: number; positions: number[]; ages: number[]; colours: number[] }>;
  pixels(width: number, height: number): Promise<string>;
  timeDrawing(times: number): Promise<number[]>;
}
declare global {
  interface Window {
    jinx: Door;
  }
}

/** Stops playing and goes to a step; returns once it is computed. */
export async function goTo(page: Page, step: number): Promise<{ step: number; hash: string | null }> {
  await pause(page);
  await page.evaluate((to) => window.jinx.seek(to), step);
  return page.evaluate(() => window.jinx.hash());
}

export const particlesOf = (page: Page, layer: string) =>
  page.evaluate(async (name) => window.jinx.particles(window.jinx.layers()[name]!), layer);

/** The stage's picture: four bytes a pixel, rows from the top. */
export async function pixels(page: Page, width = 480, height = 300): Promise<Uint8Array> {
  return Buffer.from(await page.evaluate(([w, h]) => window.jinx.pixels(w!, h!), [width, height]), 'base64');
}

/** A part of the page as it is on the screen: four bytes a pixel, rows from the top. */
export async function screen(
  page: Page,
  clip: { x: number; y: number; width: number; height: number },
): Promise<Uint8Array> {
  const { data, channels, width, height } = decode(await page.screenshot({ clip }));
  if (channels === 4) return data as Uint8Array;
  const rgba = new Uint8Array(width * height * 4);
  for (let p = 0; p < width * height; p++) rgba.set((data as Uint8Array).subarray(p * 3, p * 3 + 3), p * 4);
  return rgba;
}

/** Pixels that differ by more than `least` in any colour. */
export function differing(a: Uint8Array, b: Uint8Array, least = 12): number {
  let count = 0;
  for (let i = 0; i < a.length; i += 4) if ([0, 1, 2].some((c) => Math.abs(a[i + c]! - b[i + c]!) > least)) count++;
  return count;
}

/** The picture, once two in a row are the same. */
export async function atRest(page: Page): Promise<Uint8Array> {
  let picture = await pixels(page);
  await expect
    .poll(async () => {
      const before = picture;
      picture = await pixels(page);
      return differing(before, picture);
    })
    .toBe(0);
  return picture;
}

export const saved = (page: Page) => expect(page.locator('[data-saving]')).toHaveAttribute('data-state', 'saved');

/** Clicks a chip of the open chapter and types into it. */
export async function type(page: Page, label: RegExp, text: string): Promise<void> {
  await page.getByRole('button', { name: label }).click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** Goes to a chapter of the chosen layer's page. */
export const chapter = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Chapters' }).getByRole('button', { name }).click();

/** Puts an effect into a project by the server's own door. Returns its id. */
export async function addEffect(page: Page, project: string, document: Effect): Promise<string> {
  const answer = await page.request.post(`/api/projects/${project}/effects`, { data: { document } });
  return ((await answer.json()) as { id: string }).id;
}

/** Waits until more than so many live. */
export async function living(page: Page, least = 0): Promise<void> {
  await page.waitForFunction((count) => (window.jinx?.state().living ?? 0) > count, least, {
    polling: 50,
    timeout: 60_000,
  });
}

/** Stops playing, so that the stage draws only what changes. */
export async function pause(page: Page): Promise<void> {
  if (await page.evaluate(() => window.jinx.state().isPlaying))
    await page.getByRole('button', { name: 'Pause' }).click();
  await page.waitForFunction(() => !window.jinx.state().isPlaying, undefined, { polling: 50 });
}

/** Plays on from where it stands. */
export async function play(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForFunction(() => window.jinx.state().isPlaying, undefined, { polling: 50 });
}

/**
 * Opens a fresh copy of the demo's Lamplit Mantle, so that tests do not meet each other's edits; once something lives it
 * stands still. Returns its id.
 */
export async function openMantle(page: Page): Promise<string> {
  const projects = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  const { id: projectId } = projects.find(({ name }) => name === 'Fenlight')!;
  const project = (await (await page.request.get(`/api/projects/${projectId}`)).json()) as {
    assets: { hash: string; name: string }[];
  };
  const document = lamplitMantle(project.assets.find(({ name }) => name === 'Sedge')!.hash);
  const id = await addEffect(page, projectId, document);
  await goWithin(page, `/effects/${id}`);
  await expect(page.getByRole('row', { name: 'Motes' })).toBeVisible();
  await living(page, 100);
  await pause(page);
  return id;
}

/** Begins the open line of the life sheet with a ready shape. */
export async function beginWith(page: Page, shape: string): Promise<void> {
  await page.getByRole('button', { name: 'ready shapes…' }).click();
  await page.getByRole('option', { name: shape, exact: true }).click();
}
