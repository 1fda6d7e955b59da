import type { Effect } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import {
  EffectClock,
  newFrame,
  playAlone,
  type Instance,
  type Frame,
  type Inputs,
  type PlayOptions,
} from '@jinx/core/simulation';

/** A frame of an instant, and where along the time sheet that lies, 0 to 1. */
export interface InstantFrame {
  readonly frame: Frame;
  readonly share: number;
}

/** Computes an effect's frames at some instants, apart from what plays, a slice at a time. */
export class InstantRun {
  readonly #world: Instance;
  readonly #clock: EffectClock;
  readonly #seconds: number[];

  /** `seconds` along the time sheet. A held effect is let go after one turn of its hold. @throws when there is no room. */
  constructor(
    effect: Effect,
    rigs: ReadonlyMap<string, Rig>,
    { strikes = [], signals = [] }: Inputs,
    seconds: readonly number[],
    options: PlayOptions,
  ) {
    const { opening, hold } = new EffectClock(effect.stretches);
    this.#clock = new EffectClock(effect.stretches, opening + hold);
    const letGo = hold > 0 ? { letGoStep: this.#clock.stepAt(opening + hold) } : {};
    this.#world = playAlone(effect, rigs, { strikes, signals, ...letGo }, options);
    this.#seconds = [...seconds].sort((a, b) => a - b);
  }

  /** Computes until an instant is reached or `isOver` says so; gives what was reached. */
  advance(isOver: () => boolean): InstantFrame | null {
    const [seconds] = this.#seconds;
    if (seconds === undefined) return null;
    const step = Math.max(0, this.#clock.stepAt(seconds));
    this.#world.advance(step, isOver);
    if (this.#world.step < step) return null;
    this.#seconds.shift();
    const frame = newFrame(this.#world);
    this.#world.writeFrame(frame);
    return { frame, share: seconds / Math.max(1e-9, this.#clock.length) };
  }

  get isDone(): boolean {
    return this.#seconds.length === 0;
  }
}
