// Writes core/simulation/golden/storm.json from what is computed now: run with `npx tsx scripts/keep-golden.ts` when the
// simulation's version is raised, and only then.
import { writeFileSync } from 'node:fs';
import { stormOnTube, TUBE } from '../core/testing/effects.ts';
import { bendingTube } from '../core/testing/rigs.ts';
import { SIMULATION, playAlone } from '@jinx/core/simulation';

const STEPS = [1, 60, 131, 200];
const document = stormOnTube();
const world = playAlone(document, new Map([[TUBE, bendingTube()]]));
const hashes = Object.fromEntries(STEPS.map((step) => (world.advance(step), [step, world.hash()])));
writeFileSync(
  new URL('../core/simulation/golden/storm.json', import.meta.url),
  `${JSON.stringify({ simulation: SIMULATION, hashes, document })}\n`,
);
