import type { Effect } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import { SceneFeed, type View } from '@jinx/player/scene';
import type { StageTone } from '@jinx/stage';
import { EngineAssets } from './engineAssets';
import { InstantClient } from './instantClient';
import { Restarts } from './restarts';
import type { SharedByPage } from './shared';
import { StageClient } from './stageClient';

/** Pictures that are wanted of an effect. */
export interface WantedPictures {
  readonly effect: Effect;
  readonly budget: number;
  /** Instants of its time sheet, rising. */
  readonly seconds: number[];
  readonly view: View;
  /** The tone curve of its project. */
  readonly tone: StageTone;
}

/**
 * Takes pictures of effects at instants of their time sheets, beside what is on the bench. What is wanted of several effects
 * at once is computed in that order, and drawn while the next is computed.
 */
export class PictureTaker {
  readonly #width: number;
  readonly #height: number;
  readonly #assets: EngineAssets;
  readonly #instants: InstantClient;
  readonly #stage: StageClient;
  readonly #feed: SceneFeed;
  readonly #restarts = new Restarts();
  #tone: StageTone | null = null;

  /** Pictures have this many points each way. */
  constructor(shared: SharedByPage, width: number, height: number) {
    [this.#width, this.#height] = [width, height];
    this.#assets = new EngineAssets(shared);
    this.#instants = new InstantClient(shared.threads);
    this.#stage = new StageClient(() => shared.stages.open(false), {
      message: () => undefined,
      failed: () => {
        if (!this.#restarts.mayRestart()) return;
        this.#stage.restart();
        this.#start();
      },
    });
    this.#start();
    this.#stage.guides([], false);
    this.#feed = new SceneFeed(this.#assets, (order) => this.#stage.send(order));
  }
  #start(): void {
    this.#stage.start(null, this.#width, this.#height);
  }

  /** A table is long: it is sent where it is another. */
  #setTone(tone: StageTone): void {
    if (tone === this.#tone) return;
    this.#tone = tone;
    this.#stage.send({ kind: 'tone', tone });
  }

  /** Gives each picture as soon as it is drawn, until `signal` ends that. Rejects with NoAnswer where that cannot be done. */
  async *take(
    { effect, budget, seconds, view, tone }: WantedPictures,
    signal?: AbortSignal,
  ): AsyncGenerator<ImageBitmap> {
    const whole = wholeOf(effect).effect;
    await this.#assets.prepare(whole);
    if (signal?.aborted) return;
    const instants = this.#instants.run(whole, this.#assets.rigsOf(whole), budget, seconds);
    const stop = () => instants.stop();
    signal?.addEventListener('abort', stop);
    try {
      for (let n = 0; n < seconds.length; n++) {
        const instant = await instants.next();
        if (!instant) return;
        this.#feed.show(whole, 0);
        this.#stage.view(view);
        this.#setTone(tone);
        const { bitmap } = await this.#stage.picture(this.#width, this.#height, instant);
        yield bitmap;
      }
    } finally {
      stop();
      signal?.removeEventListener('abort', stop);
    }
  }

  stop(): void {
    this.#instants.stop();
    this.#stage.stop();
  }
}

/** A picture as a file. */
export async function pictureFile(bitmap: ImageBitmap): Promise<Blob> {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  // It is read as soon as it is drawn.
  canvas.getContext('2d', { willReadFrequently: true })!.drawImage(bitmap, 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
