import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { afterEach, describe, expect, it } from 'vitest';
import {
  apply,
  canonicalText,
  CanonicalTexts,
  collectionOf,
  copiedLayer,
  diff,
  DocumentError,
  effectJsonSchema,
  FORCE_KINDS,
  FORCE_SETTINGS,
  inverted,
  inWorld,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  listed,
  migrated,
  moved,
  newEffect,
  newForce,
  newLayer,
  newSurface,
  parseEffect,
  parseEffectText,
  removeLayer,
  RIBBON_SETTINGS,
  SCHEMA,
  structuredCopy,
  withItem,
  withoutItem,
  type Force,
  type Effect,
  type LayerSettingName,
  type NumberDeclaration,
  type NumberSetting,
  derivedColour,
  namedColour,
} from './index.ts';

function fullEffect(): Effect {
  const effect = newEffect('Full', 3);
  const layer = newLayer('Motes', 11);
  layer.forces = collectionOf(FORCE_KINDS.map((kind) => [kind, newForce(kind)]));
  effect.layers = collectionOf([
    ['motes', layer],
    ['copy', copiedLayer(layer, 'Copy', 12)],
  ]);
  effect.palette = collectionOf([
    ['lamp', namedColour('Lamp', '#dfe875')],
    ['dim', derivedColour('Dim', 'lamp', { lighter: -0.5 })],
  ]);
  return effect;
}

const failure = (input: unknown): DocumentError => {
  try {
    parseEffect(input);
  } catch (error) {
    return error as DocumentError;
  }
  throw new Error('was accepted');
};

/** Random edits of the kinds people make. */
const edits = fc.array(
  fc.oneof(
    fc.record({
      kind: fc.constant('number' as const),
      name: fc.constantFrom('life.size', 'births.rate', 'motion.speed'),
      value: fc.double({ min: 0, max: 1, noNaN: true }),
    }),
    fc.record({ kind: fc.constant('add' as const), id: fc.stringMatching(/^[a-z]{3}$/) }),
    fc.record({ kind: fc.constant('remove' as const) }),
    fc.record({ kind: fc.constant('move' as const), to: fc.nat(3) }),
    fc.record({ kind: fc.constant('rename' as const), name: fc.string({ minLength: 1, maxLength: 20 }) }),
  ),
  { maxLength: 12 },
);
type Edit = typeof edits extends fc.Arbitrary<(infer E)[]> ? E : never;

function edited(effect: Effect, list: readonly Edit[]): Effect {
  const draft = structuredCopy(effect);
  for (const edit of list) {
    const last = draft.layers.order[draft.layers.order.length - 1];
    if (edit.kind === 'number')
      for (const { item } of listed(draft.layers))
        (item.settings[edit.name as LayerSettingName] as NumberSetting).base = { kind: 'fixed', value: edit.value };
    if (edit.kind === 'add') draft.layers = withItem(draft.layers, edit.id, newLayer(edit.id, 99));
    if (edit.kind === 'remove' && last) draft.layers = withoutItem(draft.layers, last);
    if (edit.kind === 'move' && last) draft.layers = moved(draft.layers, last, edit.to);
    if (edit.kind === 'rename' && last) draft.layers.byId[last]!.name = edit.name;
  }
  return draft;
}

describe('diff and apply', () => {
  it('lead from any document to any other, and back', () => {
    fc.assert(
      fc.property(edits, edits, (first, second) => {
        const a = edited(fullEffect(), first);
        const b = edited(a, second);
        const changes = diff(a, b);
        expect(canonicalText(apply(a, changes))).toBe(canonicalText(b));
        expect(canonicalText(apply(b, inverted(changes)))).toBe(canonicalText(a));
      }),
    );
  });

  it('name what changed by ids, and nothing else', () => {
    const a = fullEffect();
    const b = structuredCopy(a);
    (b.layers.byId['motes']!.settings['life.size'] as NumberSetting).base = { kind: 'fixed', value: 0.2 };
    expect(diff(a, b).map(({ path }) => path.join('/'))).toEqual(['layers/byId/motes/settings/life.size/base/value']);
  });

  it('share what was not changed, and refuse a path that leads nowhere', () => {
    const a = fullEffect();
    const b = apply(a, [{ path: ['layers', 'byId', 'copy', 'name'], before: 'Copy', after: 'Other' }]);
    expect(b.layers.byId['motes']).toBe(a.layers.byId['motes']);
    expect(() => apply(a, [{ path: ['layers', 'byId', 'gone', 'name'], after: 'x' }])).toThrow(DocumentError);
  });
});

describe('canonical text', () => {
  it('is the same whatever order fields were written in, and reads back', () => {
    const effect = fullEffect();
    const shuffled = Object.fromEntries(Object.entries(effect).reverse());
    expect(canonicalText(shuffled)).toBe(canonicalText(effect));
    expect(parseEffectText(canonicalText(effect))).toEqual(effect);
    // Versions that share parts have the same text, whether it is kept or not.
    const texts = new CanonicalTexts();
    expect(texts.of(effect)).toBe(canonicalText(effect));
    const [id] = effect.layers.order;
    const layer = { ...effect.layers.byId[id!]!, name: 'Other' };
    const later = { ...effect, layers: { ...effect.layers, byId: { ...effect.layers.byId, [id!]: layer } } };
    expect(texts.of(later)).toBe(canonicalText(later));
    expect(texts.of(later)).not.toBe(texts.of(effect));
    expect(canonicalText({ x: -0 })).toBe('{"x":0}');
  });
});

describe('the door', () => {
  it('takes every default the declaration table gives', () =>
    expect(parseEffect(fullEffect())).toEqual(fullEffect()));

  it.each<[string, (effect: Effect) => unknown, string, RegExp]>([
    ['an unknown field', (e) => ({ ...e, wings: 2 }), '', /"wings"/],
    [
      'a number that is none',
      (e) => ((e.layers.byId['motes']!.settings['life.size'].base as { value: number }).value = NaN),
      'layers.byId.motes.settings.life.size.base.value',
      /number/,
    ],
    [
      'a size of a kilometre',
      (e) => ((e.layers.byId['motes']!.settings['life.size'].base as { value: number }).value = 1000),
      'layers.byId.motes.settings.life.size.base',
      /size is 1000; it may be 0 to 100 m/,
    ],
    [
      'a place beyond what single precision can tell apart',
      (e) => {
        const { source } = e.layers.byId['motes']!;
        if ('place' in source) source.place.offset = [0, 1e300, 0];
      },
      'layers.byId.motes.source.place.offset.1',
      /<=1000000/,
    ],
    [
      'a palette colour that is gone',
      (e) =>
        ((e.layers.byId['motes']!.settings['life.colour'].base as { value: unknown }).value = { palette: 'gone' }),
      'layers.motes.settings.life.colour.base.value.palette',
      /no palette colour "gone"/,
    ],
    [
      'a colour derived from itself',
      (e) => (e.palette.byId['lamp']!.colour = { kind: 'derived', from: 'dim', turned: 0, lighter: 0 }),
      'palette.lamp',
      /back to itself/,
    ],
    ['an order that names nobody', (e) => e.layers.order.push('ghost'), 'layers.order', /"ghost"/],
    [
      'a layer that follows itself',
      (e) => (e.layers.byId['motes']!.population = { kind: 'follows', layer: 'motes' }),
      'layers.motes',
      /back to itself/,
    ],
    [
      'a shaper where none may be',
      (e) =>
        (e.layers.byId['motes']!.settings['births.cap'].shapers = structuredCopy(
          e.layers.byId['motes']!.settings['life.opacity'].shapers,
        )),
      'layers.byId.motes.settings.births.cap.shapers.byId.fade.reads',
      /cannot be shaped by age/,
    ],
    ['a schema from the future', (e) => Object.assign(e, { schema: SCHEMA + 1 }), 'schema', /newer Jinx/],
  ])('refuses %s, naming the path', (_name, spoil, path, sentence) => {
    const effect = fullEffect();
    const result = spoil(effect);
    const error = failure(typeof result === 'object' && result !== null && 'layers' in result ? result : effect);
    expect(error).toBeInstanceOf(DocumentError);
    expect(error.path).toBe(path);
    expect(error.message).toMatch(sentence);
  });

  it.each([null, 3, 'x', [], {}])('refuses %j', (input) => expect(failure(input)).toBeInstanceOf(DocumentError));

  it('reads a kept document of schema 0', () => {
    const effect = parseEffectText(readFileSync(new URL('./kept/schema0.json', import.meta.url), 'utf8'));
    expect(effect.schema).toBe(SCHEMA);
    expect(effect.stretches).toEqual({
      opening: 0.5,
      hold: { kind: 'continuing', seconds: 2 },
      closing: 1,
      preRoll: 0,
    });
  });

  it('reads a kept document of schema 1, giving its forces what came later', () => {
    const effect = parseEffectText(readFileSync(new URL('./kept/schema1.json', import.meta.url), 'utf8'));
    expect(effect.schema).toBe(SCHEMA);
    const { settings } = effect.layers.byId['motes']!.forces.byId['vortex'] as Extract<Force, { kind: 'vortex' }>;
    expect(settings.strength.base).toEqual({ kind: 'fixed', value: 4 });
    expect(settings.share.base).toEqual({ kind: 'fixed', value: 100 });
    expect(effect.forces.order).toEqual([]);
  });
});

describe('a migration', () => {
  /** Defaults as a later Jinx might have them. */
  const changed = [
    LAYER_SETTINGS['life.width'],
    LAYER_SETTINGS['source.radius'],
    FORCE_SETTINGS.vortex.softness,
    LINK_SETTINGS.channels,
    RIBBON_SETTINGS.strand.longest,
  ] as { byDefault: unknown }[];
  const before = changed.map(({ byDefault }) => byDefault);
  afterEach(() => changed.forEach((declaration, n) => (declaration.byDefault = before[n])));

  it.each([0, 1, 2, 3, 4, 5, 6, 7, 8])('of schema %d says the same whatever is the default now', (schema) => {
    const text = readFileSync(new URL(`./kept/schema${schema}.json`, import.meta.url), 'utf8');
    const was = migrated(JSON.parse(text));
    for (const declaration of changed) declaration.byDefault = 77;
    expect(migrated(JSON.parse(text))).toEqual(was);
  });
});

describe('a kept document of schema 2', () => {
  it('is read with no channels, degrees a second and links that pass none on', () => {
    const text = readFileSync(new URL('./kept/schema2.json', import.meta.url), 'utf8');
    const effect = parseEffectText(text);
    expect(effect.schema).toBe(SCHEMA);
    expect(effect.channels.order).toEqual([]);
    const layers = listed(effect.layers).map(({ item }) => item);
    for (const layer of layers) {
      expect(layer.channels.order).toEqual([]);
      expect(layer.settings['life.turns'].base.value).toBe('degrees a second');
      for (const { item } of listed(layer.links))
        expect(item.settings.channels.base).toEqual({ kind: 'fixed', value: 0 });
    }
    // All else is as it was.
    const before = JSON.parse(text) as Effect;
    expect(effect.surfaces).toMatchObject(before.surfaces);
    expect(layers.map(({ source }) => source)).toEqual(
      Object.values(before.layers.order).map((id) => before.layers.byId[id]!.source),
    );
  });
});

describe('a dial of schema 5', () => {
  it('is a number', () => {
    const document = JSON.parse(readFileSync(new URL('./kept/schema5.json', import.meta.url), 'utf8')) as {
      dials: unknown;
    };
    const dial = { name: 'Charge', least: 0, most: 2, value: 1 };
    document.dials = { order: ['d'], byId: { d: dial } };
    expect(parseEffect(document).dials.byId['d']).toEqual({ kind: 'number', ...dial });
  });
});

describe('removing a layer', () => {
  it('leaves nothing that leads to it, and nothing that now means every layer', () => {
    const effect = fullEffect();
    const id = 'motes';
    const rest = effect.layers.order.filter((other) => other !== id);
    const [kept] = rest;
    effect.layers.byId[kept!]!.population = { kind: 'follows', layer: id };
    effect.layers.byId[kept!]!.births.until = {
      after: { kind: 'layer', layer: id, event: 'lastDeath' },
      seconds: 1,
      measure: null,
    };
    const ground = (layers: string[]) => ({ ...newSurface('ground', { place: inWorld() }), layers });
    effect.surfaces = collectionOf([
      ['own', ground([id])],
      ['both', ground([id, kept!])],
      ['every', ground([])],
    ]);
    effect.forces = collectionOf([['own', { force: newForce('gravity'), layers: [id] }]]);
    removeLayer(effect, id);
    expect(effect.layers.order).toEqual(rest);
    expect(listed(effect.surfaces).map((surface) => [surface.id, surface.item.layers])).toEqual([
      ['both', [kept]],
      ['every', []],
    ]);
    expect(effect.forces.order).toEqual([]);
    expect(effect.layers.byId[kept!]!.births.until).toBeNull();
    expect(() => parseEffect(effect)).not.toThrow();
  });
});

describe('the declaration table', () => {
  it('gives every number limits that hold its default', () => {
    for (const declaration of Object.values(LAYER_SETTINGS) as NumberDeclaration[]) {
      if (declaration.value !== 'number') continue;
      for (const value of [declaration.byDefault].flat()) {
        expect(value).toBeGreaterThanOrEqual(declaration.least);
        expect(value).toBeLessThanOrEqual(declaration.most);
      }
    }
  });

  it('is published as the JSON Schema in docs/', () => {
    const published = JSON.parse(readFileSync(new URL('../../docs/effect.schema.json', import.meta.url), 'utf8'));
    expect(published).toEqual(JSON.parse(JSON.stringify(effectJsonSchema())));
  });
});
