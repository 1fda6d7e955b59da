import { describe, expect, it } from 'vitest';
import { atEffect, newLayer, setNumber, type Layer, type Vector } from '../../document/index.ts';
import { rotate, type Quaternion } from '../../maths/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { newFrame } from '../frames/frame.ts';
import { orientationOf, ownFrames } from './orientation.ts';
import { playAlone } from '../world/world.ts';

const framesOf = (shape: (layer: Layer) => void) => {
  const layer = newLayer('Shards', 1);
  shape(layer);
  return ownFrames(layer);
};
const tilted = (low: Vector, high: Vector = low) =>
  framesOf((layer) => (layer.settings['life.tilt'].base = { kind: 'spread', low, high }));
const near = (found: readonly number[], wanted: readonly number[]) =>
  wanted.forEach((value, axis) => expect(found[axis]).toBeCloseTo(value, 6));

describe('sprites in frames of their own', () => {
  it('stand upright and face along Z by themselves', () =>
    near(
      rotate(
        orientationOf(
          framesOf(() => {}),
          5,
          0,
        ),
        [0, 0, 1],
      ),
      [0, 0, 1],
    ));

  it('are tilted round X, then Y, then Z', () => {
    near(rotate(orientationOf(tilted([90, 0, 0]), 5, 0), [0, 0, 1]), [0, -1, 0]);
    near(rotate(orientationOf(tilted([90, 0, 90]), 5, 0), [0, 0, 1]), [1, 0, 0]);
  });

  it('turn about their axle by the angle of their record, whatever their tilt', () => {
    const frames = framesOf((layer) => {
      layer.settings['life.tilt'].base = { kind: 'fixed', value: [0, 90, 0] };
      layer.settings['life.axle'].base = { kind: 'fixed', value: [0, 1, 0] };
    });
    // Facing X by its tilt, a quarter turn about up takes it to face backward.
    near(rotate(orientationOf(frames, 5, Math.PI / 2), [0, 0, 1]), [0, 0, -1]);
  });

  it('are turned as what they stand on is, before they turn about their axle', () => {
    const quarter: Quaternion = [0, Math.SQRT1_2, 0, Math.SQRT1_2];
    near(
      rotate(
        orientationOf(
          framesOf(() => {}),
          5,
          0,
          quarter,
        ),
        [0, 0, 1],
      ),
      [1, 0, 0],
    );
    const tilted90 = tilted([90, 0, 0]);
    near(rotate(orientationOf(tilted90, 5, 0, quarter), [0, 1, 0]), [1, 0, 0]);
    near(
      rotate(
        orientationOf(
          framesOf(() => {}),
          5,
          Math.PI / 2,
          quarter,
        ),
        [0, 0, 1],
      ),
      [0, 1, 0],
    );
  });

  it.each([
    ['of a source that never moves', 0, [0, 90, 0] as Vector, true],
    ['that ride along with one that does', 100, [0, 0, 0] as Vector, true],
    ['that leave one that does', 0, [0, 0, 0] as Vector, false],
  ])('%s are told to the stage as turned, or not', (_, ride, turn, isTurned) => {
    const effect = effectOf((layer, own) => {
      setNumber(layer, 'births.standing', 1);
      setNumber(layer, 'motion.ride', ride);
      layer.source = { kind: 'point', place: atEffect([0, 1, 0], turn) };
      if (turn[1] === 0) own.stage.carrier = { kind: 'circle', radius: 2, speed: 3 } as never;
    });
    const world = playAlone(effect, new Map());
    world.advance(30);
    const frame = newFrame(world);
    world.writeFrame(frame);
    const { turns } = frame.layers()[0]!;
    const [, y, , w] = frame.f32.subarray(turns + 4, turns + 8);
    expect(Math.hypot(y!, w!)).toBeCloseTo(1, 5);
    expect(Math.abs(y!) > 0.1).toBe(isTurned);
  });

  it('are each tilted otherwise where the tilt is a spread, and the same one always alike', () => {
    const frames = tilted([-30, 0, 0], [30, 0, 0]);
    const leans = [1, 2, 3, 4, 5, 6, 7, 8].map((lot) => rotate(orientationOf(frames, lot * 77777, 0), [0, 1, 0])[2]);
    expect(new Set(leans).size).toBe(8);
    for (const lean of leans) expect(Math.abs(lean!)).toBeLessThanOrEqual(0.5 + 1e-9);
    expect(orientationOf(frames, 77777, 0)).toEqual(orientationOf(frames, 77777, 0));
  });
});
