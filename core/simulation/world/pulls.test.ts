import { describe, expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  curveShaper,
  newForce,
  setNumber,
  type Effect,
  type NumberSetting,
} from '../../document/index.ts';
import { effectOf, stormOnTube, TUBE } from '../../testing/effects.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { swirlsOf } from '../forces/index.ts';
import { PullRun, type Pull } from './pulls.ts';
import { playAlone } from './world.ts';

const rigs = new Map([[TUBE, bendingTube()]]);
const kernels = kernelBytes();
const never = () => false;

function one(effect: Effect, step: number): { key: number; at: number[]; velocity: number[] } {
  const world = playAlone(effect, rigs, {}, { kernels });
  world.advance(step);
  const population = world.population('motes')!;
  const place = Math.floor(population.count / 2);
  const of = (axes: readonly Float32Array[]) => axes.map((axis) => axis[place]!);
  return { key: population.key[place]!, at: of(population.position), velocity: of(population.velocity) };
}
const pullsOn = (effect: Effect, key: number, step: number): readonly Pull[] =>
  new PullRun(effect, rigs, {}, { layerId: 'motes', key, step }, { kernels }).advance(never)!;
const sizeOf = (way: readonly number[]) => Math.hypot(...way);

describe('what each force does to a particle', () => {
  const still = (shape: (effect: Effect) => void = () => undefined) =>
    effectOf((layer, effect) => {
      setNumber(layer, 'births.rate', 60);
      setNumber(layer, 'births.life', 5);
      layer.forces = collectionOf([['gravity', newForce('gravity')]]);
      shape(effect);
    });

  it('is the fall of gravity, in metres a second each second', () => {
    const effect = still();
    const [gravity, ...others] = pullsOn(effect, one(effect, 90).key, 90);
    expect(others).toEqual([]);
    expect(gravity).toMatchObject({ id: 'gravity', isShared: false });
    expect(gravity!.change[0]).toBeCloseTo(0, 3);
    expect(gravity!.change[1]).toBeCloseTo(-9.81, 2);
    expect(sizeOf(gravity!.shift)).toBeLessThan(0.01);
  });

  it('is against the way it goes for drag, and toward its place for attraction', () => {
    const effect = still((own) => {
      const layer = own.layers.byId['motes']!;
      setNumber(layer, 'motion.speed', 3);
      layer.forces = collectionOf([
        ['drag', newForce('drag')],
        ['attraction', newForce('attraction', atEffect([0, 4, 0]))],
      ]);
    });
    const { key, at, velocity } = one(effect, 90);
    const [drag, attraction] = pullsOn(effect, key, 90);
    const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, axis, n) => sum + axis * b[n]!, 0);
    expect(dot(drag!.change, velocity)).toBeLessThan(-0.1);
    const toward = [0 - at[0]!, 4 - at[1]!, 0 - at[2]!];
    expect(dot(attraction!.change, toward) / sizeOf(attraction!.change) / sizeOf(toward)).toBeCloseTo(1, 1);
  });

  it('tells a displacement as a shift, and not as a change of velocity', () => {
    const effect = still((own) => {
      const force = newForce('displacement');
      const along = (force.settings as { y: NumberSetting }).y;
      along.base = { kind: 'fixed', value: 2 };
      along.shapers = collectionOf([
        [
          'over',
          curveShaper([
            [0, 0],
            [1, 1],
          ]),
        ],
      ]);
      own.layers.byId['motes']!.forces = collectionOf([['moved', force]]);
    });
    const [moved] = pullsOn(effect, one(effect, 90).key, 90);
    expect(sizeOf(moved!.change)).toBeLessThan(1e-3);
    expect(sizeOf(moved!.shift)).toBeGreaterThan(0.01);
  });

  it('is along the swirls as they are drawn for a curl', () => {
    const effect = still((own) => {
      const layer = own.layers.byId['motes']!;
      layer.source = { kind: 'box', place: atEffect([0, 1, 0]) };
      setNumber(layer, 'births.standing', 20);
      setNumber(layer, 'motion.speed', 0);
      const curl = newForce('curl');
      const { strength, drift } = curl.settings as { strength: NumberSetting; drift: { base: unknown } };
      strength.base = { kind: 'fixed', value: 3 };
      drift.base = { kind: 'fixed', value: [0.3, 0, 0] };
      layer.forces = collectionOf([['swirls', curl]]);
    });
    const { key, at } = one(effect, 60);
    const [curl] = pullsOn(effect, key, 61);
    const seconds = 61 / 60;
    const swirls = swirlsOf(effect, 'swirls', { size: 0.5, changes: seconds * 0.5, drifted: [0.3 * seconds, 0, 0] });
    const way = swirls(at as never);
    curl!.change.forEach((axis, n) => expect(axis).toBeCloseTo(way[n]! * 3, 1));
    expect(sizeOf(way)).toBeGreaterThan(0.1);
  });

  it('counts those of the effect, leaves out what is muted, and changes nothing of what plays', () => {
    const effect = stormOnTube();
    effect.layers.byId['motes']!.forces.byId['curl']!.muted = true;
    effect.forces = collectionOf([['breeze', { force: newForce('wind'), layers: [] }]]);
    const before = JSON.stringify(effect);
    const pulls = pullsOn(effect, one(effect, 120).key, 120);
    expect(pulls.map(({ id, isShared }) => [id, isShared])).toEqual([
      ['gravity', false],
      ['drag', false],
      ['attraction', false],
      ['vortex', false],
      ['breeze', true],
    ]);
    for (const { change } of pulls) expect(sizeOf(change)).toBeGreaterThan(0);
    expect(JSON.stringify(effect)).toBe(before);
  });

  it('is the same beside a world that has computed it, wherever that stands', () => {
    const effect = stormOnTube();
    const { key } = one(effect, 100);
    const world = playAlone(effect, rigs, {}, { kernels });
    for (const step of [100, 130, 40]) {
      world.advance(step);
      const run = new PullRun(effect, rigs, {}, { layerId: 'motes', key, step: 100 }, { kernels }, world);
      expect(run.advance(never)).toEqual(pullsOn(effect, key, 100));
      expect(world.step).toBe(step);
    }
  });

  it('can be stopped and gone on with, and says nothing of a particle that does not live', () => {
    const effect = stormOnTube();
    const { key } = one(effect, 120);
    const run = new PullRun(effect, rigs, {}, { layerId: 'motes', key, step: 120 }, { kernels });
    let found: readonly Pull[] | null = null;
    let [slices, asked] = [0, 0];
    while (found === null && slices++ < 1000) found = run.advance(() => ++asked % 10 === 0);
    expect(slices).toBeGreaterThan(5);
    expect(found).toEqual(pullsOn(effect, key, 120));
    expect(pullsOn(effect, 12345, 120)).toEqual([]);
  });
});
