import { collectionOf, newEffect } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import type { Triple } from '../api.ts';
import { Sight } from './sight.ts';

const effect = newEffect('Seen', 1);
effect.quality.bounds = { low: [-1, 0, -1], high: [1, 2, 1] };
effect.quality.distances = collectionOf([
  ['a', { beyond: 20, tier: 'low' }],
  ['b', { beyond: 50, tier: 'none' }],
]);
const at = (x: number, y: number, z: number, turn: Triple = [0, 0, 0]) => ({ at: [x, y, z] as Triple, turn });
function from(position: Triple, target: Triple, follows = false): Sight {
  const sight = new Sight();
  sight.aspect = 16 / 9;
  sight.look({ position, target, fieldOfView: 40, follows });
  return sight;
}

describe('an effect that is far away', () => {
  it('goes to a lower tier, and comes back from it a little nearer', () => {
    const tier = (metres: number, before: 'high' | 'low' | 'none') =>
      from([0, 1, metres], [0, 1, 0]).tierOf(effect, at(0, 0, 0), before);
    expect([tier(19, 'high'), tier(21, 'high'), tier(60, 'low')]).toEqual(['high', 'low', 'none']);
    expect([tier(19.5, 'low'), tier(17, 'low')]).toEqual(['low', 'high']);
  });
});

describe('an effect that the camera does not look at', () => {
  const looks = from([0, 1, 10], [0, 1, 0]);
  it.each([
    ['ahead', at(0, 0, 0), true],
    ['behind', at(0, 0, 20), false],
    ['far to the left', at(-12, 0, 0), false],
    ['partly at the left border', at(-7, 0, 0), true],
    ['far above', at(0, 9, 0), false],
    ['turned away, with its middle elsewhere', at(-9, 0, 0, [0, 0, -90]), true],
  ] as const)('%s: %s', (_, stand, isSeen) => expect(looks.hasInView(effect, stand)).toBe(isSeen));

  it('is drawn all the same where its bounds are not known, or the camera goes along with a figure', () => {
    expect(from([0, 1, 10], [0, 1, 0], true).hasInView(effect, at(0, 0, 20))).toBe(true);
    expect(looks.hasInView(newEffect('Unmeasured', 2), at(0, 0, 20))).toBe(true);
  });
});
