import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { asSchema7 } from '../testing/asSchema7.ts';
import { newReading, NumberReader } from '../simulation/index.ts';
import {
  FORCE_SETTINGS,
  isRibbon,
  listed,
  parseEffectText,
  RIBBON_SETTINGS,
  stepsOf,
  SCHEMA,
  structuredCopy,
  type Effect,
  type NumberSetting,
} from './index.ts';

/** Layers as they were kept, without the looks of haze, which were not shown before schema 12. */
const seenLayers = ({ order, byId }: Effect['layers']) => ({
  order,
  byId: Object.fromEntries(
    Object.entries(byId).map(([id, { look, ...rest }]) => [
      id,
      rest.drawn.kind === 'haze' ? rest : { look, ...rest },
    ]),
  ),
});

describe('a kept document of schema 5', () => {
  it('is read with the softness that forces from one spot always had, and is otherwise as it was', () => {
    const text = readFileSync(new URL('./kept/schema5.json', import.meta.url), 'utf8');
    const effect = asSchema7(parseEffectText(text));
    const before = JSON.parse(text) as Effect;
    const kinds = new Set<string>();
    for (const { id, item } of listed(effect.layers)) {
      for (const { item: force } of listed(item.forces)) {
        kinds.add(force.kind);
        if (!('softness' in force.settings)) continue;
        expect(force.settings.softness.base).toEqual({ kind: 'fixed', value: 0.05 });
        delete (force.settings as { softness?: unknown }).softness;
      }
      expect(item).toMatchObject({ ...before.layers.byId[id], seenBy: null });
    }
    expect([...kinds]).toEqual(expect.arrayContaining(['attraction', 'vortex']));
    const marsh = effect.palette.byId['marsh']!;
    expect(marsh.colour).toMatchObject({ kind: 'derived', from: 'lamp', turned: 0, lighter: -0.45 });
    expect(listed(effect.palette).map(({ item }) => item.isDial)).toEqual([false, false, false]);
  });
});

describe('a kept document of schema 6', () => {
  it('is read without anything linked and without signals, and is otherwise as it was', () => {
    const text = readFileSync(new URL('./kept/schema6.json', import.meta.url), 'utf8');
    const effect = asSchema7(parseEffectText(text));
    const before = JSON.parse(text) as Effect;
    expect(effect.schema).toBe(SCHEMA);
    expect(effect.groups.byId['bell']).toEqual({ ...before.groups.byId['bell'], linked: null });
    const { bursts } = effect.layers.byId['tolls']!;
    expect(bursts.byId['toll']).toEqual({ ...before.layers.byId['tolls']!.bursts.byId['toll'], signal: null });
    delete (bursts.byId['toll'] as { signal?: unknown }).signal;
    expect(effect.layers).toMatchObject(seenLayers(before.layers));
    expect(effect.signals.order).toEqual([]);
    expect(effect.dials).toEqual(before.dials);
  });
});

describe('a kept document of schema 7', () => {
  it('is read with the births that were tried as those of the high tier, and every tier has all of it', () => {
    const text = readFileSync(new URL('./kept/schema7.json', import.meta.url), 'utf8');
    const effect = parseEffectText(text);
    const { shown, tiers, bounds } = effect.quality;
    expect([shown, bounds]).toEqual(['high', null]);
    expect(tiers.high).toEqual({ births: 45, keepsArea: false, lights: 16, joints: 100 });
    expect(tiers.low.births).toBe(35);
    expect(tiers.middle.births).toBe(45);
    expect(effect.groups.byId['bell']!.linked!.effect.quality.tiers.high.births).toBe(20);
    const steps = [...listed(effect.looks.byId['husk']!.steps), ...stepsOf(effect, effect.layers.byId['haze']!)];
    expect(steps.map(({ item }) => item.least)).toEqual(['low', 'low', 'low']);
    const before = JSON.parse(text) as Effect;
    expect(asSchema7(effect).layers).toMatchObject(seenLayers(before.layers));
    expect(effect.looks).toMatchObject(before.looks);
  });
});

describe('a kept document of schema 8', () => {
  it('is read with no burst and no hit muted, in what is linked too, and is otherwise as it was', () => {
    const text = readFileSync(new URL('./kept/schema8.json', import.meta.url), 'utf8');
    const effect = parseEffectText(text);
    const all = [effect, effect.groups.byId['bell']!.linked!.effect].flatMap(({ layers }) => listed(layers));
    const timed = all.flatMap(({ item: { bursts, source } }) => [
      ...listed(bursts),
      ...(source.kind === 'hits' ? listed<{ muted: boolean }>(source.hits) : []),
    ]);
    expect(timed.length).toBeGreaterThan(all.length);
    for (const { item } of timed) expect(item.muted).toBe(false);
    const before = JSON.parse(text) as Effect;
    const stripped = structuredCopy(effect);
    for (const { item } of listed(stripped.layers)) {
      for (const burst of listed(item.bursts)) delete (burst.item as { muted?: boolean }).muted;
      if (item.source.kind === 'hits')
        for (const hit of listed(item.source.hits)) delete (hit.item as { muted?: boolean }).muted;
    }
    expect(stripped.layers).toMatchObject(seenLayers(before.layers));
  });
});

describe('a kept document of schema 9', () => {
  it('is read without lights of its own and with nothing hidden, in what is linked too, and is otherwise as it was', () => {
    const text = readFileSync(new URL('./kept/schema9.json', import.meta.url), 'utf8');
    const effect = parseEffectText(text);
    for (const { stage } of [effect, effect.groups.byId['bell']!.linked!.effect])
      expect(stage.lights).toEqual({ order: [], byId: {} });
    const before = JSON.parse(text) as Effect;
    expect(effect.stage.things.byId['ringer']).toEqual({ ...before.stage.things.byId['ringer'], hidden: false });
    const { surround, carrier, cameras } = effect.stage;
    expect({ surround, carrier, cameras }).toEqual({
      surround: 'overcast',
      carrier: { kind: 'still' },
      cameras: before.stage.cameras,
    });
    expect(effect.layers).toMatchObject(seenLayers(before.layers));
  });
});

describe('a kept document of schema 10', () => {
  const text = readFileSync(new URL('./kept/schema10.json', import.meta.url), 'utf8');
  const effect = parseEffectText(text);
  const { cords, beam } = effect.layers.byId as Record<'cords' | 'beam', (typeof effect.layers.byId)[string]>;

  it('has the times in which excesses halve, for the shares of a step that its grips took', () => {
    const settingsOf = (id: string) => cords.forces.byId[id]!.settings as unknown as { halves: NumberSetting };
    const { base: spread } = settingsOf('limit').halves;
    if (spread.kind !== 'spread') throw new Error('a spread of grips is a spread of times');
    // What is left of an excess after a step of a sixtieth of a second.
    const left = (seconds: number) => (seconds > 0 ? 2 ** (-1 / 60 / seconds) : 0);
    expect([left(spread.low), left(spread.high)].map((x) => x.toFixed(4))).toEqual(['0.7000', '0.9000']);
    const { halves } = settingsOf('orbit');
    const reader = new NumberReader(halves, FORCE_SETTINGS.orbit.halves, 'force/orbit/halves', effect);
    const leftAt = (effectTime: number) => left(reader.read({ ...newReading(), effectTime }));
    expect(leftAt(0.2)).toBeCloseTo(0.6, 4);
    expect(leftAt(0.6)).toBeCloseTo(0.6, 4);
    expect(leftAt(0.9)).toBeGreaterThan(0.999);
  });

  it('has ribbons as wide along them as they were at head, middle and tail, and a muted width as by default', () => {
    const widthOf = ({ drawn }: typeof cords) => {
      if (!isRibbon(drawn)) throw new Error('drawn as a ribbon');
      const declared = RIBBON_SETTINGS[drawn.kind].width;
      const reader = new NumberReader(drawn.settings.width as NumberSetting, declared, 'ribbon/width', effect);
      return [0, 0.5, 1].map((along) => reader.read({ ...newReading(), along }));
    };
    expect(widthOf(cords).map((width) => Number(width.toFixed(6)))).toEqual([60, 64, 20]);
    expect(widthOf(beam)).toEqual([100, 100, 100]);
  });

  it('has every colour of a set as likely as any other', () => {
    const { base } = cords.settings['life.colour'];
    expect(base).toEqual({
      kind: 'set',
      values: [
        { value: { hex: '#ff8800' }, weight: 1 },
        { value: { hex: '#0088ff' }, weight: 1 },
      ],
    });
  });
});

describe('a kept document of schema 11', () => {
  const text = readFileSync(new URL('./kept/schema11.json', import.meta.url), 'utf8');
  const effect = parseEffectText(text);

  it('has looks that multiply as they did, with white shapes', () => {
    const steps = Object.values(effect.layers.byId).flatMap((layer) => stepsOf(effect, layer));
    const older = parseEffectText(readFileSync(new URL('./kept/schema10.json', import.meta.url), 'utf8'));
    const before = Object.values(older.layers.byId).flatMap((layer) => stepsOf(older, layer));
    expect(steps.map(({ item }) => item.kind).sort()).toEqual(['picture', 'rim', 'soft']);
    for (const { item } of [...steps, ...before])
      if ('combines' in item.settings) expect(item.settings.combines.base.value).toBe('multiply');
    const drawn = before.flatMap(({ item }) => (item.kind === 'drawn' ? [item.settings.colour.base] : []));
    expect(drawn).toContainEqual({ kind: 'fixed', value: { hex: '#ffffff' } });
  });

  it('has haze through no look, for it never showed one', () => {
    const { drawn, look } = effect.layers.byId['haze']!;
    expect([drawn.kind, look]).toEqual(['haze', { kind: 'own', steps: { order: [], byId: {} } }]);
  });
});
