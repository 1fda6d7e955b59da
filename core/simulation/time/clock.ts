import type { Burst, Stretches } from '../../document/index.ts';

/** Instants are told apart to this share of a step: coarse enough to be the same bits in every turn of a hold. */
const SHARES_OF_A_STEP = 65536;

/** No instants: steps in which nothing comes, which are most, share it. */
const NONE: readonly number[] = [];
const within = (time: number, from: number, to: number): readonly number[] =>
  time >= from && time < to ? [time] : NONE;

/** Seconds that standing particles live at least, for keys in seconds after birth and before death. */
export const SHORTEST_STANDING = 0.02;

/**
 * An effect's stretches laid along its time. The opening and the closing pass once; between them the hold repeats from
 * the moment it begins until the effect is let go. Times in seconds; an effect that is pre-rolled is first seen at the
 * beginning of its hold, having held for a while before.
 */
export class EffectClock {
  readonly opening: number;
  /** Length of one turn of the hold; 0 without a hold. */
  readonly hold: number;
  readonly closing: number;
  /** When the closing begins; Infinity while nobody has let go. */
  readonly closesAt: number;
  /** Whether every turn of the hold is the same as the one before, bit for bit. */
  readonly isSeamless: boolean;
  /** Seconds of holding before the effect is first seen. */
  readonly preRoll: number;
  readonly rate: number;

  /** `letGoAt` in seconds of the effect's time; `rate` in steps a second. */
  constructor(stretches: Stretches, letGoAt = Infinity, rate = 60) {
    const { opening, hold, closing, preRoll } = stretches;
    this.rate = rate;
    this.isSeamless = hold.kind === 'seamless';
    // A hold without a seam is a whole number of steps, and begins on one.
    const whole = (seconds: number, least: number) =>
      this.isSeamless ? Math.max(least, Math.floor(seconds * rate + 0.5)) / rate : seconds;
    this.opening = whole(opening, 0);
    this.hold = hold.kind === 'none' ? 0 : whole(hold.seconds, 1);
    this.closing = closing;
    this.preRoll = this.hold > 0 ? preRoll : 0;
    this.closesAt = this.hold === 0 ? this.opening : Math.max(this.opening, letGoAt);
  }

  get length(): number {
    return this.opening + this.hold + this.closing;
  }

  get endsAt(): number {
    return this.closesAt + this.closing;
  }

  /** Steps before step 0 that are computed unseen. */
  get unseenSteps(): number {
    return Math.floor(this.preRoll * this.rate + 0.5);
  }

  /** The effect's time at a step. A pre-rolled effect is first seen as its hold begins. */
  timeOf(step: number): number {
    return (step + this.#skipped) / this.rate;
  }

  /** How many steps an instant is from step 0, parts of one too. */
  stepsTo(time: number): number {
    return (time - this.timeOf(0)) * this.rate;
  }

  /** The step in which an instant of the effect's time falls. */
  stepOf(time: number): number {
    return Math.floor(time * this.rate + 1e-9) - this.#skipped;
  }

  /** When a stretch begins; the closing where it was let go. */
  startOf(stretch: Burst['stretch']): number {
    return stretch === 'opening' ? 0 : stretch === 'hold' ? this.opening : this.closesAt;
  }

  /** The stretch in which a place on the time sheet lies, in seconds from its left end, and how far into it. */
  stretchOf(seconds: number): Pick<Burst, 'stretch' | 'at'> {
    const holdEnds = this.opening + this.hold;
    if (seconds < this.opening || (this.hold === 0 && this.closing === 0)) return { stretch: 'opening', at: seconds };
    if (seconds < holdEnds || (this.closing === 0 && this.hold > 0))
      return { stretch: 'hold', at: Math.min(seconds, holdEnds - 1 / this.rate) - this.opening };
    return { stretch: 'closing', at: Math.min(seconds - holdEnds, this.closing) };
  }

  /** The step at which a place on the time sheet, in seconds, is first seen; what pre-roll leaves out is seen at step 0. */
  stepAt(seconds: number): number {
    return Math.max(0, Math.floor(seconds * this.rate + 0.5) - this.#skipped);
  }

  get #skipped(): number {
    return this.preRoll > 0 ? Math.floor(this.opening * this.rate + 0.5) : 0;
  }

  /** The end of a step that begins at `time`: what the next one begins at, to the bit. */
  after(time: number): number {
    return (Math.floor(time * this.rate + 0.5) + 1) / this.rate;
  }

  /** When the effect's time begins: below 0, or below the opening's end, where it is pre-rolled. */
  get beginsAt(): number {
    return this.timeOf(-this.unseenSteps);
  }

  /** Steps since the hold last began, at the start of a step; −1 outside of the hold. */
  stepOfHold(time: number): number {
    if (this.hold === 0 || time >= this.closesAt || (time < this.opening && this.preRoll === 0)) return -1;
    const steps = Math.floor((time - this.opening) * this.rate + 0.5);
    const turn = Math.floor(this.hold * this.rate + 0.5);
    return turn > 0 ? steps - Math.floor(steps / turn) * turn : 0;
  }

  /** Seconds into the present turn of the hold; the same bits in every turn of a hold without a seam. */
  #intoHold(time: number): number {
    if (!this.isSeamless) return time - this.opening - Math.floor((time - this.opening) / this.hold) * this.hold;
    const shares = Math.floor((time - this.opening) * this.rate * SHARES_OF_A_STEP + 0.5);
    const turn = Math.floor(this.hold * this.rate + 0.5) * SHARES_OF_A_STEP;
    return (shares - Math.floor(shares / turn) * turn) / (SHARES_OF_A_STEP * this.rate);
  }

  #isHolding(time: number): boolean {
    return this.hold > 0 && time < this.closesAt && (time >= this.opening || this.preRoll > 0);
  }

  /** Place on the time sheet, in seconds from its left end. */
  sheetTime(time: number): number {
    if (time >= this.closesAt) return this.opening + this.hold + Math.min(time - this.closesAt, this.closing);
    return this.#isHolding(time) ? this.opening + this.#intoHold(time) : time;
  }

  /** The time at which poses, carriers and fields are taken: in a hold without a seam it comes again with every turn. */
  fieldTime(time: number): number {
    if (!this.isSeamless) return time;
    if (time >= this.closesAt)
      return this.fieldTime(this.closesAt - 0.5 / this.rate) + 0.5 / this.rate + time - this.closesAt;
    return this.#isHolding(time) ? this.opening + this.#intoHold(time) : time;
  }

  /** How far a field has come, in changes. */
  changesAt(time: number, perSecond: number): number {
    const turn = this.changesATurn(perSecond);
    if (turn === 0) return this.fieldTime(time) * perSecond;
    return ((this.fieldTime(time) - this.opening) / this.hold) * turn;
  }

  /** In a hold without a seam a whole number of changes makes a turn; 0 in any other. */
  changesATurn(perSecond: number): number {
    return this.isSeamless && perSecond !== 0 ? Math.max(1, Math.floor(perSecond * this.hold + 0.5)) : 0;
  }

  /** An instant at a share of a step that begins at `from`, on the grid on which instants are told apart. */
  instant(from: number, share: number): number {
    return from + Math.floor(share * SHARES_OF_A_STEP) / (SHARES_OF_A_STEP * this.rate);
  }

  /** Place on the time sheet as a share of its length. */
  share(time: number): number {
    return this.length > 0 ? this.sheetTime(time) / this.length : 0;
  }

  /** Place within the present stretch as a share of its length; 0 in one that has none. */
  stretchShare(time: number): number {
    if (time >= this.closesAt) return this.closing > 0 ? Math.min(1, (time - this.closesAt) / this.closing) : 0;
    if (this.#isHolding(time)) return this.#intoHold(time) / this.hold;
    return this.opening > 0 ? Math.min(1, time / this.opening) : 0;
  }

  /** The same at so many seconds from the time sheet's left end. */
  stretchShareAlong(seconds: number): number {
    const holdEnds = this.opening + this.hold;
    if (seconds < this.opening) return seconds / this.opening;
    if (seconds < holdEnds) return (seconds - this.opening) / this.hold;
    return this.closing > 0 ? Math.min(1, (seconds - holdEnds) / this.closing) : this.hold > 0 ? 1 : 0;
  }

  /** Age of a standing particle: once along the sheet, waiting at the hold's end until it is let go. */
  standingAge(time: number): number {
    if (this.length === 0) return 0;
    if (time >= this.closesAt) return Math.min(1, (this.opening + this.hold + (time - this.closesAt)) / this.length);
    // What is pre-rolled, and what comes again without a seam, waits from the beginning.
    if (this.preRoll > 0 || (this.isSeamless && time >= this.opening)) return this.waitingAge;
    return Math.min(time, this.opening + this.hold) / this.length;
  }

  /** The age at which standing particles wait while the effect is held. */
  get waitingAge(): number {
    return this.length === 0 ? 0 : (this.opening + this.hold) / this.length;
  }

  /** When a burst happens in `from` ≤ time < `to`; a burst of the hold happens once a turn. */
  instantsOf(burst: Pick<Burst, 'stretch' | 'at'>, from: number, to: number): readonly number[] {
    if (burst.stretch === 'opening')
      return this.preRoll === 0 && (burst.at < this.opening || burst.at === 0) ? within(burst.at, from, to) : NONE;
    if (burst.stretch === 'closing')
      return this.closesAt < Infinity && burst.at <= this.closing ? within(this.closesAt + burst.at, from, to) : NONE;
    if (this.hold === 0 || burst.at >= this.hold) return NONE;
    const first = Math.floor((from - this.opening - burst.at) / this.hold);
    let instants: number[] | null = null;
    for (let turn = this.preRoll > 0 ? first : Math.max(0, first); ; turn++) {
      const time = this.opening + turn * this.hold + burst.at;
      if (time >= to || time >= this.closesAt) return instants ?? NONE;
      if (time >= from) (instants ??= []).push(time);
    }
  }

  /** The shares of a step that begins at `from` at which a burst happens: the same bits in every turn without a seam. */
  burstShares(burst: Pick<Burst, 'stretch' | 'at'>, from: number, to: number): readonly number[] {
    if (!this.isSeamless || burst.stretch !== 'hold') {
      const instants = this.instantsOf(burst, from, to);
      return instants.length === 0 ? NONE : instants.map((time) => (time - from) * this.rate);
    }
    if (!this.#isHolding(from) || burst.at >= this.hold) return NONE;
    const share = (burst.at - this.#intoHold(from)) * this.rate;
    return share >= 0 && share < 1 ? [share] : NONE;
  }
}
