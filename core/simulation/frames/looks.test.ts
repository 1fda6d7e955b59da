import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  curveShaper,
  newDrawn,
  newStep,
  setNumber,
  setStep,
  stepSettings,
  type Effect,
  type Layer,
  type NumberSetting,
  type Step,
} from '../../document/index.ts';
import { draw, slotOf } from '../../maths/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { frameOf } from '../../testing/riders.ts';
import { OWN_WORDS, RECORD_AGE, type Frame } from './frame.ts';
import { lookPlan } from '../looks/plan.ts';
import { newReading } from '../values/reading.ts';
import { playAlone } from '../world/world.ts';

const ring = (change: (width: NumberSetting, step: Step) => void) => {
  const step = newStep('drawn');
  setStep(step, 'shape', 'ring');
  change(stepSettings(step)['width'] as NumberSetting, step);
  return { kind: 'own', steps: collectionOf([['r', step as Step]]) } as Layer['look'];
};
const NAME = 'step/r/width';

/** Twenty particles of two seconds, born at once. */
const looked = (look: Layer['look'], change: (layer: Layer, effect: Effect) => void = () => undefined) =>
  effectOf((layer, effect) => {
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 2);
    layer.bursts = collectionOf([['b', burst('hold', 0, 20)]]);
    layer.look = look;
    change(layer, effect);
  });

/** A number of the look of each particle, as a frame holds it, with the particle's key and age. */
function valuesOf(effect: Effect, step: number): { value: number; key: number; age: number }[] {
  const world = playAlone(effect, new Map());
  world.advance(step);
  const frame: Frame = frameOf(world);
  const [id] = effect.layers.order;
  const layer = effect.layers.byId[id!]!;
  const { start, count, own, ownWords, shared, plan } = frame.layer(layer.salt)!;
  const made = lookPlan(effect, layer);
  expect(plan).toBe(made.id);
  const place = made.numbers.find(({ name }) => name === NAME)!;
  const population = world.population(id!)!;
  return Array.from({ length: count }, (_, n) => ({
    value: place.kind === 'shared' ? frame.f32[shared + place.at]! : frame.f32[own + n * ownWords + place.at]!,
    key: population.key[n]!,
    age: frame.f32[frame.recordAt(start + n) + RECORD_AGE]!,
  }));
}

describe('numbers of a look', () => {
  it('are written once where all particles share them, also when they change with the time', () => {
    const plain = looked(ring((width) => (width.base = { kind: 'fixed', value: 40 })));
    const [layer] = Object.values(plain.layers.byId);
    expect(lookPlan(plain, layer!).ownWords).toBe(0);
    expect(new Set(valuesOf(plain, 30).map(({ value }) => value))).toEqual(new Set([40]));
    const timed = looked(
      ring((width) => {
        width.base = { kind: 'fixed', value: 80 };
        width.shapers = collectionOf([
          [
            't',
            {
              ...curveShaper([
                [0, 0],
                [1, 1],
              ]),
              reads: { kind: 'effectTime' } as const,
            },
          ],
        ]);
      }),
      (_, effect) => (effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 }),
    );
    timed.layers.byId[timed.layers.order[0]!]!.bursts = collectionOf([['b', burst('opening', 0, 20)]]);
    expect(lookPlan(timed, timed.layers.byId[timed.layers.order[0]!]!).ownWords).toBe(0);
    for (const { value } of valuesOf(timed, 60)) expect(value).toBeCloseTo(40, 4);
  });

  it('are drawn for each by its key, and shaped by its age, its speed and what it carries', () => {
    const spread = looked(ring((width) => (width.base = { kind: 'spread', low: 10, high: 50 })));
    for (const { value, key } of valuesOf(spread, 30))
      expect(value).toBeCloseTo(10 + 40 * draw(key, slotOf(NAME)), 3);
    const aged = looked(
      ring((width) => {
        width.base = { kind: 'fixed', value: 60 };
        width.shapers = collectionOf([
          [
            'a',
            curveShaper([
              [0, 0],
              [1, 1],
            ]),
          ],
        ]);
      }),
    );
    for (const { value, age } of valuesOf(aged, 45)) {
      expect(age).toBeCloseTo(45 / 120, 5);
      expect(value).toBeCloseTo(60 * age, 2);
    }
    const fast = looked(
      ring((width) => {
        width.base = { kind: 'fixed', value: 50 };
        width.shapers = collectionOf([
          [
            'v',
            {
              ...curveShaper([
                [0, 0],
                [4, 2],
              ]),
              reads: { kind: 'speed' } as const,
            },
          ],
        ]);
      }),
      (layer) => setNumber(layer, 'motion.speed', 1),
    );
    for (const { value } of valuesOf(fast, 30)) expect(value).toBeCloseTo(25, 2);
    const carried = looked(
      ring((width) => {
        width.base = { kind: 'fixed', value: 20 };
        width.shapers = collectionOf([
          [
            'c',
            {
              ...curveShaper([
                [0, 0],
                [10, 10],
              ]),
              reads: { kind: 'channel', channel: 'heat' } as const,
            },
          ],
        ]);
      }),
      (layer, effect) => {
        effect.channels = collectionOf([['heat', { name: 'heat' }]]);
        layer.channels = collectionOf([
          ['heat', { base: { kind: 'fixed', value: 3 }, shapers: collectionOf([]), muted: false }],
        ]);
      },
    );
    for (const { value } of valuesOf(carried, 30)) expect(value).toBeCloseTo(60, 2);
  });

  it('never reach what is computed: a run with them has the places of one without', () => {
    const placesOf = (effect: Effect) => {
      const world = playAlone(effect, new Map());
      world.advance(50);
      return world.population(effect.layers.order[0]!)!.position.map((axis) => [...axis.subarray(0, 20)]);
    };
    const plain = looked(ring(() => undefined));
    const spread = looked(ring((width) => (width.base = { kind: 'spread', low: 10, high: 50 })));
    expect(placesOf(spread)).toEqual(placesOf(plain));
  });

  it('have another plan when another number is drawn for each, and none of a muted step', () => {
    const plan = (look: Layer['look']) => {
      const effect = looked(look);
      return lookPlan(effect, effect.layers.byId[effect.layers.order[0]!]!);
    };
    const fixed = plan(ring(() => undefined));
    const spread = plan(ring((width) => (width.base = { kind: 'spread', low: 10, high: 50 })));
    const muted = plan(ring((_, step) => ((step as { muted: boolean }).muted = true)));
    expect(new Set([fixed.id, spread.id, muted.id]).size).toBe(3);
    expect(spread.ownWords).toBe(4);
    expect(muted.numbers.some(({ name }) => name === NAME)).toBe(false);
    // Typing another value changes no plan: nothing is compiled anew for it.
    expect(plan(ring((width) => (width.base = { kind: 'fixed', value: 77 }))).id).toBe(fixed.id);
  });

  it('tell which of them had no room', () => {
    const effect = looked({ kind: 'own', steps: collectionOf([]) }, (layer) => {
      const steps = Array.from({ length: 3 }, (_, n): [string, Step] => {
        const step = newStep('drawn');
        setStep(step, 'shape', 'bolt');
        for (const name of ['softness', 'width', 'jags', 'struck']) setStep(step, name, [1, 2]);
        return [`s${n}`, step];
      });
      layer.look = { kind: 'own', steps: collectionOf(steps) };
    });
    const plan = lookPlan(effect, effect.layers.byId[effect.layers.order[0]!]!);
    expect(plan.numbers.filter(({ kind }) => kind === 'own').length).toBe(OWN_WORDS);
    expect(plan.refused.map(({ step }) => step)).toEqual(['s2', 's2', 's2', 's2']);
  });

  it('hold the reach of lights in metres of their groups, and the seconds that a flipbook runs by', () => {
    const effect = looked({ kind: 'own', steps: collectionOf([]) }, (layer) => {
      layer.drawn = newDrawn('light');
    });
    const layer = effect.layers.byId[effect.layers.order[0]!]!;
    const reach = (scale: number) => {
      const found = lookPlan(effect, layer, scale).numbers.find(({ name }) => name === 'drawn/reach')!;
      return found.reader.read(newReading());
    };
    expect(reach(3) / reach(1)).toBeCloseTo(3, 6);
    const scroll = looked({ kind: 'own', steps: collectionOf([['s', newStep('scroll') as Step]]) });
    const world = playAlone(scroll, new Map());
    world.advance(45);
    const frame = frameOf(world);
    const { own, count } = frame.layer(scroll.layers.byId[scroll.layers.order[0]!]!.salt)!;
    expect(count).toBe(20);
    expect(frame.f32[own]).toBeCloseTo(0.75, 5);
  });
});
