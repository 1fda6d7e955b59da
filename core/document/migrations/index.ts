import { SCHEMA } from '../schema/index.ts';
import { DocumentError } from '../errors.ts';
import type { Loose } from './loose.ts';
import { toSchema2 } from './schema2.ts';
import { toSchema3 } from './schema3.ts';
import { toSchema4 } from './schema4.ts';
import { toSchema5 } from './schema5.ts';
import { toSchema6 } from './schema6.ts';
import { toSchema7 } from './schema7.ts';
import { toSchema8 } from './schema8.ts';
import { toSchema9 } from './schema9.ts';
import { toSchema10 } from './schema10.ts';
import { toSchema11 } from './schema11.ts';
import { toSchema12 } from './schema12.ts';

/** Schema 0 was the draft with lengths in `timing`. */
function toSchema1({ timing, ...rest }: Loose): Loose {
  const { open = 0, hold = 0, close = 0 } = (timing ?? {}) as { open?: number; hold?: number; close?: number };
  return {
    ...rest,
    schema: 1,
    stretches: {
      opening: open,
      hold: hold > 0 ? { kind: 'continuing', seconds: hold } : { kind: 'none' },
      closing: close,
    },
  };
}

/** Each step takes a document of the schema before it, and knows no later default. */
const STEPS: readonly ((document: Loose) => Loose)[] = [
  toSchema1,
  toSchema2,
  toSchema3,
  toSchema4,
  toSchema5,
  toSchema6,
  toSchema7,
  toSchema8,
  toSchema9,
  toSchema10,
  toSchema11,
  toSchema12,
];

/**
 * Brings a document of any known schema up to the present one. The result is not yet checked.
 * @throws DocumentError when the schema number is missing, or newer than this version of Jinx.
 */
export function migrated(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    throw new DocumentError('this is not an effect', '', 'document.none');
  let current = document as Loose;
  const from = current['schema'];
  if (typeof from !== 'number' || !Number.isInteger(from) || from < 0)
    throw new DocumentError('an effect starts with its schema number', 'schema', 'document.schema');
  if (from > SCHEMA)
    throw new DocumentError(
      `this effect was made by a newer Jinx (schema ${from}, known up to ${SCHEMA}): update Jinx to open it`,
      'schema',
      'document.newer',
    );
  for (let step = from; step < SCHEMA; step++) current = STEPS[step]!(current);
  return current;
}
