import { canonicalText } from './canonical.ts';
import { DocumentError } from './errors.ts';

/** One change at a path. A missing `before` adds the field; a missing `after` removes it. */
export interface Change {
  readonly path: readonly string[];
  readonly before?: unknown;
  readonly after?: unknown;
}

/** What somebody changed, as one step of a document's history. */
export interface Edit {
  /** Made by who sends it: an edit that is sent twice is taken once. */
  readonly id: string;
  readonly changes: readonly Change[];
  /** What was done, in words. */
  readonly labels: readonly string[];
}

type Fields = Record<string, unknown>;
/** Whether something has fields by name: no list, and not nothing. */
export const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The changes that lead from one document to another. Lists (orders, vectors) change whole; records by key. */
export function diff(from: unknown, to: unknown, path: readonly string[] = []): Change[] {
  if (from === to) return [];
  if (isFields(from) && isFields(to)) {
    const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])].sort();
    return keys.flatMap((key) => {
      const at = [...path, key];
      if (!Object.hasOwn(from, key)) return [{ path: at, after: to[key] }];
      if (!Object.hasOwn(to, key)) return [{ path: at, before: from[key] }];
      return diff(from[key], to[key], at);
    });
  }
  return canonicalText(from) === canonicalText(to) ? [] : [{ path, before: from, after: to }];
}

const nothingAt = (path: readonly string[]) =>
  new DocumentError('there is nothing here to change', path.join('.'), 'document.nowhere');

/** Records of more fields than this are kept by V8 as a hash table. */
const MANY_FIELDS = 64;

/**
 * A copy that is to be written into. V8 lays out a record that is spread as a chain of hidden classes, and walks that chain
 * at the first write into each field: 1,000 writes into 1,000 fields took 6.8 s. A field that was deleted makes it a hash
 * table instead, and the same takes 2 ms.
 */
function copyFields(value: Fields): Fields {
  const copy = { ...value };
  const keys = Object.keys(copy);
  if (keys.length <= MANY_FIELDS) return copy;
  const first = keys[0]!;
  delete copy[first];
  copy[first] = value[first];
  return copy;
}

/**
 * Applies changes without touching the original; what is not changed is shared. Each record is copied once, however many
 * changes lead into it.
 * @throws DocumentError when a path leads nowhere.
 */
export function apply<T>(document: T, changes: readonly Change[]): T {
  const copies = new Set<Fields>();
  const writable = (value: unknown, at: readonly string[]): Fields => {
    if (!isFields(value)) throw nothingAt(at);
    if (copies.has(value)) return value;
    const copy = copyFields(value);
    copies.add(copy);
    return copy;
  };
  let root: unknown = document;
  for (const { path, ...sides } of changes) {
    const last = path.length - 1;
    if (last < 0) {
      root = sides.after;
      continue;
    }
    let fields = writable(root, []);
    root = fields;
    for (let depth = 0; depth < last; depth++) {
      const key = path[depth]!;
      if (!Object.hasOwn(fields, key)) throw nothingAt(path.slice(0, depth + 1));
      fields = fields[key] = writable(fields[key], path.slice(0, depth + 1));
    }
    const key = path[last]!;
    if (key === '__proto__') throw nothingAt(path);
    if ('after' in sides) fields[key] = sides.after;
    else delete fields[key];
  }
  return root as T;
}

/** The changes that undo `changes`. */
export function inverted(changes: readonly Change[]): Change[] {
  return changes
    .map(({ path, ...sides }) => ({
      path,
      ...('after' in sides ? { before: sides.after } : {}),
      ...('before' in sides ? { after: sides.before } : {}),
    }))
    .reverse();
}
