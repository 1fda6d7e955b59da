import { describe, expect, it } from 'vitest';
import { listed, structuredCopy } from '../document/index.ts';
import { playAlone } from '../simulation/index.ts';
import { kernelBytes } from '../testing/kernelBytes.ts';
import { randomRigs } from '../testing/randomEffect.ts';
import { randomReferences } from '../testing/randomReferences.ts';
import { wholeOf } from './index.ts';

describe('a dial that is turned in a world', () => {
  it.each([0, 7, 14, 21, 28, 35])(
    'reaches all that it changes: the bits are those of a run from zero (effect %i)',
    (seed) => {
      const [rigs, kernels] = [randomRigs(), kernelBytes()];
      const before = wholeOf(randomReferences(seed)).effect;
      for (const { id, item } of listed(before.dials)) {
        if (item.kind !== 'number' && item.kind !== 'switch') continue;
        const after = structuredCopy(before);
        const value = item.kind === 'switch' ? !item.value : item.value === item.least ? item.most : item.least;
        Object.assign(after.dials.byId[id]!, { value });
        const world = playAlone(before, rigs, {}, { kernels });
        world.advance(40);
        if (!world.adopt(after)) continue;
        world.advance(40);
        const fresh = playAlone(after, rigs, {}, { kernels });
        fresh.advance(40);
        expect(world.hash()).toBe(fresh.hash());
      }
    },
  );
});
