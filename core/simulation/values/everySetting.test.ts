import { describe, expect, it } from 'vitest';
import {
  BORN,
  CHANNEL_SETTING,
  defaultSetting,
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LIFE,
  LINK_SETTINGS,
  parseEffect,
  RIBBON_SETTINGS,
  settingsIn,
  STEP_SETTINGS,
  structuredCopy,
  SURFACE_SETTINGS,
  type Declaration,
  type Effect,
} from '../../document/index.ts';
import { noNumberIn } from '../../testing/bits.ts';
import { basesOf, declarationKey, setEverything, type Covered } from '../../testing/everySetting.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { FIRST_NEW_SEED, randomEffect, randomRigs } from '../../testing/randomEffect.ts';
import { playAlone, type Inputs, type PlayOptions } from '../index.ts';

const TABLES: readonly Readonly<Record<string, Declaration>>[] = [
  LAYER_SETTINGS,
  { channel: CHANNEL_SETTING },
  LINK_SETTINGS,
  FRONT_SETTINGS,
  ...[FORCE_SETTINGS, SURFACE_SETTINGS, RIBBON_SETTINGS, DRAWN_SETTINGS, STEP_SETTINGS].flatMap((tables) =>
    Object.values<Readonly<Record<string, Declaration>>>(tables),
  ),
];
const DECLARED = [...new Set(TABLES.flatMap((table) => Object.values(table)))];
const SHAPED = DECLARED.filter(({ value }) => value === 'number' || value === 'vector' || value === 'colour');

describe('a number, a vector or a colour', () => {
  it('is shaped by all that is known when it acts, or says why not', () => {
    const less = SHAPED.filter((declaration) => {
      const full: readonly string[] = declaration.acts === 'birth' ? BORN : LIFE;
      // Channels read no channels, so that none hangs on itself.
      return declaration !== CHANNEL_SETTING && full.some((kind) => !declaration.reads.includes(kind as never));
    });
    expect(less.filter(({ refuses }) => !refuses).map(({ chapter, name }) => `${chapter} ${name}`)).toEqual([]);
    expect(SHAPED.filter(({ reads }) => !reads.includes('dial')).map(({ name }) => name)).toEqual([]);
    const refused = SHAPED.filter(({ refuses }) => refuses);
    for (const declaration of refused) expect(less).toContain(declaration);
  });
});

/** How many effects it takes until everything was set. */
const EFFECTS = 36;
/** Settings are muted by turns, a part of them in each effect, so that something is left to be seen. */
const GROUPS = 6;
/** Single settings that are edited in each effect. */
const EDITS = 3;

describe('every setting, with every base and reader that it declares', () => {
  const covered: Covered = new Map();
  const made = Array.from({ length: EFFECTS }, (_, n) => {
    const seed = FIRST_NEW_SEED + n;
    const { effect, inputs } = randomEffect(seed);
    setEverything(effect, seed, covered);
    return { seed, effect, inputs };
  });
  const play = (effect: Effect, inputs: Inputs, options: PlayOptions = { kernels: kernelBytes() }) =>
    playAlone(effect, randomRigs(), inputs, options);

  it('is among them', () => {
    const missing = SHAPED.flatMap((declaration) => {
      const known = covered.get(declarationKey(declaration));
      const bases = basesOf(declaration).filter((base) => !known?.bases.has(base));
      const reads = declaration.reads.filter((kind) => !known?.reads.has(kind));
      return [...bases, ...reads].map((what) => `${declaration.chapter} ${declaration.name}: ${what}`);
    });
    expect(missing).toEqual([]);
  });

  it.each(made)('is computed to the same bits in random effect $seed', ({ seed, effect, inputs }) => {
    expect(() => parseEffect(structuredCopy(effect))).not.toThrow();
    const straight = play(effect, inputs);
    straight.advance(12);
    const early = straight.hash();
    straight.advance(30);
    expect(noNumberIn(straight)).toBeNull();
    const late = straight.hash();
    if (seed % 5 === 0) {
      const twin = play(effect, inputs, {});
      twin.advance(30);
      expect(twin.hash()).toBe(late);
    }
    straight.advance(12);
    expect(straight.hash()).toBe(early);
  });

  it.each(made)(
    'is computed anew as far as an edit of it reaches, in random effect $seed',
    ({ seed, effect, inputs }) => {
      const count = settingsIn(effect).length;
      const world = play(effect, inputs);
      for (let n = 0; n < EDITS; n++) {
        const edited = structuredCopy(effect);
        const { setting, declaration } = settingsIn(edited)[(seed * 13 + n * 29) % count]!;
        if (declaration.acts === 'birth' && declaration.name === 'cap') continue;
        Object.assign(setting, defaultSetting(declaration));
        world.advance(16);
        if (!world.adopt(edited)) continue;
        world.advance(20);
        const fresh = play(edited, inputs);
        fresh.advance(20);
        expect(world.hash(), `${declaration.chapter} ${declaration.name}`).toBe(fresh.hash());
        world.adopt(effect);
      }
    },
  );

  it.each(made.slice(0, GROUPS))(
    'muted is as it is by default, in random effect $seed',
    ({ seed, effect, inputs }) => {
      const [muted, plain] = [structuredCopy(effect), structuredCopy(effect)];
      const some = (whole: Effect) => settingsIn(whole).filter((_, n) => n % GROUPS === seed);
      for (const { setting } of some(muted)) setting.muted = true;
      for (const { setting, declaration } of some(plain)) Object.assign(setting, defaultSetting(declaration));
      const [one, other] = [muted, plain].map((each) => {
        const world = play(each, inputs);
        world.advance(30);
        return world.hash();
      });
      expect(one).toBe(other);
    },
  );
});
