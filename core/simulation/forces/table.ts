import type { ChoiceDeclaration, Declaration, NumberDeclaration, VectorDeclaration } from '../../settings/index.ts';

/** The settings of a kind of force, by name. */
export type ForceTable = Record<string, Declaration>;
/** The names of a table's settings of a type; any name where the table is not known. */
type NamesOf<S extends ForceTable, D extends Declaration> = string extends keyof S
  ? string
  : { [K in keyof S]: S[K] extends D ? K : never }[keyof S] & string;
export type NumberName<S extends ForceTable> = NamesOf<S, NumberDeclaration>;
export type VectorName<S extends ForceTable> = NamesOf<S, VectorDeclaration>;
export type ChoiceName<S extends ForceTable> = NamesOf<S, ChoiceDeclaration>;
