import { describe, expect, it } from 'vitest';
import { collectionOf, newEffect, newLayer, newThing, type Effect } from '../../document/index.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { distancesToSkin, frameOf } from '../../testing/riders.ts';
import { playAlone, type Inputs } from '../index.ts';
import type { Population } from '../run/population.ts';

const TUBE = 'a'.repeat(64);

/** Motes born at the effect's middle that stay where they are born. */
function standing(): Effect {
  const effect = newEffect('Lamp', 5);
  const layer = newLayer('Motes', 1);
  layer.aim = { kind: 'effect', offset: [0, 0, 0], turn: [0, 0, 0], keys: collectionOf([]) };
  layer.source = { kind: 'point', place: layer.aim };
  layer.settings['births.rate'].base = { kind: 'fixed', value: 600 };
  layer.settings['births.cap'].base = { kind: 'fixed', value: 5000 };
  layer.settings['motion.speed'].base = { kind: 'fixed', value: 0 };
  layer.settings['motion.inherit'].base = { kind: 'fixed', value: 0 };
  layer.settings['motion.ride'].base = { kind: 'fixed', value: 0 };
  layer.settings['births.life'].base = { kind: 'fixed', value: 10 };
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}
const play = (inputs: Inputs = {}) => playAlone(standing(), new Map(), inputs, { kernels: kernelBytes() });
const placesOf = (instance: ReturnType<typeof play>) => {
  const { count, position } = instance.population('motes')!;
  return Array.from({ length: count }, (_, n) => position[0]![n]!);
};

describe('an effect that is put elsewhere as it plays', () => {
  it('is born on the way there within a step, and then where it stands', () => {
    const world = play();
    world.advance(30);
    const before = placesOf(world).length;
    expect(placesOf(world).every((x) => x === 0)).toBe(true);
    world.place([3, 0, 0]);
    world.advance(31);
    const between = placesOf(world).slice(before);
    expect(between.every((x) => x >= 0 && x <= 3)).toBe(true);
    expect(new Set(between).size).toBeGreaterThan(5);
    world.advance(60);
    expect(
      placesOf(world)
        .slice(before + between.length)
        .every((x) => x === 3),
    ).toBe(true);
    expect(placesOf(world).length).toBeGreaterThan(before + between.length + 5);
  });

  it('gives the same bits when it is known beforehand, gone back over, or put at its first place again', () => {
    const world = play();
    world.advance(20);
    world.place([1, 0, 2], [0, 90, 0]);
    world.advance(40);
    const hash = world.hash();
    const known = play({ places: world.places });
    known.advance(40);
    expect(known.hash()).toBe(hash);
    world.advance(10);
    world.advance(40);
    expect(world.hash()).toBe(hash);
    world.setPlaces([]);
    world.advance(40);
    const still = play();
    still.advance(40);
    expect(world.hash()).toBe(still.hash());
    expect(hash).not.toBe(still.hash());
  });
});

describe('an effect that is put elsewhere with its figures', () => {
  const rigs = new Map([[TUBE, bendingTube()]]);
  /** Motes that are born on a figure that sways, and stay there; the effect rides it or stands beside it. */
  const onFigure = (rides: boolean): Effect => {
    const effect = standing();
    effect.stage.things = collectionOf([['tube', { ...newThing('Tube', TUBE), clip: 'sway', at: [2, 0, 0] }]]);
    const layer = effect.layers.byId['motes']!;
    layer.source = { kind: 'mesh', thing: 'tube', bones: [] };
    layer.settings['motion.ride'].base = { kind: 'fixed', value: 100 };
    if (rides) effect.stage.carrier = { kind: 'thing', thing: 'tube', bone: '' };
    return effect;
  };
  const start = (rides: boolean, inputs: Inputs = {}) =>
    playAlone(onFigure(rides), rigs, inputs, { kernels: kernelBytes(), at: [1, 0, 0] });

  it.each([true, false])('takes what is born on them along, and is drawn with them (it rides one: %s)', (rides) => {
    const [still, moved] = [start(rides), start(rides)];
    still.advance(20);
    moved.advance(20);
    moved.place([1, 3, 4], [0, 90, 0]);
    // What is shown while it stands is as it was.
    expect(frameOf(moved).skin(1)).toEqual(frameOf(still).skin(1));
    for (const world of [still, moved]) world.advance(40);
    expect(moved.feetOf('tube')!.map((x) => Math.round(x * 1e5) / 1e5)).toEqual([1, 2]);
    const [ours, theirs] = [moved, still].map((world) => world.population('motes')!) as [Population, Population];
    expect(ours.count).toBe(theirs.count);
    for (let n = 0; n < ours.count; n++) {
      // About the place it was put to: a quarter turn, then there.
      const [x, y, z] = [theirs.position[0][n]! - 1, theirs.position[1][n]!, theirs.position[2][n]!];
      [1 + z, y + 3, 4 - x].forEach((place, axis) => expect(ours.position[axis]![n]).toBeCloseTo(place, 3));
    }
    const distances = distancesToSkin(moved, 'motes', rigs.get(TUBE)!, 0.5, false);
    expect(Math.max(...distances)).toBeLessThan(1e-3);
  });

  it('gives the same bits when it is known beforehand, gone back over, or put at its first place again', () => {
    const world = start(true);
    world.advance(20);
    world.place([1, 0, 2], [0, 90, 0]);
    world.advance(40);
    const hash = world.hash();
    const known = start(true, { places: world.places });
    known.advance(40);
    expect(known.hash()).toBe(hash);
    world.advance(20);
    world.advance(40);
    expect(world.hash()).toBe(hash);
    world.advance(20);
    world.setPlaces([{ step: 21, at: [7, 0, 0], turn: [0, 0, 0] }]);
    world.advance(21);
    world.setPlaces(known.places);
    world.advance(40);
    expect(world.hash()).toBe(hash);
    world.setPlaces([]);
    world.advance(40);
    const still = start(true);
    still.advance(40);
    expect(world.hash()).toBe(still.hash());
  });
});

describe('an effect that begins elsewhere', () => {
  it('has all of its stage there: what stands in its world, and its figures, turned as it is', () => {
    const effect = standing();
    effect.stage.things = collectionOf([['tube', { ...newThing('Tube', TUBE), at: [2, 0, 0], facing: 30 }]]);
    effect.layers.byId['motes']!.source = {
      ...{ kind: 'point' },
      place: { kind: 'world', offset: [1, 0, 0], turn: [0, 0, 0], keys: collectionOf([]) },
    };
    const rigs = new Map([[TUBE, bendingTube()]]);
    const given = { at: [5, 1, 0], turn: [0, 90, 0] } as const;
    const world = playAlone(effect, rigs, {}, { kernels: kernelBytes(), at: [...given.at], turn: [...given.turn] });
    world.advance(20);
    const { count, position } = world.population('motes')!;
    expect(count).toBeGreaterThan(10);
    for (let n = 0; n < count; n++) [5, 1, -1].forEach((x, axis) => expect(position[axis]![n]).toBeCloseTo(x, 5));
    const [x, z] = world.feetOf('tube')!;
    expect([x, z].map((place) => Math.round(place * 1e5) / 1e5)).toEqual([5, -2]);
    // What it rides goes with the figure, once.
    effect.stage.carrier = { kind: 'thing', thing: 'tube', bone: '' };
    effect.layers.byId['motes']!.source = { kind: 'point', place: effect.layers.byId['motes']!.aim };
    const riding = playAlone(effect, rigs, {}, { kernels: kernelBytes(), at: [...given.at] });
    riding.advance(20);
    expect(riding.population('motes')!.position[0]![0]).toBeCloseTo(7, 5);
  });
});
