import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  collectionOf,
  listed,
  newForce,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
} from '../document/index.ts';
import { playAlone, type Inputs } from '../simulation/index.ts';
import { effectOf } from '../testing/effects.ts';
import { randomEffect, randomRigs } from '../testing/randomEffect.ts';
import { childrenOf, groupLayers, layersWithin, mayHold, moveGroup, moveLayer, ungroup } from './regroup.ts';

const edited = (effect: Effect, edit: (draft: Effect) => void): Effect => {
  const draft = structuredCopy(effect);
  edit(draft);
  return parseEffect(draft);
};

/** Where every particle is after half a second, and how large it is drawn. */
function picture(effect: Effect, inputs: Inputs = {}): number[][] {
  const world = playAlone(effect, randomRigs(), inputs);
  world.advance(30);
  return listed(effect.layers).map(({ id }) => {
    const population = world.population(id);
    if (!population) return [];
    return Array.from({ length: population.count }, (_, i) => population.position.map((axis) => axis[i]!)).flat();
  });
}
function staysTheSame(effect: Effect, made: Effect, inputs: Inputs = {}): void {
  const [before, after] = [picture(effect, inputs), picture(made, inputs)];
  before.forEach((layer, n) => {
    expect(after[n]!.length).toBe(layer.length);
    layer.forEach((x, i) => expect(Math.abs(after[n]![i]! - x)).toBeLessThan(1e-4));
  });
}

/** Motes on a ring feel a vortex; their group is turned, moved and larger. */
const grouped = (): Effect =>
  effectOf((layer, effect) => {
    layer.source = { kind: 'ring', place: atEffect([0.5, 1, 0.2], [20, 40, 0]) };
    setNumber(layer, 'births.rate', 300);
    setNumber(layer, 'births.perMetre', 20);
    setNumber(layer, 'motion.speed', [0.2, 0.8]);
    layer.forces = collectionOf([
      ['v', newForce('vortex', atEffect([0, 1.2, 0], [0, 0, 30]))],
      ['a', newForce('attraction', atEffect([0.3, 2, 0]))],
      ['d', newForce('drag')],
    ]);
    effect.groups = collectionOf([
      [
        'outer',
        { name: 'Outer', parent: null, translation: [0, 0.4, 0], rotation: [0, 70, 0], scale: 0.5, linked: null },
      ],
      [
        'inner',
        { name: 'Inner', parent: 'outer', translation: [0.2, 0, 0.1], rotation: [15, 0, 25], scale: 3, linked: null },
      ],
    ]);
  });

describe('putting a layer under a parent', () => {
  it.each([null, 'outer', 'inner'])('from %s to anywhere changes nothing that is seen', (from) => {
    const effect = grouped();
    effect.layers.byId['motes']!.parent = from;
    for (const to of [null, 'outer', 'inner'])
      staysTheSame(
        effect,
        edited(effect, (draft) => moveLayer(draft, 'motes', to)),
      );
  });

  it('changes nothing in effects of every kind', () => {
    for (let seed = 0; seed < 16; seed++) {
      const { effect, inputs } = randomEffect(seed);
      const made = edited(effect, (draft) => groupLayers(draft, ['layer0', 'layer1'], 'new', 'Both'));
      expect(made.layers.byId['layer0']!.parent).toBe('new');
      staysTheSame(effect, made, inputs);
    }
  });

  it('keeps keys of a place standing where they stood', () => {
    const effect = grouped();
    const { source } = effect.layers.byId['motes']!;
    if ('place' in source)
      source.place.keys = collectionOf([
        ['a', { at: 0, offset: [0, 1, 0], turn: [0, 0, 0], ease: 'smooth' as const }],
        ['b', { at: 0.4, offset: [1, 1, 0], turn: [0, 90, 0], ease: 'smooth' as const }],
      ]);
    effect.groups.byId['outer']!.rotation = [0, 0, 0];
    staysTheSame(
      effect,
      edited(effect, (draft) => moveLayer(draft, 'motes', 'outer')),
    );
  });

  it('leaves what hangs on a bone where it is: bones feel no groups', () => {
    const effect = grouped();
    const place = atBone('figure', 'hand', [0.1, 0.2, 0.3]);
    effect.layers.byId['motes']!.source = { kind: 'point', place };
    const made = edited(effect, (draft) => moveLayer(draft, 'motes', 'inner'));
    expect(made.layers.byId['motes']!.source).toEqual({ kind: 'point', place });
  });
});

describe('groups', () => {
  it('stand in the middle of what they were made of', () => {
    const made = edited(grouped(), (draft) => groupLayers(draft, ['motes'], 'new', 'New'));
    expect(made.groups.byId['new']).toEqual({
      name: 'New',
      parent: null,
      translation: [0.5, 1, 0.2],
      rotation: [0, 0, 0],
      scale: 1,
      linked: null,
    });
    expect(childrenOf(made, 'new')).toEqual({ layers: ['motes'], groups: [] });
  });

  it('move into one another, and are taken away, with nothing seen to change', () => {
    const effect = grouped();
    effect.layers.byId['motes']!.parent = 'inner';
    staysTheSame(
      effect,
      edited(effect, (draft) => moveGroup(draft, 'inner', null)),
    );
    staysTheSame(
      effect,
      edited(effect, (draft) => ungroup(draft, 'outer')),
    );
    const none = edited(effect, (draft) => {
      ungroup(draft, 'inner');
      ungroup(draft, 'outer');
    });
    expect(none.groups.order).toEqual([]);
    staysTheSame(effect, none);
    expect(layersWithin(effect, 'outer')).toEqual(['motes']);
  });

  it('never hold themselves', () => {
    const effect = grouped();
    expect(mayHold(effect, 'inner', 'outer')).toBe(false);
    expect(mayHold(effect, 'outer', 'inner')).toBe(true);
    expect(() => moveGroup(effect, 'outer', 'inner')).toThrow('stand in itself');
  });

  it('made larger make speeds and shapes by speed larger with them', () => {
    const effect = grouped();
    const layer = effect.layers.byId['motes']!;
    layer.parent = 'outer';
    const speed = layer.settings['motion.speed'];
    const made = edited(effect, (draft) => moveLayer(draft, 'motes', null));
    expect(made.layers.byId['motes']!.settings['motion.speed'].base).toEqual({ kind: 'spread', low: 0.1, high: 0.4 });
    expect(speed.base).toEqual({ kind: 'spread', low: 0.2, high: 0.8 });
    expect(made.layers.byId['motes']!.settings['births.perMetre'].base).toEqual({ kind: 'fixed', value: 40 });
  });
});
