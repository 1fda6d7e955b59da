// Plays everything that is pinned and says what is not as it was: `npx tsx scripts/pins.ts`. With `--keep` it writes down
// what is computed now instead; do so when the simulation's version is raised, and only then.
import { readFileSync, writeFileSync } from 'node:fs';
import {
  PINNED_READY,
  PINNED_SEEDS,
  pinOf,
  pinOfReady,
  pinOfSeed,
  PIN_STEPS,
  type Pin,
} from '@jinx/core/testing/pins';
import { pinnedEffects } from '../demo/testing/pins.ts';
import { kitForTests } from '../demo/testing/kit.ts';

const keep = process.argv.includes('--keep');
let changed = 0;

function check(file: string, pins: Readonly<Record<string, Pin>> | readonly Pin[]): void {
  const url = new URL(`../${file}`, import.meta.url);
  if (keep) return writeFileSync(url, `${JSON.stringify(pins, null, 1)}\n`);
  const known = JSON.parse(readFileSync(url, 'utf8')) as Record<string, Pin>;
  for (const [name, pin] of Object.entries(pins))
    pin.forEach((now, n) => {
      if (known[name]?.[n] === now) return;
      changed++;
      console.log(`${file}: ${name} is not as it was at step ${PIN_STEPS[n]}`);
    });
}

const { kit, rigs } = await kitForTests();
const of = <T>(names: readonly T[], pin: (name: T) => Pin) => names.map((name) => [name, pin(name)] as const);
check('core/testing/pins/ready.json', Object.fromEntries(of(PINNED_READY, pinOfReady)));
const effects = Object.entries(pinnedEffects(kit));
check('demo/testing/pins.json', Object.fromEntries(effects.map(([name, effect]) => [name, pinOf(effect, rigs)])));
check(
  'core/testing/pins/random.json',
  Array.from({ length: PINNED_SEEDS }, (_, seed) => pinOfSeed(seed)),
);
console.log(keep ? 'kept' : `${changed} changed`);
process.exitCode = changed > 0 ? 1 : 0;
