import { describe, expect, it } from 'vitest';
import { editingPinOf, PINNED_EDITINGS } from './editing.ts';
import pins from './editing.json' with { type: 'json' };

/** Of the pinned effects one in so many is edited here; `npx tsx scripts/pins.ts` edits all. */
const EDITED = 6;

describe('what editing makes of effects that refer to everything has not changed', () => {
  const seeds = Array.from({ length: PINNED_EDITINGS / EDITED }, (_, n) => n * EDITED);
  it.each(seeds)('for random effect %i', (seed) => {
    expect(editingPinOf(seed)).toEqual(pins[seed]);
  });
});
