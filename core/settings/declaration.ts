import type { Combine, NumberSetting, Reads, SettingOfValue, Vector } from './setting.ts';

export type Chapter = 'source' | 'births' | 'motion' | 'life' | 'appearance';

/** When a setting acts. Dress is a function of what a particle already carries: changing it simulates nothing. */
export type Acts = 'birth' | 'step' | 'dress';

interface Common {
  readonly chapter: Chapter | 'force' | 'surface' | 'links' | 'front' | 'ribbon' | 'drawn' | 'look';
  readonly name: string;
  readonly acts: Acts;
  /** What its shapers may read. An empty list: the setting takes no shapers. */
  readonly reads: readonly Reads['kind'][];
  readonly help: string;
  /** What people of the trade also call it: it is found by these too. */
  readonly otherWords?: readonly string[];
}

export interface NumberDeclaration extends Common {
  readonly value: 'number';
  readonly unit: 'm' | 'm/s' | 'm/s²' | '/s' | '/m' | '/m²' | 's' | '°' | '°/s' | '%' | 'count' | '×' | '';
  readonly least: number;
  readonly most: number;
  readonly byDefault: number | readonly [low: number, high: number];
  readonly bases: readonly NumberSetting['base']['kind'][];
  readonly whole?: boolean;
  /** What 0 means, where it is not simply none. */
  readonly zero?: string;
}
export interface VectorDeclaration extends Common {
  readonly value: 'vector';
  readonly unit: 'm' | 'm/s' | '°' | '';
  readonly least: number;
  readonly most: number;
  readonly byDefault: Vector;
  /** Whether each particle may have its own, drawn between two vectors. */
  readonly mayVary?: boolean;
}
export interface ColourDeclaration extends Common {
  readonly value: 'colour';
  readonly byDefault: string;
}
export interface ChoiceDeclaration extends Common {
  readonly value: 'choice';
  readonly choices: readonly string[];
  readonly byDefault: string;
  /** How each choice reads in a sentence; a choice without words reads as it is. */
  readonly words?: Readonly<Record<string, string>>;
  /** What people of the trade also call each choice. */
  readonly choiceOtherWords?: Readonly<Record<string, readonly string[]>>;
}
export interface SwitchDeclaration extends Common {
  readonly value: 'switch';
  readonly byDefault: boolean;
  /** How on and off read in a sentence. */
  readonly words?: Readonly<Record<'yes' | 'no', string>>;
}
export type Declaration =
  NumberDeclaration | VectorDeclaration | ColourDeclaration | ChoiceDeclaration | SwitchDeclaration;

/** What a shaper of something that each particle has may read. */
export const LIFE = ['age', 'effectTime', 'stretchTime', 'speed', 'distance', 'channel', 'dial'] as const;
/** What all particles share at one instant. */
export const TIMED = ['effectTime', 'stretchTime', 'dial'] as const;
export const NONE = [] as const;

type Rest<T extends Declaration> = Omit<T, 'value' | 'chapter' | 'name' | 'acts' | 'help' | 'reads'> & {
  reads?: T['reads'];
};

export const number = (
  chapter: Common['chapter'],
  acts: Acts,
  name: string,
  help: string,
  rest: Omit<Rest<NumberDeclaration>, 'bases'> & { bases?: NumberDeclaration['bases'] },
): NumberDeclaration => ({
  value: 'number',
  chapter,
  acts,
  name,
  help,
  reads: NONE,
  bases: ['fixed', 'measure'],
  ...rest,
});
export const vector = (
  chapter: Common['chapter'],
  acts: Acts,
  name: string,
  help: string,
  rest: Rest<VectorDeclaration>,
): VectorDeclaration => ({
  value: 'vector',
  chapter,
  acts,
  name,
  help,
  reads: NONE,
  ...rest,
});
export const choice = (
  chapter: Common['chapter'],
  acts: Acts,
  name: string,
  help: string,
  choices: readonly string[],
  byDefault: string,
  more: Pick<ChoiceDeclaration, 'words' | 'otherWords' | 'choiceOtherWords'> = {},
): ChoiceDeclaration => ({
  value: 'choice',
  chapter,
  acts,
  name,
  help,
  reads: NONE,
  choices,
  byDefault,
  ...more,
});

export const SPREAD = ['fixed', 'spread', 'measure'] as const;

export type SettingsOf<T extends Record<string, Declaration>> = { [K in keyof T]: SettingOfValue[T[K]['value']] };

/** The ways a shaper may combine with a setting of a value type. */
export const COMBINES: Record<Declaration['value'], readonly Combine[]> = {
  number: ['multiply', 'add', 'blend', 'replace'],
  colour: ['multiply', 'blend', 'replace'],
  vector: [],
  choice: [],
  switch: [],
};

/** A table of declarations with what people of the trade also call some of them. */
export function alsoCalled<const T extends Record<string, Declaration>>(
  table: T,
  words: Readonly<Partial<Record<keyof T, readonly string[]>>>,
): T {
  const entries = Object.entries(table).map(([name, declared]) => {
    const otherWords = words[name];
    return [name, otherWords ? { ...declared, otherWords } : declared] as const;
  });
  return Object.fromEntries(entries) as T;
}
