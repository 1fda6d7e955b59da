import { describe, expect, it } from 'vitest';
import {
  atBorder,
  atEffect,
  burst,
  collectionOf,
  curveShaper,
  newForce,
  setNumber,
  type Effect,
  type Layer,
  type Moment,
} from '../../document/index.ts';
import { effectOf, onStage, stormOnTube, TUBE } from '../../testing/effects.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { frameOf } from '../../testing/riders.ts';
import { bendingTube } from '../../testing/rigs.ts';
import { playAlone } from '../world/world.ts';
import { Instance } from '../world/instance.ts';

const rigs = new Map([[TUBE, bendingTube()]]);

/** Steps in which particles were born, of a layer that bears 60 a second and lives long, by `shape`. */
function birthSteps(
  shape: (layer: Layer, effect: Effect) => void,
  steps: number,
  letGoStep?: number,
  options = {},
): number[] {
  const effect = effectOf((layer, whole) => {
    setNumber(layer, 'births.rate', 60);
    setNumber(layer, 'births.life', 300);
    shape(layer, whole);
  });
  const world = playAlone(effect, rigs, letGoStep === undefined ? {} : { letGoStep }, options);
  world.advance(steps);
  const { birthStep, count } = world.population('motes')!;
  return [...birthStep.slice(0, count)];
}
const between = (steps: number[], from: number, to: number) =>
  steps.filter((step) => step >= from && step < to).length;

describe('when a layer bears', () => {
  const HELD = { opening: 1, hold: { kind: 'continuing' as const, seconds: 2 }, closing: 1, preRoll: 0 };

  it('it may wait and it may last', () => {
    const steps = birthSteps((layer, effect) => {
      effect.stretches = HELD;
      layer.births = { from: atBorder('start', 0.5), until: atBorder('start', 1.5) };
    }, 200);
    expect(Math.min(...steps)).toBe(30);
    expect(Math.max(...steps)).toBe(89);
    expect(steps).toHaveLength(60);
  });

  it('its times hang on the borders of the stretches, letting go included', () => {
    const steps = birthSteps(
      (layer, effect) => {
        effect.stretches = HELD;
        layer.births = { from: atBorder('hold'), until: atBorder('letGo', 0.5) };
      },
      500,
      240,
    );
    expect(Math.min(...steps)).toBe(60);
    expect(Math.max(...steps)).toBe(269);
    expect(steps).toHaveLength(210);
  });

  it('its times hang on another layer’s events, and on measures', () => {
    const after = (event: 'firstBirth' | 'lastBirth' | 'lastDeath'): Moment => ({
      after: { kind: 'layer', layer: 'first', event },
      seconds: 1,
      measure: 'pause',
    });
    for (const [event, expected] of [
      ['firstBirth', 0.5 + 0.25],
      ['lastBirth', 1.5 + 0.25],
      ['lastDeath', 1.5 + 2 + 0.25],
    ] as const) {
      const steps = birthSteps((layer, effect) => {
        effect.stretches = HELD;
        effect.measures = collectionOf([['pause', { name: 'Pause', quantity: 'time', value: 0.25 }]]);
        const first = structuredClone(layer);
        first.salt = 2;
        setNumber(first, 'births.life', [1, 2]);
        first.births = { from: atBorder('start', 0.5), until: atBorder('start', 1.5) };
        layer.births = { from: after(event), until: null };
        effect.layers = collectionOf([
          ['first', first],
          ['motes', layer],
        ]);
      }, 400);
      expect(Math.min(...steps)).toBe(Math.round(expected * 60));
    }
  });

  it('standing ones stand from where the window opens to where it closes', () => {
    const effect = effectOf((layer, whole) => {
      whole.stretches = HELD;
      setNumber(layer, 'births.rate', 0);
      setNumber(layer, 'births.standing', 3);
      layer.births = { from: atBorder('start', 0.5), until: atBorder('start', 1.5) };
    });
    const world = playAlone(effect, rigs);
    const living = [29, 31, 89, 91].map((step) => (world.advance(step), world.living));
    expect(living).toEqual([0, 3, 3, 0]);
  });

  it('a burst may come several times, of a spread of births', () => {
    const counts = (most: number) => {
      const steps = birthSteps((layer, effect) => {
        effect.stretches = HELD;
        setNumber(layer, 'births.rate', 0);
        layer.bursts = collectionOf([['toll', { ...burst('opening', 0.1, 20), most, times: 3, every: 0.25 }]]);
      }, 100);
      return [6, 21, 36].map((step) => between(steps, step, step + 1));
    };
    expect(counts(20)).toEqual([20, 20, 20]);
    const spread = counts(60);
    expect(new Set(spread).size).toBeGreaterThan(1);
    for (const count of spread) {
      expect(count).toBeGreaterThanOrEqual(20);
      expect(count).toBeLessThanOrEqual(60);
    }
  });

  it('let go at any instant, nothing living is cut off', () => {
    for (const letGoStep of [61, 97, 140, 179]) {
      const effect = effectOf((layer, whole) => {
        whole.stretches = HELD;
        setNumber(layer, 'births.rate', 240);
        setNumber(layer, 'births.life', 1.5);
      });
      const world = playAlone(effect, rigs, { letGoStep });
      const keysAt = (step: number) => {
        world.advance(step);
        const { key, deathStep, count } = world.population('motes')!;
        return Array.from({ length: count }, (_, i) => [key[i]!, deathStep[i]!] as const);
      };
      for (let step = letGoStep; step < letGoStep + 200; step += 7) {
        const before = keysAt(step);
        const after = new Set(keysAt(step + 1).map(([key]) => key));
        for (const [key, death] of before) expect(after.has(key)).toBe(death > step + 1);
      }
    }
  });
});

describe('a pre-rolled effect', () => {
  it('is full when it is first seen, as if it had held before', () => {
    const at = (preRoll: number) => {
      const effect = effectOf((layer, whole) => {
        whole.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 2 }, closing: 1, preRoll };
        setNumber(layer, 'births.rate', 240);
        setNumber(layer, 'births.life', 1.5);
      });
      return playAlone(effect, rigs);
    };
    const [plain, rolled] = [at(0), at(3)];
    for (const world of [plain, rolled]) world.advance(0);
    expect(plain.living).toBe(0);
    expect(rolled.living).toBeGreaterThan(350);
    expect(rolled.step).toBe(0);
    const first = rolled.hash();
    rolled.advance(50);
    rolled.advance(0);
    expect(rolled.hash()).toBe(first);
    expect(rolled.clock.sheetTime(rolled.clock.timeOf(0))).toBe(1);
  });
});

describe('a hold without a seam', () => {
  /** The records of a frame, and its poses, as words. */
  const words = (world: Instance) => {
    const frame = frameOf(world);
    const end = frame.recordAt(frame.particles);
    return [frame.particles, Buffer.from(frame.u32.slice(16 + 128 * 8, end).buffer).toString('base64')] as const;
  };
  const seamless = (shape: (layer: Layer, effect: Effect) => void, preRoll = 4): Effect => {
    const effect = stormOnTube();
    const layer = effect.layers.byId['motes']!;
    effect.stretches = { opening: 0.5, hold: { kind: 'seamless', seconds: 2 }, closing: 1, preRoll };
    effect.stage.things = onStage('sway');
    setNumber(layer, 'births.rate', 333);
    shape(layer, effect);
    return effect;
  };

  it.each<[string, (layer: Layer, effect: Effect) => void]>([
    ['a storm on moving skin', () => undefined],
    [
      'jitter, a push and a keyed force',
      (layer) => {
        layer.forces = collectionOf([
          ['j', newForce('jitter')],
          ['p', newForce('push')],
          ['c', newForce('curl')],
        ]);
      },
    ],
    [
      'bursts and births per metre',
      (layer, effect) => {
        layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
        effect.stage.carrier = { kind: 'circle', radius: 1, speed: Math.PI };
        setNumber(layer, 'births.rate', 0);
        setNumber(layer, 'births.perMetre', 37);
        layer.bursts = collectionOf([
          ['b', { ...burst('hold', 0.31, 40), most: 90 }],
          ['c', burst('hold', 1.5, 11)],
        ]);
      },
    ],
    [
      'a rate that changes over the hold, within a window',
      (layer) => {
        const wave = curveShaper([
          [0, 0.2],
          [0.5, 1],
          [1, 0.1],
        ]);
        layer.settings['births.rate'].shapers = collectionOf([['t', { ...wave, reads: { kind: 'effectTime' } }]]);
        layer.births = { from: atBorder('hold', 0.25), until: atBorder('hold', 1.6) };
      },
    ],
  ])('gives the same frame after each turn, bit for bit, once it is full: %s', (_name, shape) => {
    const world = playAlone(seamless(shape), rigs, {}, { kernels: kernelBytes() });
    for (const start of [0, 37]) {
      world.advance(start);
      const [count, first] = words(world);
      expect(count).toBeGreaterThan(50);
      for (const turn of [1, 2, 5]) {
        world.advance(start + 120 * turn);
        expect(words(world)).toEqual([count, first]);
      }
    }
  });

  it('does so without pre-roll too, after its opening', () => {
    const world = playAlone(
      seamless(() => undefined, 0),
      rigs,
      {},
      { kernels: kernelBytes() },
    );
    world.advance(30 + 240);
    const first = words(world);
    world.advance(30 + 480);
    expect(words(world)).toEqual(first);
  });

  it('closes at once when it is let go, from the pose it stands in', () => {
    const world = playAlone(
      seamless(() => undefined),
      rigs,
      { letGoStep: 77 },
      { kernels: kernelBytes() },
    );
    const feet = [76, 77, 78, 79].map((step) => (world.advance(step), frameOf(world).skin(1)));
    for (let i = 1; i < feet.length; i++) {
      const leap = Math.max(...feet[i]!.map((x, k) => Math.abs(x - feet[i - 1]![k]!)));
      expect(leap).toBeLessThan(0.15);
    }
    world.advance(77 + 61 + 240);
    expect(world.isOver).toBe(true);
  });
});

describe('a layer’s times that hang on themselves', () => {
  it('are refused with the path', async () => {
    const { parseEffect } = await import('../../document/index.ts');
    const effect = effectOf((layer) => {
      layer.births = {
        from: { after: { kind: 'layer', layer: 'motes', event: 'lastBirth' }, seconds: 0, measure: null },
        until: null,
      };
    });
    expect(() => parseEffect(effect)).toThrow(/hangs on itself \(at layers\.motes\.births\)/);
  });
});
