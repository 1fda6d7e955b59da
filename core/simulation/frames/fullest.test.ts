import { describe, expect, it } from 'vitest';
import {
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newEffect,
  newLayer,
  setNumber,
  type Effect,
} from '../../document/index.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { newFrame, RECORD_FROM, RECORD_OPACITY, RECORD_TO, Frame } from './frame.ts';
import { Fullest } from './fullest.ts';
import { playAlone } from '../world/world.ts';

/** Sparks that are all dead after half a second, and dust that is born late; both fly apart. */
function twoLayers(): Effect {
  const effect = newEffect('Test', 3);
  effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  const layer = (salt: number, at: number, count: number) => {
    const made = newLayer(`Layer ${salt}`, salt);
    made.source = { kind: 'point', place: inWorld([salt, 0, 0]) };
    made.bursts = collectionOf([['b', burst('opening', at, count)]]);
    setNumber(made, 'births.rate', 0);
    setNumber(made, 'births.life', 0.4);
    setNumber(made, 'motion.speed', 1);
    return made;
  };
  effect.layers = collectionOf([
    ['sparks', layer(5, 0, 40)],
    ['dust', layer(9, 1, 25)],
  ]);
  return effect;
}

function played(to: number, effect = twoLayers()) {
  const world = playAlone(effect, new Map(), {}, { kernels: kernelBytes() });
  const fullest = new Fullest();
  const frame = newFrame(world);
  for (let step = 1; step <= to; step++) {
    world.advance(step);
    world.writeFrame(frame);
    fullest.note(frame, (salt) => world.standOf(salt));
  }
  return { frame, fullest, standOf: (salt: number) => world.standOf(salt) };
}

describe('layers at their fullest, while another is dragged', () => {
  it('stand where they stood when most of them was seen, though they are long dead', () => {
    const { frame, fullest, standOf } = played(65);
    expect([frame.layer(5)!.count, frame.layer(9)!.count]).toEqual([0, 25]);
    const dust = frame.drawn(0, 1);
    fullest.put(frame, new Set([9]), standOf);
    // Newborn they were as many, but not to be seen yet.
    expect(frame.f32[frame.recordAt(frame.layer(5)!.start) + RECORD_OPACITY]).toBeGreaterThan(0.9);
    expect([frame.layer(5)!.count, frame.layer(9)!.count]).toEqual([40, 25]);
    expect(frame.particles).toBe(65);
    expect(frame.drawn(frame.layer(9)!.start, 1)).toEqual(dust);
    for (let i = 0; i < 40; i++)
      expect(Math.abs(frame.drawn(frame.layer(5)!.start + i, 1)![0] - 5)).toBeLessThan(0.5);
  });

  it('do not move between steps', () => {
    const { frame, fullest, standOf } = played(65);
    fullest.put(frame, new Set(), standOf);
    const at = frame.recordAt(frame.layer(5)!.start);
    expect([...frame.f32.subarray(at + RECORD_FROM, at + 3)]).toEqual([
      ...frame.f32.subarray(at + RECORD_TO, at + 7),
    ]);
    expect(frame.drawn(frame.layer(5)!.start, 0)).not.toBeNull();
  });

  it('are as they are where nothing fuller was seen, or an edit has reached them since', () => {
    const { frame, fullest, standOf } = played(65);
    fullest.forget([5]);
    fullest.put(frame, new Set(), standOf);
    expect([frame.layer(5)!.count, frame.layer(9)!.count]).toEqual([0, 25]);
  });

  it('go along with what they stand on: beside a figure that has walked on, not where it was', () => {
    const effect = twoLayers();
    effect.stage.carrier = { kind: 'circle', radius: 2, speed: 2 };
    const { layers } = effect;
    for (const id of layers.order) layers.byId[id]!.source = { kind: 'point', place: atEffect([0, 0.5, 0]) };
    for (const id of layers.order) setNumber(layers.byId[id]!, 'motion.ride', 100);
    const { frame, fullest, standOf } = played(65, effect);
    fullest.put(frame, new Set([9]), standOf);
    const stand = standOf(5);
    for (let i = 0; i < 40; i++) {
      const place = frame.drawn(frame.layer(5)!.start + i, 1)!;
      expect(Math.hypot(place[0] - stand[4]!, place[2] - stand[6]!)).toBeLessThan(0.5);
    }
  });

  it('never outgrow the frame', () => {
    const { frame, fullest, standOf } = played(65);
    // Just as much room as what it shows takes.
    const small = new Frame(frame.u32.slice(0, frame.jointAt(frame.jointCount)).buffer);
    fullest.put(small, new Set(), standOf);
    expect(small.particles).toBe(frame.particles);
    expect(small.u32).toEqual(frame.u32.subarray(0, small.u32.length));
  });
});
