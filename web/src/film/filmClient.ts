import type { Effect } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import { picturesOf, readCanonicalPicture, readRig, rigsOf, type FilmSettings } from '@jinx/core/formats';
import type { FilmProgress, FilmSource, FromFilm, ToFilm } from '@jinx/player/film';
import type { StageTone } from '@jinx/stage';
import { BROWSER_THREADS, reasonOf } from '../engine/threads';

/** Gives the canonical bytes of an asset. */
export type AssetBytes = (hash: string) => Promise<Uint8Array>;

/**
 * All that pictures of an effect are drawn with, by the tone curve of its project.
 * @throws an error with a sentence where something of it cannot be had.
 */
export async function filmSource(effect: Effect, tone: StageTone, asset: AssetBytes): Promise<FilmSource> {
  const whole = wholeOf(effect).effect;
  const had = async <T>(hash: string, read: (bytes: Uint8Array) => T): Promise<T> => {
    try {
      return read(await asset(hash));
    } catch (error) {
      throw new Error(
        `A mesh or picture that “${effect.name}” uses cannot be had: ${(error as Error).message} No picture was taken.`,
      );
    }
  };
  const [rigs, pictures, kernels] = await Promise.all([
    Promise.all(rigsOf(whole).map((hash) => had(hash, (bytes) => [hash, readRig(bytes)] as const))),
    Promise.all(
      picturesOf(whole).map((hash) => had(hash, (bytes) => ({ hash, texture: readCanonicalPicture(bytes) }))),
    ),
    BROWSER_THREADS.kernels(),
  ]);
  return { effect, rigs, pictures, tone, kernels };
}

/** A film that was taken, and what that cost. */
export type Taken = Extract<FromFilm, { kind: 'taken' }>;
type Take = {
  told: (progress: FilmProgress) => void;
  done: (taken: Taken | null) => void;
  fail: (error: Error) => void;
};

/** Settings as they can be sent: without what makes a page follow them. */
const plain = (settings: FilmSettings): FilmSettings => JSON.parse(JSON.stringify(settings)) as FilmSettings;

/** So long what is given up may take to go away. */
const CLOSING_MILLISECONDS = 5000;

/** The page's end of the worker that takes pictures. */
export class FilmClient {
  readonly #worker: Worker;
  readonly #previewed: (bitmap: ImageBitmap) => void;
  readonly #failed: (sentence: string) => void;
  readonly #takes = new Map<number, Take>();
  #numbers = 0;

  constructor(previewed: (bitmap: ImageBitmap) => void, failed: (sentence: string) => void) {
    [this.#previewed, this.#failed] = [previewed, failed];
    this.#worker = new Worker(new URL('../../../player/film/filmWorker.ts', import.meta.url), { type: 'module' });
    this.#worker.onmessage = ({ data }: MessageEvent<FromFilm>) => this.#hear(data);
    this.#worker.onerror = (event) => {
      const sentence = `Taking pictures has stopped: ${reasonOf(event)}.`;
      for (const { fail } of this.#takes.values()) fail(new Error(sentence));
      this.#takes.clear();
      failed(sentence);
    };
  }

  #tell(order: ToFilm): void {
    this.#worker.postMessage(order);
  }

  #hear(told: FromFilm): void {
    if (told.kind === 'preview') {
      if (told.id === this.#numbers) return this.#previewed(told.bitmap);
      return told.bitmap.close();
    }
    const take = this.#takes.get(told.id);
    if (told.kind === 'progress') return take?.told(told);
    this.#takes.delete(told.id);
    if (told.kind === 'taken') take?.done(told);
    else if (told.kind === 'cancelled') take?.done(null);
    else if (take) take.fail(new Error(told.sentence));
    else this.#failed(told.sentence);
  }

  setSource(source: FilmSource): void {
    this.#tell({ kind: 'source', source });
  }
  /** Asks for a picture `at` of 0 to 1 along what would be taken; what was asked for before is given up. */
  preview(settings: FilmSettings, at: number, most: number): void {
    this.#tell({ kind: 'preview', id: ++this.#numbers, settings: plain(settings), at, most });
  }
  /** Null where it was cancelled. @throws an error with a sentence where it cannot be done. */
  take(
    settings: FilmSettings,
    name: string,
    told: (progress: FilmProgress) => void,
    onlyDraws = false,
  ): Promise<Taken | null> {
    const id = ++this.#numbers;
    return new Promise((done, fail) => {
      this.#takes.set(id, { told, done, fail });
      this.#tell({ kind: 'take', id, settings: plain(settings), name, onlyDraws });
    });
  }
  cancel(): void {
    this.#tell({ kind: 'cancel' });
  }
  /** Gives up what is being taken, so that nothing of it is left, and ends. */
  close(): void {
    this.cancel();
    const end = () => this.#worker.terminate();
    const last = [...this.#takes.keys()].at(-1);
    if (last === undefined) return end();
    this.#takes.set(last, { told: () => undefined, done: end, fail: end });
    setTimeout(end, CLOSING_MILLISECONDS);
  }
}
