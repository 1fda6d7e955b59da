import type { Effect } from '@jinx/core/document';
import type { FilmSettings } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import type { StagePicture, StageTone } from '@jinx/stage';

/** An effect, and all that it is drawn with. */
export interface FilmSource {
  readonly effect: Effect;
  readonly rigs: readonly (readonly [string, Rig])[];
  readonly pictures: readonly StagePicture[];
  /** The tone curve of the project; linear pictures have none. */
  readonly tone: StageTone;
  readonly kernels: KernelBytes;
}

/** What the page tells the worker that takes pictures. */
export type ToFilm =
  | { kind: 'source'; source: FilmSource }
  /** One picture, `at` of 0 to 1 along what is taken, no larger than so many points a side; a newer question ends an older. */
  | { kind: 'preview'; id: number; settings: FilmSettings; at: number; most: number }
  /** `onlyDraws`: pictures are drawn and read back, and nothing is made of them; for measuring. */
  | { kind: 'take'; id: number; settings: FilmSettings; name: string; onlyDraws: boolean }
  | { kind: 'cancel' };

/** How far it has come. */
export interface FilmProgress {
  readonly done: number;
  readonly of: number;
  /** Seconds that are likely left; null before that can be said. */
  readonly secondsLeft: number | null;
  readonly bytes: number;
}

/** What it tells the page. */
export type FromFilm =
  | { kind: 'preview'; id: number; bitmap: ImageBitmap }
  | ({ kind: 'progress'; id: number } & FilmProgress)
  /** All of it is in a file of that name; milliseconds that drawing alone took, and all of it. */
  | { kind: 'taken'; id: number; file: File; name: string; drawMilliseconds: number; milliseconds: number }
  | { kind: 'cancelled'; id: number }
  | { kind: 'refused'; id: number; sentence: string };
