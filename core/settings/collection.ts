import * as z from '../zod/index.ts';

/**
 * Ids are short, lower-case and meaningless; names are for people and may change. What every object has by that name, as
 * "constructor", is no id: it would be found in collections that do not hold it.
 */
export const idSchema = z
  .string()
  .regex(/^[a-z0-9]{1,32}$/, 'an id is 1 to 32 lower-case letters and digits')
  .refine((id) => !(id in Object.prototype), 'this word cannot be an id');
export type Id = string;

/** Things kept by id, with the order in which people see them kept apart. */
export interface Collection<T> {
  order: Id[];
  byId: Record<Id, T>;
}

/** The schemas of each collection's items, of their ids, and of the collection without them. */
const PARTS = new WeakMap<object, { item: z.ZodType; id: z.ZodType; frame: z.ZodType }>();
export const partsOfCollection = (schema: object) => PARTS.get(schema);

/** A collection of at most so many items; `id` is another schema of their ids where these refer to something. */
export function collectionSchema<T extends z.ZodType>(item: T, most = 256, id: z.ZodType<Id> = idSchema) {
  const schema = listSchema(item, most);
  PARTS.set(schema, { item, id, frame: listSchema(z.unknown(), most) });
  return schema;
}

/** Problems that are gathered of one collection. */
const MOST_PROBLEMS = 50;

/**
 * A record of at most so many items. Its keys are counted before any item is read, and the first item with a problem ends
 * the reading: a document of very many broken items costs no more than one of a few.
 */
function itemsSchema<T extends z.ZodType>(item: T, most: number) {
  const schema = z.record(idSchema, item);
  const readAll = schema._zod.parse;
  const read: typeof readAll = (payload, context) => {
    const input = payload.value as unknown;
    if (typeof input !== 'object' || input === null || Array.isArray(input)) return readAll(payload, context);
    const ids = Object.keys(input);
    if (ids.length > most) {
      const message = `there are ${ids.length} of these; there may be up to ${most}`;
      payload.issues.push({ code: 'custom', message, input, inst: schema, params: {}, path: [] });
      return payload;
    }
    for (const id of ids) {
      const part = { value: { [id]: (input as Record<string, unknown>)[id] }, issues: [] };
      const problems = (readAll(part as never, context) as z.core.ParsePayload).issues;
      if (problems.length === 0) continue;
      payload.issues.push(...problems.slice(0, MOST_PROBLEMS));
      return payload;
    }
    payload.value = { ...input } as never;
    return payload;
  };
  schema._zod.parse = read;
  schema._zod.run = read;
  return schema;
}

function listSchema<T extends z.ZodType>(item: T, most: number) {
  return z
    .strictObject({ order: z.array(idSchema).max(most), byId: itemsSchema(item, most) })
    .superRefine((value, context) => {
      const known = new Set(Object.keys(value.byId));
      const seen = new Set<string>();
      for (const id of value.order) {
        if (!known.has(id))
          context.addIssue({
            code: 'custom',
            path: ['order'],
            message: `"${id}" is in the order but not in the collection`,
          });
        if (seen.has(id))
          context.addIssue({ code: 'custom', path: ['order'], message: `"${id}" stands twice in the order` });
        seen.add(id);
      }
      for (const id of known)
        if (!seen.has(id))
          context.addIssue({ code: 'custom', path: ['order'], message: `"${id}" is missing from the order` });
    });
}

export const emptyCollection = <T>(): Collection<T> => ({ order: [], byId: {} });

export function collectionOf<T>(entries: readonly (readonly [Id, T])[]): Collection<T> {
  return { order: entries.map(([id]) => id), byId: Object.fromEntries(entries) };
}

/** Whether a collection holds an item: by itself, not as what every object has. */
export const hasItem = (collection: Collection<unknown>, id: Id): boolean => Object.hasOwn(collection.byId, id);

/** The items in order, each with its id. */
export function listed<T>(collection: Collection<T>): { id: Id; item: T }[] {
  return collection.order.map((id) => ({ id, item: collection.byId[id]! }));
}

/** A name that nothing in a table has yet: as wished, or with a number behind it. */
export function freeName(table: Collection<{ readonly name: string }>, wish: string): string {
  const taken = new Set(listed(table).map(({ item }) => item.name));
  for (let n = 1; ; n++) {
    const name = n === 1 ? wish : `${wish} ${n}`;
    if (!taken.has(name)) return name;
  }
}

export function withItem<T>(collection: Collection<T>, id: Id, item: T, at = collection.order.length): Collection<T> {
  const others = collection.order.filter((other) => other !== id);
  return { order: [...others.slice(0, at), id, ...others.slice(at)], byId: { ...collection.byId, [id]: item } };
}

export function withoutItem<T>(collection: Collection<T>, id: Id): Collection<T> {
  const byId = { ...collection.byId };
  delete byId[id];
  return { order: collection.order.filter((other) => other !== id), byId };
}

/** Moves an item to stand at index `to` among the others. */
export function moved<T>(collection: Collection<T>, id: Id, to: number): Collection<T> {
  return withItem(collection, id, collection.byId[id]!, to);
}

/** A new id or salt out of 32 random bits handed in by the caller: core has no randomness of its own. */
export const idFrom = (random32: number): Id => (random32 >>> 0).toString(36).padStart(7, '0');
