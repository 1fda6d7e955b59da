import { describe, expect, it } from 'vitest';
import { Dice } from '../testing/dice.ts';
import { canonicalText } from './canonical.ts';
import { collectionOf, withItem, withoutItem } from '../settings/index.ts';
import { apply, diff, inverted, type Change } from './diff.ts';
import type { Effect } from './schema/index.ts';
import { newEffect, newForce, newLayer, structuredCopy } from './make.ts';
import { composeChanges } from './transition.ts';

/** Edits of all kinds: numbers, things that come and go, whole records that are replaced, and what is undone again. */
const EDITS: readonly ((draft: Effect, dice: Dice) => void)[] = [
  (draft, dice) => void (draft.seed = Math.floor(dice.number(0, 3))),
  (draft, dice) =>
    layerOf(
      draft,
      (layer) => (layer.settings['life.size'].base = { kind: 'fixed', value: Math.floor(dice.number(0, 3)) }),
    ),
  (draft) => layerOf(draft, (layer) => (layer.settings['life.size'].base = { kind: 'spread', low: 0, high: 1 })),
  (draft, dice) => layerOf(draft, (layer) => (layer.name = dice.comes(0.5) ? 'One' : 'Other')),
  (draft) => void (draft.layers = withItem(draft.layers, 'new', newLayer('New', 5))),
  (draft) => void (draft.layers = withoutItem(draft.layers, 'new')),
  (draft) => layerOf(draft, (layer) => (layer.forces = withItem(layer.forces, 'f9', newForce('wind')))),
  (draft) => layerOf(draft, (layer) => (layer.forces = withoutItem(layer.forces, 'f9'))),
  (draft) => {
    const wind = draft.layers.byId['new']?.forces.byId['f9'];
    if (wind) wind.muted = !wind.muted;
  },
  (draft, dice) =>
    void (draft.stretches.hold = dice.comes(0.5) ? { kind: 'none' } : { kind: 'seamless', seconds: 2 }),
];
function layerOf(draft: Effect, change: (layer: Effect['layers']['byId'][string]) => unknown): void {
  const layer = draft.layers.byId['new'] ?? draft.layers.byId['layer0'];
  if (layer) change(layer);
}

const sorted = (changes: readonly Change[]) => changes.map((change) => canonicalText(change)).sort();

describe('changes one after another', () => {
  it('come to the same as the difference between the first and the last document', () => {
    for (let seed = 0; seed < 25; seed++) {
      const dice = new Dice(seed);
      const before = { ...newEffect('Test', 1), layers: collectionOf([['layer0', newLayer('Motes', 5)]]) };
      let after: Effect = before;
      let together: Change[] = [];
      for (let n = 0; n < 12; n++) {
        const draft = structuredCopy(after);
        EDITS[Math.floor(dice.number(0, EDITS.length))]!(draft, dice);
        const changes = diff(after, draft);
        together = composeChanges(together, changes);
        after = apply(after, changes);
        expect(sorted(together)).toEqual(sorted(diff(before, after)));
      }
      expect(canonicalText(apply(before, together))).toBe(canonicalText(after));
      expect(canonicalText(apply(after, inverted(together)))).toBe(canonicalText(before));
    }
  });
});
