import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { EffectClock } from '@jinx/core/simulation';
import { fromWebp } from '../server/webp.ts';
import { START_EVERY, START_INSTANTS, STARTS } from './index.ts';

const kit = new Proxy({}, { get: () => 'a'.repeat(64) });

describe('starting points', () => {
  it('answer every intent an artist comes with, each once', () => {
    const intents = STARTS.map(({ intent }) => intent.toLowerCase());
    expect(new Set(intents).size).toBe(intents.length);
    for (const wanted of ['mantle', 'ground sigil', 'ward', 'slash', 'portal', 'bolt', 'beam', 'impact', 'smoke'])
      expect(intents).toContain(wanted);
    for (const wanted of ['unmaking', 'mark overhead']) expect(intents).toContain(wanted);
  });

  it.each(STARTS.map((start) => [start.id, start] as const))('%s has a picture that plays', async (id, start) => {
    const { width, height, rgba } = await pictureOf(id);
    const wide = width / START_INSTANTS;
    expect([wide, height]).toEqual([200, 125]);
    // Something moves from each instant to one a quarter of the way on, while it plays at all.
    const instants = Math.min(
      START_INSTANTS,
      Math.floor((new EffectClock(start.make(kit).stretches).length * 60 - start.from) / START_EVERY),
    );
    let moved = 0;
    for (let n = 0; n + 6 < instants; n++) if (differing(rgba, width, wide, height, n, n + 6) > 60) moved++;
    expect(moved).toBeGreaterThan((instants - 6) * 0.8);
    expect(start.rest).toBeLessThan(instants);
  });
});

async function pictureOf(id: string): Promise<{ width: number; height: number; rgba: Uint8Array }> {
  const bytes = readFileSync(new URL(`../web/public/starts/${id}.webp`, import.meta.url));
  const { width, height, rgba } = await fromWebp(new Uint8Array(bytes));
  return { width, height, rgba: new Uint8Array(rgba) };
}
function differing(rgba: Uint8Array, width: number, wide: number, tall: number, a: number, b: number): number {
  let count = 0;
  for (let y = 0; y < tall; y++)
    for (let x = 0; x < wide; x++) {
      const [p, q] = [(y * width + a * wide + x) * 4, (y * width + b * wide + x) * 4];
      if ([0, 1, 2].some((c) => Math.abs(rgba[p + c]! - rgba[q + c]!) > 24)) count++;
    }
  return count;
}
