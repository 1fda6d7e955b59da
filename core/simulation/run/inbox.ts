import { grown } from '../values/grown.ts';

/**
 * Words of a birth that a link has set off:
 *
 * | STEP, UNIT            | when: a step, and so many 65,536ths of it                                  |
 * | PARENT_SALT, LINK_SALT| whose layer and link set it off, and                                       |
 * | PARENT_KEY, ORDINAL   | which particle's how-manieth: ties are settled by these                    |
 * | KEY                   | of the particle to be born                                                 |
 * | AT, VELOCITY, NORMAL  | of the event: m, m/s; a normal of no length where there was no surface     |
 * | COLOUR, COLOUR_SHARE  | linear colour of the parent, and how much of it is passed on               |
 * | SIZE, SIZE_SHARE      | diameter of the parent in metres, and how much of it is passed on          |
 * | CHANNELS (8 words)    | what the parent carried, by the numbers that the new layer's channels have |
 * | CHANNEL_MASK, _SHARE  | a bit for each channel that both have, and how much of them is passed on   |
 */
export const STEP = 0;
export const UNIT = 1;
export const PARENT_SALT = 2;
export const PARENT_KEY = 3;
export const LINK_SALT = 4;
export const ORDINAL = 5;
export const KEY = 6;
export const AT = 7;
export const VELOCITY = 10;
export const NORMAL = 13;
export const COLOUR = 16;
export const COLOUR_SHARE = 19;
export const SIZE = 20;
export const SIZE_SHARE = 21;
export const CHANNELS = 22;
export const CHANNEL_MASK = 30;
export const CHANNEL_SHARE = 31;
export const ROW = 32;

/** A step is told apart into so many instants. */
export const UNITS = 65536;

/** Births still to come that one layer keeps at most; more are refused. */
const MOST_PENDING = 1_000_000;

/** In which order births of one instant happen. */
const ORDER = [UNIT, PARENT_SALT, PARENT_KEY, LINK_SALT, ORDINAL];

/** Births that links have set off in a layer: those to come, and those that are due. */
export class Inbox {
  /** Rows, in no order. */
  rows = new Float64Array(ROW * 64);
  count = 0;
  /** Numbers of rows that are due in the present step, in the order in which they happen. */
  due: Uint32Array = new Uint32Array(64);
  dueCount = 0;
  /** How many had no room. */
  refused = 0;

  empty(): void {
    this.count = this.dueCount = this.refused = 0;
  }

  /** Takes births to come, as they were kept, and how many had no room. */
  take(pending: Float64Array, refused: number): void {
    this.rows = grown(this.rows, pending.length);
    this.rows.set(pending);
    this.count = pending.length / ROW;
    this.dueCount = 0;
    this.refused = refused;
  }

  /** A row to be filled; −1 when there is no room. Returns the word at which it begins. */
  add(): number {
    if (this.count >= MOST_PENDING) {
      this.refused++;
      return -1;
    }
    const at = this.count++ * ROW;
    this.rows = grown(this.rows, at + ROW);
    return at;
  }

  /** Finds what is due in a step, and puts it in order. */
  open(step: number): void {
    const { rows } = this;
    this.dueCount = 0;
    for (let n = 0; n < this.count; n++) {
      if (rows[n * ROW + STEP]! > step) continue;
      this.due = grown(this.due, this.dueCount + 1);
      this.due[this.dueCount++] = n;
    }
    if (this.dueCount < 2) return;
    this.due.subarray(0, this.dueCount).sort((a, b) => {
      for (const word of ORDER) {
        const apart = rows[a * ROW + word]! - rows[b * ROW + word]!;
        if (apart !== 0) return apart;
      }
      return 0;
    });
  }

  /** Forgets what was due. */
  close(step: number): void {
    if (this.dueCount === 0) return;
    const { rows } = this;
    let kept = 0;
    for (let n = 0; n < this.count; n++) {
      if (rows[n * ROW + STEP]! <= step) continue;
      if (kept !== n) rows.copyWithin(kept * ROW, n * ROW, n * ROW + ROW);
      kept++;
    }
    this.count = kept;
    this.dueCount = 0;
  }
}
