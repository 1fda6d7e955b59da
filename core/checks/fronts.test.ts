import { describe, expect, it } from 'vitest';
import { structuredCopy } from '../document/index.ts';
import { climbed } from '../testing/effects.ts';
import { bendingTube } from '../testing/rigs.ts';
import { findings } from './index.ts';

const rigs = new Map([['figure', bendingTube()]]);
const quiet = { refused: {}, isBudgetFull: false };
const neverFreed = (effect: ReturnType<typeof climbed>) =>
  findings(effect, rigs, quiet).filter(({ sentence }) => /never freed/.test(sentence));

describe('a front that leaves some behind', () => {
  it('is found, and mended by letting the border go further', () => {
    const effect = climbed(0.6);
    const [found] = neverFreed(effect);
    expect(found!.sentence).toMatch(/^\d+% of motes is never freed: Border does not reach that far/);
    const mended = structuredCopy(effect);
    found!.mend!.apply(mended);
    expect(neverFreed(mended)).toEqual([]);
  });

  it('is not found where the border reaches all', () => expect(neverFreed(climbed(1.2))).toEqual([]));
});
