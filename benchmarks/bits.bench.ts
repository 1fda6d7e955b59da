// 300 random effects, each in Node and in Chromium, on one, two and three threads, played, scrubbed and restored after an
// edit and its undo: all must give the same bits at the same steps.
import { chromium } from '@playwright/test';
import { SURFACE_KINDS, FORCE_KINDS, listed } from '../core/document/index.ts';
import { stopCrew } from '../core/simulation/index.ts';
import { BIT_STEPS, differenceOf, hashesOn, ROUTES, worldOf, type Route } from '../core/testing/bits.ts';
import { BrowserBits } from '../core/testing/browserBits.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { randomEffect } from '../core/testing/randomEffect.ts';
import { Helper } from '../core/testing/startHelper.ts';
import { CHROMIUM } from '../server/chromium.ts';
import { median } from './figures.ts';

const EFFECTS = 300;
const THREADS = [1, 2, 3];
const kernels = kernelBytes();
const helpers = [new Helper(), new Helper()];
const uses = new Map<string, number>();
const failures: string[] = [];
const living: number[] = [];

/** Counts what an effect is made of. */
function countUses(seed: number): void {
  const { effect } = randomEffect(seed);
  const kinds = new Set<string>();
  for (const { item } of listed(effect.layers)) {
    const region = item.source.kind === 'mesh' ? `/${String(item.settings['source.region'].base.value)}` : '';
    kinds.add(`source/${item.source.kind}${region}`);
    kinds.add(`drawn/${item.drawn.kind}`);
    for (const force of listed(item.forces)) kinds.add(`force/${force.item.kind}`);
    for (const link of listed(item.links)) kinds.add(`link/${link.item.on}`);
    if (item.front) kinds.add(`front/${effect.fronts.byId[item.front]!.kind}`);
  }
  for (const { item } of listed(effect.surfaces)) {
    kinds.add(`surface/${item.kind}`);
    kinds.add(`act/${String(item.settings.act.base.kind === 'fixed' && item.settings.act.base.value)}`);
  }
  for (const kind of kinds) uses.set(kind, (uses.get(kind) ?? 0) + 1);
}

async function inNode(seed: number, route: Route, threads: number) {
  const count = threads - 1;
  const world = worldOf(seed, { kernels, worthSharing: 1, ...(count > 0 ? { shared: true, helpers: count } : {}) });
  const crew = helpers.slice(0, count);
  await Promise.all(crew.map((helper, n) => helper.join(world.memory, n + 1)));
  const hashes = hashesOn(world, route);
  const left = Promise.all(crew.map((helper) => helper.left()));
  if (count > 0) stopCrew(world.memory.buffer);
  await left;
  return { hashes, world };
}

const browser = await chromium.launch(CHROMIUM);
const page = await BrowserBits.open(await browser.newPage());
let runs = 0;
for (let seed = 0; seed < EFFECTS; seed++) {
  countUses(seed);
  const first = await inNode(seed, 'played', 1);
  const expected = JSON.stringify(first.hashes);
  living.push(first.world.living);
  for (const route of ROUTES)
    for (const threads of THREADS) {
      const [own, other] = await Promise.all([
        route === 'played' && threads === 1 ? first : inNode(seed, route, threads),
        page.of(seed, route, threads),
      ]);
      runs += 2;
      if (JSON.stringify(own.hashes) !== expected)
        failures.push(
          `effect ${seed}, Node, ${route}, ${threads} threads: ${differenceOf(own.world, first.world) ?? 'dress or ribbons'}`,
        );
      if (JSON.stringify(other.hashes) !== expected)
        failures.push(`effect ${seed}, Chromium, ${route}, ${threads} threads: other hashes`);
    }
  if (seed % 20 === 19) console.log(`${seed + 1} effects, ${failures.length} failures`);
}
await browser.close();
for (const helper of helpers) await helper.stop();
for (const failure of failures.slice(0, 20)) console.log(failure);
const fewest = [...uses].sort((a, b) => a[1] - b[1])[0]!;
const kindsMissing = [
  ...FORCE_KINDS.map((kind) => `force/${kind}`),
  ...SURFACE_KINDS.map((kind) => `surface/${kind}`),
].filter((kind) => !uses.has(kind));
console.log(
  JSON.stringify({
    bench: 'bits',
    effects: EFFECTS,
    runs,
    steps: BIT_STEPS[BIT_STEPS.length - 1],
    failures: failures.length,
    kinds: uses.size,
    kindsMissing: kindsMissing.length,
    fewestUsed: fewest[0],
    fewestUses: fewest[1],
    medianLiving: median(living),
  }),
);
if (failures.length > 0) process.exitCode = 1;
