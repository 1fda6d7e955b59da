import { describe, expect, it } from 'vitest';
import {
  carryChannel,
  collectionOf,
  curveShaper,
  listed,
  newLayer,
  newRibbon,
  setNumber,
  withItem,
  type Shaper,
} from '../../document/index.ts';
import { effectOf, stormOnTube, TUBE } from '../../testing/effects.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { censusOf, censusText, type Census } from './census.ts';
import { playAlone } from './world.ts';

const rigs = new Map([[TUBE, bendingTube()]]);
const column = ({ columns, values, rows }: Census, id: string) => {
  const n = columns.findIndex((each) => each.id === id);
  return Array.from({ length: rows }, (_, row) => values[row * columns.length + n]!);
};

describe('a census', () => {
  it('tells of every living particle what the world holds and the frame draws', () => {
    const effect = stormOnTube();
    const [layerId] = effect.layers.order;
    const world = playAlone(effect, rigs);
    world.advance(170);
    const census = censusOf(world, effect, layerId!);
    const population = world.population(layerId!)!;
    expect(census.rows).toBe(population.living);
    expect(census.rows).toBeGreaterThan(500);
    expect(new Set(census.keys).size).toBe(census.rows);
    const numbers = column(census, 'number');
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
    const living = Array.from({ length: population.count }, (_, i) => i).filter((i) => !population.isDead(i));
    expect([...census.keys]).toEqual(living.map((i) => population.key[i]!));
    expect(column(census, 'x')).toEqual(living.map((i) => population.position[0][i]!));
    const [age, life, lived] = ['age', 'life', 'seconds'].map((id) => column(census, id));
    age!.forEach((percent, i) => {
      expect(percent).toBeGreaterThanOrEqual(0);
      expect(percent).toBeLessThanOrEqual(100);
      expect(lived![i]! / life![i]!).toBeCloseTo(percent / 100, 2);
    });
    const [vx, vy, vz, speed] = ['vx', 'vy', 'vz', 'speed'].map((id) => column(census, id));
    speed!.forEach((fast, i) => expect(fast).toBeCloseTo(Math.hypot(vx![i]!, vy![i]!, vz![i]!), 3));
  });

  it('tells what each carries in its channels', () => {
    const effect = effectOf((layer, own) => {
      carryChannel(own, 'motes', 'heat', 'Heat');
      layer.channels.byId['heat']!.base = { kind: 'spread', low: 2, high: 5 };
      setNumber(layer, 'births.rate', 200);
    });
    const world = playAlone(effect, new Map());
    world.advance(60);
    const heat = column(censusOf(world, effect, 'motes'), 'channel/heat');
    expect(heat.length).toBeGreaterThan(100);
    expect(Math.min(...heat)).toBeGreaterThanOrEqual(2);
    expect(Math.max(...heat)).toBeLessThanOrEqual(5);
    expect(new Set(heat).size).toBeGreaterThan(50);
  });

  it('tells what a dial makes of a channel', () => {
    const effect = effectOf((layer, own) => {
      own.dials = collectionOf([['power', { kind: 'number', name: 'Power', value: 1, least: 0, most: 2 }]]);
      carryChannel(own, 'motes', 'heat', 'Heat');
      const shape = (id: string, reads: Shaper['reads']) => {
        const channel = layer.channels.byId[id]!;
        channel.base = { kind: 'fixed', value: 8 };
        const ramp = curveShaper([
          [0, 0],
          [1, 1],
        ]);
        channel.shapers = collectionOf([['by', { ...ramp, reads }]]);
      };
      shape('heat', { kind: 'dial', dial: 'power' });
      setNumber(layer, 'births.rate', 200);
    });
    const world = playAlone(effect, new Map());
    world.advance(60);
    const heat = column(censusOf(world, effect, 'motes'), 'channel/heat');
    expect(heat.length).toBeGreaterThan(100);
    expect(new Set(heat)).toEqual(new Set([4]));
  });

  it('tells of those that a follower shows, with what it makes of them', () => {
    const effect = effectOf((layer) => setNumber(layer, 'births.rate', 200));
    const follower = newLayer('halo', 99);
    follower.population = { kind: 'follows', layer: 'motes' };
    setNumber(follower, 'life.size', 0.5);
    effect.layers = withItem(effect.layers, 'halo', follower);
    const world = playAlone(effect, new Map());
    world.advance(60);
    const [own, shown] = [censusOf(world, effect, 'motes'), censusOf(world, effect, 'halo')];
    expect(shown.rows).toBe(own.rows);
    expect(shown.rows).toBeGreaterThan(100);
    expect(column(shown, 'x')).toEqual(column(own, 'x'));
    expect(new Set(column(shown, 'size'))).toEqual(new Set([0.5]));
    expect(new Set(column(own, 'size'))).not.toContain(0.5);
  });

  it.each(['trail', 'strand'] as const)(
    'tells of the particles that draw a %s, and of a follower drawn so',
    (kind) => {
      const effect = effectOf((layer) => setNumber(layer, 'births.rate', 200));
      const follower = newLayer('halo', 99);
      follower.population = { kind: 'follows', layer: 'motes' };
      effect.layers = withItem(effect.layers, 'halo', follower);
      for (const layer of listed(effect.layers)) layer.item.drawn = newRibbon(kind);
      const world = playAlone(effect, new Map());
      world.advance(60);
      const living = world.population('motes')!.living;
      expect(living).toBeGreaterThan(100);
      for (const id of ['motes', 'halo']) {
        const census = censusOf(world, effect, id);
        expect(census.rows).toBe(living);
        expect(new Set(column(census, 'x')).size).toBeGreaterThan(50);
        expect(Math.max(...column(census, 'opacity'))).toBeGreaterThan(0);
      }
    },
  );

  it('is written as comma-separated values, all rows or some', () => {
    const effect = effectOf((_, own) => carryChannel(own, 'motes', 'heat', 'Heat, "wet"'));
    const world = playAlone(effect, new Map());
    world.advance(30);
    const census = censusOf(world, effect, 'motes');
    const lines = censusText(census).split('\r\n');
    expect(lines.length).toBe(census.rows + 2);
    expect(lines[0]).toMatch(/^key,birth,age \(%\),lived \(s\),life \(s\),x \(m\)/);
    expect(lines[0]).toMatch(/,"Heat, ""wet"""$/);
    expect(lines[1]!.split(',')[0]).toBe(census.keys[0]!.toString(16).padStart(8, '0'));
    expect(lines[1]!.split(',').length).toBe(census.columns.length + 1);
    expect(censusText(census, [3]).split('\r\n').slice(1, -1)).toEqual([lines[4]]);
  });

  it('of a layer that is not there, or has none, is empty', () => {
    const effect = effectOf((layer) => setNumber(layer, 'births.rate', 0));
    const world = playAlone(effect, new Map());
    world.advance(10);
    expect(censusOf(world, effect, 'motes').rows).toBe(0);
    expect(censusOf(world, effect, 'gone').rows).toBe(0);
  });
});
