import { lineageOf, listed, type Effect } from '../../document/index.ts';
import { compileLayer } from './layer.ts';
import { keepDistance } from './distance.ts';
import { FrontReader } from '../fronts/front.ts';
import { passedOn } from './links.ts';
import { bindTrails } from './trails.ts';
import { Signals } from '../time/signals.ts';
import type { CompiledDocument } from './plan.ts';
import { bindSurfaces } from './surfaces.ts';
import { dialShares } from '../values/dials.ts';
import type { CompiledAmid, Compiling } from './surroundings.ts';

/** All that layers of an effect are compiled with, looked up once. */
export function compilingOf(effect: Effect, amid: CompiledAmid): Compiling {
  const { scene, clock } = amid;
  const dials = dialShares(effect);
  const around = { effect, scene, clock, dials };
  return {
    effect,
    ...amid,
    dials,
    signals: new Signals(effect, clock, amid.announced),
    lineage: lineageOf(effect),
    passedOn: passedOn(effect),
    keepDistance: keepDistance(effect),
    fronts: new Map(listed(effect.fronts).map(({ id, item }) => [id, new FrontReader(id, item, around)])),
  };
}

/** Looks up once everything that stepping an effect reads. */
export function compileEffect(effect: Effect, amid: CompiledAmid): CompiledDocument {
  const compiling = compilingOf(effect, amid);
  const compiled = listed(effect.layers)
    .filter(({ item }) => item.population.kind === 'own')
    .map(({ id }) => compileLayer(id, compiling))
    .sort((a, b) => a.layer.salt - b.layer.salt || (a.id < b.id ? -1 : 1));
  const fronts = [...compiling.fronts].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, front]) => front);
  const { scene, clock, rigs } = amid;
  const { dials } = compiling;
  return {
    effect,
    scene,
    clock,
    dials,
    compiled,
    trails: bindTrails(compiling, compiled),
    lineage: compiling.lineage,
    fronts,
    surfaces: bindSurfaces({ effect, scene, clock, rigs, dials }),
  };
}
