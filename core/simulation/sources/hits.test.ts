import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  curveShaper,
  type Effect,
  type Hit,
  inWorld,
  type Layer,
  newLayer,
  newLink,
  newSurface,
  setNumber,
} from '../../document/index.ts';
import { packDirection, unpackDirectionInto } from '../../maths/index.ts';
import { effectOf, onStage, TUBE } from '../../testing/effects.ts';
import { closedBox } from '../../testing/rigs.ts';
import { Instance } from '../index.ts';
import { playAlone } from '../world/world.ts';

const hit = (at: number, place = inWorld([0, 1, 0]), strength = 100): Hit => ({
  stretch: 'opening',
  at,
  place,
  strength,
  muted: false,
});

/** Impacts of a second's life at hits, and rings about them that grow to a metre, 600 births a second, that stand still. */
function struckAt(
  hits: Hit[],
  shape: (impacts: Layer, rings: Layer, effect: Effect) => void = () => undefined,
): Effect {
  return effectOf((impacts, effect) => {
    effect.stretches = { opening: 4, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    impacts.source = { kind: 'hits', hits: collectionOf(hits.map((each, n) => [`h${n}`, each])) };
    setNumber(impacts, 'births.life', 1);
    setNumber(impacts, 'motion.speed', 0);
    const rings = newLayer('rings', 77);
    rings.source = { kind: 'particles', layer: 'motes' };
    setNumber(rings, 'births.rate', 600);
    setNumber(rings, 'births.life', 9);
    setNumber(rings, 'motion.speed', 0);
    setNumber(rings, 'source.ring', 1);
    rings.settings['source.ring'].shapers = collectionOf([
      [
        'grow',
        curveShaper([
          [0, 0],
          [1, 1],
        ]),
      ],
    ]);
    effect.layers = collectionOf([
      ['motes', impacts],
      ['rings', rings],
    ]);
    shape(impacts, rings, effect);
  });
}
function placesOf(world: Instance, id: string) {
  const population = world.population(id)!;
  return Array.from({ length: population.count }, (_, i) => ({
    at: population.position.map((axis) => axis[i]!),
    way: population.velocity.map((axis) => axis[i]!),
    time: (population.birthStep[i]! + population.birthFraction[i]!) / 60,
  }));
}
function run(effect: Effect, step: number, rigs = new Map()): Instance {
  const world = playAlone(effect, rigs);
  world.advance(step);
  return world;
}

describe('what is muted', () => {
  it('bears nothing, neither a hit nor a burst, while the others do', () => {
    const effect = struckAt([hit(0.1), { ...hit(0.2), muted: true }], (_, rings) => {
      rings.source = { kind: 'point', place: inWorld() };
      setNumber(rings, 'births.rate', 0);
      rings.bursts = collectionOf([
        ['a', burst('opening', 0.1, 5)],
        ['b', { ...burst('opening', 0.2, 7), muted: true }],
      ]);
    });
    const world = playAlone(effect, new Map());
    world.advance(30);
    const perHit = effect.layers.byId['motes']!.settings['source.perHit'].base as { value: number };
    expect(world.population('motes')!.count).toBe(perHit.value);
    expect(world.population('rings')!.count).toBe(5);
  });
});

describe('hits', () => {
  it('bear as many as their strength says, where and when each falls', () => {
    const world = run(
      struckAt([hit(0.25), hit(0.5, inWorld([2, 0, 0]), 50), hit(3)], (impacts) =>
        setNumber(impacts, 'source.perHit', 8),
      ),
      45,
    );
    const born = placesOf(world, 'motes');
    expect(born.length).toBe(12);
    expect(born.filter(({ at }) => at[0] === 0).map(({ time }) => time)).toEqual(Array(8).fill(0.25));
    for (const { time } of born.filter(({ at }) => at[0] === 2)) expect(time).toBeCloseTo(0.5, 4);
  });

  it('from outside are met first by what stands in the way, and face back out of it', () => {
    const effect = struckAt([], (_, __, whole) => {
      whole.stage.things = onStage('');
      const ball = newSurface('sphere', { place: inWorld([0, 0, 3]) });
      whole.surfaces = collectionOf([['ball', ball]]);
    });
    const world = run(effect, 30, new Map([[TUBE, closedBox()]]));
    const onBall = world.strike([0, 0.1, 10], [0, 0.1, -10]);
    expect(onBall.at[2]).toBeGreaterThan(3);
    expect(onBall.normal[2]).toBeGreaterThan(0.9);
    const onBox = world.strike([5, 0.2, 0.1], [-5, 0.2, 0.1]);
    expect(onBox.at[0]).toBeCloseTo(0.5, 5);
    expect(onBox.normal[0]).toBeCloseTo(1, 5);
    const inAir = world.strike([5, 4, 8], [-5, 4, 8]);
    expect(inAir.at).toEqual([0, 4, 8]);
    world.advance(31);
    expect(placesOf(world, 'motes').length).toBe(3);
  });

  it('from outside are replayed at their step: the same bits after going back, and gone when taken back', () => {
    const effect = struckAt([hit(0.1)]);
    const world = run(effect, 30);
    const plain = run(effect, 60).hash();
    world.strike([0, 1, 5], [0, 1, -5], 0.5);
    world.strike([0, 2, 5], [0, 2, -5]);
    world.advance(60);
    const played = world.hash();
    expect(played).not.toBe(plain);
    world.advance(20);
    world.advance(60);
    expect(world.hash()).toBe(played);
    const known = playAlone(effect, new Map(), { strikes: world.strikes });
    known.advance(60);
    expect(known.hash()).toBe(played);
    world.setStrikes([]);
    world.advance(60);
    expect(world.hash()).toBe(plain);
  });
});

describe('rings about hits', () => {
  it('grow over the time since each hit, across the normal, and stand no longer than the hit', () => {
    const world = run(struckAt([hit(0.25, inWorld([0, 1, 0], [90, 0, 0]))]), 100);
    const born = placesOf(world, 'rings');
    expect(born.length).toBeGreaterThan(500);
    for (const { at, time } of born) {
      expect(at[2]).toBeCloseTo(0, 4);
      expect(Math.hypot(at[0]!, at[1]! - 1)).toBeCloseTo(time - 0.25, 3);
      expect(time).toBeLessThan(1.27);
    }
    const turns = born.map(({ at }) => Math.atan2(at[0]!, at[1]! - 1));
    expect(turns.filter((turn) => turn > 0).length / born.length).toBeCloseTo(0.5, 1);
  });

  it('are ragged by noise that keeps within its reach and moves', () => {
    const ragged = struckAt([hit(0.25)], (_, rings) => {
      rings.settings['source.ring'].shapers = collectionOf([]);
      setNumber(rings, 'source.ragged', 0.2);
      setNumber(rings, 'source.rags', 0.3);
    });
    const radii = placesOf(run(ragged, 70), 'rings').map(({ at }) => Math.hypot(at[0]!, at[2]!));
    expect(Math.min(...radii)).toBeGreaterThan(0.8 - 1e-6);
    expect(Math.max(...radii)).toBeLessThan(1.2 + 1e-6);
    expect(Math.max(...radii) - Math.min(...radii)).toBeGreaterThan(0.15);
  });

  it('let particles leave along their tangent, turned by an angle: outward at a right angle, inward at another', () => {
    const launched = (angle: number) =>
      placesOf(
        run(
          struckAt([hit(0.25)], (_, rings) => {
            rings.settings['motion.launch'].base = { kind: 'fixed', value: 'tangent' };
            setNumber(rings, 'motion.speed', 1);
            setNumber(rings, 'motion.angle', angle);
            setNumber(rings, 'births.life', 0.02);
          }),
          60,
        ),
        'rings',
      );
    for (const [angle, outward] of [
      [0, 0],
      [90, -1],
      [-90, 1],
    ] as const)
      for (const { at, way } of launched(angle)) {
        const size = Math.hypot(at[0]!, at[2]!);
        const along = (at[0]! * way[0]! + at[2]! * way[2]!) / size;
        expect(along).toBeCloseTo(outward, 1);
        expect(way[1]).toBeCloseTo(0, 4);
      }
  });

  it('lie on what a particle of another layer struck, by a link of its hits', () => {
    const effect = struckAt([], (impacts, rings, whole) => {
      const shots = newLayer('shots', 5);
      shots.source = { kind: 'point', place: inWorld([0, 1, 3]) };
      setNumber(shots, 'births.rate', 4);
      setNumber(shots, 'motion.speed', 6);
      shots.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
      shots.settings['motion.axis'].base = { kind: 'fixed', value: [0, 0, -1] };
      const link = newLink('hit', 'motes', 9);
      link.settings.count.base = { kind: 'fixed', value: 1 };
      shots.links = collectionOf([['l', link]]);
      const wall = newSurface('box', { place: inWorld([0, 1, -0.5]) });
      wall.layers = ['shots'];
      whole.surfaces = collectionOf([['wall', wall]]);
      whole.layers = collectionOf([
        ['shots', shots],
        ['motes', impacts],
        ['rings', rings],
      ]);
    });
    const born = placesOf(run(effect, 90), 'rings');
    expect(born.length).toBeGreaterThan(100);
    for (const { at } of born) expect(at[2]).toBeCloseTo(0, 2);
  });
});

describe('a packed direction', () => {
  it('comes back within a ten-thousandth, whichever way it points', () => {
    let state = 3;
    const random = () => (state = (Math.imul(state, 1103515245) + 12345) >>> 0) / 2147483648 - 1;
    const out = new Float64Array(3);
    const ways = Array.from({ length: 500 }, () => [random(), random(), random()]);
    for (const way of [...ways, [0, 1, 0], [0, -1, 0], [1, 0, 0], [0, 0, -1]]) {
      const size = Math.hypot(...way);
      unpackDirectionInto(out, 0, packDirection(way[0]!, way[1]!, way[2]!));
      expect(Math.hypot(...way.map((x, axis) => x / size - out[axis]!))).toBeLessThan(1e-4);
    }
    unpackDirectionInto(out, 0, packDirection(0, 0, 0));
    for (let axis = 0; axis < 3; axis++) expect(out[axis]).toBeCloseTo([0, 1, 0][axis]!, 4);
  });
});
