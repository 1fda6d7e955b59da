import { describe, expect, it } from 'vitest';
import { findings } from '../checks/index.ts';
import {
  atBone,
  atEffect,
  collectionOf,
  listed,
  newEffect,
  newThing,
  parseEffect,
  structuredCopy,
  type Effect,
} from '../document/index.ts';
import { bendingTube } from '../testing/rigs.ts';
import { addReady, READY, type ReadyKind } from './index.ts';

const ACROSS = [atEffect([-0.5, 1, 0]), atEffect([0.5, 1, 0])] as const;
const KINDS = Object.keys(READY) as ReadyKind[];
const ONCE: readonly ReadyKind[] = ['blade', 'flash', 'ring', 'dust', 'bent', 'struck', 'held', 'debris'];
const added = (effect: Effect, kind: ReadyKind, beside = ''): Effect => {
  const draft = structuredCopy(effect);
  const id = `l${effect.layers.order.length}`;
  addReady(draft, id, kind, { salt: 7, beside, blade: ACROSS, mesh: { asset: 'b'.repeat(64), name: 'Block' } });
  return draft;
};
function standing(): Effect {
  const effect = newEffect('Ready', 3);
  effect.stage.things = collectionOf([['sedge', newThing('Sedge', 'a'.repeat(64))]]);
  return effect;
}

describe('a ready layer', () => {
  it.each(KINDS)('%s makes a whole effect, in which nothing is found wrong', (kind) => {
    const effect = added(standing(), kind);
    expect(parseEffect(structuredClone(effect))).toEqual(effect);
    const found = findings(effect, new Map([['sedge', bendingTube()]]), { refused: {}, isBudgetFull: false });
    // What happens once is over soon, by itself: only that nothing lives before it and after it is told.
    const left = ONCE.includes(kind) ? found.filter(({ sentence }) => !sentence.startsWith('Nothing lives')) : found;
    expect(left.map(({ sentence }) => sentence)).toEqual([]);
  });

  it('stands where the chosen layer stands, and shares nothing with it', () => {
    const effect = added(standing(), 'flame');
    const first = effect.layers.byId['l0']!;
    if (first.source.kind !== 'sphere') throw new Error('a flame is born in a ball');
    first.source.place = atBone('sedge', 'hand.left', [0, 0.1, 0]);
    const { layers } = added(effect, 'light', 'l0');
    const { source } = layers.byId['l1']!;
    expect(source).toEqual({ kind: 'point', place: first.source.place });
    if (source.kind === 'point') source.place.offset[1] = 5;
    expect(first.source.place.offset[1]).toBe(0.1);
  });

  it('adds what it needs, and nothing else', () => {
    const before = standing();
    for (const kind of KINDS) {
      const { layers, fronts, surfaces, forces } = added(before, kind);
      expect([kind, layers.order.length, forces.order.length]).toEqual([kind, 1, 0]);
      expect([kind, fronts.order.length]).toEqual([kind, kind === 'held' ? 1 : 0]);
      expect([kind, surfaces.order.length]).toEqual([kind, kind === 'debris' ? 1 : 0]);
    }
    const twice = added(added(before, 'debris'), 'debris');
    expect(twice.surfaces.order).toHaveLength(1);
    expect(listed(twice.surfaces)[0]!.item.layers).toEqual(['l0', 'l1']);
  });

  it('goes round as widely as what it stands beside', () => {
    const effect = added(standing(), 'halo');
    effect.layers.byId['l0']!.settings['source.radius'].base = { kind: 'fixed', value: 2 };
    const { base } = added(effect, 'orbit', 'l0').layers.byId['l1']!.settings['source.radius'];
    expect(base).toEqual({ kind: 'fixed', value: 2 });
  });

  it('has a name that no other has', () => {
    let effect = standing();
    for (let n = 0; n < 3; n++) effect = added(effect, 'sparks');
    expect(listed(effect.layers).map(({ item }) => item.name)).toEqual(['Sparks 3', 'Sparks 2', 'Sparks']);
  });
});
