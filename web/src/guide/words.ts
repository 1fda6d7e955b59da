import {
  FORCES,
  FORCE_KINDS,
  SHAPES,
  SHAPE_KINDS,
  STEP_KINDS,
  STEP_NAMES,
  STEP_OTHER_WORDS,
} from '@jinx/core/document';
import { COMMANDS } from '../bench/commands/list';
import { SETTINGS_TABLES } from './settingsTables';

/** What we call something, what others of the trade call it, and where it is found. */
export interface Word {
  readonly ours: string;
  readonly others: readonly string[];
  readonly where: string;
}

/** Every word of ours for which the trade has others, by the letters. */
export const words = (): Word[] =>
  [
    ...SETTINGS_TABLES.flatMap(({ title, settings }) =>
      settings.map(([, { name, otherWords = [] }]) => ({ ours: name, others: otherWords, where: title })),
    ),
    ...FORCE_KINDS.map((kind) => ({ ours: FORCES[kind].name, others: FORCES[kind].otherWords, where: 'A force' })),
    ...SHAPE_KINDS.map((kind) => ({
      ours: `born ${SHAPES[kind].words}`,
      others: SHAPES[kind].otherWords,
      where: 'A source',
    })),
    ...STEP_KINDS.map((kind) => ({
      ours: STEP_NAMES[kind],
      others: STEP_OTHER_WORDS[kind],
      where: 'A step of a look',
    })),
    ...Object.values(COMMANDS).map(({ label, otherWords }) => ({
      ours: label,
      others: otherWords,
      where: 'A command',
    })),
  ]
    .filter(({ others }) => others.length > 0)
    .sort((a, b) => a.ours.localeCompare(b.ours, 'en'));
