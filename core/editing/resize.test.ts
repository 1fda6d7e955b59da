import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  atEffect,
  burst,
  collectionOf,
  curveShaper,
  FORCE_KINDS,
  FORCE_SETTINGS,
  listed,
  newForce,
  newLink,
  parseEffect,
  setNumber,
  structuredCopy,
  type Declaration,
  type Effect,
  type Force,
  type ForceKind,
  type NumberSetting,
  type Reads,
  type Scaling,
  type Vector,
  type VectorSetting,
} from '../document/index.ts';
import { numberReaders, newReading, playAlone, type Instance } from '../simulation/index.ts';
import { effectOf } from '../testing/effects.ts';
import { consequenceOf, QUANTITIES, resize, type Quantity } from './resize.ts';

const resized = (effect: Effect, scaling: Scaling, held: Quantity[] = []): Effect => {
  const made = structuredCopy(effect);
  resize(made, scaling, new Set(held));
  return parseEffect(made);
};

const metres = fc.double({ min: -1, max: 1, noNaN: true });
const place = fc
  .tuple(metres, metres, metres, fc.integer({ min: -180, max: 180 }))
  .map(([x, y, z, turn]) => atEffect([x, y + 1, z], [turn, turn / 2, 0]));

/** Strengths that carry particles some way in half a second, and no further. */
const MOST: Partial<Record<string, number>> = { 'm/s²': 6, 'm/s': 3, m: 1.5, '/s': 4, '/m': 1, s: 0.3 };

/** A force of a kind with numbers of its own, one of them shaped by something that has a unit. */
const forceOf = (kind: ForceKind): fc.Arbitrary<Force> =>
  fc
    .record({
      place,
      shares: fc.array(fc.double({ min: 0.1, max: 1, noNaN: true }), { minLength: 12, maxLength: 12 }),
      choice: fc.nat(3),
      reads: fc.constantFrom<Reads['kind']>('age', 'speed', 'distance'),
      combine: fc.constantFrom('multiply', 'add', 'replace'),
    })
    .map(({ place: at, shares, choice, reads, combine }) => {
      const force = newForce(kind, at);
      const table = Object.entries(FORCE_SETTINGS[kind] as Record<string, Declaration>);
      table.forEach(([name, declaration], n) => {
        const setting = (force.settings as unknown as Record<string, NumberSetting>)[name]!;
        const share = shares[n]!;
        if (declaration.value === 'choice') {
          const choices = declaration.choices.filter((word) => word !== 'skin' && word !== 'own spot');
          (setting as unknown as { base: unknown }).base = { kind: 'fixed', value: choices[choice % choices.length] };
        } else if (declaration.value === 'vector')
          (setting as unknown as VectorSetting).base = { kind: 'fixed', value: [share, 1 - share, 0.5] };
        else if (declaration.value === 'number') {
          const most = MOST[declaration.unit];
          if (name === 'softness') setting.base = { kind: 'fixed', value: 0.1 + share / 10 };
          else if (most && name !== 'threshold') setting.base = { kind: 'fixed', value: share * most };
          if (name === 'strength' && declaration.reads.includes(reads))
            setting.shapers = collectionOf([
              [
                'by',
                {
                  ...curveShaper([
                    [0, 0.5],
                    [1, 1.5],
                  ]),
                  reads: { kind: reads } as Reads,
                  combine: combine as 'add',
                },
              ],
            ]);
        }
      });
      return force;
    });

const SOURCES = ['sphere', 'ring', 'box', 'cone', 'line'] as const;
const stormOf = (forces: readonly Force[], at: ReturnType<typeof atEffect>, kind: number): Effect =>
  effectOf((layer, effect) => {
    effect.stretches = { opening: 0.5, hold: { kind: 'continuing', seconds: 2 }, closing: 0.5, preRoll: 0 };
    layer.source = { kind: SOURCES[kind % SOURCES.length]!, place: at };
    layer.settings['source.thickness'].base = { kind: 'fixed', value: 0.2 };
    // None is born on the border of two steps, where rounding decides which of them bears it.
    setNumber(layer, 'births.rate', 57);
    setNumber(layer, 'births.life', [0.3, 0.9]);
    setNumber(layer, 'motion.speed', [0.2, 0.6]);
    layer.settings['motion.velocity'].base = { kind: 'fixed', value: [0.1, 0.3, 0] };
    layer.bursts = collectionOf([['b', { ...burst('opening', 0.108, 20), times: 2, every: 0.156 }]]);
    layer.settings['life.size'].shapers = collectionOf([
      [
        'by',
        {
          ...curveShaper([
            [0, 0.5],
            [2, 2],
          ]),
          reads: { kind: 'speed' as const },
        },
      ],
    ]);
    layer.forces = collectionOf(forces.map((force, n) => [`f${n}`, force]));
  });

const statesOf = (world: Instance) => {
  const population = world.population('motes')!;
  return Array.from({ length: population.count }, (_, i) => ({
    at: population.position.map((axis) => axis[i]!) as Vector,
    velocity: population.velocity.map((axis) => axis[i]!) as Vector,
  }));
};

/** Holds the new one at t / k to the old one at t. */
function keepsTheLaw(effect: Effect, scaling: Scaling, steps: number, slack: number): void {
  const { size, tempo } = scaling;
  const [old, made] = [
    playAlone(effect, new Map()),
    playAlone(resized(effect, scaling), new Map(), {}, { rate: 60 * tempo }),
  ];
  old.advance(steps);
  made.advance(steps);
  const [before, after] = [statesOf(old), statesOf(made)];
  expect(after.length).toBe(before.length);
  expect(before.length).toBeGreaterThan(20);
  before.forEach(({ at, velocity }, i) => {
    for (let axis = 0; axis < 3; axis++) {
      const [wantedAt, wantedVelocity] = [at[axis]! * size, velocity[axis]! * size * tempo];
      expect(Math.abs(after[i]!.at[axis]! - wantedAt)).toBeLessThan(slack * size * (1 + Math.hypot(...at)));
      expect(Math.abs(after[i]!.velocity[axis]! - wantedVelocity)).toBeLessThan(
        slack * 10 * size * tempo * (1 + Math.hypot(...velocity)),
      );
    }
  });
}

describe('the law of size and tempo', () => {
  // What stands on the very axis of an orbit may leave it any way: there only factors that no rounding tells apart serve.
  const factors = (kind: ForceKind) => (kind === 'orbit' ? fc.constantFrom(0.5, 2) : fc.constantFrom(0.5, 2, 3, 1.5));
  it.each(FORCE_KINDS)('holds under %s: the new picture at t / k is the old one at t, larger', (kind) => {
    fc.assert(
      fc.property(forceOf(kind), place, fc.nat(4), factors(kind), factors(kind), (force, at, source, size, tempo) =>
        keepsTheLaw(stormOf([force], at, source), { size, tempo }, 30, 2e-3),
      ),
      { numRuns: 10 },
    );
  });

  it('holds under several forces at once', () => {
    const any = fc.oneof(...FORCE_KINDS.map(forceOf));
    fc.assert(
      fc.property(fc.array(any, { minLength: 2, maxLength: 4 }), place, fc.nat(4), (forces, at, source) =>
        keepsTheLaw(stormOf(forces, at, source), { size: 2, tempo: 2 }, 30, 2e-3),
      ),
      { numRuns: 15 },
    );
  });

  it('makes what is drawn as much larger: sizes go with lengths at the speeds they have then', () => {
    const effect = stormOf([], atEffect(), 0);
    const made = resized(effect, { size: 3, tempo: 2 });
    for (const speed of [0, 0.5, 1, 1.7]) {
      const size = (of: Effect, at: number) =>
        numberReaders(of.layers.byId['motes']!, of, 1)['life.size'].read({ ...newReading(), speed: at });
      expect(size(made, speed * 6)).toBeCloseTo(3 * size(effect, speed), 9);
    }
  });

  it('reaches what is no setting: paths, bursts, moments, stretches, measures, keys, links and groups', () => {
    const effect = stormOf([newForce('vortex')], atEffect([1, 2, 3]), 0);
    const layer = effect.layers.byId['motes']!;
    layer.source = {
      kind: 'path',
      place: {
        ...atEffect([1, 0, 0]),
        keys: collectionOf([['k', { at: 0.5, offset: [2, 0, 0], turn: [0, 90, 0], ease: 'smooth' }]]),
      },
      points: [
        [0, 0, 0],
        [1, 2, 0],
      ],
      closed: false,
    };
    layer.births.from = { ...layer.births.from, seconds: 0.4 };
    layer.links = collectionOf([['l', newLink('along', 'motes', 1)]]);
    layer.settings['life.turning'].base = { kind: 'fixed', value: 90 };
    effect.measures = collectionOf([
      ['a', { name: 'Reach', quantity: 'length', value: 2 }],
      ['b', { name: 'Beat', quantity: 'time', value: 3 }],
      ['c', { name: 'Blades', quantity: 'count', value: 5 }],
    ]);
    effect.groups = collectionOf([
      ['g', { name: 'G', parent: null, translation: [1, 1, 0], rotation: [0, 9, 0], scale: 2, linked: null }],
    ]);
    effect.stretches.preRoll = 1;
    const made = resized(effect, { size: 2, tempo: 4 });
    const own = made.layers.byId['motes']!;
    expect(own.source.kind === 'path' && own.source.points).toEqual([
      [0, 0, 0],
      [2, 4, 0],
    ]);
    expect('place' in own.source && own.source.place.keys.byId['k']).toEqual({
      at: 0.125,
      offset: [4, 0, 0],
      turn: [0, 90, 0],
      ease: 'smooth',
    });
    expect(own.births.from.seconds).toBe(0.1);
    expect(own.bursts.byId['b']).toMatchObject({ at: 0.027, every: 0.039, count: 20, times: 2 });
    expect(own.links.byId['l']!.settings.every.base).toEqual({ kind: 'fixed', value: 0.025 });
    expect(own.settings['life.turning'].base).toEqual({ kind: 'fixed', value: 360 });
    expect(listed(made.measures).map(({ item }) => item.value)).toEqual([4, 0.75, 5]);
    expect(made.groups.byId['g']).toMatchObject({ translation: [2, 2, 0], rotation: [0, 9, 0], scale: 2 });
    expect(made.stretches).toEqual({
      opening: 0.125,
      hold: { kind: 'continuing', seconds: 0.5 },
      closing: 0.125,
      preRoll: 0.25,
    });
  });

  it('leaves turns a life as they are, and says what stands at its limit', () => {
    const effect = stormOf([], atEffect(), 0);
    const layer = effect.layers.byId['motes']!;
    layer.settings['life.turning'].base = { kind: 'fixed', value: 3 };
    layer.settings['life.turns'].base = { kind: 'fixed', value: 'turns a life' };
    setNumber(layer, 'births.life', 0.03);
    const made = structuredCopy(effect);
    expect(resize(made, { size: 1, tempo: 2 }).limited).toEqual(['lifetime']);
    expect(made.layers.byId['motes']!.settings['life.turning'].base).toEqual({ kind: 'fixed', value: 3 });
    expect(made.layers.byId['motes']!.settings['births.life'].base).toEqual({ kind: 'fixed', value: 0.02 });
    expect(() => parseEffect(made)).not.toThrow();
  });

  it('is undone by its inverse', () => {
    const effect = stormOf([newForce('vortex'), newForce('drag')], atEffect([1, 2, 3]), 1);
    const back = resized(resized(effect, { size: 2, tempo: 4 }), { size: 0.5, tempo: 0.25 });
    expect(back).toEqual(effect);
  });
});

describe('what is held', () => {
  it('stays as it was while the rest goes along, and each tells what that makes of the picture', () => {
    const effect = stormOf([newForce('gravity')], atEffect([0, 1, 0]), 0);
    const layer = (of: Effect) => of.layers.byId['motes']!;
    const made = resized(effect, { size: 2, tempo: 2 }, ['sizes', 'births']);
    expect(layer(made).settings['life.size'].base).toEqual(layer(effect).settings['life.size'].base);
    expect(layer(made).settings['births.rate'].base).toEqual(layer(effect).settings['births.rate'].base);
    expect(layer(made).settings['motion.speed'].base).toEqual({ kind: 'spread', low: 0.8, high: 2.4 });
    for (const quantity of QUANTITIES) {
      expect(consequenceOf(quantity, { size: 1, tempo: 1 })).toBeNull();
      expect(consequenceOf(quantity, { size: 2, tempo: 2 })).toMatch(/\.$/);
    }
  });

  it('tells the truth about births: half as many live when twice as fast an effect keeps its births', () => {
    const effect = stormOf([], atEffect(), 0);
    layerOf(effect).bursts = collectionOf([]);
    setNumber(layerOf(effect), 'births.rate', 2000);
    const alive = (of: Effect) => {
      const world = playAlone(of, new Map());
      world.advance(120);
      return world.population('motes')!.count;
    };
    expect(consequenceOf('births', { size: 1, tempo: 2 })).toContain('50% as many');
    const share = alive(resized(effect, { size: 1, tempo: 2 }, ['births'])) / alive(effect);
    expect(share).toBeCloseTo(0.5, 1);
  });
});

const layerOf = (effect: Effect) => effect.layers.byId['motes']!;
