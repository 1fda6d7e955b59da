import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  newForce,
  newLayer,
  newLink,
  newRibbon,
  setNumber,
  type Effect,
  type Layer,
} from '../../document/index.ts';
import { stormOnTube, TUBE } from '../../testing/effects.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { playAlone } from './world.ts';
import type { Inputs } from './inputs.ts';

const rigs = new Map([[TUBE, bendingTube()]]);
const made = (effect: Effect, skipsAhead: boolean, inputs: Inputs = {}) =>
  playAlone(effect, rigs, inputs, { kernels: kernelBytes(), skipsAhead, historyBytes: 0 });

/** What a run to a step comes to with and without skipping, and how many steps of layers each took. */
function both(effect: Effect, step: number, inputs: Inputs = {}) {
  const [skipped, whole] = [made(effect, true, inputs), made(effect, false, inputs)];
  skipped.advance(step);
  whole.advance(step);
  expect(whole.living).toBeGreaterThan(20);
  expect(skipped.hash()).toBe(whole.hash());
  // And they go on alike.
  skipped.advance(step + 60);
  whole.advance(step + 60);
  expect(skipped.hash()).toBe(whole.hash());
  return { skipped: skipped.stepsTaken, whole: whole.stepsTaken };
}

/** Motes on a moving tube that feel forces, born by time, by the metre and in bursts, and set off sparks that set off dust. */
function chain(): Effect {
  const effect = stormOnTube(5);
  const motes = effect.layers.byId['motes']!;
  setNumber(motes, 'births.rate', 100);
  setNumber(motes, 'births.perMetre', 3);
  setNumber(motes, 'births.life', [0.4, 0.9]);
  setNumber(motes, 'births.cap', 4000);
  motes.bursts = collectionOf([['b', { ...burst('hold', 0.3, 20), most: 40, times: 3, every: 0.2 }]]);
  motes.links = collectionOf([['l', newLink('death', 'sparks', 3)]]);
  motes.links.byId['l']!.settings.delay.base = { kind: 'spread', low: 0, high: 0.3 };
  motes.links.byId['l']!.settings.count.base = { kind: 'fixed', value: 2 };
  const [sparks, dust] = [newLayer('Sparks', 77), newLayer('Dust', 12)];
  setNumber(sparks, 'births.rate', 0);
  setNumber(sparks, 'births.life', [0.2, 0.5]);
  sparks.links = collectionOf([['l', newLink('birth', 'dust', 4)]]);
  for (const layer of [sparks, dust]) layer.forces = collectionOf([['curl', newForce('curl')]]);
  for (const layer of [sparks, dust]) setNumber(layer, 'births.cap', 30_000);
  setNumber(dust, 'births.rate', 0);
  setNumber(dust, 'births.life', 0.6);
  effect.stretches = { opening: 0.6, hold: { kind: 'continuing', seconds: 1 }, closing: 0.8, preRoll: 0 };
  effect.layers = collectionOf([
    ['motes', motes],
    ['sparks', sparks],
    ['dust', dust],
  ]);
  return effect;
}
const changed = (shape: (motes: Layer, effect: Effect) => unknown): Effect => {
  const effect = chain();
  shape(effect.layers.byId['motes']!, effect);
  return effect;
};

describe('a run that begins shortly before its end', () => {
  it.each<[string, Effect]>([
    ['births by time, by the metre and in bursts, and two links', chain()],
    ['a hold without a seam', changed((_, { stretches }) => (stretches.hold = { kind: 'seamless', seconds: 1.3 }))],
    ['a pre-roll', changed((_, { stretches }) => (stretches.preRoll = 3))],
    ['half of the births', changed((_, { quality }) => (quality.tiers.high.births = 50))],
    ['births that end', changed((motes) => setNumber(motes, 'births.rate', 200))],
  ])('is to the bit what a run from zero is, with %s, in far fewer steps', (_, effect) => {
    const { skipped, whole } = both(effect, 900);
    expect(skipped).toBeLessThan(whole / 3);
  });

  it('is so after it was let go, and with a signal from outside', () => {
    const effect = changed((motes, own) => {
      own.signals = collectionOf([['s', { name: 'Now', tried: null }]]);
      motes.bursts = collectionOf([['b', { ...burst('hold', 0.1, 30), signal: 's' }]]);
    });
    both(effect, 700, { letGoStep: 690, signals: [{ signal: 's', step: 675 }] });
  });

  it.each<[string, Effect]>([
    ['stands', changed((motes) => setNumber(motes, 'births.standing', 3))],
    ['has no room for all its births', changed((motes) => setNumber(motes, 'births.cap', 60))],
    ['lays ribbons', changed((motes) => (motes.drawn = newRibbon('trail')))],
  ])('begins at zero where something %s', (_, effect) => {
    const { skipped, whole } = both(effect, 600);
    expect(skipped).toBe(whole);
  });

  it('counts on where it was interrupted, and gives that up where it is no longer wanted', () => {
    const [effect, other] = [chain(), changed((motes) => setNumber(motes, 'births.rate', 150))];
    const world = made(effect, true);
    let calls = 0;
    world.advance(900, () => ++calls % 3 === 0);
    expect(world.step + 0).toBe(0);
    for (let slices = 0; slices < 200 && world.step < 900; slices++) world.advance(900, () => ++calls % 40 === 0);
    const whole = made(effect, false);
    whole.advance(900);
    expect(world.hash()).toBe(whole.hash());
    world.adopt(other);
    world.advance(900, () => true);
    world.adopt(effect);
    world.advance(300);
    whole.advance(300);
    expect(world.hash()).toBe(whole.hash());
  });

  it('is so whatever rates, lives and caps are', () => {
    fc.assert(
      fc.property(
        fc.record({
          rate: fc.integer({ min: 0, max: 500 }),
          life: fc.tuple(
            fc.double({ min: 0.05, max: 0.8, noNaN: true }),
            fc.double({ min: 0.8, max: 1.5, noNaN: true }),
          ),
          cap: fc.integer({ min: 20, max: 1200 }),
          step: fc.integer({ min: 200, max: 700 }),
          delay: fc.double({ min: 0, max: 0.5, noNaN: true }),
        }),
        ({ rate, life, cap, step, delay }) => {
          const effect = changed((motes) => {
            setNumber(motes, 'births.rate', rate);
            setNumber(motes, 'births.life', life as [number, number]);
            setNumber(motes, 'births.cap', cap);
            motes.links.byId['l']!.settings.delay.base = { kind: 'fixed', value: delay };
          });
          const [skipped, whole] = [made(effect, true), made(effect, false)];
          skipped.advance(step);
          whole.advance(step);
          expect(skipped.hash()).toBe(whole.hash());
        },
      ),
      { numRuns: 8 },
    );
  });

  const from = (skipsAhead: boolean) => playAlone(chain(), rigs, {}, { kernels: kernelBytes(), skipsAhead });
  it.each([860, 700])('is what a run from zero is when it goes back to step %i', (step) => {
    const [world, whole] = [from(true), from(false)];
    world.advance(900);
    world.advance(step);
    whole.advance(step);
    expect(world.hash()).toBe(whole.hash());
    for (const each of [world, whole]) each.advance(930);
    expect(world.hash()).toBe(whole.hash());
  });

  it('computes few steps again for each step that it goes back', () => {
    const world = from(true);
    world.advance(900);
    world.advance(899);
    const taken = world.stepsTaken;
    for (let step = 898; step > 888; step--) world.advance(step);
    // Three layers, and at most fifteen steps from one kept state to the next.
    expect(world.stepsTaken - taken).toBeLessThan(3 * 15 * 10);
  });

  it.each([820])('is what a run from zero is when it is wanted at step %i on its way to a later one', (step) => {
    for (const slices of [2, 60]) {
      const [world, whole] = [from(true), from(false)];
      let asked = 0;
      world.advance(900, () => ++asked > slices);
      world.advance(step);
      whole.advance(step);
      expect(world.hash()).toBe(whole.hash());
    }
  });
});
