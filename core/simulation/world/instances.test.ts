import { describe, expect, it } from 'vitest';
import { atEffect, burst, collectionOf, newEffect, newLayer, setNumber, type Effect } from '../../document/index.ts';
import { Dice } from '../../testing/dice.ts';
import { effectOf } from '../../testing/effects.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { randomEffect, randomRigs } from '../../testing/randomEffect.ts';
import { newFrame, RECORD_WORDS, type Frame } from '../frames/frame.ts';
import { roomFor } from './memory.ts';
import type { Instance } from './instance.ts';
import { needsFor, playAlone, World, worldFor } from './world.ts';

const rigs = randomRigs();
const kernels = kernelBytes();
const SEEDS = 24;
/** Steps that an instance is in company at most. */
const LASTS = 40;

/** The hash of a random effect alone, at a step of its own. */
function alone(seed: number, step: number): string | null {
  const { effect, inputs } = randomEffect(seed);
  const world = playAlone(effect, rigs, inputs, { kernels });
  world.advance(step);
  return world.hash();
}

describe('instances of a world', () => {
  it.each([1, 2])('have the bits they have alone, whoever comes and goes beside them (order %i)', (order) => {
    const dice = new Dice(order * 977);
    const needs = Array.from({ length: SEEDS }, (_, seed) => needsFor(randomEffect(seed).effect, rigs));
    const largest = [...needs].sort((a, b) => a.largest - b.largest).slice(-4);
    const world = new World(roomFor([...largest, ...needs.slice(0, 6)]), { kernels });
    const { memory } = world;
    const playing: { instance: Instance; seed: number; leaves: number }[] = [];
    let checked = 0;
    for (let step = 0; checked < 9; step += 4) {
      if (playing.length < 5) {
        const seed = Math.floor(dice.number(0, SEEDS));
        const { effect, inputs } = randomEffect(seed);
        const instance = world.add(effect, rigs, inputs);
        playing.push({ instance, seed, leaves: step + 4 * Math.ceil(dice.number(2, LASTS / 4)) });
      }
      world.advance(step);
      for (const one of playing.filter(({ leaves }) => leaves <= step)) {
        expect(one.instance.hash()).toBe(alone(one.seed, step - one.instance.start));
        world.remove(one.instance);
        playing.splice(playing.indexOf(one), 1);
        checked++;
      }
    }
    expect(world.memory).toBe(memory);
  });

  it('go back and forth together, and each begins at a step of its own', () => {
    const [a, b] = [randomEffect(4), randomEffect(9)];
    const world = worldFor([needsFor(a.effect, rigs), needsFor(b.effect, rigs)], { kernels });
    const first = world.add(a.effect, rigs, a.inputs);
    world.advance(20);
    const second = world.add(b.effect, rigs, b.inputs);
    world.advance(60);
    world.advance(32);
    expect([first.step, second.step]).toEqual([32, 12]);
    expect([first.hash(), second.hash()]).toEqual([alone(4, 32), alone(9, 12)]);
  });

  it('are refused whole, with a sentence, where there is not room, and taken once something has left', () => {
    const effect = effectOf((layer, whole) => {
      whole.name = 'Lantern';
      setNumber(layer, 'births.cap', 20_000);
    });
    const world = worldFor([needsFor(effect, rigs)], { kernels });
    const one = world.add(effect, rigs);
    world.advance(10);
    const before = one.hash();
    expect(() => world.add(effect, rigs)).toThrow(
      /There is not room for "Lantern" beside what is there: up to 20,000 particles in 1 layers take \d+\.\d MB/,
    );
    expect([world.instances.length, one.hash()]).toEqual([1, before]);
    world.remove(one);
    const other = world.add(effect, rigs);
    world.advance(20);
    expect([other.step, other.hash()]).toEqual([10, before]);
  });

  it('each have a budget of their own', () => {
    const crowded = effectOf((layer) => {
      setNumber(layer, 'births.rate', 0);
      layer.bursts = collectionOf([['b', burst('opening', 0, 400)]]);
    });
    const options = { budget: 300 };
    const world = worldFor([needsFor(crowded, rigs, options), needsFor(crowded, rigs, options)], { kernels });
    const both = [world.add(crowded, rigs, {}, options), world.add(crowded, rigs, {}, options)];
    world.advance(5);
    expect(both.map((one) => [one.living, one.counts()[0]!.refused])).toEqual([
      [300, 100],
      [300, 100],
    ]);
  });

  it('have a seed, a carrier, dials and a place of their own', () => {
    const effect = effectOf((layer, whole) => {
      layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
      whole.dials = collectionOf([['many', { kind: 'number', name: 'Many', least: 0, most: 10, value: 0 }]]);
      setNumber(layer, 'motion.speed', 0);
    });
    const given = { at: [3, 0, 0] as [number, number, number], turn: [0, 90, 0] as [number, number, number] };
    const needs = Array.from({ length: 3 }, () => needsFor(effect, rigs));
    const world = worldFor(needs, { kernels });
    const plain = world.add(effect, rigs);
    const placed = world.add(effect, rigs, {}, { ...given, seed: 99 });
    const carried = world.add(effect, rigs, {}, { carrier: { kind: 'circle', radius: 2, speed: 1 } });
    world.advance(30);
    const first = (one: Instance) => one.population('motes')!.position.map((axis) => axis[0]!);
    expect(first(plain)).toEqual([0, 1, 0]);
    expect(first(placed)).toEqual([3, 1, 0]);
    expect(Math.hypot(first(carried)[0]!, first(carried)[2]!)).toBeCloseTo(2, 1);
    expect(placed.population('motes')!.key[0]).not.toBe(plain.population('motes')!.key[0]);
  });
});

describe('a frame of many instances', () => {
  const two = (): Effect => {
    const effect = newEffect('Two', 1);
    effect.layers = collectionOf([1, 2].map((n) => [`l${n}`, newLayer(`Layer ${n}`, n * 10)]));
    return effect;
  };
  /** The records of a layer of an instance. */
  const recordsOf = (frame: Frame, salt: number, instance: number): Uint32Array => {
    const found = frame.layers().find((layer) => layer.salt === salt && layer.instance === instance)!;
    const at = frame.recordAt(found.start);
    return frame.u32.slice(at, at + found.count * RECORD_WORDS);
  };

  it('has the layers of all, those that are drawn alike next to each other, each as it is alone', () => {
    const effect = two();
    const other = { ...two(), name: 'Other' };
    const needs = [effect, effect, other].map((each) => needsFor(each, rigs));
    const world = worldFor(needs, { kernels, frames: true });
    const all = [world.add(effect, rigs), world.add(other, rigs), world.add(effect, rigs, {}, { seed: 5 })];
    world.advance(40);
    const frame = newFrame({ frameSizes: roomFor(needs).frame });
    world.writeFrame(frame);
    expect(frame.layers().map(({ looks, salt, instance }) => [looks, salt, instance])).toEqual([
      [0, 10, 0],
      [0, 10, 2],
      [0, 20, 0],
      [0, 20, 2],
      [1, 10, 1],
      [1, 20, 1],
    ]);
    expect(frame.particles).toBe(all.reduce((sum, { living }) => sum + living, 0));
    for (const [n, instance] of all.entries()) {
      const own = newFrame(instance);
      instance.writeFrame(own);
      for (const salt of [10, 20]) expect(recordsOf(frame, salt, n)).toEqual(recordsOf(own, salt, n));
    }
  });

  it('grows with the instances: two hundred layers and more than sixteen fronts are no limit', () => {
    const effect = newEffect('Many', 1);
    effect.layers = collectionOf(
      Array.from({ length: 60 }, (_, n) => {
        const layer = newLayer(`Layer ${n}`, n + 1);
        setNumber(layer, 'births.cap', 20);
        return [`l${n}`, layer];
      }),
    );
    const needs = Array.from({ length: 4 }, () => needsFor(effect, rigs));
    const world = worldFor(needs, { kernels });
    for (let n = 0; n < 4; n++) world.add(effect, rigs);
    world.advance(10);
    const frame = newFrame({ frameSizes: roomFor(needs).frame });
    world.writeFrame(frame);
    expect(frame.layers().length).toBe(240);
    expect(frame.particles).toBe(world.living);
  });
});
