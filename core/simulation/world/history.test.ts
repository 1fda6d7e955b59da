import { describe, expect, it } from 'vitest';
import {
  atEffect,
  burst,
  collectionOf,
  inWorld,
  newForce,
  newFront,
  newLayer,
  newLink,
  newSurface,
  setNumber,
  structuredCopy,
  type Effect,
  type Source,
} from '../../document/index.ts';
import { stormOnTube, TUBE } from '../../testing/effects.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { newFrame } from '../frames/frame.ts';
import { playAlone, type PlayOptions } from './world.ts';
import type { Inputs } from './inputs.ts';

const rigs = new Map([[TUBE, bendingTube()]]);

/** A storm of three layers: motes on skin that hit a sphere and set off sparks, and dust that has nothing to do with them. */
function threeLayers(): Effect {
  const effect = stormOnTube(5);
  const motes = effect.layers.byId['motes']!;
  setNumber(motes, 'births.rate', 300);
  setNumber(motes, 'births.cap', 2000);
  motes.links = collectionOf([['l', newLink('hit', 'sparks', 3)]]);
  motes.links.byId['l']!.settings.delay.base = { kind: 'spread', low: 0, high: 0.4 };
  const [sparks, dust] = [newLayer('Sparks', 77), newLayer('Dust', 12)];
  setNumber(sparks, 'births.rate', 0);
  setNumber(sparks, 'births.cap', 3000);
  for (const layer of [sparks, dust]) layer.forces = collectionOf([['curl', newForce('curl')]]);
  setNumber(dust, 'births.perMetre', 4);
  dust.bursts = collectionOf([['b', burst('hold', 0.2, 40)]]);
  effect.stretches = { opening: 0.6, hold: { kind: 'continuing', seconds: 1 }, closing: 0.8, preRoll: 0 };
  effect.surfaces = collectionOf([['ball', newSurface('sphere', { place: inWorld([0, 1, 0]) })]]);
  effect.layers = collectionOf([
    ['motes', motes],
    ['sparks', sparks],
    ['dust', dust],
  ]);
  return effect;
}

const made = (effect: Effect, inputs: Inputs = {}, options: PlayOptions = {}) =>
  playAlone(effect, rigs, inputs, { kernels: kernelBytes(), ...options });
/** The hash of a run from zero to a step. */
function fromZero(effect: Effect, step: number, inputs: Inputs = {}): string {
  const world = made(effect, inputs, { historyBytes: 0 });
  world.advance(step);
  expect(world.living).toBeGreaterThan(30);
  return world.hash()!;
}

describe('going to any step', () => {
  it('gives the bits of a run from zero, back and forth', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(150);
    for (const step of [149, 31, 90, 30, 140, 7, 61]) {
      world.advance(step);
      expect(world.step).toBe(step);
      expect(world.hash()).toBe(fromZero(effect, step));
    }
  });

  it('computes but a few steps again', () => {
    const world = made(threeLayers());
    world.advance(150);
    const before = world.stepsTaken;
    world.advance(74);
    expect(world.stepsTaken - before).toBe(14 * 3);
    world.advance(134);
    expect(world.stepsTaken - before).toBe(14 * 3 + 14 * 3);
  });

  it('keeps to the memory it is given, and is as true then', () => {
    const effect = threeLayers();
    const world = made(effect, {}, { historyBytes: 2 * 1048576 });
    world.advance(150);
    expect(world.historyBytes).toBeLessThanOrEqual(2 * 1048576);
    expect(world.historyBytes).toBeGreaterThan(100_000);
    world.advance(100);
    expect(world.hash()).toBe(fromZero(effect, 100));
  });

  it('gives the same bits when it is cut short and goes on', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(120);
    let asked = 0;
    world.advance(80, () => asked++ >= 2);
    expect(world.step).toBeLessThan(80);
    world.advance(80);
    expect(world.hash()).toBe(fromZero(effect, 80));
  });
});

describe('an edit', () => {
  it('of dress computes nothing again, and gives what a run from zero gives', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(100);
    const before = world.stepsTaken;
    const draft = structuredCopy(effect);
    setNumber(draft.layers.byId['motes']!, 'life.size', 0.4);
    draft.layers.byId['dust']!.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ff0000' } };
    expect(world.adopt(draft)).toBe(true);
    world.advance(100);
    expect(world.stepsTaken).toBe(before);
    expect(world.isExact).toBe(true);
    expect(world.hash()).toBe(fromZero(draft, 100));
    expect(world.hash()).not.toBe(fromZero(effect, 100));
  });

  it('of one layer computes that layer alone again; its undo brings back the bits', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(100);
    const first = world.hash();
    const before = world.stepsTaken;
    const draft = structuredCopy(effect);
    setNumber(draft.layers.byId['dust']!, 'motion.speed', 2);
    expect(world.adopt(draft)).toBe(true);
    world.advance(100);
    expect(world.stepsTaken - before).toBe(100);
    expect(world.hash()).toBe(fromZero(draft, 100));
    world.adopt(effect);
    world.advance(100);
    expect(world.hash()).toBe(first);
  });

  it('of where a layer is born, or of what it is born on, computes that layer alone again', () => {
    const sources: Source[] = [
      { kind: 'ring', place: atEffect([0.5, 1, 0]) },
      { kind: 'mesh', thing: 'figure', bones: [] },
    ];
    for (const source of sources) {
      const effect = threeLayers();
      const world = made(effect);
      world.advance(60);
      const before = world.stepsTaken;
      const draft = structuredCopy(effect);
      draft.layers.byId['dust']!.source = source;
      expect(world.adopt(draft)).toBe(true);
      world.advance(60);
      expect(world.stepsTaken - before).toBe(60);
      expect(world.hash()).toBe(fromZero(draft, 60));
    }
  });

  it('of one layer computes whoever hangs together with it', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(100);
    const before = world.stepsTaken;
    const draft = structuredCopy(effect);
    setNumber(draft.layers.byId['sparks']!, 'motion.speed', 2);
    world.adopt(draft);
    world.advance(100);
    expect(world.stepsTaken - before).toBe(200);
    expect(world.hash()).toBe(fromZero(draft, 100));
  });

  it('computes all again where the budget may bind layers together', () => {
    const effect = threeLayers();
    const world = made(effect, {}, { budget: 900 });
    world.advance(100);
    const before = world.stepsTaken;
    const draft = structuredCopy(effect);
    setNumber(draft.layers.byId['dust']!, 'motion.speed', 2);
    world.adopt(draft);
    world.advance(100);
    expect(world.stepsTaken - before).toBe(300);
    const straight = made(draft, {}, { budget: 900 });
    straight.advance(100);
    expect(world.hash()).toBe(straight.hash());
  });

  it('while playing goes on from where it is, and is swapped for an exact run behind it', () => {
    const effect = threeLayers();
    const playing = made(effect);
    playing.advance(80);
    const draft = structuredCopy(effect);
    setNumber(draft.layers.byId['sparks']!, 'births.life', 3);
    expect(playing.adopt(draft, true)).toBe(true);
    playing.advance(100);
    expect(playing.isExact).toBe(false);
    expect(playing.hash()).toBeNull();
    expect([...playing.inexact].sort()).toEqual(['motes', 'sparks']);
    const behind = made(draft, {}, { only: playing.inexact });
    behind.advance(100);
    playing.takeLayers(behind, playing.inexact);
    expect(playing.isExact).toBe(true);
    expect(playing.hash()).toBe(fromZero(draft, 100));
    playing.advance(44);
    expect(playing.hash()).toBe(fromZero(draft, 44));
  });

  it('that needs a new world leaves alone what it does not reach', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(100);
    const draft = structuredCopy(effect);
    setNumber(draft.layers.byId['dust']!, 'births.cap', 77);
    draft.fronts = collectionOf([['f', newFront('Rim', 'sphere', atEffect([0, 1, 0]))]]);
    draft.layers.byId['dust']!.links = collectionOf([['l', newLink('death', draft.layers.order[0]!, 9)]]);
    const before = newFrame(world);
    world.writeFrame(before);
    expect(world.adopt(draft)).toBe(false);
    const after = newFrame(world);
    world.writeFrame(after);
    expect(after.u32).toEqual(before.u32);
    world.advance(120);
    expect(world.hash()).toBe(fromZero(effect, 120));
    world.advance(100);
    draft.fronts = effect.fronts;
    draft.layers.byId['dust']!.links = effect.layers.byId['dust']!.links;
    const next = made(draft);
    next.inherit(world);
    next.advance(100);
    expect(next.stepsTaken).toBe(100);
    expect(next.hash()).toBe(fromZero(draft, 100));
    next.advance(50);
    expect(next.hash()).toBe(fromZero(draft, 50));
  });
});

describe('letting go', () => {
  it('at any step gives what a run from zero gives, and so does taking it back', () => {
    const effect = threeLayers();
    const world = made(effect);
    world.advance(150);
    world.advance(90);
    world.letGo();
    expect(world.step).toBe(90);
    world.advance(130);
    expect(world.hash()).toBe(fromZero(effect, 130, { letGoStep: 90 }));
    world.setLetGo(undefined);
    world.advance(130);
    expect(world.hash()).toBe(fromZero(effect, 130));
  });
});
