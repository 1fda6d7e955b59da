import { z } from 'zod';
import { DocumentError } from './errors.ts';
import { effectSchema, type Effect } from './effect.ts';
import { migrated } from './migrations.ts';
import { referenceProblems } from './references.ts';

function sentenceOf(issue: z.core.$ZodIssue): string {
  if (issue.code === 'unrecognized_keys') return `unknown field ${issue.keys.map((key) => `"${key}"`).join(', ')}`;
  return issue.message;
}

/**
 * The one door for effects: migrates, checks shape, limits and references.
 * @throws DocumentError naming the first thing wrong and its path.
 */
export function parseEffect(input: unknown): Effect {
  const result = effectSchema.safeParse(migrated(input));
  if (!result.success) {
    const issue = result.error.issues[0]!;
    throw new DocumentError(sentenceOf(issue), issue.path.join('.'));
  }
  const problem = referenceProblems(result.data)[0];
  if (problem) throw new DocumentError(problem.sentence, problem.path);
  return result.data;
}

/** Parses text as an effect. @throws DocumentError also when the text is not JSON. */
export function parseEffectText(text: string): Effect {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new DocumentError('this is not JSON', '');
  }
  return parseEffect(value);
}

/** The published JSON Schema of an effect. */
export const effectJsonSchema = (): unknown =>
  z.toJSONSchema(effectSchema, { unrepresentable: 'any', reused: 'ref' });
