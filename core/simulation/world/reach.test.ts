import {
  collectionOf,
  curveShaper,
  newEffect,
  newForce,
  newLayer,
  newLink,
  setNumber,
  structuredCopy,
  type Effect,
  type Layer,
  type Link,
  type NumberSetting,
  namedColour,
} from '../../document/index.ts';
import { describe, expect, it } from 'vitest';
import { passedOn } from '../compile/links.ts';
import { reachBetween } from './reach.ts';

const effect = (): Effect => {
  const made = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  layer.forces = collectionOf([['g', newForce('gravity')]]);
  made.layers = collectionOf([
    ['motes', layer],
    ['other', newLayer('Other', 6)],
  ]);
  return made;
};

const reach = (recipe: (draft: Effect) => unknown) => {
  const before = effect();
  const draft = structuredCopy(before);
  recipe(draft);
  return reachBetween(before, draft).kind;
};
const layers = (recipe: (draft: Effect) => unknown) => {
  const before = effect();
  const draft = structuredCopy(before);
  recipe(draft);
  const reached = reachBetween(before, draft).layers;
  return reached === 'all' ? reached : [...reached].sort();
};

describe('what an edit reaches', () => {
  it.each<[string, (draft: Effect) => unknown]>([
    ['a new name', (draft) => (draft.layers.byId['motes']!.name = 'Sparks')],
    ['hiding a layer', (draft) => (draft.layers.byId['motes']!.hidden = true)],
    ['another surround', (draft) => (draft.stage.surround = 'noon')],
    ['nothing at all', () => undefined],
  ])('is nothing computed for %s', (_name, recipe) => expect(reach(recipe)).toBe('nothing'));

  it.each<[string, (draft: Effect) => unknown]>([
    ['size', (draft) => setNumber(draft.layers.byId['motes']!, 'life.size', 0.3)],
    ['a fade', (draft) => (draft.layers.byId['motes']!.settings['life.opacity'].shapers = collectionOf([]))],
    ['the order of layers', (draft) => draft.layers.order.reverse()],
    ['a palette colour', (draft) => (draft.palette = collectionOf([['lamp', namedColour('Lamp', '#ffffff')]]))],
  ])('is dress for %s', (_name, recipe) => expect(reach(recipe)).toBe('dress'));

  it.each<[string, (draft: Effect) => unknown]>([
    ['a lifetime', (draft) => setNumber(draft.layers.byId['motes']!, 'births.life', 3)],
    ['a force', (draft) => (draft.layers.byId['motes']!.forces = collectionOf([]))],
    ['a source', (draft) => (draft.layers.byId['motes']!.source = { kind: 'mesh', thing: 'figure', bones: [] })],
    ['the seed', (draft) => (draft.seed = 99)],
    [
      'a new layer',
      (draft) =>
        (draft.layers = collectionOf([...Object.entries(draft.layers.byId), ['third', newLayer('Third', 9)]])),
    ],
    ['the stretches', (draft) => (draft.stretches.closing = 4)],
    [
      'size and speed together',
      (draft) => (
        setNumber(draft.layers.byId['motes']!, 'life.size', 0.3),
        setNumber(draft.layers.byId['motes']!, 'motion.speed', 3)
      ),
    ],
  ])('is state for %s', (_name, recipe) => expect(reach(recipe)).toBe('state'));

  it.each<[string, (draft: Effect) => unknown, string[] | 'all']>([
    ['a lifetime: its own layer', (draft) => setNumber(draft.layers.byId['motes']!, 'births.life', 3), ['motes']],
    [
      'a force shared by some: those',
      (draft) => (draft.forces = collectionOf([['f', { force: newForce('wind'), layers: ['other'] }]])),
      ['other'],
    ],
    [
      'a force shared by all',
      (draft) => (draft.forces = collectionOf([['f', { force: newForce('wind'), layers: [] }]])),
      'all',
    ],
    ['the seed: all', (draft) => (draft.seed = 3), 'all'],
    [
      'a speed, with a link: whoever hangs together with it',
      (draft) => {
        setNumber(draft.layers.byId['motes']!, 'motion.speed', 3);
        draft.layers.byId['other']!.links = collectionOf([['l', newLink('death', 'motes', 4)]]);
      },
      ['motes', 'other'],
    ],
    ['moving when a layer begins: all', (draft) => (draft.layers.byId['motes']!.births.from.seconds = 1), 'all'],
  ])('by layer is, for %s', (_name, recipe, expected) => expect(layers(recipe)).toEqual(expected));

  it('is state where a link passes on the colour or the size that is edited', () => {
    const linked = effect();
    const link = newLink('death', 'other', 4);
    link.settings.colour.base = { kind: 'fixed', value: 50 };
    linked.layers.byId['motes']!.links = collectionOf([['l', link]]);
    const draft = structuredCopy(linked);
    draft.layers.byId['motes']!.settings['life.colour'].muted = true;
    expect(reachBetween(linked, draft).layers).toEqual(new Set(['other', 'motes']));
    const sized = structuredCopy(linked);
    setNumber(sized.layers.byId['motes']!, 'life.size', 0.4);
    expect(reachBetween(linked, sized).kind).toBe('dress');
  });

  it.each<[string, (link: Link) => void, boolean]>([
    ['passes all of it', (link) => (link.settings.colour.base = { kind: 'fixed', value: 100 }), true],
    ['is muted', (link) => (link.muted = true), false],
    ['has the share muted', (link) => (link.settings.colour.muted = true), false],
    ['passes none', () => undefined, false],
    [
      'passes none but what a shaper adds',
      (link) => (link.settings.colour.shapers = collectionOf([['s', curveShaper([[0, 50]], 'add')]])),
      true,
    ],
  ])('says the same as the world does where a link %s', (_, shape, isPassed) => {
    const linked = effect();
    const link = newLink('death', 'other', 4);
    link.settings.colour.base = { kind: 'fixed', value: 0 };
    shape(link);
    linked.layers.byId['motes']!.links = collectionOf([['l', link]]);
    const draft = structuredCopy(linked);
    draft.layers.byId['motes']!.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#102030' } };
    expect(reachBetween(linked, draft).kind).toBe(isPassed ? 'state' : 'dress');
    expect(passedOn(linked).colour.has('other')).toBe(isPassed);
  });

  it('of a dial is what a change at each place that reads it would reach', () => {
    const charge = { kind: 'number' as const, name: 'Charge', least: 0, most: 1, value: 0.5 };
    expect(reach((draft) => (draft.dials = collectionOf([['d', charge]])))).toBe('nothing');
    const before = effect();
    before.dials = collectionOf([['d', charge]]);
    const turned = (effectBefore: Effect) => {
      const draft = structuredCopy(effectBefore);
      (draft.dials.byId['d'] as typeof charge).value = 1;
      const { kind, layers } = reachBetween(effectBefore, draft);
      return [kind, layers === 'all' ? layers : [...layers]];
    };
    expect(turned(before)).toEqual(['nothing', []]);
    const shaper = { ...curveShaper([[0, 1]]), reads: { kind: 'dial' as const, dial: 'd' } };
    const readers: [(motes: Layer) => NumberSetting, unknown][] = [
      [(motes) => motes.settings['births.life'], ['state', ['motes']]],
      [(motes) => (motes.forces.byId['g']!.settings as { strength: NumberSetting }).strength, ['state', ['motes']]],
      [(motes) => motes.settings['life.size'], ['dress', []]],
    ];
    for (const [read, reached] of readers) {
      const shaped = structuredCopy(before);
      read(shaped.layers.byId['motes']!).shapers = collectionOf([['s', shaper]]);
      expect(turned(shaped)).toEqual(reached);
    }
  });
});
