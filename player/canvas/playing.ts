import type { DialInfo, DialValue, EffectInfo, Playing, PlayingEvents, PlayingState, Triple } from '../api.ts';
import type { PlayingOrder } from '../runtime/messages.ts';

export type Hear = (told: never) => void;
const RATE = 60;

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
function mustBeTriple(value: unknown, what: string): Triple {
  if (!Array.isArray(value) || value.length !== 3 || !value.every(isNumber))
    throw new TypeError(`${what} is three numbers`);
  return [value[0] as number, value[1] as number, value[2] as number];
}

/** @throws TypeError where a value is not one of the dial's kind. */
export function dialValue(dial: DialInfo, value: DialValue): DialValue {
  if (dial.kind === 'number' && !isNumber(value)) throw new TypeError(`the dial "${dial.name}" is a number`);
  if (dial.kind === 'switch' && typeof value !== 'boolean')
    throw new TypeError(`the dial "${dial.name}" is on or off`);
  return dial.kind === 'number' || dial.kind === 'switch' ? value : mustBeTriple(value, `the dial "${dial.name}"`);
}

/** The dial of a name. @throws RangeError that lists those there are. */
export function dialNamed({ name: effect, dials }: EffectInfo, name: string): DialInfo {
  const found = dials.find((dial) => dial.name === name);
  if (found) return found;
  const names = dials.map((dial) => `"${dial.name}"`).join(', ') || 'none';
  throw new RangeError(`"${effect}" has no dial "${name}"; its dials are: ${names}`);
}

/** What can be asked of the worker about one that plays. */
interface Asking {
  state(): Promise<PlayingState | null>;
  hash(): Promise<string | null>;
}

/** The page's end of an effect that plays: checks what is asked, and tells the worker. */
export class PagePlaying implements Playing {
  readonly info: EffectInfo;
  readonly #tell: (order: PlayingOrder) => void;
  readonly #ask: Asking;
  readonly #heard = new Map<keyof PlayingEvents, Set<Hear>>();

  constructor(info: EffectInfo, tell: (order: PlayingOrder) => void, ask: Asking) {
    [this.info, this.#tell, this.#ask] = [info, tell, ask];
  }

  letGo(): void {
    this.#tell({ kind: 'letGo' });
  }
  seek(seconds: number, letGoAt?: number | null): void {
    const stepOf = (time: number) => {
      if (!isNumber(time)) throw new TypeError('an instant is a number of seconds');
      return Math.max(0, Math.round(time * RATE));
    };
    const letGoStep = letGoAt === undefined || letGoAt === null ? letGoAt : stepOf(letGoAt);
    this.#tell({ kind: 'seek', step: stepOf(seconds), ...(letGoStep === undefined ? {} : { letGoStep }) });
  }
  setDial(name: string, value: DialValue): void {
    this.#tell({ kind: 'dial', name, value: dialValue(dialNamed(this.info, name), value) });
  }
  signal(name: string): void {
    const { signals } = this.info;
    if (!signals.includes(name))
      throw new RangeError(
        `"${this.info.name}" listens to no "${name}"; it listens to: ${signals.join(', ') || 'nothing'}`,
      );
    this.#tell({ kind: 'signal', name });
  }
  strike(from: Triple, to: Triple, strength = 1): void {
    if (!isNumber(strength)) throw new TypeError('a strength is a number');
    this.#tell({ kind: 'strike', from: mustBeTriple(from, 'a place'), to: mustBeTriple(to, 'a place'), strength });
  }
  place(at: Triple, turn: Triple = [0, 0, 0]): void {
    this.#tell({ kind: 'place', at: mustBeTriple(at, 'a place'), turn: mustBeTriple(turn, 'a turn') });
  }
  stop(): void {
    this.#tell({ kind: 'stop' });
  }
  async state(): Promise<PlayingState> {
    const state = await this.#ask.state();
    if (!state) throw new Error(`"${this.info.name}" does not play any more`);
    return state;
  }

  hash(): Promise<string | null> {
    return this.#ask.hash();
  }

  on<K extends keyof PlayingEvents>(event: K, hear: (told: PlayingEvents[K]) => void): () => void {
    const heard = this.#heard.get(event) ?? new Set();
    this.#heard.set(event, heard.add(hear as Hear));
    return () => heard.delete(hear as Hear);
  }
  /** Something happened to it. */
  tellOf<K extends keyof PlayingEvents>(event: K, told: PlayingEvents[K]): void {
    for (const hear of this.#heard.get(event) ?? []) hear(told as never);
  }
}
