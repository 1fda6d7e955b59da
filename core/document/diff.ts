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
      if (!(key in from)) return [{ path: at, after: to[key] }];
      if (!(key in to)) return [{ path: at, before: from[key] }];
      return diff(from[key], to[key], at);
    });
  }
  return canonicalText(from) === canonicalText(to) ? [] : [{ path, before: from, after: to }];
}

const nothingAt = (path: readonly string[]) =>
  new DocumentError('there is nothing here to change', path.join('.'), 'document.nowhere');

function replaced(value: unknown, path: readonly string[], change: Change, depth: number): unknown {
  if (depth === path.length) return change.after;
  if (!isFields(value)) throw nothingAt(path.slice(0, depth));
  const key = path[depth]!;
  const last = depth === path.length - 1;
  if (!last && !(key in value)) throw nothingAt(path.slice(0, depth + 1));
  const copy = { ...value };
  if (last && !('after' in change)) delete copy[key];
  else copy[key] = replaced(value[key], path, change, depth + 1);
  return copy;
}

/** Applies changes without touching the original; what is not changed is shared. @throws DocumentError when a path leads nowhere. */
export function apply<T>(document: T, changes: readonly Change[]): T {
  return changes.reduce((current, change) => replaced(current, change.path, change, 0) as T, document);
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
