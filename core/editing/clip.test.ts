import { describe, expect, it } from 'vitest';
import {
  atBone,
  collectionOf,
  derivedColour,
  type Effect,
  emptyCollection,
  gradientShaper,
  listed,
  namedColour,
  newEffect,
  newForce,
  newFront,
  newLayer,
  newLink,
  newStep,
  newThing,
  parseEffect,
  type Shaper,
  structuredCopy,
} from '../document/index.ts';
import { counter } from '../testing/counter.ts';
import { randomEffect } from '../testing/randomEffect.ts';
import { clipText, pasteLayers, readClip, type Clip, type ClippedPart } from './clip.ts';
import { pasteForce, pasteSetting } from './clipParts.ts';

const HASH = 'c'.repeat(64);

/** Motes with colours, a dial, a channel, a measure, a look, a front and a thing; haloes that follow them, sparks they set off. */
function lantern(): Effect {
  const effect = newEffect('Lantern', 1);
  effect.palette = collectionOf([
    ['warm', namedColour('Warm', '#ff8000')],
    ['pale', derivedColour('Pale', 'warm', { lighter: 0.5 })],
  ]);
  effect.measures = collectionOf([['m', { name: 'Reach', quantity: 'length', value: 2 }]]);
  effect.dials = collectionOf([['d', { kind: 'number', name: 'Charge', least: 0, most: 1, value: 1 }]]);
  effect.channels = collectionOf([['c', { name: 'heat' }]]);
  effect.looks = collectionOf([['l', { name: 'Glow', steps: collectionOf([['s', newStep('drawn')]]) }]]);
  effect.fronts = collectionOf([['f', newFront('Border', 'sphere', atBone('t', 'hand'))]]);
  effect.stage.things = collectionOf([['t', newThing('Sedge', HASH)]]);
  const [motes, haloes, sparks] = ['Motes', 'Haloes', 'Sparks'].map((name, n) => newLayer(name, 10 + n));
  motes!.source = { kind: 'mesh', thing: 't', bones: [] };
  motes!.front = 'f';
  motes!.look = { kind: 'named', look: 'l', changes: {} };
  motes!.channels = collectionOf([
    ['c', { base: { kind: 'fixed', value: 1 }, shapers: emptyCollection<Shaper>(), muted: false }],
  ]);
  motes!.settings['life.colour'].shapers = collectionOf([
    [
      'g',
      gradientShaper([
        [0, { palette: 'pale' }],
        [1, { hex: '#000000' }],
      ]),
    ],
  ]);
  motes!.settings['life.size'].base = { kind: 'measure', measure: 'm' };
  motes!.settings['life.intensity'].shapers = collectionOf([
    [
      'x',
      {
        reads: { kind: 'dial', dial: 'd' },
        mapping: { kind: 'curve', curve: { keys: emptyCollection() } },
        combine: 'multiply',
        amount: 1,
        muted: false,
      },
    ],
  ]);
  motes!.links = collectionOf([['k', newLink('death', 'sparks', 5)]]);
  haloes!.population = { kind: 'follows', layer: 'motes' };
  effect.layers = collectionOf([
    ['motes', motes!],
    ['haloes', haloes!],
    ['sparks', sparks!],
  ]);
  return parseEffect(effect);
}
const paste = (into: Effect, from: Effect, layers: string[], at = 0) => {
  const draft = structuredCopy(into);
  const clip = readClip(clipText({ layers, effect: from }))!;
  const pasted = pasteLayers(draft, clip, at, counter());
  return { pasted, effect: parseEffect(draft) };
};

describe('copied layers', () => {
  it('come into an empty effect with all they refer to, and say what there is none of', () => {
    const { pasted, effect } = paste(newEffect('Empty', 9), lantern(), ['motes', 'haloes']);
    expect(effect.layers.order).toEqual(['motes', 'haloes']);
    expect([...pasted.brought].sort()).toEqual([
      'the channel heat',
      'the colour Pale',
      'the colour Warm',
      'the dial Charge',
      'the look Glow',
      'the measure Reach',
      'the release front Border',
    ]);
    expect(pasted.lost).toEqual([
      'the thing Sedge, which is not on this stage',
      'the layer Sparks, which was set off',
    ]);
    expect(effect.layers.byId['haloes']!.population).toEqual({ kind: 'follows', layer: 'motes' });
    expect(effect.layers.byId['motes']!.links.order).toEqual([]);
    expect(effect.layers.byId['motes']!.salt).toBe(10);
  });

  it('take what is here by the same name: colours, measures, dials, channels, things', () => {
    const other = lantern();
    const renamed = JSON.parse(
      JSON.stringify(other)
        .replaceAll('"warm"', '"w2"')
        .replaceAll('"pale"', '"p2"')
        .replaceAll('"m"', '"m2"')
        .replaceAll('"d"', '"d2"')
        .replaceAll('"c"', '"c2"')
        .replaceAll('"t"', '"t2"'),
    ) as Effect;
    renamed.palette.byId['w2']!.colour = { kind: 'fixed', hex: '#0000ff' };
    renamed.layers = emptyCollection();
    const { pasted, effect } = paste(renamed, lantern(), ['motes']);
    expect(pasted.lost).toEqual(['the layer Sparks, which was set off']);
    expect(pasted.brought).toEqual(['the release front Border']);
    const motes = effect.layers.byId['motes']!;
    expect(motes.settings['life.size'].base).toEqual({ kind: 'measure', measure: 'm2' });
    expect(motes.settings['life.intensity'].shapers.byId['x']!.reads).toEqual({ kind: 'dial', dial: 'd2' });
    expect(motes.channels.order).toEqual(['c2']);
    expect(motes.source).toEqual({ kind: 'mesh', thing: 't2', bones: [] });
    const { mapping } = motes.settings['life.colour'].shapers.byId['g']!;
    expect(mapping.kind === 'gradient' && listed(mapping.stops)[0]!.item.colour).toEqual({ palette: 'p2' });
    // The colour is what it is here.
    expect(effect.palette.byId['w2']!.colour).toEqual({ kind: 'fixed', hex: '#0000ff' });
  });

  it('stand in their own effect beside themselves, with draws of their own, still following what they follow', () => {
    const { pasted, effect } = paste(lantern(), lantern(), ['haloes', 'motes'], 1);
    expect(pasted.brought).toEqual([]);
    expect(pasted.lost).toEqual([]);
    const [haloes, motes] = pasted.layers.map((id) => effect.layers.byId[id]!);
    expect(effect.layers.order.slice(1, 3)).toEqual(pasted.layers);
    expect(haloes!.population).toEqual({ kind: 'follows', layer: pasted.layers[1] });
    expect(motes!.links.byId['k']!.layer).toBe('sparks');
    expect(new Set(listed(effect.layers).map(({ item }) => item.salt)).size).toBe(5);
  });

  it('hang on no layer that is not here: births begin at the start, and end as by themselves', () => {
    const from = lantern();
    const after = { kind: 'layer', layer: 'sparks', event: 'lastDeath' } as const;
    from.layers.byId['motes']!.births = {
      from: { after, seconds: 0.2, measure: null },
      until: { after, seconds: 1, measure: null },
    };
    const { pasted, effect } = paste(newEffect('Empty', 1), from, ['motes']);
    expect(pasted.lost).toContain('the layer Sparks, on which births hung');
    expect(effect.layers.byId['motes']!.births).toEqual({
      from: { after: { kind: 'border', border: 'start' }, seconds: 0.2, measure: null },
      until: null,
    });
  });

  it('of every kind leave a whole document behind', () => {
    for (let seed = 0; seed < 24; seed++) {
      const from = randomEffect(seed).effect;
      for (const into of [newEffect('Empty', 1), randomEffect(seed + 1).effect, from]) {
        const { effect, pasted } = paste(into, from, from.layers.order.slice(0, 2));
        expect(pasted.layers.length).toBe(Math.min(2, from.layers.order.length));
        expect(effect.layers.order.length).toBe(into.layers.order.length + pasted.layers.length);
      }
    }
  });
});

describe('what stands in the clipboard', () => {
  it.each(['', 'hello', '{}', '[1,2]', '{"kind":"other"}'])('is left alone when it is %j', (text) =>
    expect(readClip(text)).toBeNull(),
  );
  it('is refused in a sentence when it is broken', () => {
    const text = clipText({ layers: ['motes'], effect: lantern() });
    expect(() => readClip(text.replace('"layers":["motes"]', '"layers":["gone"]'))).toThrow('copy them again');
    expect(() => readClip(text.replace('"seed":1', '"seed":-1'))).toThrow(/seed/);
  });
});

describe('a part of a copied layer', () => {
  it('is read back from text as it was written; anything else means the whole layer', () => {
    const effect = lantern();
    const [layer = ''] = effect.layers.order;
    const clipOf = (part?: ClippedPart): Clip => ({ layers: [layer], effect, part });
    const parts: ClippedPart[] = [
      { kind: 'setting', address: { kind: 'layer', layer, setting: 'life.size' } },
      { kind: 'force', id: 'pull' },
      { kind: 'chapter', chapter: 'motion' },
    ];
    for (const part of parts) expect(readClip(clipText(clipOf(part)))!.part).toEqual(part);
    expect(readClip(clipText(clipOf()))!.part).toBeUndefined();
    const broken = clipText(clipOf(parts[2]!)).replace('"chapter":"motion"', '"chapter":"nonsense"');
    expect(readClip(broken)!.part).toBeUndefined();
  });

  it('gives a setting what it has with all that shapes it, matching palette and dials by name', () => {
    const [from, to] = [lantern(), newEffect('Other', 2)];
    const made = newLayer('Other', 3);
    to.layers = collectionOf([['o', made]]);
    const address = { kind: 'layer', layer: listed(from.layers)[0]!.id, setting: 'life.colour' } as const;
    const clip: Clip = { layers: [address.layer], effect: from };
    const { brought } = pasteSetting(
      to,
      clip,
      address,
      (draft) => [draft.layers.byId['o']!.settings['life.colour']],
      counter(),
    );
    expect(to.layers.order).toEqual(['o']);
    expect(brought.join()).toContain('Warm');
    const pasted = to.layers.byId['o']!.settings['life.colour'];
    expect(pasted.shapers.order).toHaveLength(1);
    expect(() => parseEffect(structuredCopy(to))).not.toThrow();
  });

  it('adds a force to every layer it is given, and leaves no guest behind', () => {
    const [from, to] = [lantern(), newEffect('Other', 2)];
    const owner = listed(from.layers)[0]!;
    owner.item.forces = collectionOf([['f', newForce('vortex', atBone('t', 'hand'))]]);
    to.layers = collectionOf([
      ['o', newLayer('One', 3)],
      ['p', newLayer('Two', 4)],
    ]);
    const clip: Clip = { layers: [owner.id], effect: from };
    const { lost } = pasteForce(to, clip, 'f', { layers: ['o', 'p'], id: 'new' }, counter());
    expect(to.layers.order).toEqual(['o', 'p']);
    for (const id of to.layers.order)
      expect(to.layers.byId[id]!.forces.byId['new']).toMatchObject({ kind: 'vortex' });
    expect(lost.join()).toContain('Sedge');
  });
});
