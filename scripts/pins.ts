// Plays and edits everything that is pinned and says what is not as it was: `npx tsx scripts/pins.ts`, or with part of a
// file's name only what that file pins. With `--keep` it writes down what is computed now instead; do so when a change is
// meant to alter it, and only then.
import { readFileSync, writeFileSync } from 'node:fs';
import {
  editingPinOf,
  PINNED_EDITINGS,
  PINNED_READY,
  PINNED_SEEDS,
  pinOf,
  pinOfReady,
  pinOfSeed,
  PIN_STEPS,
} from '@jinx/core/testing/pins';
import { pinnedEffects } from '../demo/testing/pins.ts';
import { kitForTests } from '../demo/testing/kit.ts';

/** Hashes by what each is of: a step, or an act. */
type Hashes = Readonly<Record<string, string>> | readonly string[];

const keep = process.argv.includes('--keep');
const only = process.argv.slice(2).filter((word) => !word.startsWith('--'));
let changed = 0;

/** Compares, or keeps, the pins of one file; `step` says in words what an entry of a pin is of. */
function check(
  file: string,
  pin: () => Readonly<Record<string, Hashes>> | readonly Hashes[],
  step = (of: string) => of,
) {
  if (only.length > 0 && !only.some((word) => file.includes(word))) return;
  const url = new URL(`../${file}`, import.meta.url);
  if (keep) return writeFileSync(url, `${JSON.stringify(pin(), null, 1)}\n`);
  const known = JSON.parse(readFileSync(url, 'utf8')) as Record<string, Record<string, string>>;
  for (const [name, hashes] of Object.entries(pin()))
    for (const [of, hash] of Object.entries(hashes)) {
      if (known[name]?.[of] === hash) continue;
      changed++;
      console.log(`${file}: ${name} is not as it was ${step(of)}`);
    }
}

const { kit, rigs } = await kitForTests();
const atStep = (of: string) => `at step ${PIN_STEPS[Number(of)]}`;
const many = <T>(count: number, make: (seed: number) => T) => Array.from({ length: count }, (_, seed) => make(seed));
const effects = () =>
  Object.entries(pinnedEffects(kit)).map(([name, effect]) => [name, pinOf(effect, rigs)] as const);
const ready = () => PINNED_READY.map((kind) => [kind, pinOfReady(kind)] as const);
check(
  'core/testing/pins/editing.json',
  () => many(PINNED_EDITINGS, editingPinOf),
  (of) => `once ${of}`,
);
check('core/testing/pins/ready.json', () => Object.fromEntries(ready()), atStep);
check('demo/testing/pins.json', () => Object.fromEntries(effects()), atStep);
check('core/testing/pins/random.json', () => many(PINNED_SEEDS, pinOfSeed), atStep);
console.log(keep ? 'kept' : `${changed} changed`);
process.exitCode = changed > 0 ? 1 : 0;
