import { setNumber, structuredCopy, type Effect } from '../document/index.ts';
import { layout } from '../kernels/index.ts';
import { playAlone, type Instance, type PlayOptions } from '../simulation/index.ts';
import { randomEffect, randomRigs } from './randomEffect.ts';

/** Steps at which worlds are held against each other. */
export const BIT_STEPS = [24, 48, 72] as const;

/** On which way a world comes to a step. */
export const ROUTES = ['played', 'scrubbed', 'undone'] as const;
export type Route = (typeof ROUTES)[number];

const rigs = randomRigs();

/** A random effect's world, before its first step. */
export function worldOf(seed: number, options: PlayOptions): Instance {
  const { effect, inputs } = randomEffect(seed);
  return playAlone(effect, rigs, inputs, options);
}

/** Another lifetime and another way to leave for the last layer: what reaches some layers' state, and perhaps not others'. */
function edited(effect: Effect): Effect {
  const draft = structuredCopy(effect);
  const last = draft.layers.byId[draft.layers.order[draft.layers.order.length - 1]!]!;
  setNumber(last, 'births.life', 0.9);
  setNumber(last, 'motion.speed', 1.3);
  return draft;
}

/** Brings a world on a route to each of the steps, and calls `at` there. */
export function travel(world: Instance, route: Route, at: (step: number) => void): void {
  if (route === 'scrubbed') world.advance(66);
  if (route === 'undone') {
    const effect = world.effect;
    world.advance(60);
    if (!world.adopt(edited(effect))) throw new Error('a new lifetime wants a new world');
    world.advance(40);
    world.adopt(effect);
  }
  const steps = route === 'scrubbed' ? [48, 24, 72] : BIT_STEPS;
  for (const step of steps) {
    world.advance(step);
    at(step);
  }
}

/** The hashes at each of the steps. */
export function hashesOn(world: Instance, route: Route): Record<number, string | null> {
  const hashes: Record<number, string | null> = {};
  travel(world, route, (step) => (hashes[step] = world.hash()));
  return hashes;
}

const FIELDS =
  'PX PY PZ VX VY VZ FX FY FZ BIRTH_FRACTION LIFE BIRTH_STEP DEATH_STEP KEY NUMBER FLAGS SPOT SPOT_1 SPOT_2 TINT_R TINT_G TINT_B SCALE TRAVELLED FACING'.split(
    ' ',
  );

/** The first layer, key and field in which two worlds at the same step differ; null where all their state is the same. */
export function differenceOf(a: Instance, b: Instance): string | null {
  const [mine, theirs] = [a.states(), b.states()];
  for (const [index, { id, population }] of mine.entries()) {
    const other = theirs[index]!;
    if (population.count !== other.population.count)
      return `${id}: ${population.count} particles here, ${other.population.count} there`;
    for (let i = 0; i < population.count; i++)
      for (let field = 0; field < population.fields; field++) {
        const [own, its] = [[population, a] as const, [other.population, b] as const].map(
          ([{ base, stride }, world]) => new Uint32Array(world.memory.buffer, base + field * stride + i * 4, 1)[0]!,
        );
        if (own !== its)
          return `${id}, particle ${population.key[i]!.toString(16)} (place ${i}), ${FIELDS[field] ?? `channel ${field - layout.FIELDS}`}: ${own!.toString(16)} here, ${its!.toString(16)} there`;
      }
  }
  return null;
}

/** The first number in a world's state that is none or infinite; null where all are numbers. */
export function noNumberIn(world: Instance): string | null {
  const numbers = FIELDS.filter((name) => !/STEP|KEY|NUMBER|FLAGS|SPOT$|FACING/.test(name));
  for (const { id, population } of world.states())
    for (const name of numbers) {
      const { base, stride, count } = population;
      const field = new Float32Array(world.memory.buffer, base + FIELDS.indexOf(name) * stride, count);
      const bad = field.findIndex((x) => !Number.isFinite(x));
      if (bad >= 0) return `${id}, place ${bad}: ${name} is ${field[bad]}`;
    }
  return null;
}
