import { firstHit, newEffect } from './make.ts';
import { expect, it } from 'vitest';

it('a first hit comes where there is time for it', () => {
  const { stretches } = newEffect('Test', 1);
  const at = (opening: number, holds: boolean) =>
    firstHit({
      stretches: { ...stretches, opening, hold: holds ? { kind: 'continuing', seconds: 2 } : { kind: 'none' } },
    });
  expect(at(0.8, true)).toMatchObject({ stretch: 'opening', at: 0.2 });
  expect(at(0, true)).toMatchObject({ stretch: 'hold', at: 0.2 });
  expect(at(0.1, false)).toMatchObject({ stretch: 'opening', at: 0.1 });
});
