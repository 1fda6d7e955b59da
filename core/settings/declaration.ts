import type { Combine, NumberSetting, Reads, SettingOfValue, Vector } from './setting.ts';

export type Chapter = 'source' | 'births' | 'motion' | 'life' | 'appearance';

/** When a setting acts. Dress is a function of what a particle already carries: changing it simulates nothing. */
export type Acts = 'birth' | 'step' | 'dress';

/**
 * Why a setting cannot be shaped by all that its kind is: it fixes how much memory is set aside, the order of what comes, or
 * how a shape is built; it says how many are born, before any is there to be read; or it belongs to one field for all.
 */
export type Refusal = 'memory' | 'order' | 'topology' | 'count' | 'field';

interface Common {
  readonly chapter: Chapter | 'force' | 'surface' | 'links' | 'front' | 'ribbon' | 'drawn' | 'look';
  readonly name: string;
  readonly acts: Acts;
  /** What its shapers may read. An empty list: the setting takes no shapers. */
  readonly reads: readonly Reads['kind'][];
  /** Why that is not all that what acts when it does may read. */
  readonly refuses?: Refusal;
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
  /** Whether each particle may have its own, drawn between two vectors; else all share one. */
  readonly mayVary?: boolean;
}
export interface ColourDeclaration extends Common {
  readonly value: 'colour';
  readonly byDefault: string;
  /** Whether a particle keeps one that it takes at birth. */
  readonly mayBeTaken?: boolean;
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

/** What all particles of a layer share at one instant. */
export const TIMED = ['effectTime', 'stretchTime', 'carrierSpeed', 'dial'] as const;
/** What is known of a particle at its birth. */
export const BORN = [...TIMED, 'channel'] as const;
/** What is known at its birth once it has a place. */
export const PLACED = [...BORN, 'aimDistance'] as const;
/** What a shaper of something that each particle has may read. */
export const LIFE = [
  'age',
  'effectTime',
  'stretchTime',
  'speed',
  'distance',
  'aimDistance',
  'carrierSpeed',
  'channel',
  'dial',
] as const;
/** What stays the same while an effect runs. */
export const STILL = ['dial'] as const;
export const NONE = [] as const;

/** What each refusal says in a tooltip. */
export const REFUSALS: Readonly<Record<Refusal, string>> = {
  memory: 'It says how much memory is set aside, so that only a dial may drive it.',
  order: 'It says in which order things come, so that only what stays the same may drive it.',
  topology: 'It says how a shape is built, so that only a dial may drive it.',
  count: 'It says how many come before any of them is there, so that nothing of a particle may drive it.',
  field: 'It belongs to one field that all particles feel, so that nothing of a single particle may drive it.',
};

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

/** What each particle may have its own of. */
export const SPREAD = ['fixed', 'spread', 'set', 'measure'] as const;

export type SettingsOf<T extends Record<string, Declaration>> = { [K in keyof T]: SettingOfValue[T[K]['value']] };

/** The ways a shaper may combine with a setting of a value type. */
export const COMBINES: Record<Declaration['value'], readonly Combine[]> = {
  number: ['multiply', 'add', 'blend', 'replace'],
  colour: ['multiply', 'blend', 'replace'],
  vector: ['multiply', 'add', 'blend', 'replace'],
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
