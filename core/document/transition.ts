import { canonicalText } from './canonical.ts';
import { apply, inverted, type Change } from './diff.ts';
import type { Effect } from './schema/index.ts';

/** One edit of a document: what it was, what it is, and what changed, found out once for all that follow it. */
export interface Transition {
  readonly before: Effect;
  readonly after: Effect;
  readonly changes: readonly Change[];
  /** What was done, in words; empty where somebody else did it. */
  readonly label: string;
  /** The drag that it is a part of: its many small changes are one step of undo. */
  readonly gesture: string | null;
}

type Path = readonly string[];
const keyOf = (path: Path): string => path.join('\n');
const isInside = (path: Path, outer: Path): boolean =>
  path.length > outer.length && outer.every((key, n) => key === path[n]);
const within = (change: Change, outer: Path): Change => ({ ...change, path: change.path.slice(outer.length) });

/** Whether a change leaves everything as it was. */
function isNothing(change: Change): boolean {
  const { before, after } = change;
  if ('before' in change !== 'after' in change) return false;
  return before === after || canonicalText(before) === canonicalText(after);
}

/** What a change has on one side, which may be that there is nothing. */
const side = (name: 'before' | 'after', of: Change) => (name in of ? { [name]: of[name] } : {});

/** A change and a later one at the same path, as one. */
const joined = (first: Change, second: Change): Change => ({
  path: first.path,
  ...side('before', first),
  ...side('after', second),
});

/**
 * The changes that come to the same as some changes and then others, each path once: as `diff` would find them between the
 * document before the first and that after the last, in another order.
 */
export function composeChanges(first: readonly Change[], second: readonly Change[]): Change[] {
  const all = new Map(first.map((change) => [keyOf(change.path), change]));
  for (const change of second) {
    const known = all.get(keyOf(change.path));
    const outer = known ? undefined : outerOf(all, change.path);
    if (known) all.set(keyOf(change.path), joined(known, change));
    else if (outer) all.set(keyOf(outer.path), { ...outer, after: apply(outer.after, [within(change, outer.path)]) });
    else all.set(keyOf(change.path), withInner(all, change));
  }
  return [...all.values()].filter((change) => !isNothing(change));
}

/** The change of something that has a path in it. */
function outerOf(all: ReadonlyMap<string, Change>, path: Path): Change | undefined {
  for (let length = path.length - 1; length > 0; length--) {
    const found = all.get(keyOf(path.slice(0, length)));
    if (found) return found;
  }
  return undefined;
}

/** A change of something in which other things had changed before: these go into it. */
function withInner(all: Map<string, Change>, change: Change): Change {
  const inner = [...all.values()].filter(({ path }) => isInside(path, change.path));
  for (const { path } of inner) all.delete(keyOf(path));
  if (inner.length === 0 || !('before' in change)) return change;
  return { ...change, before: apply(change.before, inverted(inner.map((each) => within(each, change.path)))) };
}
