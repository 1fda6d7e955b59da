import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  curveShaper,
  inWorld,
  lineageOf,
  newEffect,
  newForce,
  newLayer,
  newLink,
  newSurface,
  setNumber,
  structuredCopy,
  type Effect,
  type Layer,
  type Link,
  type NumberSetting,
} from '../../document/index.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { RECORD_COLOUR, RECORD_OPACITY, RECORD_SIZE, newFrame } from '../frames/frame.ts';
import { Instance } from '../index.ts';
import type { Population } from './population.ts';
import { playAlone } from '../world/world.ts';

type Numbers = Partial<Record<keyof Link['settings'], number | readonly [number, number]>>;

function linkOf(on: Link['on'], numbers: Numbers = {}, layer = 'spark'): Link {
  const link = newLink(on, layer, 77);
  for (const [name, value] of Object.entries(numbers))
    (link.settings as unknown as Record<string, NumberSetting>)[name]!.base =
      typeof value === 'number' ? { kind: 'fixed', value } : { kind: 'spread', low: value[0], high: value[1] };
  return link;
}

/** Puffs rise straight up at 1 m/s from a line, ten at once, and live half a second; a link of theirs leads to sparks that stand still. */
function linked(link: Link, shape: (puff: Layer, spark: Layer, effect: Effect) => void = () => undefined): Effect {
  const effect = newEffect('links', 3);
  const [puff, spark] = [newLayer('puff', 100), newLayer('spark', 50)];
  for (const layer of [puff, spark]) {
    layer.source = { kind: 'point', place: inWorld() };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'motion.speed', 0);
  }
  puff.source = { kind: 'line', place: inWorld([0, 1, 0], [0, 0, 90]) };
  puff.bursts = collectionOf([['b', burst('opening', 0.1, 10)]]);
  puff.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
  puff.settings['motion.axis'].base = { kind: 'fixed', value: [0, 1, 0] };
  puff.settings['motion.velocity'].base = { kind: 'fixed', value: [1, 0, 0] };
  setNumber(puff, 'births.life', 0.5);
  setNumber(spark, 'births.life', 3);
  puff.links = collectionOf([['link', link]]);
  effect.layers = collectionOf([
    ['puff', puff],
    ['spark', spark],
  ]);
  effect.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 1 }, closing: 1, preRoll: 0 };
  shape(puff, spark, effect);
  return effect;
}

function runTo(
  effect: Effect,
  step: number,
  kernels = false,
): { world: Instance; puff: Population; spark: Population } {
  const world = playAlone(effect, new Map(), {}, kernels ? { kernels: kernelBytes() } : {});
  world.advance(step);
  return { world, puff: world.population('puff')!, spark: world.population('spark')! };
}
const birthTime = ({ birthStep, birthFraction }: Population, i: number) => (birthStep[i]! + birthFraction[i]!) / 60;
const heights = ({ position, count }: Population) => [...position[1].subarray(0, count)];

describe('a link', () => {
  it('on death bears children where and when each dies', () => {
    const { spark } = runTo(linked(linkOf('death', { count: 3 })), 60);
    expect(spark.count).toBe(30);
    for (let i = 0; i < 30; i++) {
      expect(birthTime(spark, i)).toBeCloseTo(0.6, 4);
      // The line lies along X; puffs go up along its own X for half a second.
      expect(spark.position[1][i]).toBeCloseTo(1.5, 3);
    }
    expect(new Set([...spark.position[0].subarray(0, 30)].map((x) => x.toFixed(4))).size).toBe(10);
  });

  it('on birth bears them at the birth, after its delay, where the birth was', () => {
    const { spark } = runTo(linked(linkOf('birth', { count: 2, delay: 0.25 })), 60);
    expect(spark.count).toBe(20);
    for (let i = 0; i < 20; i++) {
      expect(birthTime(spark, i)).toBeCloseTo(0.35, 4);
      expect(spark.position[1][i]).toBeCloseTo(1, 3);
    }
  });

  it('along the way bears them by a clock of each one’s own', () => {
    const { spark } = runTo(linked(linkOf('along', { count: 1, every: 0.12 })), 60);
    // At 0, 0.12, 0.24, 0.36 and 0.48 s of each one's life.
    expect(spark.count).toBe(50);
    const found = [...new Set(heights(spark).map((y) => y.toFixed(3)))].sort();
    expect(found).toEqual(['1.000', '1.120', '1.240', '1.360', '1.480']);
  });

  it('along the way, a few times only', () =>
    expect(runTo(linked(linkOf('along', { count: 2, every: 0.05, times: 3 })), 60).spark.count).toBe(60));

  it('on a hit bears them on what was hit, a ring flat on it; the first time only when wished', () => {
    const fall = (once: boolean) =>
      linked(linkOf('hit', { count: 1, velocity: 0 }), (puff, spark, effect) => {
        puff.links.byId['link']!.settings.once.base = { kind: 'fixed', value: once };
        puff.source = { kind: 'point', place: inWorld([-0.5, 1, 0]) };
        puff.settings['motion.velocity'].base = { kind: 'fixed', value: [0, 0, 0] };
        setNumber(puff, 'births.life', 3);
        puff.forces = collectionOf([['gravity', newForce('gravity', inWorld())]]);
        spark.source = { kind: 'ring', place: inWorld([5, 5, 5]) };
        setNumber(spark, 'source.radius', 0.2);
        const slope = newSurface('ground', { place: inWorld([0, 0, 0], [0, 0, 30]) });
        slope.settings.bounce.base = { kind: 'fixed', value: 60 };
        slope.layers = ['puff'];
        effect.surfaces = collectionOf([['slope', slope]]);
      });
    const { spark } = runTo(fall(true), 150);
    expect(spark.count).toBe(10);
    const place = [-0.5, -0.5 * Math.tan(Math.PI / 6), 0];
    const normal = [-0.5, Math.cos(Math.PI / 6), 0];
    for (let i = 0; i < 10; i++) {
      const away = place.map((x, axis) => spark.position[axis]![i]! - x);
      expect(Math.hypot(...away)).toBeCloseTo(0.2, 3);
      expect(away.reduce((sum, x, axis) => sum + x * normal[axis]!, 0)).toBeCloseTo(0, 3);
    }
    expect(runTo(fall(false), 150).spark.count).toBeGreaterThan(10);
  });

  it('draws how many, how likely and how late from each event alone', () => {
    const many = (puff: Layer) => (puff.bursts = collectionOf([['b', burst('opening', 0.1, 400)]]));
    const { spark } = runTo(linked(linkOf('birth', { count: [2, 6], chance: 25, delay: [0, 0.4] }), many), 60);
    expect(spark.count / (400 * 0.25)).toBeGreaterThan(3.2);
    expect(spark.count / (400 * 0.25)).toBeLessThan(4.8);
    const times = Array.from({ length: spark.count }, (_, i) => birthTime(spark, i));
    expect(Math.min(...times)).toBeLessThan(0.12);
    expect(Math.max(...times)).toBeGreaterThan(0.48);
    // Order of birth is order of time.
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });

  it('passes on the chosen share of velocity and nothing else', () => {
    const { spark } = runTo(
      linked(linkOf('birth', { count: 1, velocity: 40 }), (puff) => {
        puff.settings['births.cap'].base = { kind: 'fixed', value: 10 };
        setNumber(puff, 'motion.ride', 100);
        puff.forces = collectionOf([['gravity', newForce('gravity', inWorld())]]);
      }),
      30,
    );
    expect(spark.count).toBe(10);
    for (let i = 0; i < 10; i++) {
      expect(spark.velocity[1][i]).toBeCloseTo(0.4 * (1 - 9.81 / 60), 1);
      expect(spark.life[i]).toBe(3);
    }
    expect(heights(runTo(linked(linkOf('birth', { count: 1 })), 60).spark)).toEqual(Array(10).fill(1));
  });

  it('passes on the chosen share of colour and size, as the parent looks then', () => {
    const effect = linked(linkOf('death', { count: 1, colour: 50, size: 100 }), (puff, spark) => {
      for (const layer of [puff, spark]) {
        layer.settings['life.opacity'].shapers = collectionOf([]);
        layer.settings['life.colour'].base = {
          kind: 'fixed',
          value: { hex: layer === puff ? '#ff0000' : '#0000ff' },
        };
      }
      setNumber(puff, 'life.size', 0.4);
      puff.settings['life.size'].shapers = collectionOf([
        [
          'shrink',
          curveShaper([
            [0, 1],
            [1, 0.5],
          ]),
        ],
      ]);
      setNumber(spark, 'life.size', [0.05, 0.1]);
    });
    for (const kernels of [true, false]) {
      const { world } = runTo(effect, 60, kernels);
      const frame = newFrame(world);
      world.writeFrame(frame);
      const { start, count } = frame.layer(50)!;
      expect(count).toBe(10);
      for (let i = start; i < start + count; i++) {
        const at = frame.recordAt(i);
        expect([...frame.f32.subarray(at + RECORD_COLOUR, at + RECORD_COLOUR + 3)]).toEqual([0.5, 0, 0.5]);
        expect(frame.f32[at + RECORD_SIZE]).toBeCloseTo(0.2, 5);
        expect(frame.f32[at + RECORD_OPACITY]).toBe(1);
      }
    }
  });

  it('holds by identity: renaming and reordering layers change no bit', () => {
    const effect = linked(linkOf('along', { count: [1, 3], every: [0.03, 0.09], velocity: [20, 60] }));
    const other = structuredCopy(effect);
    other.layers.order.reverse();
    other.layers.byId['puff']!.name = 'something else';
    const [a, b] = [runTo(effect, 50).world, runTo(other, 50).world];
    expect(a.hash()).toBe(b.hash());
    expect(a.living).toBeGreaterThan(100);
  });

  it('chains: children of children are born in the same step, in time', () => {
    const effect = linked(linkOf('death', { count: 2 }), (_, spark, own) => {
      const dust = newLayer('dust', 10);
      setNumber(dust, 'births.rate', 0);
      setNumber(dust, 'births.life', 5);
      own.layers.order.push('dust');
      own.layers.byId['dust'] = dust;
      spark.links = collectionOf([['more', { ...linkOf('birth', { count: 3 }, 'dust'), salt: 5 }]]);
    });
    const world = playAlone(effect, new Map());
    world.advance(60);
    expect(world.population('dust')!.count).toBe(60);
    expect(birthTime(world.population('dust')!, 0)).toBeCloseTo(0.6, 4);
  });

  it('counts births refused at the cap of the layer it leads to', () => {
    const { spark } = runTo(
      linked(
        linkOf('death', { count: 5 }),
        (_, own) => (own.settings['births.cap'].base = { kind: 'fixed', value: 20 }),
      ),
      60,
    );
    expect(spark.living).toBe(20);
    expect(spark.refused).toBe(30);
  });

  it('of a thinned layer bears for those that are left, as it did for them before', () => {
    const effect = linked(linkOf('birth', { count: [1, 4] }), (puff) => {
      puff.bursts = collectionOf([['b', burst('opening', 0.1, 200)]]);
    });
    const keysOf = (share: number) => {
      const own = structuredCopy(effect);
      own.quality.tiers.high.births = share;
      const { spark, puff } = runTo(own, 20);
      return { children: new Set(spark.key.subarray(0, spark.count)), parents: puff.living };
    };
    const [all, some] = [keysOf(100), keysOf(40)];
    expect(some.parents).toBeLessThan(110);
    expect([...some.children].every((key) => all.children.has(key))).toBe(true);
    expect(some.children.size / all.children.size).toBeCloseTo(some.parents / all.parents, 1);
  });

  it('comes again the same in every turn of a hold without a seam', () => {
    const effect = linked(
      linkOf('death', { count: [1, 3], delay: [0, 0.3], velocity: [10, 30] }),
      (puff, spark, own) => {
        own.stretches = { opening: 0, hold: { kind: 'seamless', seconds: 1 }, closing: 1, preRoll: 0 };
        puff.bursts = collectionOf([]);
        setNumber(puff, 'births.rate', 60);
        setNumber(puff, 'births.life', [0.2, 0.7]);
        setNumber(spark, 'births.life', [0.2, 0.9]);
      },
    );
    const places = [4, 5, 6].map((turn) => {
      const { spark } = runTo(effect, turn * 60);
      return [...spark.position[0].subarray(0, spark.count), ...spark.velocity[1].subarray(0, spark.count)].join();
    });
    expect(places[0]!.length).toBeGreaterThan(200);
    expect(places[1]).toBe(places[0]);
    expect(places[2]).toBe(places[0]);
  });

  it('that is muted does nothing', () =>
    expect(runTo(linked({ ...linkOf('birth'), muted: true }), 30).spark.count).toBe(0));
});

describe('links in a circle', () => {
  const circle = () =>
    linked(linkOf('death', { count: 1 }), (_, spark) => {
      spark.links = collectionOf([['back', { ...linkOf('death', { count: 1 }, 'puff'), salt: 6 }]]);
      setNumber(spark, 'births.life', 0.2);
    });

  it('are refused where they close it, and the rest goes on', () => {
    const { refused, order } = lineageOf(circle());
    expect([...refused]).toEqual(['spark/back']);
    expect(order).toEqual(['puff', 'spark']);
    const { puff, spark } = runTo(circle(), 120);
    expect(spark.born).toBe(10);
    expect(puff.born).toBe(10);
  });

  it('of one layer with itself are refused too', () => {
    const effect = linked(linkOf('death', { count: 1 }, 'puff'));
    expect(lineageOf(effect).refused.size).toBe(1);
    expect(runTo(effect, 120).puff.born).toBe(10);
  });
});

describe('a layer born on another’s particles', () => {
  it('is born where those are at that instant, on any of the living', () => {
    const effect = linked({ ...linkOf('birth'), muted: true }, (puff, spark) => {
      spark.source = { kind: 'particles', layer: 'puff' };
      setNumber(spark, 'births.rate', 240);
      setNumber(puff, 'births.life', 0.4);
    });
    const { spark } = runTo(effect, 60);
    // Puffs live from 0.1 to 0.5 s: nothing is born before or after.
    expect(spark.count).toBeGreaterThan(85);
    expect(spark.count).toBeLessThan(100);
    const columns = new Set<string>();
    for (let i = 0; i < spark.count; i++) {
      const time = birthTime(spark, i);
      expect(spark.position[1][i]).toBeCloseTo(1 + (time - 0.1), 1);
      columns.add(spark.position[0][i]!.toFixed(4));
    }
    expect(columns.size).toBe(10);
  });

  it('keeps the chosen share of their speed', () => {
    const effect = linked({ ...linkOf('birth'), muted: true }, (_, spark) => {
      spark.source = { kind: 'particles', layer: 'puff' };
      setNumber(spark, 'births.rate', 240);
      setNumber(spark, 'motion.inherit', 50);
    });
    const { spark } = runTo(effect, 30);
    expect(spark.count).toBeGreaterThan(50);
    for (let i = 0; i < spark.count; i++) expect(spark.velocity[1][i]).toBeCloseTo(0.5, 4);
  });
});
