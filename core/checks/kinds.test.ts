import { describe, expect, it } from 'vitest';
import {
  listed,
  atThing,
  collectionOf,
  newForce,
  newStep,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
} from '../document/index.ts';
import { effectOf } from '../testing/effects.ts';
import { bendingTube } from '../testing/rigs.ts';
import { findings } from './findings.ts';
import { KINDS, NOTHING_OBSERVED } from '../testing/kindsOfFaults.ts';

const RIGS = new Map([['figure', bendingTube()]]);
const all = (effect: Effect, observed = NOTHING_OBSERVED) => findings(effect, RIGS, observed);

describe('kinds of findings', () => {
  it.each(KINDS.map((kind) => [kind.name, kind] as const))('%s', (_, kind) => {
    const { id, says, observed, mends } = kind;
    const wrong = effectOf(kind.wrong);
    const found = all(wrong, observed).find((finding) => finding.id.includes(id));
    expect(found?.sentence).toMatch(says);
    expect(found!.where).not.toBe('');
    const right = effectOf(kind.right);
    expect(all(right, observed).filter((finding) => finding.id.includes(id))).toEqual([]);
    if (mends === false) {
      expect(found!.mend).toBeNull();
      return;
    }
    const mended = structuredCopy(wrong);
    found!.mend!.apply(mended);
    expect(all(mended, observed).filter((finding) => finding.id === found!.id)).toEqual([]);
    expect(() => parseEffect(mended)).not.toThrow();
  });

  it('are at least twenty-five, and what is wrong is told before what only looks so', () => {
    expect(new Set(KINDS.map(({ id }) => id)).size).toBeGreaterThanOrEqual(25);
    const effect = effectOf((layer) => {
      setNumber(layer, 'life.turning', 90);
      layer.forces = collectionOf([['f', newForce('attraction', atThing('gone'))]]);
    });
    expect(all(effect).map(({ severity }) => severity)).toEqual(['wrong', 'doubtful']);
  });

  it('a look with a picture or a grain turns to some purpose', () => {
    const effect = effectOf((layer) => setNumber(layer, 'life.turning', 90));
    const { look } = effect.layers.byId['motes']!;
    if (look.kind !== 'own') throw new Error('a look of its own');
    look.steps = collectionOf([
      ...listed(look.steps).map(({ id, item }) => [id, item] as const),
      ['d', newStep('dissolve')],
    ]);
    expect(all(effect)).toEqual([]);
  });
});
