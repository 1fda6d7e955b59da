import { filmInstants, filmProblems, plainName, type FilmSettings } from '@jinx/core/formats';
import { DEFAULT_RATE } from '@jinx/core/simulation';
import type { StageContext } from '@jinx/stage';
import type { Encoders } from './encoders.ts';
import { FilmScene } from './filmScene.ts';
import { FilmMaker } from './makers/film.ts';
import { FlipbookMaker } from './makers/flipbook.ts';
import type { Maker } from './makers/maker.ts';
import { SequenceMaker } from './makers/sequence.ts';
import { WebpMaker } from './makers/webp.ts';
import type { FilmProgress, FilmSource } from './protocol.ts';
import { openSink, type Sink } from './sink.ts';

const ENDINGS = { png: 'png.zip', exr: 'exr.zip', flipbook: 'flipbook.zip', webp: 'webp' } as const;
const TYPES = {
  png: 'application/zip',
  exr: 'application/zip',
  flipbook: 'application/zip',
  webp: 'image/webp',
} as const;

/** What a file of these settings is called, and what it is. */
function fileOf(name: string, { as, codec }: FilmSettings): { name: string; type: string } {
  if (as !== 'film') return { name: `${plainName(name)}.${ENDINGS[as]}`, type: TYPES[as] };
  const ending = codec === 'vp9' ? 'webm' : 'mp4';
  return { name: `${plainName(name)}.${ending}`, type: `video/${ending}` };
}

function makerOf(settings: FilmSettings, name: string, sink: Sink, encoders: Encoders): Maker | Promise<Maker> {
  switch (settings.as) {
    case 'png':
    case 'exr':
      return new SequenceMaker(settings, plainName(name), sink, encoders);
    case 'flipbook':
      return new FlipbookMaker(settings, plainName(name), sink);
    case 'film':
      return FilmMaker.begin(settings, sink);
    case 'webp':
      return new WebpMaker(settings, sink);
  }
}

/** What is asked for. */
export interface FilmTake {
  readonly settings: FilmSettings;
  readonly name: string;
  readonly onlyDraws: boolean;
}

/** Makes nothing of what it is given. */
const NOTHING: Maker = {
  take: () => Promise.resolve(),
  finish: () => Promise.resolve(),
  close: () => undefined,
};

export interface TakenFilm {
  readonly file: File;
  /** Milliseconds that computing and drawing took by themselves, and all of it. */
  readonly drawMilliseconds: number;
  readonly milliseconds: number;
}

/**
 * Plays an effect, draws every picture of it and makes a file of them. Null where it was cancelled: then nothing is left.
 * @throws an error with a sentence where it cannot be done; then nothing is left either.
 */
export async function takeFilm(
  source: FilmSource,
  { settings, name, onlyDraws }: FilmTake,
  context: StageContext,
  encoders: Encoders,
  told: (progress: FilmProgress) => void,
  isCancelled: () => boolean,
): Promise<TakenFilm | null> {
  const [problem] = filmProblems(settings);
  if (problem) throw new Error(problem);
  const sink = await openSink();
  let [maker, scene]: [Maker | null, FilmScene | null] = [null, null];
  try {
    maker = onlyDraws ? NOTHING : await makerOf(settings, name, sink, encoders);
    scene = new FilmScene(source, settings, context);
    const instants = filmInstants(settings, DEFAULT_RATE);
    const begun = performance.now();
    let drawn = 0;
    for (const [number, instant] of instants.entries()) {
      const start = performance.now();
      if (isCancelled() || !(await scene.goTo(instant, isCancelled))) {
        maker.close();
        await sink.abandon();
        return null;
      }
      const pixels = await scene.shoot(instant);
      const marks = await scene.shootMarks(instant);
      drawn += performance.now() - start;
      await maker.take({ number, pixels, marks });
      const done = number + 1;
      const each = (performance.now() - begun) / done;
      const secondsLeft = done < 3 ? null : (each * (instants.length - done)) / 1000;
      told({ done, of: instants.length, secondsLeft, bytes: sink.bytes });
    }
    await maker.finish();
    const { name: called, type } = fileOf(name, settings);
    const file = new File([await sink.close()], called, { type });
    return { file, drawMilliseconds: drawn, milliseconds: performance.now() - begun };
  } catch (error) {
    maker?.close();
    await sink.abandon();
    throw error;
  } finally {
    scene?.dispose();
  }
}
