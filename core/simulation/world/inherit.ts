import type { Running } from '../run/running.ts';
import type { Layers } from './layers.ts';
import { kinsOf, type Reach } from './reach.ts';
import type { Effect } from '../../document/index.ts';

/** Takes over others' present and past states of layers; of the same document, or of one that does not reach them. */
export function takeLayers(mine: Layers, theirs: Layers, ids: ReadonlySet<string>): void {
  for (const running of mine.running) {
    const { id } = running.compiled;
    const given = ids.has(id) ? theirs.of(id) : undefined;
    if (given) mine.kins.take(running, given, theirs.kins);
  }
  for (const trail of mine.trails) {
    const { id, heads } = trail.bound;
    const given = ids.has(heads) ? theirs.trailOf(id) : undefined;
    if (given) mine.kins.take(trail, given, theirs.kins);
  }
}

/** The layers of an effect whose states may be taken over: none that a change reaches, each with the same room. */
export function inheritable(effect: Effect, mine: Layers, theirs: Layers, reach: Reach): Set<string> {
  const reached = reach.layers;
  if (reached === 'all') return new Set();
  const alike = (own: Running | undefined, given: Running | undefined) =>
    own && given && own.population.cap === given.population.cap && given.isExact;
  const same = (id: string) =>
    alike(mine.of(id), theirs.of(id)) &&
    mine.trails
      .filter(({ bound }) => bound.heads === id)
      .every((trail) => alike(trail, theirs.trailOf(trail.bound.id)));
  const kept = kinsOf(effect).filter((kin) => kin.every((id) => !mine.of(id) || (!reached.has(id) && same(id))));
  return new Set(kept.flat());
}
