import type { EffectInfo, Loaded, Playing, PlayingEvents, PlayOptions, Quality } from '../api.ts';
import type { FromPlayer, ToPlayer } from '../runtime/messages.ts';
import { dialNamed, dialValue, PagePlaying } from './playing.ts';

export interface WorkerEnd {
  readonly worker: Pick<Worker, 'postMessage' | 'addEventListener'>;
  close(): void;
}

type Answer = Extract<FromPlayer, { id: number }>;
interface Waiting {
  readonly done: (answer: Answer) => void;
  readonly fail: (error: Error) => void;
}

/** The bytes of a parcel. @throws an error with a sentence where they cannot be had. */
async function bytesOf(parcel: string | URL | Blob | ArrayBuffer | Uint8Array): Promise<Uint8Array> {
  if (parcel instanceof Uint8Array) return parcel;
  if (parcel instanceof ArrayBuffer) return new Uint8Array(parcel);
  if (parcel instanceof Blob) return new Uint8Array(await parcel.arrayBuffer());
  const answer = await fetch(parcel).catch(() => null);
  if (!answer?.ok)
    throw new Error(
      `The parcel at ${String(parcel)} cannot be had: ${answer ? `the answer was ${answer.status}` : 'nothing answers there'}.`,
    );
  return new Uint8Array(await answer.arrayBuffer());
}

/** What only those hear who draw by themselves. */
export type Drawn = Extract<FromPlayer, { kind: 'scene' | 'frames' | 'frame' | 'pace' }>;

/** The page's end of a player: what is told to the worker, and heard from it. */
export class PlayerEnd {
  readonly isShared: boolean;
  readonly #end: WorkerEnd;
  readonly #drawn: (told: Drawn) => void;
  readonly #waiting = new Map<number, Waiting>();
  readonly #playing = new Map<number, PagePlaying>();
  readonly #faults = new Set<(sentence: string) => void>();
  #numbers = 0;
  #fault: Error | null = null;

  constructor(end: WorkerEnd, isShared: boolean, drawn: (told: Drawn) => void = () => undefined) {
    [this.#end, this.isShared, this.#drawn] = [end, isShared, drawn];
    end.worker.addEventListener('message', (event) => this.#take((event as MessageEvent<FromPlayer>).data));
    end.worker.addEventListener('error', (event) =>
      this.#fail((event as ErrorEvent).message || 'The player stopped by a fault of its own.'),
    );
  }

  tell(order: ToPlayer, transfer: Transferable[] = []): void {
    this.#end.worker.postMessage(order, transfer);
  }

  #take(told: FromPlayer): void {
    switch (told.kind) {
      case 'event':
        return this.#playing.get(told.playing)?.tellOf(told.event, told.told as PlayingEvents[typeof told.event]);
      case 'failed':
        return this.#fail(told.sentence);
      case 'told':
        return console.error(told.sentence);
      case 'scene':
      case 'frames':
      case 'frame':
      case 'pace':
        return this.#drawn(told);
      default: {
        const waiting = this.#waiting.get(told.id);
        this.#waiting.delete(told.id);
        if (told.kind === 'refused') waiting?.fail(new Error(told.sentence));
        else waiting?.done(told);
      }
    }
  }

  #fail(sentence: string): void {
    this.#end.close();
    this.#stop(new Error(sentence));
    for (const hear of this.#faults) hear(sentence);
  }
  /** Nothing is answered from now on. */
  #stop(why: Error): void {
    this.#fault = why;
    for (const { fail } of this.#waiting.values()) fail(why);
    this.#waiting.clear();
  }
  onFault(hear: (sentence: string) => void): void {
    this.#faults.add(hear);
    if (this.#fault) hear(this.#fault.message);
  }

  protected ask<K extends Answer['kind']>(question: (id: number) => ToPlayer): Promise<Extract<Answer, { kind: K }>> {
    const id = ++this.#numbers;
    return new Promise((done, fail) => {
      if (this.#fault) return fail(this.#fault);
      this.#waiting.set(id, { done: done as Waiting['done'], fail });
      this.tell(question(id));
    });
  }

  async load(parcel: string | URL | Blob | ArrayBuffer | Uint8Array): Promise<Loaded> {
    const bytes = await bytesOf(parcel);
    const { id, licence, effects } = await this.ask<'loaded'>((number) => ({ kind: 'load', id: number, bytes }));
    const play = (which: number | string = 0, options: PlayOptions = {}): Playing => {
      const index = typeof which === 'number' ? which : effects.findIndex(({ name }) => name === which);
      const info = effects[index];
      if (!info) {
        const names = effects.map(({ name }) => `"${name}"`).join(', ');
        throw new RangeError(`this parcel has no effect ${JSON.stringify(which)}; it has: ${names}`);
      }
      return this.#play(id, index, info, options);
    };
    return { licence, effects, play };
  }

  #play(parcel: number, effect: number, info: EffectInfo, options: PlayOptions): Playing {
    for (const [name, value] of Object.entries(options.dials ?? {})) dialValue(dialNamed(info, name), value);
    const playing = ++this.#numbers;
    const made = new PagePlaying(info, (order) => this.tell({ kind: 'tell', playing, order }), {
      state: async () => (await this.ask<'state'>((id) => ({ kind: 'state', id, playing }))).state,
      hash: async () => (await this.ask<'hash'>((id) => ({ kind: 'hash', id, playing }))).hash,
    });
    this.#playing.set(playing, made);
    this.tell({ kind: 'play', playing, parcel, effect, options });
    this.begun(info);
    return made;
  }

  /** An effect has begun. */
  protected begun(_: EffectInfo): void {
    // Whoever has a camera may set it.
  }

  setSpeed(speed: number): void {
    if (!(speed > 0)) throw new RangeError('a speed is above 0');
    this.tell({ kind: 'speed', speed });
  }
  setQuality(quality: Quality): void {
    this.tell({ kind: 'quality', quality });
  }
  dispose(): void {
    this.#end.close();
    this.#stop(new Error('The player was disposed of.'));
  }
}
