import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { pageOf, wordsOf, type Effect } from '@jinx/core/document';
import { Hand } from './hand.ts';
import type { Run } from './runs.ts';

/** A project with the kit's figures and props, and an empty effect in it, open on the bench. Returns the project. */
export async function openEmpty(page: Page, name: string): Promise<string> {
  const made = await page.request.post('/api/projects', { data: { name } });
  const { id } = (await made.json()) as { id: string };
  for (const file of (await (await page.request.get('/api/kit')).json()) as string[])
    await page.request.post(`/api/projects/${id}/kit`, { data: { file } });
  await page.goto(`/projects/${id}`);
  await page.getByLabel('Name of a new effect').fill('Made by hand');
  await page.getByRole('button', { name: 'Make effect' }).click();
  await expect(page.getByText('No layer yet')).toBeVisible();
  return id;
}

/** A document in which chance has no part: ids by the place of what they name, no salts, no seed. */
export function plainOf(effect: Effect): unknown {
  const ids = new Map<string, string>();
  const nameIds = (value: unknown, key: string): void => {
    if (typeof value !== 'object' || value === null) return;
    const { order, byId } = value as { order?: unknown; byId?: Record<string, unknown> };
    if (!Array.isArray(order) || !byId) return Object.entries(value).forEach(([part, inner]) => nameIds(inner, part));
    order.forEach((id: string, n) => {
      if (!ids.has(id)) ids.set(id, `${key} ${n + 1}`);
      nameIds(byId[id], key);
    });
  };
  nameIds(effect, '');
  const plain = (value: unknown, key = ''): unknown => {
    if (key === 'salt' || key === 'seed') return 0;
    if (typeof value === 'string') return ids.get(value) ?? value;
    if (Array.isArray(value)) return value.map((one) => plain(one));
    if (typeof value !== 'object' || value === null) return value;
    const named = Object.entries(value).map(([k, v]) => [ids.get(k) ?? k, plain(v, k)] as const);
    return Object.fromEntries(named.sort(([x], [y]) => (x < y ? -1 : 1)));
  };
  return plain(effect);
}

/** Makes an effect by hand on the empty bench. Returns the hand with its counts, and the document as it was saved. */
export async function made(page: Page, run: Pick<Run, 'make'>): Promise<{ hand: Hand; document: Effect }> {
  const hand = new Hand(page);
  await run.make(hand);
  // The last change is still on its way to what says that all is saved.
  await page.waitForTimeout(500);
  await expect(page.locator('[data-saving]')).toHaveAttribute('data-state', 'saved');
  const answer = await page.request.get(`/api${new URL(page.url()).pathname}`);
  return { hand, document: ((await answer.json()) as { document: Effect }).document };
}

/** A document as it is kept for reference: one line that is the same for the same document, and all that is set in words. */
export function referenceOf(effect: Effect): string {
  const hash = createHash('sha256')
    .update(JSON.stringify(plainOf(effect)))
    .digest('hex');
  // Words tell the seed, which is drawn anew for every effect.
  return `${hash}\n\n${pageOf(effect.name, wordsOf({ ...effect, seed: 0 }))}\n`;
}
const referenceFile = ({ id }: Run) => new URL(`./references/${id}.txt`, import.meta.url);
export const keptReference = (run: Run): string => readFileSync(referenceFile(run), 'utf8');
export const keepReference = (run: Run, effect: Effect): void =>
  writeFileSync(referenceFile(run), referenceOf(effect));
