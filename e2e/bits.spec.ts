import { expect, goWithin, test } from './test.ts';
import { assetsOf, readParcel, readRig } from '@jinx/core/formats';
import { atBone, type Effect } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import { playAlone } from '@jinx/core/simulation';
import { stormOnTube } from '../core/testing/effects.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { addEffect, goTo, openMantle, living } from './bench.ts';

const INSTANTS = [70, 110, 150, 190, 230];

function inNode(effect: Effect, rigs: ReadonlyMap<string, Rig>): Record<number, string | null> {
  const world = playAlone(effect, rigs, {}, { kernels: kernelBytes() });
  return Object.fromEntries(INSTANTS.map((step) => (world.advance(step), [step, world.hash()])));
}

test('frames are the same bits in Node and in Chromium, played and scrubbed', async ({ page }) => {
  const mantleId = await openMantle(page);
  const projectOf = async () =>
    (await (await page.request.get(`/api/effects/${page.url().split('/').pop()}`)).json()) as {
      projectId: string;
      document: Effect;
    };
  const { projectId, document: mantle } = await projectOf();

  // An effect with all five forces and thousands living, on Sedge as she walks.
  const storm = stormOnTube();
  storm.stage.things = mantle.stage.things;
  storm.layers.byId['motes']!.source = { kind: 'mesh', thing: 'sedge', bones: [] };
  storm.name = 'Storm';
  const place = storm.layers.byId['motes']!.forces.byId['attraction']!;
  place.place = atBone('sedge', 'chest', [0.3, 0.4, 0]);
  const stormId = await addEffect(page, projectId, storm);
  const parcel = readParcel(new Uint8Array(await (await page.request.get(`/api/effects/${stormId}/parcel`)).body()));
  const rigs = new Map(
    parcel.assets
      .filter(({ hash }) => assetsOf(parcel.effects[0]!.effect).includes(hash))
      .map(({ hash, bytes }) => [hash, readRig(bytes)]),
  );

  const expected = inNode(parcel.effects[0]!.effect, rigs);
  expect(new Set(Object.values(expected)).size).toBe(INSTANTS.length);
  await goWithin(page, `/effects/${stormId}`);
  await living(page, 500);
  const seen: Record<number, string | null> = {};
  for (const step of [190, 70, 230, 150, 110]) seen[step] = (await goTo(page, step)).hash;
  expect(seen).toEqual(expected);
  expect(await page.evaluate(() => window.jinx.state().living)).toBeGreaterThan(2000);

  // Stepped on by the buttons, one step at a time, and by another throw.
  await goTo(page, 68);
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'One step on' }).click();
  await expect.poll(() => page.evaluate(() => window.jinx.state().step)).toBe(70);
  expect((await page.evaluate(() => window.jinx.hash())).hash).toBe(expected[70]);

  // Played by the clock, and stopped wherever it happens to be.
  await page.getByRole('button', { name: 'Replay' }).click();
  await expect.poll(() => page.evaluate(() => window.jinx.state().step), { timeout: 60_000 }).toBeGreaterThan(90);
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect.poll(() => page.evaluate(() => window.jinx.state().isPlaying)).toBe(false);
  const played = await page.evaluate(() => window.jinx.hash());
  const world = playAlone(parcel.effects[0]!.effect, rigs, {}, { kernels: kernelBytes() });
  world.advance(played.step);
  expect(played.hash).toBe(world.hash());

  await page.getByRole('button', { name: 'Another throw' }).click();
  expect((await goTo(page, 70)).hash).not.toBe(expected[70]);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect((await goTo(page, 70)).hash).toBe(expected[70]);
  for (const id of [stormId, mantleId]) await page.request.delete(`/api/effects/${id}`);
});
