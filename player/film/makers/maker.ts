import type { ShotMarks, ShotPixels } from '@jinx/stage';

/** One picture, as it was drawn. */
export interface Taken {
  readonly number: number;
  readonly pixels: ShotPixels;
  readonly marks: ShotMarks | null;
}

/** Makes a file of pictures, which come in order. */
export interface Maker {
  /** Resolves when the next may come. @throws an error with a sentence. */
  take(taken: Taken): Promise<void>;
  /** All have come: what is left is written. */
  finish(): Promise<void>;
  /** None will come any more: whatever it holds is let go. */
  close(): void;
}
