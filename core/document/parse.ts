import { z } from 'zod';
import { partsOfCollection, type Collection, type Id } from './collection.ts';
import { isFields } from './diff.ts';
import { DocumentError } from './errors.ts';
import { effectSchema, type Effect } from './effect.ts';
import { readJson } from './json.ts';
import { migrated } from './migrations.ts';
import { referenceProblems, type ReferenceProblem } from './references.ts';

/** Unknown fields that are named, and letters of each. */
const [MOST_TOLD, MOST_LETTERS] = [5, 40];

function sentenceOf(issue: z.core.$ZodIssue): string {
  if (issue.code === 'unrecognized_keys') {
    const told = issue.keys.slice(0, MOST_TOLD).map((key) => `"${key.slice(0, MOST_LETTERS)}"`);
    return `unknown field ${told.join(', ')}${issue.keys.length > MOST_TOLD ? ' and more' : ''}`;
  }
  return issue.message;
}

/** What is wrong, in the words of programs: the check that failed, as in "document.too_big". */
const errorOf = (issue: z.core.$ZodIssue, path: readonly PropertyKey[]) =>
  new DocumentError(sentenceOf(issue), path.join('.'), `document.${issue.code}`);
const misled = ({ sentence, path, code }: ReferenceProblem) => new DocumentError(sentence, path, code);

/**
 * The one door for effects: migrates, checks shape, limits and references.
 * @throws DocumentError naming the first thing wrong and its path.
 */
export function parseEffect(input: unknown): Effect {
  const result = effectSchema.safeParse(migrated(input));
  if (!result.success) {
    const issue = result.error.issues[0]!;
    throw errorOf(issue, issue.path);
  }
  const problem = referenceProblems(result.data)[0];
  if (problem) throw misled(problem);
  return result.data;
}

/** Parts whose items nothing else refers to in a way that a change of theirs, short of going away, could break. */
const LEAVES = new Set(['name', 'seed', 'stretches', 'stage', 'layers', 'forces', 'surfaces']);

/**
 * Checks an effect that was made from one that is known to be right, by sharing what did not change: only what is new in it
 * is looked at. It comes to the same as `parseEffect`, in a small share of its time.
 * @throws DocumentError as `parseEffect` does.
 */
export function parseChanged(known: Effect, changed: unknown): Effect {
  const fields = Object.keys(effectSchema.shape) as (keyof Effect)[];
  if (!isFields(changed) || Object.keys(changed).length !== fields.length || changed['schema'] !== known.schema)
    return parseEffect(changed);
  const made = changed as unknown as Effect;
  const touched = fields.filter((field) => made[field] !== known[field]);
  for (const field of touched) checkPart(effectSchema.shape[field], known[field], made[field], field);
  const isFar = touched.some((field) => !LEAVES.has(field) || hasLost(known[field], made[field]));
  const problem = referenceProblems(isFar ? made : onlyNew(known, made))[0];
  if (problem) throw misled(problem);
  return made;
}

function mustFit(schema: z.ZodType, value: unknown, path: string): void {
  const result = schema.safeParse(value);
  if (result.success) return;
  const issue = result.error.issues[0]!;
  throw errorOf(issue, [path, ...issue.path]);
}

const itemsOf = (value: unknown): Record<Id, unknown> => (value as Collection<unknown>).byId;

function checkPart(schema: z.ZodType, known: unknown, made: unknown, path: string): void {
  const parts = partsOfCollection(schema);
  if (!parts) return mustFit(schema, made, path);
  mustFit(parts.frame, made, path);
  for (const [id, item] of Object.entries(itemsOf(made)))
    if (item !== itemsOf(known)[id]) mustFit(parts.item, item, `${path}.byId.${id}`);
}

/** Whether a collection has less than before. */
function hasLost(known: unknown, made: unknown): boolean {
  return isFields(known) && isFields(known['byId']) && Object.keys(itemsOf(known)).some((id) => !itemsOf(made)[id]);
}

/** The effect with only those items standing in the order that are new: what stands in none is found, and not checked. */
function onlyNew(known: Effect, made: Effect): Effect {
  const only = <T>(before: Collection<T>, after: Collection<T>): Collection<T> => ({
    order: after.order.filter((id) => after.byId[id] !== before.byId[id]),
    byId: after.byId,
  });
  return {
    ...made,
    layers: only(known.layers, made.layers),
    forces: only(known.forces, made.forces),
    surfaces: only(known.surfaces, made.surfaces),
  };
}

/** Parses text as an effect. @throws DocumentError also when the text is not JSON. */
export function parseEffectText(text: string): Effect {
  return parseEffect(readJson(text));
}

/** The published JSON Schema of an effect. */
export const effectJsonSchema = (): unknown =>
  z.toJSONSchema(effectSchema, { unrepresentable: 'any', reused: 'ref' });
