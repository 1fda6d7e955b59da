import { filmInstants, type FilmSettings } from '@jinx/core/formats';
import { DEFAULT_RATE } from '@jinx/core/simulation';
import { StageContext } from '@jinx/stage';
import { Encoders } from './encoders.ts';
import { FilmScene } from './filmScene.ts';
import type { FilmSource, FromFilm, ToFilm } from './protocol.ts';
import { forgetFiles } from './sink.ts';
import { takeFilm } from './takeFilm.ts';
import { upright } from './upright.ts';

/** Threads that encode beside the one that draws. */
const MOST_ENCODERS = 2;

declare const self: DedicatedWorkerGlobalScope;
const tell = (message: FromFilm, transfer: Transferable[] = []) => self.postMessage(message, transfer);

let context: StageContext | null = null;
let source: FilmSource | null = null;
/** The numbers of what was asked for last, and of the last that was cancelled. */
let newestTake = 0;
let cancelled = 0;
/** What is asked for is done one after another. */
let before: Promise<void> = Promise.resolve();
let newestPreview = 0;
let previewed: { readonly settings: string; readonly scene: FilmScene } | null = null;

function graphics(): StageContext {
  return (context ??= new StageContext(new OffscreenCanvas(1, 1)));
}

/** Settings as they are for a smaller picture of the same. */
function smaller(settings: FilmSettings, most: number): FilmSettings {
  const by = Math.min(1, most / Math.max(settings.width, settings.height));
  const side = (points: number) => Math.max(1, Math.round(points * by));
  return {
    ...settings,
    ...{ as: 'png', bits: 8, apart: false, passes: false, supersampling: 1 },
    ...{ width: side(settings.width), height: side(settings.height) },
  };
}

function forgetPreview(): void {
  previewed?.scene.dispose();
  previewed = null;
}

async function preview({ id, settings, at, most }: Extract<ToFilm, { kind: 'preview' }>): Promise<void> {
  if (id !== newestPreview || !source) return;
  const small = smaller(settings, most);
  const key = JSON.stringify(small);
  if (previewed?.settings !== key) {
    forgetPreview();
    previewed = { settings: key, scene: new FilmScene(source, small, graphics()) };
  }
  const { scene } = previewed!;
  const instants = filmInstants(small, DEFAULT_RATE);
  const instant = instants[Math.min(instants.length - 1, Math.floor(at * instants.length))]!;
  if (!(await scene.goTo(instant, () => id !== newestPreview))) return;
  const picture = upright((await scene.shoot(instant)).whole, small.height, true);
  const pixels = new ImageData(new Uint8ClampedArray(picture.buffer), small.width, small.height);
  const bitmap = await createImageBitmap(pixels);
  tell({ kind: 'preview', id, bitmap }, [bitmap]);
}

async function take({ id, settings, name, onlyDraws }: Extract<ToFilm, { kind: 'take' }>): Promise<void> {
  if (!source) throw new Error('There is no effect to take pictures of.');
  forgetPreview();
  await forgetFiles();
  const count = Math.max(1, Math.min(MOST_ENCODERS, navigator.hardwareConcurrency - 1));
  const start = () => new Worker(new URL('./encodeWorker.ts', import.meta.url), { type: 'module' });
  const encoders = new Encoders(settings.as === 'png' || settings.as === 'exr' ? count : 0, start);
  try {
    const taken = await takeFilm(
      source,
      { settings, name, onlyDraws },
      graphics(),
      encoders,
      (progress) => tell({ kind: 'progress', id, ...progress }),
      () => cancelled >= id,
    );
    tell(taken ? { kind: 'taken', id, name: taken.file.name, ...taken } : { kind: 'cancelled', id });
  } finally {
    encoders.close();
  }
}

self.onmessage = ({ data: order }: MessageEvent<ToFilm>) => {
  if (order.kind === 'cancel') {
    cancelled = newestTake;
    return;
  }
  if (order.kind === 'preview') newestPreview = order.id;
  if (order.kind === 'take') newestTake = order.id;
  before = before.then(async () => {
    try {
      if (order.kind === 'source') {
        forgetPreview();
        source = order.source;
      } else if (order.kind === 'preview') await preview(order);
      else await take(order);
    } catch (error) {
      if ('id' in order) tell({ kind: 'refused', id: order.id, sentence: (error as Error).message });
    }
  });
};
