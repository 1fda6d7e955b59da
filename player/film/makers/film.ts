import {
  canEncodeVideo,
  Mp4OutputFormat,
  Output,
  StreamTarget,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
  type StreamTargetChunk,
} from 'mediabunny';
import type { FilmSettings } from '@jinx/core/formats';
import type { Sink } from '../sink.ts';
import { upright } from '../upright.ts';
import type { Maker, Taken } from './maker.ts';

const CODECS = { vp9: 'vp9', h264: 'avc' } as const;
const NAMES = { vp9: 'VP9', h264: 'H.264' } as const;
const SECONDS_BETWEEN_KEYS = 2;

/** What of a film this browser can encode: with how much it covers, without, or not at all. */
export async function encodes({
  codec,
  width,
  height,
  bitrate,
  behind,
}: FilmSettings): Promise<'alpha' | 'plain' | null> {
  const options = { width, height, bitrate: bitrate * 1000 };
  if (!('VideoEncoder' in globalThis) || !(await canEncodeVideo(CODECS[codec], options))) return null;
  return codec === 'vp9' && behind === 'nothing' ? 'alpha' : 'plain';
}

/** A film: WebM with VP9, or MP4 with H.264. */
export class FilmMaker implements Maker {
  readonly #settings: FilmSettings;
  readonly #output: Output;
  readonly #source: VideoSampleSource;
  readonly #hasAlpha: boolean;

  private constructor(settings: FilmSettings, sink: Sink, hasAlpha: boolean) {
    const { codec, bitrate, rate } = settings;
    [this.#settings, this.#hasAlpha] = [settings, hasAlpha];
    const writable = new WritableStream<StreamTargetChunk>({
      write: ({ data, position }) => sink.write(data, position),
    });
    this.#output = new Output({
      format: codec === 'vp9' ? new WebMOutputFormat() : new Mp4OutputFormat(),
      target: new StreamTarget(writable),
    });
    this.#source = new VideoSampleSource({
      codec: CODECS[codec],
      bitrate: bitrate * 1000,
      keyFrameInterval: SECONDS_BETWEEN_KEYS,
      alpha: hasAlpha ? 'keep' : 'discard',
    });
    this.#output.addVideoTrack(this.#source, { frameRate: rate });
  }

  /** @throws an error with a sentence where this browser lacks the codec. */
  static async begin(settings: FilmSettings, sink: Sink): Promise<FilmMaker> {
    const can = await encodes(settings);
    if (!can) {
      const other = settings.codec === 'vp9' ? 'h264' : 'vp9';
      const otherwise = (await encodes({ ...settings, codec: other }))
        ? `Choose ${NAMES[other]}, or take pictures instead.`
        : 'Take pictures instead.';
      throw new Error(
        `This browser cannot encode ${NAMES[settings.codec]} at ${settings.width} × ${settings.height}. ${otherwise}`,
      );
    }
    const maker = new FilmMaker(settings, sink, can === 'alpha');
    await maker.#output.start();
    return maker;
  }

  async take({ number, pixels }: Taken): Promise<void> {
    const { width, height, rate } = this.#settings;
    const picture = upright(pixels.whole, height, this.#hasAlpha);
    const sample = new VideoSample(picture, {
      format: this.#hasAlpha ? 'RGBA' : 'RGBX',
      codedWidth: width,
      codedHeight: height,
      timestamp: number / rate,
      duration: 1 / rate,
    });
    try {
      await this.#source.add(sample);
    } finally {
      sample.close();
    }
  }

  finish(): Promise<void> {
    return this.#output.finalize();
  }
  close(): void {
    if (this.#output.state === 'started') void this.#output.cancel();
  }
}
