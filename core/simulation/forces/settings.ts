import {
  choice,
  LIFE,
  number,
  SPREAD,
  TIMED,
  vector,
  type ChoiceDeclaration,
  type NumberDeclaration,
  type Vector,
  type VectorDeclaration,
} from '../../settings/index.ts';

type Unit = NumberDeclaration['unit'];

/** What may be negative, and differ from particle to particle. */
export const strength = (name: string, help: string, byDefault: number, unit: Unit = 'm/s²'): NumberDeclaration =>
  number('force', 'step', name, help, { unit, least: -1000, most: 1000, byDefault, bases: SPREAD, reads: LIFE });

/** What may differ from particle to particle, and is never negative. */
export const positive = (name: string, help: string, byDefault: number, unit: Unit, most = 1000): NumberDeclaration =>
  number('force', 'step', name, help, { unit, least: 0, most, byDefault, bases: SPREAD, reads: LIFE });

/** What all particles share, and may change over the effect's time. */
export const shared = (
  name: string,
  help: string,
  byDefault: number,
  unit: Unit,
  least = 0,
  most = 1000,
): NumberDeclaration =>
  number('force', 'step', name, help, { unit, least, most, byDefault, reads: TIMED, refuses: 'field' });

/** The time in which what is beyond a constraint halves: the same picture at any step rate. */
export const halving = (help: string): NumberDeclaration =>
  number('force', 'step', 'halves in', help, {
    otherWords: ['grip', 'stiffness', 'half-life'],
    unit: 's',
    least: 0,
    most: 60,
    byDefault: 0,
    bases: SPREAD,
    reads: LIFE,
    zero: 'no time',
  });

export const axis = (help: string, byDefault: Vector): VectorDeclaration =>
  vector('force', 'step', 'axis', help, { unit: '', least: -1, most: 1, byDefault, reads: TIMED, refuses: 'field' });

export const oneOf = (name: string, help: string, choices: readonly string[], byDefault: string): ChoiceDeclaration =>
  choice('force', 'step', name, help, choices, byDefault);

/** Where and on whom a force acts: what every kind of force has. */
export const WHERE = {
  reach: number('force', 'step', 'reach', 'Distance from its place at which the force has faded to nothing.', {
    otherWords: ['range', 'radius of influence', 'falloff distance'],
    unit: 'm',
    least: 0,
    most: 1000,
    byDefault: 0,
    reads: TIMED,
    refuses: 'field',
    zero: 'any distance',
  }),
  falloff: oneOf(
    'falloff',
    'How the force fades toward its reach: softly, on an even slope, not at all until there, or by the square.',
    ['soft', 'even slope', 'none', 'by the square'],
    'soft',
  ),
  share: shared('share', 'Share of the particles it acts on, always the same ones.', 100, '%', 0, 100),
} as const;

/** What pushes also have: nothing below a threshold. */
export const PUSH = {
  ...WHERE,
  threshold: number('force', 'step', 'threshold', 'It acts only where it would push at least this hard.', {
    unit: 'm/s²',
    least: 0,
    most: 1000,
    byDefault: 0,
    reads: TIMED,
    refuses: 'field',
    zero: 'any strength',
  }),
} as const;

/** What is felt from one spot also has: how near it, it weakens. */
export const SPOT = {
  ...PUSH,
  softness: shared(
    'softness',
    'How near its middle it weakens, so that nothing is flung from the very spot.',
    0.05,
    'm',
    0.001,
    100,
  ),
} as const;
