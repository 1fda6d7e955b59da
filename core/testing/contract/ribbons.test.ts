import { describe, expect, it } from 'vitest';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import * as reading from '../../../docs/reading/ribbons.mjs';
import { ribbonVectors } from './ribbons.ts';

type Three = readonly number[];
const { jointsThrough, beamPoints, halfWidthAt } = reading as {
  jointsThrough(points: readonly Three[]): Three[];
  beamPoints(from: Three, to: Three, shape: object, key: number, seconds: number): Three[][];
  halfWidthAt(x: number, size: number, keys: readonly (readonly [width: number, slope: number])[]): number;
};

const { strand, sagging, striking } = ribbonVectors();
function expectNear(ours: readonly { at: Three }[], theirs: readonly Three[]) {
  expect(ours).toHaveLength(theirs.length);
  ours.forEach(({ at }, n) => at.forEach((x, axis) => expect(theirs[n]![axis]!).toBeCloseTo(x, 5)));
}

describe('another reading of ribbons', () => {
  it('strings particles together by the same curve, as wide along it', () => {
    const [joints] = strand.ribbons;
    expect(joints!.length).toBeGreaterThan(strand.particles.length);
    expectNear(joints!, jointsThrough(strand.particles.map(({ at }) => at)));
    for (const { halfWidth, along } of joints!)
      expect(halfWidth).toBeCloseTo(
        halfWidthAt(1 - along, strand.size, [
          [0.9, 1.3],
          [0.4, -1.3],
        ]),
        5,
      );
  });
  it('lets a beam sag', () => {
    const { key, seconds } = sagging.particles[0]!;
    const [points] = beamPoints(sagging.from, sagging.to, sagging, key, seconds);
    expectNear(sagging.ribbons[0]!, jointsThrough(points!));
  });
  it('lets a beam strike, branch and be on its way', () => {
    const { key, seconds } = striking.particles[0]!;
    const points = beamPoints(striking.from, striking.to, striking, key, seconds);
    expect(points.length).toBeGreaterThan(1);
    expect(striking.ribbons).toHaveLength(points.length);
    points.forEach((way, n) => expectNear(striking.ribbons[n]!, way));
  });
});
