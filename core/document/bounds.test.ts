import { describe, expect, it } from 'vitest';
import {
  apply,
  collectionOf,
  newEffect,
  newLayer,
  parseEffect,
  readJson,
  DocumentError,
  type Effect,
} from './index.ts';

const codeOf = (work: () => unknown): string => {
  try {
    work();
    return 'taken';
  } catch (error) {
    return (error as DocumentError).code;
  }
};

/** A record that counts how often it is copied. */
function counted<T extends object>(record: T): { record: T; copies: () => number } {
  let copies = 0;
  const ownKeys = (target: T) => {
    copies++;
    return Reflect.ownKeys(target);
  };
  return { record: new Proxy(record, { ownKeys }), copies: () => copies };
}

describe('changes', () => {
  it('copy each record once, however many lead into it, and leave the original as it was', () => {
    const { record, copies } = counted(Object.fromEntries(Array.from({ length: 1000 }, (_, n) => [`k${n}`, n])));
    const changes = Array.from({ length: 1000 }, (_, n) => ({ path: ['a', `k${n}`], before: n, after: -n }));
    const made = apply({ a: record, b: 1 }, changes);
    expect(copies()).toBe(1);
    expect([made.a['k7'], record['k7'], made.b]).toEqual([-7, 7, 1]);
  });

  it('write into nothing that they bring along themselves', () => {
    const after = { x: 1 };
    const made = apply<Record<string, unknown>>({}, [
      { path: ['a'], after },
      { path: ['a', 'x'], before: 1, after: 2 },
    ]);
    expect([made, after]).toEqual([{ a: { x: 2 } }, { x: 1 }]);
  });

  it('find nothing under names that every object has', () => {
    expect(codeOf(() => apply({}, [{ path: ['constructor', 'x'], after: 1 }]))).toBe('document.nowhere');
    expect(codeOf(() => apply({}, [{ path: ['__proto__'], after: { x: 1 } }]))).toBe('document.nowhere');
    expect(({} as { x?: number }).x).toBeUndefined();
  });
});

describe('JSON from anywhere', () => {
  it('is refused for the number of its values before it is read', () => {
    const lists = (entries: number, times: number) =>
      `[${Array(times)
        .fill(`[${Array(entries).fill(0).join()}]`)
        .join()}]`;
    expect(codeOf(() => readJson(lists(20_000, 1)))).toBe('taken');
    expect(codeOf(() => readJson(lists(20_001, 1)))).toBe('json.list');
    expect(codeOf(() => readJson(lists(19_000, 17)))).toBe('json.values');
    expect(codeOf(() => readJson(']'.repeat(1000)))).toBe('json.none');
    expect(codeOf(() => readJson('"'.padEnd(70_000, 'x')))).toBe('json.string');
    expect(codeOf(() => readJson('['.repeat(101)))).toBe('json.deep');
  });

  it('is read whatever signs stand in its texts', () => {
    const value = { 'a"b': ['\\', '\\"', '[{,]}', '\\\\"', ''], c: { d: 'x'.repeat(60_000) } };
    expect(readJson(JSON.stringify(value))).toEqual(value);
  });
});

describe('a document', () => {
  const withLayers = (byId: Record<string, unknown>, order = Object.keys(byId)): unknown => ({
    ...newEffect('Lamp', 1),
    layers: { order, byId },
  });

  it('with very many items is refused by their number, before one of them is read', () => {
    let read = 0;
    const layer = {
      get name() {
        return String(read++);
      },
    };
    const byId = Object.fromEntries(Array.from({ length: 20_000 }, (_, n) => [`l${n}`, layer]));
    expect(() => parseEffect(withLayers(byId, []))).toThrow(/there are 20000 of these; there may be up to 128/);
    expect(read).toBe(0);
  });

  it('with very many broken items is refused at the first', () => {
    let read = 0;
    const layer = {
      get name() {
        return String(read++);
      },
    };
    const byId = Object.fromEntries(Array.from({ length: 100 }, (_, n) => [`l${n}`, layer]));
    expect(() => parseEffect(withLayers(byId))).toThrow(/at layers\.byId\.l0/);
    expect(read).toBeLessThan(10);
  });

  it('names only some of very many unknown fields', () => {
    const strange = Object.fromEntries(Array.from({ length: 10_000 }, (_, n) => [`x${n}`, 0]));
    expect(() => parseEffect({ ...newEffect('Lamp', 1), ...strange })).toThrow(/"x4" and more/);
    expect(() => parseEffect({ ...newEffect('Lamp', 1), ...strange })).toThrow(/^.{0,200}$/);
  });

  it('has no id that every object has: it would lead to what nobody made', () => {
    const named = (id: string): Effect => ({
      ...newEffect('Lamp', 1),
      layers: collectionOf([[id, newLayer('Motes', 1)]]),
    });
    expect(() => parseEffect(named('motes'))).not.toThrow();
    expect(() => parseEffect(named('constructor'))).toThrow(/cannot be an id/);
    const follower = named('motes');
    follower.layers.byId['motes']!.parent = 'constructor';
    expect(() => parseEffect(follower)).toThrow(DocumentError);
  });

  it('has only names that can be kept and shown', () => {
    for (const name of ['a\0b', 'a\ud800b', '\udc00'])
      expect(() => parseEffect(newEffect(name, 1))).toThrow(/characters that can be shown/);
    expect(parseEffect(newEffect('Lamp 🪔', 1)).name).toBe('Lamp 🪔');
  });
});
