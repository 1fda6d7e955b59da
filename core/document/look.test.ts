import { readFileSync } from 'node:fs';
import { asSchema7 } from '../testing/asSchema7.ts';
import { describe, expect, it } from 'vitest';
import { collectionOf, listed } from '../settings/index.ts';
import { STEP_KINDS, type StepKind } from './declarations/index.ts';
import { SCHEMA, type Effect } from './schema/index.ts';
import { changedNumber, drawnLook, fitLook, newStep, setStep, stepsOf, stepSettings, stepTable } from './look.ts';
import { assetsIn } from './parts/foundRefs.ts';
import { newDrawn, newEffect, newLayer } from './make.ts';
import { nameLook, ownLook, useLook as takeLook, usersOf } from './namedLooks.ts';
import { parseEffect, parseEffectText } from './parse.ts';
import { removeLayer } from './parts/remove.ts';

function two(): Effect {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([
    ['a', newLayer('A', 1)],
    ['b', newLayer('B', 2)],
  ]);
  return effect;
}
const softness = (effect: Effect, layer: string): unknown => {
  const [step] = stepsOf(effect, effect.layers.byId[layer]!);
  return stepSettings(step!.item)['softness']!.base;
};
const fixed = (value: number) => ({ kind: 'fixed', value });

describe('a look', () => {
  it('has steps of every kind, each as its table says, and is read back whole', () => {
    const effect = two();
    for (const kind of STEP_KINDS) {
      const step = newStep(kind);
      expect(Object.keys(stepSettings(step)).sort()).toEqual(Object.keys(stepTable(kind)).sort());
      effect.layers.byId['a']!.look = { kind: 'own', steps: collectionOf([['s', step]]) } as never;
      expect(() => parseEffect(effect), kind).not.toThrow();
    }
    expect(() => setStep(newStep('tint'), 'softness', 3)).toThrow(/no setting "softness"/);
  });

  it('is shared under a name: a change for one is a change for all, but for the numbers that differ', () => {
    const effect = two();
    nameLook(effect, 'a', 'dots', 'Dots');
    takeLook(effect, 'b', 'dots');
    expect(usersOf(effect, 'dots')).toEqual(['a', 'b']);
    setStep(effect.looks.byId['dots']!.steps.byId['shape']!, 'softness', 70);
    expect([softness(effect, 'a'), softness(effect, 'b')]).toEqual([fixed(70), fixed(70)]);
    const { look } = effect.layers.byId['b']!;
    if (look.kind === 'named')
      look.changes['shape'] = {
        softness: { ...stepSettings(newStep('drawn'))['softness']!, base: fixed(5) } as never,
      };
    expect(changedNumber(look, 'shape', 'softness')?.base).toEqual(fixed(5));
    expect([softness(effect, 'a'), softness(effect, 'b')]).toEqual([fixed(70), fixed(5)]);
    setStep(effect.looks.byId['dots']!.steps.byId['shape']!, 'softness', 20);
    expect([softness(effect, 'a'), softness(effect, 'b')]).toEqual([fixed(20), fixed(5)]);
    expect(() => parseEffect(effect)).not.toThrow();
  });

  it('becomes a layer’s own as the layer saw it, and goes when nobody uses it any more', () => {
    const effect = two();
    nameLook(effect, 'a', 'dots', 'Dots');
    takeLook(effect, 'b', 'dots');
    setStep(effect.looks.byId['dots']!.steps.byId['shape']!, 'softness', 70);
    ownLook(effect, 'b');
    expect(effect.layers.byId['b']!.look.kind).toBe('own');
    expect(softness(effect, 'b')).toEqual(fixed(70));
    // What was taken is a copy: it no longer follows.
    setStep(effect.looks.byId['dots']!.steps.byId['shape']!, 'softness', 10);
    expect(softness(effect, 'b')).toEqual(fixed(70));
    removeLayer(effect, 'a');
    expect(effect.looks.order).toEqual([]);
    expect(() => parseEffect(effect)).not.toThrow();
  });

  it('is refused where it leads nowhere, or a number is beyond its limits, with the path', () => {
    const named = (changes: Record<string, Record<string, unknown>>) => {
      const effect = two();
      nameLook(effect, 'a', 'dots', 'Dots');
      effect.layers.byId['b']!.look = { kind: 'named', look: 'dots', changes: changes as never };
      return () => parseEffect(effect);
    };
    const number = (value: number) => ({ base: fixed(value), shapers: { order: [], byId: {} }, muted: false });
    expect(named({ shape: { softness: number(30) } })).not.toThrow();
    expect(named({ gone: { softness: number(30) } })).toThrow(/no step "gone".*layers\.b\.look\.changes\.gone/);
    expect(named({ shape: { shape: number(30) } })).toThrow(/no number "shape"/);
    expect(named({ shape: { softness: number(400) } })).toThrow(/softness is 400; it may be 0 to 100/);
    const effect = two();
    effect.layers.byId['a']!.look = { kind: 'named', look: 'gone', changes: {} };
    expect(() => parseEffect(effect)).toThrow(/no look "gone"/);
    const inside = two();
    inside.layers.byId['a']!.inside = 'a';
    expect(() => parseEffect(inside)).toThrow(/no other layer/);
  });

  it('tells which pictures are shown, and by which haze is bent', () => {
    const effect = two();
    const [one, other, third] = ['1', '2', '3'].map((digit) => ({ asset: digit.repeat(64), name: digit }));
    const pictured = (kind: 'picture' | 'dissolve', picture: typeof one) => ({ ...newStep(kind), picture: picture! });
    effect.layers.byId['a']!.look = {
      kind: 'own',
      steps: collectionOf([
        ['p', pictured('picture', one)],
        ['d', pictured('dissolve', other)],
      ]),
    } as never;
    effect.layers.byId['b']!.drawn = { ...newDrawn('haze'), picture: third! };
    const shown = assetsIn(effect).map(({ holder }) => (holder as typeof one)!.name);
    expect(shown.sort()).toEqual(['1', '2', '3']);
  });

  it('is a band for what runs along and a dot for what stands by itself, and else is left alone', () => {
    const shapeOf = (shape: string, isRibbon: boolean) => {
      const effect = two();
      const layer = effect.layers.byId['a']!;
      layer.look = drawnLook(shape);
      fitLook(layer, isRibbon);
      return stepSettings(stepsOf(effect, layer)[0]!.item)['shape']!.base;
    };
    expect(shapeOf('soft dot', true)).toEqual({ kind: 'fixed', value: 'band' });
    expect(shapeOf('band', false)).toEqual({ kind: 'fixed', value: 'soft dot' });
    expect(shapeOf('ring', true)).toEqual({ kind: 'fixed', value: 'ring' });
  });

  it('of every drawn shape can begin a layer', () => {
    for (const shape of ['soft dot', 'ring', 'flare', 'disc']) {
      const look = drawnLook(shape);
      expect(look.kind === 'own' && listed(look.steps).map(({ item }) => item.kind)).toEqual(['drawn' as StepKind]);
    }
  });
});

describe('a kept document of schema 4', () => {
  it('is read under the sky of its surround, and is else as it was', () => {
    const text = readFileSync(new URL('./kept/schema4.json', import.meta.url), 'utf8');
    const before = JSON.parse(text) as Effect;
    const effect = asSchema7(parseEffectText(text));
    const { drawn } = effect.layers.byId['funnel']!;
    expect(drawn.kind === 'mesh' && drawn.settings.otherShape.base).toEqual({ kind: 'fixed', value: 0 });
    if (drawn.kind === 'mesh') delete (drawn.settings as Record<string, unknown>)['otherShape'];
    const { stage, schema, ...rest } = effect;
    expect(schema).toBe(SCHEMA);
    const { surroundings, fog } = stage.air;
    delete (stage as { cameras?: unknown }).cameras;
    delete (stage as { lights?: unknown }).lights;
    for (const { item } of listed(stage.things)) delete (item as { hidden?: unknown }).hidden;
    expect(surroundings).toEqual({ isOn: true, picture: null, brightness: 1, turn: 0 });
    expect(fog).toEqual(before.stage.air.fog);
    // What later schemas gave every layer and colour.
    for (const { item } of listed(rest.layers)) delete (item as { seenBy?: unknown }).seenBy;
    delete (rest as { signals?: unknown }).signals;
    for (const { item } of listed(rest.palette)) delete (item as { isDial?: unknown }).isDial;
    delete (before.stage as { density?: unknown }).density;
    expect({ ...rest, schema: 4, stage: { ...stage, air: { fog } } }).toMatchObject(before);
  });
});

describe('a kept document of schema 3', () => {
  it('is read with the look that its shape was, in clear air and through a lens', () => {
    const text = readFileSync(new URL('./kept/schema3.json', import.meta.url), 'utf8');
    const before = JSON.parse(text) as { layers: { order: string[]; byId: Record<string, { settings: never }> } };
    const effect = parseEffectText(text);
    for (const { id, item } of listed(effect.layers)) {
      const { base } = before.layers.byId[id]!.settings['appearance.shape'] as { base: { value: string } };
      const [step] = stepsOf(effect, item);
      const shape = item.drawn.kind === 'sprite' ? base.value : 'band';
      expect(stepSettings(step!.item)['shape']!.base).toEqual({ kind: 'fixed', value: shape });
      expect(item.inside).toBeNull();
      expect('appearance.shape' in item.settings).toBe(false);
    }
    expect(effect.stage.air.fog.isOn).toBe(false);
    expect(effect.stage.lens.exposure).toBe(0);
    expect(effect.looks.order).toEqual([]);
  });
});
