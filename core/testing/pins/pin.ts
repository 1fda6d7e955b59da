import { atEffect, collectionOf, newEffect, newThing, type Effect } from '../../document/index.ts';
import { addReady, READY, type ReadyKind } from '../../building/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { playAlone, type Inputs } from '../../simulation/index.ts';
import { kernelBytes } from '../kernelBytes.ts';
import { randomEffect, RANDOM_TUBE, randomRigs } from '../randomEffect.ts';
import { meaningOf } from './meaning.ts';

/** Steps at which effects are pinned. */
export const PIN_STEPS = [60, 240, 600] as const;

/** What an effect says at each of the steps: the state of its particles, then what is drawn. */
export type Pin = readonly string[];

/** Plays an effect from its beginning, and says what it means at the first `count` of the steps. */
export function pinOf(
  effect: Effect,
  rigs: ReadonlyMap<string, Rig>,
  inputs: Inputs = {},
  count: number = PIN_STEPS.length,
): Pin {
  const world = playAlone(effect, rigs, inputs, { kernels: kernelBytes() });
  return PIN_STEPS.slice(0, count).map((step) => {
    world.advance(step);
    const { state, drawn } = meaningOf(world);
    return `${state} ${drawn}`;
  });
}

/** How many random effects are pinned, by the seeds from 0 on. */
export const PINNED_SEEDS = 200;

const rigs = randomRigs();

export function pinOfSeed(seed: number, count?: number): Pin {
  const { effect, inputs } = randomEffect(seed);
  return pinOf(effect, rigs, inputs, count);
}

/** The kinds of ready layer that are pinned. */
export const PINNED_READY = Object.keys(READY) as ReadyKind[];

/** A ready layer alone, with a figure on the stage. */
export function pinOfReady(kind: ReadyKind): Pin {
  const effect = newEffect('Ready', 3);
  effect.stage.things = collectionOf([['tube', newThing('Tube', RANDOM_TUBE)]]);
  const across = [atEffect([-0.5, 1, 0]), atEffect([0.5, 1, 0])] as const;
  addReady(effect, 'made', kind, { salt: 7, beside: '', blade: across, mesh: { asset: RANDOM_TUBE, name: 'Tube' } });
  return pinOf(effect, rigs);
}
