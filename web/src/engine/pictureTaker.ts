import type { Effect } from '@jinx/core/document';
import { watch } from 'vue';
import { Engine } from './engine';
import type { View } from '@jinx/player/scene';

/** Takes pictures of an effect at instants of its time sheet, beside what is on the bench. */
export class PictureTaker {
  readonly #engine = new Engine();
  readonly #width: number;
  readonly #height: number;
  #effect: Effect | null = null;

  /** Pictures have this many points each way. */
  constructor(width: number, height: number) {
    [this.#width, this.#height] = [width, height];
    const start = () => this.#engine.stage.start(new OffscreenCanvas(width, height), width, height);
    start();
    watch(this.#engine.stageRuns, start, { flush: 'sync' });
    this.#engine.stage.guides([], false);
  }

  async load(effect: Effect, budget: number): Promise<void> {
    this.#effect = effect;
    await this.#engine.edit(effect, budget);
  }

  /** One picture, as a file, of an instant in seconds of the time sheet. */
  async at(seconds: number, view: View): Promise<Blob> {
    this.#engine.stage.view(view);
    this.#engine.playback.seekSheet(this.#effect!.stretches, seconds);
    await this.#engine.simulation.settled();
    const { rgba } = await this.#engine.stage.pixels(this.#width, this.#height);
    const canvas = new OffscreenCanvas(this.#width, this.#height);
    canvas
      .getContext('2d')!
      .putImageData(new ImageData(new Uint8ClampedArray(rgba), this.#width, this.#height), 0, 0);
    return canvas.convertToBlob({ type: 'image/png' });
  }

  stop(): void {
    this.#engine.stop();
  }
}
