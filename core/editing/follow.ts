import { canonicalText, isFields, parseEffect, type Effect, type Id } from '../document/index.ts';
import { mergeOrder } from './orders.ts';

type Fields = Record<string, unknown>;
interface Listed extends Fields {
  order: Id[];
  byId: Fields;
}
const isCollection = (value: Fields): value is Listed => Array.isArray(value['order']) && isFields(value['byId']);
const same = (a: unknown, b: unknown): boolean => a === b || canonicalText(a ?? null) === canonicalText(b ?? null);

/** What a sibling never takes from the effect it follows: its own name. */
const OWN = new Set(['name']);

/**
 * A sibling after the effect it follows has changed from `before` to `after`: it takes every change of what it had as that
 * effect had it, and keeps what it had otherwise. What is in a collection is told apart by its id; of what is of another
 * kind than before, of lists and of vectors, the whole is kept or taken. A part of the document in which the changes would
 * leave something without what it refers to is left as the sibling has it.
 */
export function followed(sibling: Effect, before: Effect, after: Effect): Effect {
  const merged = merge(sibling, before, after, OWN) as unknown as Fields & Effect;
  if (isWhole(merged)) return merged;
  // Part by part, twice over: one may need what another brings.
  let kept = sibling as unknown as Fields;
  for (let round = 0; round < 2; round++)
    for (const part of Object.keys(merged)) {
      const tried = { ...kept, [part]: merged[part] };
      if (isWhole(tried)) kept = tried;
    }
  return kept as unknown as Effect;
}

function isWhole(document: unknown): boolean {
  try {
    parseEffect(document);
    return true;
  } catch {
    return false;
  }
}

function merge(own: unknown, before: unknown, after: unknown, never: ReadonlySet<string> = new Set()): unknown {
  if (same(before, after)) return own;
  if (never.size === 0 && same(own, before)) return after;
  if (![own, before, after].every(isFields)) return own;
  const [mine, was, is] = [own, before, after] as [Fields, Fields, Fields];
  if (mine['kind'] !== was['kind'] || mine['kind'] !== is['kind']) return own;
  if ([mine, was, is].every(isCollection)) return mergeListed(mine as Listed, was as Listed, is as Listed);
  return mergeFields(mine, was, is, never);
}

function mergeFields(mine: Fields, was: Fields, is: Fields, never: ReadonlySet<string>): Fields {
  const merged: Fields = {};
  for (const key of new Set([...Object.keys(mine), ...Object.keys(is)])) {
    if (never.has(key)) merged[key] = mine[key];
    else if (!(key in was)) merged[key] = key in mine ? mine[key] : is[key];
    else if (!(key in is)) {
      if (!same(mine[key], was[key])) merged[key] = mine[key];
    } else if (key in mine) merged[key] = merge(mine[key], was[key], is[key]);
    // What the sibling took away stays away.
  }
  return merged;
}

function mergeListed(mine: Listed, was: Listed, is: Listed): Listed {
  const byId = mergeFields(mine.byId, was.byId, is.byId, new Set());
  return { ...mine, order: mergeOrder(mine.order, was.order, is.order).filter((id) => id in byId), byId };
}
