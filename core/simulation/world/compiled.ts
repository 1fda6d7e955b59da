import { atTier, type Effect } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { compileEffect } from '../compile/effect.ts';
import type { CompiledDocument } from '../compile/plan.ts';
import { Base, NOWHERE } from '../scene/base.ts';
import { PoseCache } from '../scene/posing.ts';
import { Scene } from '../scene/scene.ts';
import { EffectClock } from '../time/clock.ts';
import { standingAt, withGiven, type Given } from './given.ts';
import type { Inputs } from './inputs.ts';
import type { Layers } from './layers.ts';
import { needsOf, withSpare, type Needs } from './needs.ts';

export const DEFAULT_BUDGET = 100_000;

/** How an instance is computed. */
export interface InstanceOptions extends Given {
  /** Most of its particles living at once, all layers together. */
  readonly budget?: number;
  /** The step of the world at which its own step 0 lies. */
  readonly start?: number;
  /** Only these layers, and whoever hangs together with them, are ever computed. */
  readonly only?: ReadonlySet<string>;
  /** False: every run begins at zero, also where its end does not hang on all of it. */
  readonly skipsAhead?: boolean;
}

/** What an instance's documents are compiled amid, one after another. */
export interface InstanceAmid {
  readonly rigs: ReadonlyMap<string, Rig>;
  readonly rate: number;
  readonly options: InstanceOptions;
  /** Poses of things, shared with the scenes of other instances. */
  readonly poses: PoseCache;
  /** What a document asks for as it runs: its layers are set once they have room. */
  readonly live: { layers: Layers | null; inputs: Inputs };
}

/** An effect that is compiled for a world, and has no room in it yet. */
export class Compiled {
  readonly document: CompiledDocument;
  readonly needs: Needs;
  readonly effect: Effect;
  readonly amid: InstanceAmid;

  constructor(
    effect: Effect,
    rigs: ReadonlyMap<string, Rig>,
    inputs: Inputs,
    options: InstanceOptions,
    rate: number,
    poses = new PoseCache(),
  ) {
    this.effect = effect;
    this.amid = { rigs, rate, options, poses, live: { layers: null, inputs } };
    this.document = compileInstance(withGiven(effect, options), this.amid, null);
    this.needs = withSpare(needsOf(this.document, options.budget ?? DEFAULT_BUDGET));
  }
}

/** Compiles a document into a value, as the tier it is seen in has it. The scene of the one before is used again where nothing stands on another stage. */
export function compileInstance(
  whole: Effect,
  { rigs, rate, options, poses, live }: InstanceAmid,
  before: CompiledDocument | null,
): CompiledDocument {
  const effect = atTier(whole);
  const isSameStage = before !== null && sameText(effect.stage, before.effect.stage);
  const base = () => new Base(standingAt(options), () => live.inputs.places ?? NOWHERE);
  const scene = isSameStage ? before.scene : new Scene(effect.stage, rigs, base(), poses);
  const { letGoStep } = live.inputs;
  const held = new EffectClock(effect.stretches, Infinity, rate);
  const clock = letGoStep === undefined ? held : new EffectClock(effect.stretches, held.timeOf(letGoStep), rate);
  return compileEffect(effect, {
    scene,
    rigs,
    clock,
    populationOf: (id) => live.layers?.of(id)?.population ?? null,
    strikes: () => live.inputs.strikes ?? [],
    announced: () => live.inputs.signals ?? [],
  });
}

export const sameText = (a: object, b: object): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
