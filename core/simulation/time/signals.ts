import type { Effect, Id } from '../../document/index.ts';
import type { EffectClock } from './clock.ts';

/** A signal as it was announced from outside: which, and in which step. */
export interface Announced {
  readonly signal: Id;
  readonly step: number;
}

/** Wide enough that no rounding loses an instant at a step's border; which step it belongs to is decided by the instant itself. */
const SLACK = 1e-6;

/** When signals come: those that are tried on the stage, and those from outside. */
export class Signals {
  readonly #tried: Effect['signals']['byId'];
  readonly #clock: EffectClock;
  readonly #announced: () => readonly Announced[];

  constructor({ signals }: Pick<Effect, 'signals'>, clock: EffectClock, announced: () => readonly Announced[]) {
    this.#tried = signals.byId;
    this.#clock = clock;
    this.#announced = announced;
  }

  /** The shares of a step from `from` to `to` at which it is `delay` seconds since a signal came. */
  sharesAfter(signal: Id, delay: number, from: number, to: number): number[] {
    const clock = this.#clock;
    const share = (time: number): number[] => (time >= from && time < to ? [(time - from) * clock.rate] : []);
    const tried = this.#tried[signal]?.tried;
    const given = this.#announced().flatMap((one) =>
      one.signal === signal ? share(clock.timeOf(one.step) + delay) : [],
    );
    if (!tried) return given;
    // Without a seam every turn is like the others: what comes late comes early in each.
    if (clock.isSeamless && tried.stretch === 'hold')
      return [...clock.burstShares({ stretch: 'hold', at: (tried.at + delay) % clock.hold }, from, to), ...given];
    const instants = clock.instantsOf(tried, from - delay - SLACK, to - delay + SLACK);
    return [...instants.flatMap((time) => share(time + delay)), ...given];
  }
}
