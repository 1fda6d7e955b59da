import { radians } from '../../maths/index.ts';
import type { Channels } from '../values/channels.ts';
import type { ColourReader } from '../values/colourReader.ts';
import type { ReadingAround } from '../values/reading.ts';
import type { Numbers } from '../values/layerReaders.ts';
import type { LookValues } from './lookValues.ts';

/** The settings of a layer that only dress its particles. */
export interface Dress {
  readonly numbers: Numbers;
  readonly colour: ColourReader;
  readonly channels: Channels;
  readonly around: ReadingAround;
  /** The lifetime all its particles share; null where they differ. */
  readonly life: number | null;
  /** Whether links may have given its particles sizes to begin with. */
  readonly isGivenSize: boolean;
  /** Whether they turn so many times in a life, rather than so fast. */
  readonly turnsInLives: boolean;
  /** Whether some of its particles may be held. */
  readonly holds: boolean;
  /** The numbers of its look. */
  readonly look: LookValues;
}

/** The settings a dress shapes, in the order of its columns, and what brings each to the unit of a record. */
export const SHAPED = [
  ['life.size', 1],
  ['life.opacity', 0.01],
  ['life.intensity', 1],
  ['life.turning', radians(1)],
] as const;

/** Degrees in what turning is counted in: a degree, or a whole turn. */
export const degreesIn = ({ turnsInLives }: Dress): number => (turnsInLives ? 360 : 1);
