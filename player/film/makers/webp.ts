import { webpHead, webpPicture, type FilmSettings } from '@jinx/core/formats';
import type { Sink } from '../sink.ts';
import { upright } from '../upright.ts';
import type { Maker, Taken } from './maker.ts';

const QUALITY = 0.85;

/** An animated WebP, which chats and pages show by themselves. */
export class WebpMaker implements Maker {
  readonly #settings: FilmSettings;
  readonly #sink: Sink;
  readonly #canvas: OffscreenCanvas;

  constructor(settings: FilmSettings, sink: Sink) {
    [this.#settings, this.#sink] = [settings, sink];
    this.#canvas = new OffscreenCanvas(settings.width, settings.height);
    sink.write(this.#head(0));
  }

  #head(bytes: number): Uint8Array {
    const { width, height, behind } = this.#settings;
    return webpHead(width, height, behind === 'nothing', bytes);
  }

  async take({ pixels }: Taken): Promise<void> {
    const { width, height, rate, behind } = this.#settings;
    const rgba = new Uint8ClampedArray(upright(pixels.whole, height, behind === 'nothing').buffer);
    this.#canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
    const blob = await this.#canvas.convertToBlob({ type: 'image/webp', quality: QUALITY });
    if (blob.type !== 'image/webp')
      throw new Error('This browser cannot encode WebP. Take a film or pictures instead.');
    const bytes = new Uint8Array(await blob.arrayBuffer());
    this.#sink.write(webpPicture(width, height, { bytes, milliseconds: 1000 / rate }));
  }

  finish(): Promise<void> {
    const begun = this.#head(0).length;
    this.#sink.write(this.#head(this.#sink.bytes - begun), 0);
    return Promise.resolve();
  }
  close(): void {
    // It holds nothing but its canvas.
  }
}
