import { describe, expect, it } from 'vitest';
import { PINNED_READY, PINNED_SEEDS, pinOfReady, pinOfSeed } from './pin.ts';
import ready from './ready.json' with { type: 'json' };
import random from './random.json' with { type: 'json' };

/** Of the random effects one in so many is played here, for a part to the last step; `npx tsx scripts/pins.ts` plays all. */
const PLAYED = 5;
const WHOLE = 20;

describe('what is computed and drawn has not changed', () => {
  it.each(PINNED_READY)('for the ready layer "%s"', (kind) => {
    expect(pinOfReady(kind)).toEqual(ready[kind]);
  });

  const seeds = Array.from({ length: PINNED_SEEDS / PLAYED }, (_, n) => n * PLAYED);
  it.each(seeds)('for random effect %i', (seed) => {
    const count = seed % WHOLE === 0 ? 3 : 1;
    expect(pinOfSeed(seed, count)).toEqual(random[seed]!.slice(0, count));
  });
});
