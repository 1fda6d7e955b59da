import { describe, expect, it } from 'vitest';
import { randomReferences } from '../../testing/randomReferences.ts';
import { formatAddress, inLayer, isSameAddress, layerOf, parseAddress, type PartAddress } from './address.ts';
import { canonicalText } from '../canonical.ts';
import { REF_TABLES, type Collection, type Id, type RefTable } from '../../settings/index.ts';
import { isFields } from '../diff.ts';
import type { Effect } from '../schema/index.ts';
import { assetsIn, refsIn, refsTo } from './foundRefs.ts';
import { structuredCopy } from '../make.ts';
import { addressAt, findPart, holderAt, nameOfPart, PARTS, settingAddressAt } from './parts.ts';
import { parseEffect } from '../parse.ts';
import { tableOf } from './references.ts';
import { removeLayer } from './remove.ts';
import { placesIn, settingsIn } from './walk.ts';

const EFFECTS = Array.from({ length: 8 }, (_, seed) => randomReferences(seed));

/** Every object of a document with the keys to it, linked effects left out. */
function objectsIn(value: unknown, path: readonly string[] = []): { path: readonly string[]; value: object }[] {
  if (typeof value !== 'object' || value === null || path.at(-1) === 'linked') return [];
  const inner = Object.entries(value).flatMap(([key, item]) => objectsIn(item, [...path, key]));
  return [{ path, value }, ...inner];
}
const hasFields = (value: object, ...fields: string[]) => isFields(value) && fields.every((field) => field in value);

describe('an address', () => {
  const addresses = new Map<string, PartAddress>();
  for (const effect of EFFECTS)
    for (const { path } of objectsIn(effect)) {
      const address = addressAt(path);
      addresses.set(formatAddress(address), address);
    }

  it('of every kind of part is written and read back, and finds its part', () => {
    const kinds = new Set([...addresses.values()].map(({ kind }) => kind));
    expect(Object.keys(PARTS).filter((kind) => !kinds.has(kind as never))).toEqual(['camera']);
    for (const [text, address] of addresses) {
      expect(parseAddress(text)).toEqual(address);
      expect(EFFECTS.some((effect) => findPart(effect, address) !== null, text)).toBe(true);
    }
  });

  it('of a setting is written and read back, and finds the setting', () => {
    for (const effect of EFFECTS)
      for (const { address, setting } of settingsIn(effect)) {
        expect(parseAddress(formatAddress(address))).toEqual(address);
        expect(holderAt(effect, address)!.settings[address.setting]).toBe(setting);
      }
  });

  it.each(['', 'force', 'force/a', 'force/a/b/c', 'layer/', 'else/a', 'layer/a:', 'layer/a:b:c', 'constructor/a'])(
    'is not read out of %j',
    (text) => expect(parseAddress(text)).toBeNull(),
  );

  it('leads to nothing where its part is gone', () => {
    const effect = EFFECTS[0]!;
    expect(findPart(effect, { kind: 'force', layer: 'gone', id: 'f0' })).toBeNull();
    expect(findPart(effect, { kind: 'step', layer: 'gone', id: 'f0' })).toBeNull();
    expect(findPart(effect, { kind: 'layer', layer: 'constructor' })).toBeNull();
    expect(holderAt(effect, { kind: 'surface', id: 'gone' })).toBeNull();
    expect(nameOfPart(effect, { kind: 'group', id: 'gone' })).toBe('');
  });

  it('of a part of a layer names the same part of another', () => {
    const force: PartAddress = { kind: 'force', layer: 'a', id: 'f' };
    expect(inLayer(force, 'b')).toEqual({ kind: 'force', layer: 'b', id: 'f' });
    expect(isSameAddress(inLayer(force, 'b'), force)).toBe(false);
    expect(layerOf({ kind: 'surface', id: 's' })).toBeNull();
  });
});

describe('the map of the document', () => {
  it('leads to every setting and every place there is, each once', () => {
    for (const effect of EFFECTS) {
      const all = objectsIn(effect).map(({ value }) => value);
      const settings = settingsIn(effect).map(({ setting }) => setting as object);
      expect(new Set(settings).size).toBe(settings.length);
      expect(new Set(settings)).toEqual(new Set(all.filter((value) => hasFields(value, 'base', 'shapers', 'muted'))));
      const places = placesIn(effect) as object[];
      expect(places.length).toBe(new Set(places).size);
      expect(new Set(places)).toEqual(new Set(all.filter((value) => hasFields(value, 'offset', 'turn', 'keys'))));
    }
  });

  it('tells of every path of a setting which setting it is', () => {
    for (const effect of EFFECTS) {
      const known = new Map(settingsIn(effect).map(({ address, setting }) => [setting as object, address]));
      for (const { path, value } of objectsIn(effect)) {
        const address = known.get(value);
        if (address) expect(settingAddressAt([...path, 'base', 'value'])).toEqual(address);
      }
    }
  });
});

/** An item under another id, in a draft: in its table, and wherever it is referred to. */
function renamed(effect: Effect, table: RefTable, from: Id, to: Id): Effect {
  const draft = structuredCopy(effect);
  for (const found of refsTo(draft, table, from)) found.lead(to);
  const items = tableOf(draft, table) as Collection<unknown>;
  items.order = items.order.map((id) => (id === from ? to : id));
  items.byId = Object.fromEntries(Object.entries(items.byId).map(([id, item]) => [id === from ? to : id, item]));
  return draft;
}

describe('references', () => {
  it.each(REF_TABLES)('to %s are all known: whatever is renamed is so everywhere', (table) => {
    let count = 0;
    for (const [n, effect] of EFFECTS.entries())
      for (const id of tableOf(effect, table).order) {
        const now = renamed(effect, table, id, `now${n}`);
        count += refsTo(now, table, `now${n}`).length;
        expect(() => parseEffect(now)).not.toThrow();
        expect(canonicalText(renamed(now, table, `now${n}`, id))).toBe(canonicalText(effect));
        // The old id is left nowhere but where something else has it as its own.
        expect(refsTo(now, table, id)).toEqual([]);
      }
    expect(count).toBeGreaterThan(4);
  });

  it('cover every text that is an id of an item: none is a plain text', () => {
    const names = [
      'ember',
      'ash',
      'soot',
      'reach',
      'beat',
      'charge',
      'shown',
      'target',
      'strike',
      'call',
      'common',
      'edge',
    ];
    for (const effect of EFFECTS) {
      const texts = objectsIn({ ...effect, groups: {} }).flatMap(({ path, value }) =>
        path.at(-1) === 'order' ? [] : Object.values(value).filter((text) => names.includes(text as string)),
      );
      const known = refsIn(effect).filter(({ id }) => names.includes(id));
      expect(texts.length).toBe(known.length);
    }
  });

  it('to a layer that is removed are gone, and the document is whole', () => {
    for (const effect of EFFECTS)
      for (const id of effect.layers.order) {
        const draft = structuredCopy(effect);
        removeLayer(draft, id);
        expect(refsTo(draft, 'layers', id)).toEqual([]);
        expect(() => parseEffect(draft)).not.toThrow();
      }
  });

  it('to assets cover every hash in a document but those that dials stand for', () => {
    for (const effect of EFFECTS) {
      const hashes = objectsIn(effect).flatMap(({ path, value }) =>
        'asset' in value && path.at(-1) !== 'standsFor' ? [value.asset] : [],
      );
      expect(
        assetsIn(effect)
          .map(({ hash }) => hash)
          .sort(),
      ).toEqual(hashes.sort());
    }
  });
});
