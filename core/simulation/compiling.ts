import { lineageOf, listed, type Effect, type Lineage } from '../document/index.ts';
import type { EffectClock } from './clock.ts';
import { compileLayer, dialShares, type CompiledLayer, type Compiling } from './compiled.ts';
import { keepDistance } from './distance.ts';
import { FrontReader } from './fronts/index.ts';
import { passedOn } from './links/index.ts';
import type { Population } from './population.ts';
import { bindTrails, type BoundTrail } from './ribbons/index.ts';
import type { Scene } from './scene.ts';
import { Signals, type Announced } from './signals.ts';
import type { Strike } from './sources/index.ts';

/** An effect's layers with particles of their own, and its trails, ready to be stepped. */
export interface Compiled {
  /** By salt: no order on screen reaches what is computed. */
  readonly compiled: readonly CompiledLayer[];
  readonly trails: readonly BoundTrail[];
  readonly lineage: Lineage;
  /** By id. */
  readonly fronts: readonly FrontReader[];
}

/** What an effect is compiled amid: the stage, the time, and what happens in the world that steps it. */
export interface CompiledAmid {
  readonly scene: Scene;
  readonly clock: EffectClock;
  readonly populationOf: (layerId: string) => Population | null;
  readonly strikes: () => readonly Strike[];
  readonly announced: () => readonly Announced[];
}

/** All that layers of an effect are compiled with, looked up once. */
export function compilingOf(effect: Effect, amid: CompiledAmid): Compiling {
  const { scene, clock } = amid;
  const around = { effect, scene, clock, dials: dialShares(effect) };
  return {
    effect,
    ...amid,
    signals: new Signals(effect, clock, amid.announced),
    lineage: lineageOf(effect),
    passedOn: passedOn(effect),
    keepDistance: keepDistance(effect),
    fronts: new Map(listed(effect.fronts).map(({ id, item }) => [id, new FrontReader(id, item, around)])),
  };
}

/** Looks up once everything that stepping an effect reads. */
export function compileEffect(effect: Effect, amid: CompiledAmid): Compiled {
  const compiling = compilingOf(effect, amid);
  const compiled = listed(effect.layers)
    .filter(({ item }) => item.population.kind === 'own')
    .map(({ id }) => compileLayer(id, compiling))
    .sort((a, b) => a.layer.salt - b.layer.salt || (a.id < b.id ? -1 : 1));
  const fronts = [...compiling.fronts].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, front]) => front);
  return { compiled, trails: bindTrails(compiling, compiled), lineage: compiling.lineage, fronts };
}
