import { describe, expect, it } from 'vitest';
import { newFrame, NO_LAYER, NO_SIZES, type FrameLayer } from '@jinx/core/simulation';
import { keyOf, mergeAlike } from './alike.ts';

const MERGED = { readsClock: false, isApart: false };

/** A frame of layers with eight shared numbers each, in the order of their records. */
function frameOf(layers: readonly Partial<FrameLayer>[], numbers: readonly number[]) {
  const sizes = { ...NO_SIZES, layers: layers.length, shared: layers.length * 8 };
  const frame = newFrame({ frameSizes: sizes });
  frame.layOut(sizes);
  let [start, own, joint] = [0, frame.own, 0];
  const found = layers.map((layer, n): FrameLayer => {
    const shared = frame.shared + n * 8;
    frame.f32.fill(numbers[n]!, shared, shared + 8);
    const made = { ...NO_LAYER, ownWords: 4, count: 10, jointCount: 3, sharedCount: 8, ...layer };
    const placed = { ...made, start, own, jointStart: joint, shared, turns: frame.layerAt(n) };
    [start, own, joint] = [start + made.count, own + made.count * made.ownWords, joint + made.jointCount];
    return placed;
  });
  return { frame, found };
}
const runsOf = (
  layers: readonly Partial<FrameLayer>[],
  numbers: readonly number[],
  key = keyOf(7),
  drawn = MERGED,
): number[] => {
  const { frame, found } = frameOf(layers, numbers);
  const out: FrameLayer[] = [];
  mergeAlike(frame, found, key, drawn, out);
  return out.map(({ count }) => count);
};

describe('instances of a layer', () => {
  const three = [{ salt: 7 }, { salt: 7, instance: 1 }, { salt: 7, instance: 2, step: 9 }];
  it('are one draw call where all their numbers are the same', () => {
    expect(runsOf(three, [1, 1, 1])).toEqual([30]);
  });

  it('are drawn apart where one has other numbers, another plan, or another clock that the look reads', () => {
    expect(runsOf(three, [1, 1, 2])).toEqual([20, 10]);
    expect(runsOf([three[0]!, { ...three[1], plan: 5 }], [1, 1])).toEqual([10, 10]);
    expect(runsOf(three, [1, 1, 1], keyOf(7), { ...MERGED, readsClock: true })).toEqual([20, 10]);
    expect(runsOf(three, [1, 1, 1], keyOf(7), { ...MERGED, isApart: true })).toEqual([10, 10, 10]);
  });

  it('are told from layers of other documents that have the same salt', () => {
    const both = [{ salt: 7 }, { salt: 7, looks: 1 }];
    expect(runsOf(both, [1, 1])).toEqual([10]);
    expect(runsOf(both, [1, 1], keyOf(7, 1))).toEqual([10]);
    expect(runsOf(both, [1, 1], keyOf(8))).toEqual([]);
  });
});
