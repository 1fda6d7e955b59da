import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  curveShaper,
  inWorld,
  newEffect,
  newLayer,
  setNumber,
  type Effect,
  type Layer,
} from '../../document/index.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { newFrame, RECORD_AGE, RECORD_ANGLE, RECORD_TURNED } from '../frames/frame.ts';
import { playAlone } from '../world/world.ts';

/** Twelve leaves with lifetimes of one to three seconds, all born at once. */
function leaves(shape: (layer: Layer, effect: Effect) => void): Effect {
  const effect = newEffect('Test', 5);
  effect.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 2 }, closing: 1, preRoll: 0 };
  const layer = newLayer('Leaves', 3);
  layer.source = { kind: 'point', place: inWorld([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', [1, 3]);
  layer.bursts = collectionOf([['b', burst('opening', 0, 12)]]);
  effect.layers = collectionOf([['leaves', layer]]);
  shape(layer, effect);
  return effect;
}
/** Age, and degrees turned in all and in the last step, of each at a step. */
function turns(effect: Effect, step: number, withKernels = true): { age: number; angle: number; turned: number }[] {
  const world = playAlone(effect, new Map(), {}, withKernels ? { kernels: kernelBytes() } : {});
  world.advance(step);
  const frame = newFrame(world);
  world.writeFrame(frame);
  const degrees = (radians: number) => (radians * 180) / Math.PI;
  return Array.from({ length: frame.particles }, (_, n) => {
    const at = frame.recordAt(n);
    const [age, angle, turned] = [RECORD_AGE, RECORD_ANGLE, RECORD_TURNED].map((word) => frame.f32[at + word]!);
    return { age: age!, angle: degrees(angle!), turned: degrees(turned!) };
  });
}
const inLives = (layer: Layer) => (layer.settings['life.turns'].base.value = 'turns a life');

describe('turning', () => {
  it('in degrees a second is the same for all, however long they live', () => {
    const effect = leaves((layer) => setNumber(layer, 'life.turning', -90));
    for (const { angle, turned } of turns(effect, 30)) {
      expect(angle).toBeCloseTo(-45, 3);
      expect(turned).toBeCloseTo(-1.5, 4);
    }
  });

  it('in turns a life has each come as far as its age, by kernel and by twin alike', () => {
    const effect = leaves((layer) => {
      setNumber(layer, 'life.turning', 2);
      inLives(layer);
    });
    const seen = turns(effect, 45);
    for (const { age, angle } of seen) expect(angle).toBeCloseTo(720 * age, 2);
    expect(Math.max(...seen.map(({ age }) => age)) - Math.min(...seen.map(({ age }) => age))).toBeGreaterThan(0.2);
    expect(turns(effect, 45, false)).toEqual(seen);
  });

  it('in turns a life may be shaped over age: faster first, and as many turns in the end', () => {
    const effect = leaves((layer) => {
      setNumber(layer, 'life.turning', 1);
      inLives(layer);
      // Twice as fast at birth, still at death: a whole turn in sum.
      layer.settings['life.turning'].shapers = collectionOf([
        [
          's',
          curveShaper([
            [0, 2],
            [1, 0],
          ]),
        ],
      ]);
    });
    const straight = turns(effect, 59);
    for (const { age, angle } of straight)
      if (age > 0.99) expect(angle).toBeGreaterThan(355);
      else expect(angle).toBeGreaterThan(360 * age);
  });

  it('begins at an angle of its own, and may go either way', () => {
    const effect = leaves((layer) => {
      setNumber(layer, 'life.angle', [0, 90]);
      setNumber(layer, 'life.turning', [-1, 1]);
      inLives(layer);
    });
    const at = turns(effect, 1);
    expect(new Set(at.map(({ angle }) => Math.floor(angle / 10))).size).toBeGreaterThan(4);
    const later = turns(effect, 50);
    expect(later.some(({ turned }) => turned > 0.2) && later.some(({ turned }) => turned < -0.2)).toBe(true);
  });

  it('of what stands counts the effect as its life, and goes on while it is held', () => {
    const effect = leaves((layer) => {
      layer.bursts = collectionOf([]);
      setNumber(layer, 'births.standing', 1);
      setNumber(layer, 'life.turning', 4);
      inLives(layer);
    });
    // Four seconds along the sheet, four turns: one a second; the hold lasts as long as it lasts.
    expect(turns(effect, 60)[0]!.angle).toBeCloseTo(360, 1);
    expect(turns(effect, 600)[0]!.angle).toBeCloseTo(3600, 0);
  });
});
