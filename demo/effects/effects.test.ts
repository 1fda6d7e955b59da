import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { findings } from '@jinx/core/checks';
import { listed, parseEffect } from '@jinx/core/document';
import { assetsOf, importGlb } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import { EFFECTS, KIT, KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit, RELEASED } from '../index.ts';

const files = [...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES];
const names = files.map((file) => file.replace(/\.\w+$/, ''));
const hashOf = (name: string) => names.indexOf(name).toString(16).padStart(64, '0');
const kit = Object.fromEntries(names.map((name) => [name, hashOf(name)]));
const rigs = new Map<string, Rig>();
beforeAll(async () => {
  await makeKit();
  for (const [n, file] of files.entries())
    if (file.endsWith('.glb'))
      rigs.set(hashOf(names[n]!), await importGlb(new Uint8Array(readFileSync(new URL(file, KIT))), names[n]!));
});

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

  it('has a name and a seed of its own', () => {
    expect(new Set(all.map(([name]) => name)).size).toBe(all.length);
    expect(new Set(all.map(([, { seed }]) => seed)).size).toBe(all.length);
    expect(Object.keys(RELEASED).sort()).toEqual(all.map(([name]) => name).sort());
  });
});
