import type { Effect, Lineage } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { type Announced, Signals } from '../time/signals.ts';
import type { Reading } from '../values/reading.ts';
import { EffectClock } from '../time/clock.ts';
import { FrontReader } from '../fronts/front.ts';
import type { Strike, Parents } from '../sources/source.ts';
import { passedOn } from './links.ts';
import { Scene } from '../scene/scene.ts';
/** What an effect is compiled amid: the stage, the time, and what happens in the world that steps it. */
export interface CompiledAmid {
  readonly scene: Scene;
  readonly clock: EffectClock;
  /** Meshes by the hash of their asset. */
  readonly rigs: ReadonlyMap<string, Rig>;
  readonly populationOf: (layerId: string) => Parents | null;
  readonly strikes: () => readonly Strike[];
  readonly announced: () => readonly Announced[];
}

/** What all layers of an effect are compiled with. */
export interface Compiling {
  readonly effect: Effect;
  readonly scene: Scene;
  readonly clock: EffectClock;
  /** Meshes by the hash of their asset. */
  readonly rigs: ReadonlyMap<string, Rig>;
  readonly lineage: Lineage;
  /** Which share of its range each dial stands at. */
  readonly dials: Reading['dials'];
  /** Release fronts by id: layers of one front are freed by the same border. */
  readonly fronts: ReadonlyMap<string, FrontReader>;
  readonly passedOn: ReturnType<typeof passedOn>;
  /** Layers whose particles' metres are kept. */
  readonly keepDistance: ReadonlySet<string>;
  /** The particles of another layer. */
  readonly populationOf: (id: string) => Parents | null;
  /** Blows from outside. */
  readonly strikes: () => readonly Strike[];
  readonly signals: Signals;
}

/** What surfaces are bound with. */
export interface SurfaceSurroundings {
  readonly effect: Effect;
  readonly scene: Scene;
  readonly clock: EffectClock;
  /** Meshes by the hash of their asset. */
  readonly rigs: ReadonlyMap<string, Rig>;
  readonly dials: Reading['dials'];
}
