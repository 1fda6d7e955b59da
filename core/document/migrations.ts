import { DocumentError } from './errors.ts';
import { emptyCollection } from './collection.ts';
import { FORCE_SETTINGS, LAYER_SETTINGS, type Declaration } from './declarations.ts';
import { SCHEMA } from './effect.ts';
import { structuredCopy } from './make.ts';
import { defaultSetting } from './settingSchema.ts';

type Loose = Record<string, unknown>;

const loose = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});
const itemsOf = (collection: unknown): Loose[] => Object.values(loose(loose(collection)['byId'])).map(loose);

/** Gives settings that came later what they are by default. */
function fill(holder: Loose, table: Record<string, Declaration> | undefined): void {
  if (!table) return;
  const settings = loose(holder['settings']);
  for (const [name, declaration] of Object.entries(table)) settings[name] ??= defaultSetting(declaration);
  holder['settings'] = settings;
}

/** Each step takes a document of the schema before it. Schema 0 was the draft with lengths in `timing`. */
const STEPS: readonly ((document: Loose) => Loose)[] = [
  (document) => {
    const { timing, ...rest } = document;
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
  },
  // Schema 2: more kinds of force, each with reach, falloff and share; forces of the effect's own.
  (document) => {
    const result = structuredCopy({ ...document, schema: 2, forces: emptyCollection() }) as Loose;
    for (const layer of itemsOf(result['layers'])) {
      fill(layer, LAYER_SETTINGS);
      for (const force of itemsOf(layer['forces'])) fill(force, FORCE_SETTINGS[force['kind'] as 'gravity']);
    }
    return result;
  },
];

/**
 * Brings a document of any known schema up to the present one. The result is not yet checked.
 * @throws DocumentError when the schema number is missing, or newer than this version of Jinx.
 */
export function migrated(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    throw new DocumentError('this is not an effect', '');
  let current = document as Loose;
  const from = current['schema'];
  if (typeof from !== 'number' || !Number.isInteger(from) || from < 0)
    throw new DocumentError('an effect starts with its schema number', 'schema');
  if (from > SCHEMA)
    throw new DocumentError(
      `this effect was made by a newer Jinx (schema ${from}, known up to ${SCHEMA}): update Jinx to open it`,
      'schema',
    );
  for (let step = from; step < SCHEMA; step++) current = STEPS[step]!(current);
  return current;
}
