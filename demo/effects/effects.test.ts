import { describe, expect, it } from 'vitest';
import { findings } from '@jinx/core/checks';
import { listed, parseEffect } from '@jinx/core/document';
import { assetsOf } from '@jinx/core/formats';
import { pinOf, type Pin } from '@jinx/core/testing/pins';
import { EFFECTS, RELEASED } from '../index.ts';
import { kitForTests } from '../testing/kit.ts';
import { pinnedEffects } from '../testing/pins.ts';
import pins from '../testing/pins.json' with { type: 'json' };

const { kit, rigs } = await kitForTests();

describe('every effect of Fenlight', () => {
  const all = EFFECTS.map((make) => [make(kit).name, make(kit)] as const);
  it.each(all)('%s is whole, and made of the kit alone', (name, effect) => {
    expect(parseEffect(structuredClone(effect))).toEqual(effect);
    const known = new Set(Object.values(kit));
    expect(assetsOf(effect).filter((hash) => !known.has(hash))).toEqual([]);
    expect(RELEASED[name]!.length).toBeGreaterThan(0);
  });

  it.each(all)('%s has nothing wrong with it', (_, effect) => {
    const stage = new Map(listed(effect.stage.things).map(({ id, item }) => [id, rigs.get(item.asset)!]));
    const found = findings(effect, stage, { refused: {}, isBudgetFull: false });
    expect(found.map(({ sentence }) => sentence)).toEqual([]);
  });

  const pinned = Object.entries(pinnedEffects(kit));
  // Starting points are the same effects: what is the same is played once.
  const played = new Map<string, Pin>();
  it.each(pinned)('%s is computed and drawn as it was', (name, effect) => {
    const text = JSON.stringify(effect);
    const pin = played.get(text) ?? pinOf(effect, rigs);
    played.set(text, pin);
    expect(pin).toEqual((pins as Record<string, readonly string[]>)[name]);
  });

  it('has a name and a seed of its own', () => {
    expect(new Set(all.map(([name]) => name)).size).toBe(all.length);
    expect(new Set(all.map(([, { seed }]) => seed)).size).toBe(all.length);
    expect(Object.keys(RELEASED).sort()).toEqual(all.map(([name]) => name).sort());
  });
});
