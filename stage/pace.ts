/** Share of the time that drawing may take, so that a machine without a graphics card keeps some for the rest. */
const MOST_SHARE = 0.5;
/** While someone edits, the next change should seldom find it drawing. */
const MOST_SHARE_EDITING = 0.25;
/** One slow picture, such as the first with a new shader, must not hold the next ones back for long. */
const MOST_WAIT_MILLISECONDS = 200;
/** While someone edits, a slow machine stands ready for the next change rather than drawing on without a pause. */
const MOST_WAIT_EDITING_MILLISECONDS = 500;
const EDITING_MILLISECONDS = 1500;
/** A scene beside the main one is drawn at most so often. */
const LEAST_WAIT_BESIDE_MILLISECONDS = 1000 / 30;
/** Milliseconds of a whole picture above which a playing one is drawn coarsely, and of a coarse one below which it is not. */
const SLOW = 70;
const QUICK = 12;
const COARSE = 0.5;

/** How often a scene is drawn, and how finely, by what its pictures cost. */
export class Pace {
  readonly #isMain: boolean;
  #cost = 0;
  #drawnAt = -Infinity;
  #editedAt = -Infinity;
  #isPlaying = false;
  #fineness = 1;

  constructor(isMain: boolean) {
    this.#isMain = isMain;
  }

  /** How much of the picture is drawn each way: on a machine that draws slowly, less of it while it plays. */
  get fineness(): number {
    return this.#fineness;
  }
  get isPlaying(): boolean {
    return this.#isPlaying;
  }
  set isPlaying(isPlaying: boolean) {
    this.#isPlaying = isPlaying;
    // What stands still is seen as finely as it can be.
    if (!isPlaying) this.#fineness = 1;
  }

  edited(now: number): void {
    this.#editedAt = now;
  }
  drawn(start: number): void {
    this.#drawnAt = start;
  }
  /** Notes what a picture cost, in milliseconds. */
  measured(cost: number): void {
    this.#cost = cost;
    if (this.#isPlaying && this.#fineness === 1 && cost > SLOW) this.#fineness = COARSE;
    else if (this.#fineness !== 1 && cost < QUICK) this.#fineness = 1;
  }

  /** Whether the next picture is due. */
  isDue(now: number): boolean {
    return now - this.#drawnAt >= this.#wait(now);
  }
  #wait(now: number): number {
    if (!this.#isMain)
      return Math.max(LEAST_WAIT_BESIDE_MILLISECONDS, this.#isPlaying ? this.#cost / MOST_SHARE_EDITING : 0);
    return now - this.#editedAt < EDITING_MILLISECONDS
      ? Math.min(MOST_WAIT_EDITING_MILLISECONDS, this.#cost / MOST_SHARE_EDITING)
      : Math.min(MOST_WAIT_MILLISECONDS, this.#cost / MOST_SHARE);
  }
}
