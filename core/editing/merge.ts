import {
  apply,
  canonicalText,
  DocumentError,
  inverted,
  isFields,
  type Change,
  type Effect,
  type Id,
} from '../document/index.ts';
import { mergeOrder } from './orders.ts';

type Path = readonly string[];
/** No collection holds more. */
const MOST_ORDER = 512;

/** The same thing of an effect, changed by two people to something different. */
export interface Clash {
  /** What both changed: an item of a collection, or one thing that is set of it. */
  readonly path: Path;
  readonly mine: readonly Change[];
  readonly theirs: readonly Change[];
}

export interface Merged {
  /** What stands now, with all that was changed here and does not clash, or was chosen. Not checked yet. */
  readonly document: Effect;
  readonly clashes: readonly Clash[];
}

/** Whether a change is of the order of a collection; an item may have the id "order" too. */
const isOrder = ({ path, before, after }: Change): boolean =>
  path[path.length - 1] === 'order' &&
  path[path.length - 2] !== 'byId' &&
  Array.isArray(after) &&
  (before === undefined || Array.isArray(before));
const keyOf = (path: Path): string => path.join('\n');
/**
 * What a change is a change of: an item that comes or goes, or one thing that is set of it, as a whole. A setting's base is
 * never half one person's and half another's.
 */
function thingOf(path: Path): Path {
  const item = path.lastIndexOf('byId');
  if (item < 0) return path.slice(0, 2);
  const field = path[item + 2];
  if (field === undefined) return path;
  return path.slice(0, field === 'settings' ? item + 4 : item + 3);
}

function byThing(changes: readonly Change[]): Map<string, Change[]> {
  const things = new Map<string, Change[]>();
  for (const change of changes) {
    if (isOrder(change)) continue;
    const key = keyOf(thingOf(change.path));
    const known = things.get(key);
    if (known) known.push(change);
    else things.set(key, [change]);
  }
  return things;
}

/** Every path that leads to one, itself the last. */
const waysTo = (key: string): string[] => {
  const path = key.split('\n');
  return path.map((_, n) => keyOf(path.slice(0, n + 1)));
};

/** What changed on both sides, each once, with all changes of either that touch it. */
function touchedByBoth(mine: readonly Change[], theirs: readonly Change[]): Clash[] {
  const [own, others] = [byThing(mine), byThing(theirs)];
  const clashes = new Map<string, { mine: Set<Change>; theirs: Set<Change> }>();
  // The wider of two holds all of the narrower: an item that went holds all that was set of it.
  const meet = (wider: string, ownChanges: readonly Change[], otherChanges: readonly Change[]) => {
    const clash = clashes.get(wider) ?? { mine: new Set(), theirs: new Set() };
    for (const change of ownChanges) clash.mine.add(change);
    for (const change of otherChanges) clash.theirs.add(change);
    clashes.set(wider, clash);
  };
  for (const [key, changes] of own)
    for (const way of waysTo(key)) if (others.has(way)) meet(way, changes, others.get(way)!);
  for (const [key, changes] of others)
    for (const way of waysTo(key).slice(0, -1)) if (own.has(way)) meet(way, own.get(way)!, changes);
  return [...clashes].map(([key, clash]) => ({
    path: key.split('\n'),
    mine: [...clash.mine],
    theirs: [...clash.theirs],
  }));
}

const outcome = (changes: readonly Change[]): string =>
  canonicalText(changes.map(({ path, after }) => [keyOf(path), after === undefined ? null : [after]]).sort());

interface Listed {
  readonly order: readonly Id[];
  readonly byId: Readonly<Record<Id, unknown>>;
}
const isListed = (value: unknown): value is Listed =>
  isFields(value) && Array.isArray(value['order']) && isFields(value['byId']);

const found = (document: unknown, path: Path): unknown =>
  path.reduce((value, name) => (isFields(value) ? value[name] : undefined), document);

/** Puts into order what came or went, where two orders were changed; a collection that is gone needs none. */
function withOrder(document: Effect, change: Change): Effect {
  const collection = found(document, change.path.slice(0, -1));
  if (!isListed(collection)) return document;
  const [was, is] = [change.before ?? [], change.after ?? []] as [Id[], Id[]];
  if (was.length > MOST_ORDER || is.length > MOST_ORDER)
    throw new DocumentError('this order is longer than any may be', change.path.join('.'), 'document.too_big');
  // What went is put in order too, for what stood after it to find its place; it is left out at the end.
  const all = new Set(mergeOrder(is, was, collection.order));
  const order = [...all].filter((id) => Object.hasOwn(collection.byId, id));
  return apply(document, [{ path: change.path, before: collection.order, after: order }]);
}

/**
 * Lays changes that were made from an older document over what stands now. Changes of different things are both kept;
 * orders take what came, went and moved on either side. Of what both changed differently theirs stays, unless `keepMine`
 * chooses one's own.
 *
 * @param current what stands now.
 * @param theirs what led there from the document that `mine` were made from.
 */
export function merged(
  current: Effect,
  theirs: readonly Change[],
  mine: readonly Change[],
  keepMine: (clash: Clash) => boolean = () => false,
): Merged {
  const both = touchedByBoth(mine, theirs);
  const clashes = both.filter((clash) => outcome(clash.mine) !== outcome(clash.theirs));
  const inBoth = new Set(both.flatMap((clash) => clash.mine));
  let document = apply(
    current,
    mine.filter((change) => !isOrder(change) && !inBoth.has(change)),
  );
  const orders = mine.filter(isOrder);
  for (const clash of clashes.filter(keepMine)) {
    document = apply(apply(document, inverted(clash.theirs)), clash.mine);
    // What they took away and comes back stands where it stood.
    orders.push(...inverted(theirs.filter(isOrder)));
  }
  return { document: orders.reduce(withOrder, document), clashes };
}

/**
 * Makes changes that were made at another time: those of an order are laid over it as it is now, so that what came since
 * stays. Serves undo, after somebody else's changes.
 * @throws DocumentError when what was changed is gone.
 */
export function applyOver(document: Effect, changes: readonly Change[]): Effect {
  const laid = apply(
    document,
    changes.filter((change) => !isOrder(change)),
  );
  return changes.filter(isOrder).reduce(withOrder, laid);
}
