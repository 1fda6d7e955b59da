import * as z from '../zod/index.ts';
import { idSchema } from './collection.ts';

/** Tables of a document whose items are referred to by their ids. */
export const REF_TABLES = [
  'palette',
  'measures',
  'dials',
  'signals',
  'channels',
  'layers',
  'looks',
  'fronts',
  'groups',
  'things',
] as const;
export type RefTable = (typeof REF_TABLES)[number];

/**
 * What becomes of a reference when the item it leads to is removed:
 * - `stays`: it is kept, for the item may come back; a finding tells of it;
 * - `value`: whoever removes the item writes down what it stood for;
 * - `null`: the nearest field around it that may be null is null;
 * - `item`: the item of a collection that holds it is removed too;
 * - `entry`: it is taken out of its list, and with the last of them the item that has the list;
 * - a function: what its holder, the object with the field, is replaced by.
 */
export type WhenGone = 'stays' | 'value' | 'null' | 'item' | 'entry' | ((holder: never) => object);

export interface RefRule {
  readonly table: RefTable;
  /** Kinds of item that serve; all of them where this is left out. */
  readonly kinds?: readonly string[];
  readonly whenGone: WhenGone;
  /**
   * What its holder is replaced by when it is brought where the item is not, and has to do without. The item of a collection
   * that has the holder is at hand.
   */
  readonly without?: (holder: never, item: never) => object;
  /** Whether an item may not refer to itself. */
  readonly isOther?: boolean;
  /** What the item is needed for, as in 'no layer "a" to follow'. */
  readonly purpose?: string | ((holder: never) => string);
  /** What is lost without it, as in "the layer Motes, which was followed". */
  readonly lost?: string;
  /** Where a dial or a measure is used, in words, as in "Motes: whether it is seen"; a setting says so by its own name. */
  readonly use?: string;
}

/** What an asset is used as; a mesh has one bone, a figure may have many. */
export type AssetUse = 'picture' | 'mesh' | 'figure';
export interface AssetRule {
  readonly as: AssetUse;
  /** Where it is used, in words, as in "Motes: what bends it"; null where no dial replaces it. */
  readonly dialledUse: string | null;
}

const REFS = new WeakMap<object, RefRule>();
const ASSETS = new WeakMap<object, AssetRule>();
export const refRuleOf = (schema: object): RefRule | undefined => REFS.get(schema);
export const assetRuleOf = (schema: object): AssetRule | undefined => ASSETS.get(schema);

/** A field that holds the id of an item of a table. */
export function ref(table: RefTable, rule: Omit<RefRule, 'table'>) {
  const schema = idSchema.meta({ description: `the id of one of the ${table}` });
  REFS.set(schema, { table, ...rule });
  return schema;
}

export const assetHash = z.string().regex(/^[0-9a-f]{64}$/, 'an asset is named by 64 hexadecimal digits');

/** A field that holds the hash of an asset's canonical bytes; with words of where it is used, a dial may replace it. */
export function asset(as: AssetUse, dialledUse: string | null = null) {
  const schema = assetHash.meta({ description: `the hash of a ${as}` });
  ASSETS.set(schema, { as, dialledUse });
  return schema;
}
