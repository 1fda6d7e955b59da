import type { z } from 'zod';
import { partsOfCollection, type Collection } from '../../settings/index.ts';

/** Where a visit stands in a document. It is the visit's own: what is kept of it is copied. */
export class Cursor {
  /** Keys from the root to what is visited, and at each of them what has the key. */
  readonly keys: (string | number)[] = [];
  readonly holders: object[] = [];
  /** Numbers of keys down to the items of collections, and to fields that may be null. */
  readonly items: number[] = [];
  readonly nullables: number[] = [];
}

/** Called with the schema that was looked for and the value that has it. */
export type Visit = (schema: object, value: unknown, cursor: Cursor, isKey: boolean) => void;
type Visitor = (value: unknown, cursor: Cursor, visit: Visit) => void;

/** What a visit looks for, and what it goes no further into. */
export interface Wanted {
  readonly isFound: (schema: object) => boolean;
  readonly isClosed?: (schema: object) => boolean;
}

interface Definition {
  readonly type: string;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly options?: readonly z.ZodType[];
  readonly discriminator?: string;
  readonly element?: z.ZodType;
  readonly innerType?: z.ZodType;
  readonly valueType?: z.ZodType;
  readonly values?: readonly string[];
}
const definitionOf = (schema: z.ZodType): Definition => schema._zod.def as unknown as Definition;

/**
 * Makes a function that visits every part of a value whose schema is looked for. It is made from the schema at the first
 * visit, and enters only what can hold such a part. Parts are visited in the order of the schema, items in that of their
 * collection: an item that stands in no order is not visited.
 */
export function visitorOf(root: z.ZodType, wanted: Wanted): (value: object, visit: Visit) => void {
  const made = new Map<object, Visitor | null>();
  const compile = (schema: z.ZodType): Visitor | null => {
    const known = made.get(schema);
    if (known !== undefined) return known;
    const visitor = wanted.isClosed?.(schema) ? null : compileSchema(schema, wanted, compile);
    made.set(schema, visitor);
    return visitor;
  };
  return (value, visit) => compile(root)?.(value, new Cursor(), visit);
}

type Compile = (schema: z.ZodType) => Visitor | null;

function compileSchema(schema: z.ZodType, wanted: Wanted, compile: Compile): Visitor | null {
  if (wanted.isFound(schema)) return (value, cursor, visit) => visit(schema, value, cursor, false);
  const collection = partsOfCollection(schema);
  if (collection) return ofCollection(collection, wanted, compile);
  const definition = definitionOf(schema);
  switch (definition.type) {
    case 'object':
      return ofFields(definition.shape!, compile);
    case 'union':
      return definition.discriminator
        ? ofKinds(definition.options!, definition.discriminator, compile)
        : ofOptions(definition.options!, compile);
    case 'array':
      return ofEntries(definition.element!, compile);
    case 'nullable':
    case 'optional':
      return orNothing(definition.innerType!, compile);
    case 'record':
      return ofRecord(definition.valueType!, compile);
    default:
      return null;
  }
}

/** Visits what an object has under a key. */
function under(inner: Visitor, holder: object, key: string | number, cursor: Cursor, visit: Visit): void {
  cursor.keys.push(key);
  cursor.holders.push(holder);
  inner((holder as Record<string | number, unknown>)[key], cursor, visit);
  cursor.keys.pop();
  cursor.holders.pop();
}

function ofFields(shape: Readonly<Record<string, z.ZodType>>, compile: Compile): Visitor | null {
  const fields = Object.entries(shape).flatMap(([key, schema]) => {
    const inner = compile(schema);
    return inner ? [[key, inner] as const] : [];
  });
  if (fields.length === 0) return null;
  return (value, cursor, visit) => {
    for (const [key, inner] of fields) under(inner, value as object, key, cursor, visit);
  };
}

function ofKinds(options: readonly z.ZodType[], discriminator: string, compile: Compile): Visitor | null {
  const kinds = new Map<string, Visitor>();
  for (const option of options) {
    const inner = compile(option);
    const values = definitionOf(definitionOf(option).shape![discriminator]!).values!;
    if (inner) for (const kind of values) kinds.set(kind, inner);
  }
  if (kinds.size === 0) return null;
  return (value, cursor, visit) =>
    kinds.get((value as Record<string, string>)[discriminator]!)?.(value, cursor, visit);
}

/** Options without a kind are told apart by the names of their fields. */
function ofOptions(options: readonly z.ZodType[], compile: Compile): Visitor | null {
  const visitors = options.flatMap((option) => {
    const [inner, names] = [compile(option), Object.keys(definitionOf(option).shape ?? {})];
    return inner ? [{ inner, names }] : [];
  });
  if (visitors.length === 0) return null;
  return (value, cursor, visit) =>
    visitors.find(({ names }) => names.every((name) => name in (value as object)))?.inner(value, cursor, visit);
}

function ofEntries(element: z.ZodType, compile: Compile): Visitor | null {
  const inner = compile(element);
  return (
    inner &&
    ((value, cursor, visit) => {
      for (let n = 0; n < (value as unknown[]).length; n++) under(inner, value as unknown[], n, cursor, visit);
    })
  );
}

function orNothing(schema: z.ZodType, compile: Compile): Visitor | null {
  const inner = compile(schema);
  return (
    inner &&
    ((value, cursor, visit) => {
      if (value === null || value === undefined) return;
      cursor.nullables.push(cursor.keys.length);
      inner(value, cursor, visit);
      cursor.nullables.pop();
    })
  );
}

function ofRecord(valueType: z.ZodType, compile: Compile): Visitor | null {
  const inner = compile(valueType);
  return (
    inner &&
    ((value, cursor, visit) => {
      for (const key of Object.keys(value as object)) under(inner, value as object, key, cursor, visit);
    })
  );
}

function ofCollection(
  { item, id: idSchema }: { readonly item: z.ZodType; readonly id: z.ZodType },
  wanted: Wanted,
  compile: Compile,
): Visitor | null {
  const inner = compile(item);
  const isKeyFound = wanted.isFound(idSchema);
  if (!inner && !isKeyFound) return null;
  return (value, cursor, visit) => {
    const { order, byId } = value as Collection<unknown>;
    cursor.keys.push('byId');
    cursor.holders.push(value as object);
    for (const id of order) {
      cursor.keys.push(id);
      cursor.holders.push(byId);
      cursor.items.push(cursor.keys.length);
      if (isKeyFound) visit(idSchema, id, cursor, true);
      inner?.(byId[id], cursor, visit);
      cursor.items.pop();
      cursor.keys.pop();
      cursor.holders.pop();
    }
    cursor.keys.pop();
    cursor.holders.pop();
  };
}
