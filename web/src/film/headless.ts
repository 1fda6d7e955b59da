import { newFilmSettings, readParcel, type FilmKind, type FilmSettings } from '@jinx/core/formats';
import type { FilmProgress } from '@jinx/player/film';
import type { StageTone } from '@jinx/stage';
import { download } from '../parcels/download';
import { FilmClient, filmSource } from './filmClient';

// The page in which `./jinx export` takes pictures and films: it has no window.

/** What is asked for; the parcel lies beside the page. */
export interface HeadlessAsk {
  readonly kind: FilmKind;
  /** What is not as it is for that kind to begin with. */
  readonly settings: Partial<FilmSettings>;
  /** The tone curve of the project; filmic where none is said. */
  readonly tone?: StageTone;
  /** Draws, and makes nothing: for measuring. */
  readonly onlyDraws?: boolean;
}

/** How it went: what that cost, or why there is nothing. */
export type HeadlessAnswer =
  { readonly drawMilliseconds: number; readonly milliseconds: number } | { readonly sentence: string };

declare global {
  interface Window {
    /** Takes them, and gives the file to the downloads. */
    takeFilm?: (ask: HeadlessAsk) => Promise<HeadlessAnswer>;
    /** Hears how far it has come, where somebody listens. */
    heardProgress?: (progress: FilmProgress) => unknown;
  }
}

async function take({ kind, settings, tone = { kind: 'filmic' }, onlyDraws }: HeadlessAsk): Promise<HeadlessAnswer> {
  const bytes = await (await fetch('/parcel.zip')).arrayBuffer();
  const { effects, assets } = readParcel(new Uint8Array(bytes));
  const { effect } = effects[0]!;
  const source = await filmSource(effect, tone, (hash) => {
    const found = assets.find((asset) => asset.hash === hash);
    return found ? Promise.resolve(found.bytes) : Promise.reject(new Error('the parcel does not have it.'));
  });
  return new Promise((done) => {
    const refuse = (sentence: string) => done({ sentence });
    const client = new FilmClient((bitmap) => bitmap.close(), refuse);
    client.setSource(source);
    const asked = { ...newFilmSettings(kind, effect), ...settings };
    client
      .take(asked, effect.name, (progress) => void window.heardProgress?.(progress), onlyDraws)
      .then(
        (taken) => {
          if (!taken) return refuse('It was cancelled.');
          download(taken.file, taken.name);
          const { drawMilliseconds, milliseconds } = taken;
          done({ drawMilliseconds, milliseconds });
        },
        (error: Error) => refuse(error.message),
      );
  });
}

window.takeFilm = (ask) => take(ask).catch((error: Error) => ({ sentence: error.message }));
