import { CHANNEL_SETTING, type Effect, type Given, type Id, type Layer } from '../../document/index.ts';
import { NumberReader } from './numberReader.ts';
import type { Reading } from './reading.ts';

/** What the particles of one layer carry under names: each channel a number of its own, shaped like any setting. */
export class Channels {
  /** Ids of the channels the layer has, so sorted that no order on screen reaches what is computed. */
  readonly ids: readonly Id[];
  /** Whether each particle keeps what it began with: links may have passed it on. */
  readonly isKept: boolean;
  /** Whether some begin with what is where a particle is born. */
  readonly takes: boolean;
  readonly #readers: readonly NumberReader[];

  /** `group` is the scale of the layer's groups. */
  constructor(layer: Pick<Layer, 'channels'>, effect: Pick<Effect, 'measures'>, group: number, isKept: boolean) {
    this.ids = [...layer.channels.order].sort();
    this.#readers = this.ids.map(
      (id) => new NumberReader(layer.channels.byId[id]!, CHANNEL_SETTING, `channel/${id}`, effect, { group }),
    );
    this.takes = this.#readers.some(({ given }) => given !== null);
    this.isKept = (isKept || this.takes) && this.ids.length > 0;
  }

  /** Fields that a population keeps for them beside its own. */
  get fields(): number {
    return this.isKept ? this.ids.length : 0;
  }

  /** What the particle that a reading tells of carries; 0 in a channel that its layer does not have. */
  read(id: Id, reading: Reading): number {
    const n = this.ids.indexOf(id);
    if (n < 0) return 0;
    const begun = reading.begun[n];
    if (begun) return this.#readers[n]!.readFrom(begun[reading.place]!, reading);
    // Draws of a channel are the particle's own, whoever asks.
    const { key } = reading;
    reading.key = reading.particle;
    const value = this.#readers[n]!.read(reading);
    reading.key = key;
    return value;
  }

  /** Fields of one place, one for each channel, out of `fields`. */
  roomFor(fields: Float32Array[]): readonly Float32Array[] {
    while (fields.length < this.ids.length) fields.push(new Float32Array(1));
    return fields;
  }

  /**
   * Writes what particle `i` begins with into the fields of its channels. `given` is what there is where it is born; `passed` is another's,
   * of which it takes a share where `mask` has the channel's bit.
   */
  keep(
    begun: readonly Float32Array[],
    i: number,
    key: number,
    given: Readonly<Record<Given, number>>,
    passed: ArrayLike<number>,
    at: number,
    mask: number,
    share: number,
  ): void {
    for (let n = 0; n < this.ids.length; n++) {
      const reader = this.#readers[n]!;
      const own = reader.given ? given[reader.given] : reader.base(key);
      const isPassed = (mask & (1 << n)) !== 0;
      begun[n]![i] = isPassed ? own + (passed[at + n]! - own) * share : own;
    }
  }
}
