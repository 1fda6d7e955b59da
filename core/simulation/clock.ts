import type { Burst, Stretches } from '../document/index.ts';

/**
 * An effect's stretches laid along simulation time. The opening and the closing pass once; between them the hold
 * repeats from the moment it begins until the effect is let go. Times in seconds.
 */
export class EffectClock {
  readonly opening: number;
  /** Length of one turn of the hold; 0 without a hold. */
  readonly hold: number;
  readonly closing: number;
  /** When the closing begins; Infinity while nobody has let go. */
  readonly closesAt: number;

  constructor(stretches: Stretches, letGoAt = Infinity) {
    this.opening = stretches.opening;
    this.hold = stretches.hold.kind === 'none' ? 0 : stretches.hold.seconds;
    this.closing = stretches.closing;
    this.closesAt = this.hold === 0 ? this.opening : Math.max(this.opening, letGoAt);
  }

  get length(): number {
    return this.opening + this.hold + this.closing;
  }

  get endsAt(): number {
    return this.closesAt + this.closing;
  }

  /** Place on the time sheet, in seconds from its left end. */
  sheetTime(time: number): number {
    if (time >= this.closesAt) return this.opening + this.hold + Math.min(time - this.closesAt, this.closing);
    if (time < this.opening || this.hold === 0) return time;
    const turns = Math.floor((time - this.opening) / this.hold);
    return time - turns * this.hold;
  }

  /** Place on the time sheet as a share of its length. */
  share(time: number): number {
    return this.length > 0 ? this.sheetTime(time) / this.length : 0;
  }

  /** Age of a standing particle: once along the sheet, waiting at the hold's end until it is let go. */
  standingAge(time: number): number {
    if (this.length === 0) return 0;
    if (time >= this.closesAt) return Math.min(1, (this.opening + this.hold + (time - this.closesAt)) / this.length);
    return Math.min(time, this.opening + this.hold) / this.length;
  }

  /** The age at which standing particles wait while the effect is held. */
  get waitingAge(): number {
    return this.length === 0 ? 0 : (this.opening + this.hold) / this.length;
  }

  /** When a burst happens in `from` ≤ time < `to`; a burst of the hold happens once a turn. */
  instantsOf(burst: Pick<Burst, 'stretch' | 'at'>, from: number, to: number): number[] {
    const within = (time: number) => (time >= from && time < to ? [time] : []);
    if (burst.stretch === 'opening') return burst.at < this.opening || burst.at === 0 ? within(burst.at) : [];
    if (burst.stretch === 'closing')
      return this.closesAt < Infinity && burst.at <= this.closing ? within(this.closesAt + burst.at) : [];
    if (this.hold === 0 || burst.at >= this.hold) return [];
    const first = Math.max(0, Math.floor((from - this.opening - burst.at) / this.hold));
    const instants: number[] = [];
    for (let turn = first; ; turn++) {
      const time = this.opening + turn * this.hold + burst.at;
      if (time >= to || time >= this.closesAt) return instants;
      instants.push(...within(time));
    }
  }
}
