import { describe, expect, it } from 'vitest';
import { curveShaper, newForce, setNumber } from '../../../document/index.ts';
import { under, vectorsOf, withNumber } from '../../../testing/storms.ts';

describe('a displacement over age', () => {
  const rise = curveShaper([
    [0, 0],
    [1, 1],
  ]);
  const shortLived = (effect: Parameters<NonNullable<Parameters<typeof under>[1]>>[0]) =>
    setNumber(effect.layers.byId['motes']!, 'births.life', 2);
  it('moves particles by as much as its curve has changed', () => {
    const world = under([withNumber(newForce('displacement'), 'z', 3, rise)], shortLived);
    world.advance(1);
    const before = vectorsOf(world, 'position');
    world.advance(61);
    vectorsOf(world, 'position').forEach((p, i) => expect(p[2] - before[i]![2]).toBeCloseTo(1.5, 3));
  });
});
