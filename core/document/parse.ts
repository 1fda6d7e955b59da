import * as z from '../zod/index.ts';
import { partsOfCollection, type Collection, type Id } from '../settings/index.ts';
import { isFields } from './diff.ts';
import { DocumentError } from './errors.ts';
import { effectSchema, SCHEMA, type Effect } from './schema/index.ts';
import { readJson } from './json.ts';
import { migrated } from './migrations/index.ts';
import { referenceProblems, type ReferenceProblem } from './parts/references.ts';

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

/** Work that is done in steps, so that who runs it may do something else between them. */
export type Steps<T> = Generator<void, T>;

/** Does all steps at once. */
function finish<T>(steps: Steps<T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

const FRAME = z.strictObject(
  Object.fromEntries(
    Object.entries(effectSchema.shape).map(([field, schema]) => [
      field,
      (partsOfCollection(schema)?.frame ?? schema) as z.ZodType,
    ]),
  ),
);

/**
 * Checks a whole effect as `parseEffect` does, item by item. Of several things wrong it may name another.
 * @throws DocumentError
 */
export function* parseEffectSteps(input: unknown): Steps<Effect> {
  const made = migrated(input) as Effect;
  const frame = FRAME.safeParse(made);
  if (!frame.success) throw errorOf(frame.error.issues[0]!, frame.error.issues[0]!.path);
  for (const [field, schema] of Object.entries(effectSchema.shape)) {
    const parts = partsOfCollection(schema);
    if (parts) yield* checkItems(parts.item, null, made[field as keyof Effect], field);
  }
  const problem = referenceProblems(made)[0];
  if (problem) throw misled(problem);
  return made;
}

/** Parts whose items nothing else refers to in a way that a change of theirs, short of going away, could break. */
const LEAVES = new Set(['name', 'seed', 'stretches', 'stage', 'quality', 'layers', 'forces', 'surfaces']);

/**
 * Checks an effect that was made from one that is known to be right, by sharing what did not change: only what is new in it
 * is looked at. It comes to the same as `parseEffect`, in a small share of its time.
 * @throws DocumentError as `parseEffect` does.
 */
export const parseChanged = (known: Effect, changed: unknown): Effect => finish(parseChangedSteps(known, changed));

/** The same, item by item. */
export function* parseChangedSteps(known: Effect, changed: unknown): Steps<Effect> {
  const fields = Object.keys(effectSchema.shape) as (keyof Effect)[];
  if (!isFields(changed) || Object.keys(changed).length !== fields.length || changed['schema'] !== known.schema)
    return parseEffect(changed);
  const made = changed as unknown as Effect;
  const touched = fields.filter((field) => made[field] !== known[field]);
  for (const field of touched) yield* checkPart(effectSchema.shape[field], known[field], made[field], field);
  yield;
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

function* checkPart(schema: z.ZodType, known: unknown, made: unknown, path: string): Steps<void> {
  const parts = partsOfCollection(schema);
  if (!parts) return mustFit(schema, made, path);
  mustFit(parts.frame, made, path);
  yield* checkItems(parts.item, known, made, path);
}

/** Checks those items of a collection that are not as they were. */
function* checkItems(schema: z.ZodType, known: unknown, made: unknown, path: string): Steps<void> {
  for (const [id, item] of Object.entries(itemsOf(made))) {
    if (known !== null && item === itemsOf(known)[id]) continue;
    mustFit(schema, item, `${path}.byId.${id}`);
    yield;
  }
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

/**
 * Reads an effect out of a text that was checked before it was kept. One of an older schema is migrated and checked anew.
 * @throws DocumentError
 */
export function readKept(text: string): Effect {
  const kept = JSON.parse(text) as Partial<Effect>;
  return kept.schema === SCHEMA ? (kept as Effect) : parseEffect(kept);
}

/** Parses text as an effect. @throws DocumentError also when the text is not JSON. */
export function parseEffectText(text: string): Effect {
  return parseEffect(readJson(text));
}

/** The published JSON Schema of an effect. */
export const effectJsonSchema = (): unknown =>
  z.toJSONSchema(effectSchema, { unrepresentable: 'any', reused: 'ref' });
