import { emptyCollection } from '../../settings/index.ts';

/** A part of a document whose schema is not the present one. */
export type Loose = Record<string, unknown>;
/** Values that settings had by default in one schema: written out, so that no later default changes what it says. */
export type Literals = Readonly<Record<string, unknown>>;

export const loose = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});
export const itemsOf = (collection: unknown): Loose[] => Object.values(loose(loose(collection)['byId'])).map(loose);

/** A copy that shares nothing with what it was made of. */
export const copyOf = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** A copy of a document in which the effect, and each that is linked into it, is brought to another schema. */
export function inEachEffect(document: Loose, change: (effect: Loose) => void): Loose {
  const result = copyOf(document);
  change(result);
  for (const group of itemsOf(result['groups'])) {
    const linked = loose(group['linked'])['effect'];
    if (linked) change(loose(linked));
  }
  return result;
}

/** A setting that is one value, as schemas 1 to 7 write it. */
export const fixed = (value: unknown): Loose => ({
  base: { kind: 'fixed', value: copyOf(value) },
  shapers: emptyCollection(),
  muted: false,
});

/** Gives settings that came later what they were by default then. */
export function fill(holder: Loose, defaults: Literals | undefined): void {
  if (!defaults) return;
  const settings = loose(holder['settings']);
  for (const [name, value] of Object.entries(defaults)) settings[name] ??= fixed(value);
  holder['settings'] = settings;
}
