import type { z } from 'zod';
import { layerOf } from './address.ts';
import {
  assetRuleOf,
  refRuleOf,
  type AssetRule,
  type Collection,
  type Id,
  type RefRule,
  type RefTable,
  type WhenGone,
} from '../../settings/index.ts';
import { effectSchema, type Effect } from '../schema/index.ts';
import { addressAt } from './parts.ts';
import { visitorOf, type Cursor } from './visit.ts';
import { isLinkedEffect } from './walk.ts';

/** Something in a document that was found, and where. */
class Found {
  /** Keys from what was visited down to it. */
  readonly path: readonly (string | number)[];
  /** What has each of the keys. */
  protected readonly holders: readonly object[];
  protected readonly item: number | undefined;
  protected readonly nullable: number | undefined;

  constructor({ keys, holders, items, nullables }: Cursor) {
    [this.path, this.holders] = [[...keys], [...holders]];
    [this.item, this.nullable] = [items.at(-1), nullables.at(-1)];
  }

  /** The object or list that has it. */
  get holder(): object {
    return this.holders.at(-1)!;
  }
  /** The item of a collection that has it, at whatever depth; what was visited where none has. */
  get owner(): object {
    return this.item === undefined ? this.holders[0]! : (this.#at(this.item - 1) as object);
  }

  /** The id of that item. */
  get itemId(): Id | undefined {
    return this.item === undefined ? undefined : String(this.path[this.item - 1]);
  }

  #at(depth: number): unknown {
    return (this.holders[depth] as Record<string | number, unknown>)[this.path[depth]!];
  }
  /** Writes at one of its keys. */
  protected write(depth: number, value: unknown): void {
    (this.holders[depth] as Record<string | number, unknown>)[this.path[depth]!] = value;
  }
  protected removeItem(): void {
    const depth = this.item!;
    removeFrom(this.holders[depth - 2] as Collection<unknown>, String(this.path[depth - 1]));
  }
}

function removeFrom(collection: Collection<unknown>, id: Id): void {
  collection.order = collection.order.filter((other) => other !== id);
  delete collection.byId[id];
}

/** A reference in a document: in a draft, it may be led elsewhere or let go. */
export class FoundRef extends Found {
  readonly rule: RefRule;
  readonly id: Id;
  /** Whether the id is that of the item itself in its collection. */
  readonly #isItsId: boolean;

  constructor(rule: RefRule, id: Id, cursor: Cursor, isItsId: boolean) {
    super(cursor);
    [this.rule, this.id, this.#isItsId] = [rule, id, isItsId];
  }

  /** Lets it lead to another item of its table. */
  lead(to: Id): void {
    if (!this.#isItsId) return this.write(this.path.length - 1, to);
    const { order, byId } = this.holders.at(-2) as Collection<unknown>;
    const entries = Object.entries(byId).map(([id, item]) => [id === this.id ? to : id, item] as const);
    Object.assign(this.holders.at(-2)!, {
      order: order.map((id) => (id === this.id ? to : id)),
      byId: Object.fromEntries(entries),
    });
  }

  /** Replaces its holder. */
  become(holder: object): void {
    this.write(this.path.length - 2, holder);
  }

  /** Does without the item, as the rule says: nothing is left that means something else. */
  letGo(how: WhenGone = this.rule.whenGone): void {
    if (typeof how === 'function') this.become(how(this.holder as never));
    else if (how === 'null') this.write(this.nullable! - 1, null);
    else if (how === 'item') this.removeItem();
    else if (how === 'entry') {
      const list = this.holder as Id[];
      list.splice(list.indexOf(this.id), 1);
      if (list.length === 0) this.removeItem();
    }
  }
}

/** An asset that a document uses. */
export class FoundAsset extends Found {
  readonly rule: AssetRule;
  readonly hash: string;

  constructor(rule: AssetRule, hash: string, cursor: Cursor) {
    super(cursor);
    [this.rule, this.hash] = [rule, hash];
  }
}

type Visitor = ReturnType<typeof visitorOf>;
const visitors = new WeakMap<z.ZodType, Map<string, Visitor>>();

function visitorFor(schema: z.ZodType, of: string, isFound: (schema: object) => boolean): Visitor {
  const known = visitors.get(schema) ?? new Map<string, Visitor>();
  visitors.set(schema, known);
  const visitor = known.get(of) ?? visitorOf(schema, { isFound, isClosed: isLinkedEffect });
  known.set(of, visitor);
  return visitor;
}

interface Within {
  /** The schema of what is visited; that of an effect where it is left out. */
  readonly schema?: z.ZodType;
  readonly table?: RefTable;
}

/**
 * Visits every reference in a part of a document, or only those to one table. What is linked into an effect has references
 * of its own and is not entered. `found` makes what may be kept; it is for the time of the visit.
 */
export function visitRefs(
  part: object,
  visit: (rule: RefRule, id: Id, found: () => FoundRef) => void,
  { schema = effectSchema, table }: Within = {},
): void {
  const isFound = (field: object) => {
    const rule = refRuleOf(field);
    return rule !== undefined && (table === undefined || rule.table === table);
  };
  visitorFor(
    schema,
    `refs ${table ?? ''}`,
    isFound,
  )(part, (field, id, cursor, isItsId) => {
    const rule = refRuleOf(field)!;
    visit(rule, id as Id, () => new FoundRef(rule, id as Id, cursor, isItsId));
  });
}

/** Every reference in a part of a document, each to be led elsewhere or let go. */
export function refsIn(part: object, within: Within = {}): FoundRef[] {
  const refs: FoundRef[] = [];
  visitRefs(part, (_, __, found) => refs.push(found()), within);
  return refs;
}

/** Every reference of an effect to an item of a table. */
export const refsTo = (effect: Effect, table: RefTable, id: Id): FoundRef[] => {
  const refs: FoundRef[] = [];
  visitRefs(effect, (_, to, found) => to === id && refs.push(found()), { table });
  return refs;
};

/** The layers that refer to an item of a table, themselves or in a part of theirs. */
export const layersReferringTo = (effect: Effect, table: RefTable, id: Id): Id[] => [
  ...new Set(refsTo(effect, table, id).flatMap(({ path }) => layerOf(addressAt(path)) ?? [])),
];

/** Every asset that an effect uses, those of what is linked into it left out. */
export function assetsIn(effect: Effect): FoundAsset[] {
  const assets: FoundAsset[] = [];
  const isFound = (schema: object) => assetRuleOf(schema) !== undefined;
  visitorFor(
    effectSchema,
    'assets',
    isFound,
  )(effect, (schema, hash, cursor) => assets.push(new FoundAsset(assetRuleOf(schema)!, hash as string, cursor)));
  return assets;
}
