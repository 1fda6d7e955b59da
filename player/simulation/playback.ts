import type { Instance } from '@jinx/core/simulation';
import type { Jobs } from './jobs.ts';
import { progressOf } from './progress.ts';
import type { Publisher, Standing } from './publisher.ts';
import type { Settling } from './settling.ts';
import { soon } from './soon.ts';
import type { Worlds } from './worlds.ts';

/** Longest stretch of computing before messages are heard again. */
const SLICE_MILLISECONDS = 25;
/**
 * Of each round, what the exact run has at least: where a machine is too slow for both, what plays slows down until it is
 * exact, rather than that it never is.
 */
const LEAST_SETTLING_MILLISECONDS = 16;
/** Steps behind the clock after which the picture slows down rather than leaps. */
const MOST_STEPS_BEHIND = 4;
/** Pause between the end of an effect and its next showing. */
const REST_STEPS = 30;

interface Parts {
  readonly worlds: Worlds;
  readonly settling: Settling;
  readonly jobs: Jobs;
  readonly publisher: () => Publisher;
}

/** A step that is on its way to be seen, and where the way began, once something was computed of it. */
interface Target {
  from: number | null;
  readonly to: number;
}

/** The clock: plays, goes to steps, and shares out the time between what plays and what is computed beside it. */
export class Playback {
  readonly #parts: Parts;
  isPlaying = false;
  #speed = 1;
  /** At wall time `#since` the world stood at step `#sinceStep`. */
  #since = 0;
  #sinceStep = 0;
  /** Step to be reached before anything is shown: the old picture stays until then. */
  #target: Target | null = null;
  #stepMilliseconds = 0;
  #overSince = 0;
  #isScheduled = false;
  /** Called once nothing is on its way any more. */
  #whenThere: (() => void)[] = [];

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** The step that is seen, or that is on its way to be. */
  get step(): number {
    return this.#target?.to ?? this.#parts.worlds.world?.step ?? 0;
  }
  /** Whether a step is on its way to be seen: until then nothing is published. */
  get isUnderWay(): boolean {
    return this.#target !== null;
  }

  standing(world: Instance): Standing {
    const target = this.#target;
    return {
      step: this.step,
      stepMilliseconds: this.#stepMilliseconds,
      isPlaying: this.isPlaying,
      progress: target ? progressOf(world.step, target.from ?? world.step, target.to) : 1,
      settled: this.#parts.settling.share(world),
    };
  }

  play(): void {
    this.isPlaying = true;
    this.restartClock();
    this.schedule();
  }
  /** Stands still; what is not exact is computed to the end. */
  pause(): void {
    this.isPlaying = false;
    const { world } = this.#parts.worlds;
    if (world && !world.isExact) this.goTo(this.#parts.settling.settleAtOnce(world));
    this.#parts.publisher().report(true);
  }
  set speed(speed: number) {
    this.#speed = speed;
    this.restartClock();
  }

  /** Goes to a step; the old picture stays until it is computed. */
  goTo(step: number): void {
    this.#target = { from: null, to: step };
    this.schedule();
  }
  /** Goes to a step of the sheet, let go at another or not at all. */
  seek(step: number, letGoStep: number | undefined): void {
    const { worlds, settling } = this.#parts;
    const { world } = worlds;
    if (!world) return;
    worlds.letGoStep = letGoStep;
    world.setLetGo(letGoStep);
    if (!world.isExact) world.startAnew();
    settling.forget();
    this.goTo(step);
  }
  /** Lets the effect go at the step that is seen. */
  letGo(): void {
    const { worlds, settling, publisher } = this.#parts;
    const { world } = worlds;
    if (!world) return;
    worlds.letGoStep = this.step;
    world.setLetGo(worlds.letGoStep);
    settling.forget();
    if (!this.#target) world.advance(worlds.letGoStep);
    publisher().report(true);
  }

  /** Calls back once nothing is on its way to be seen. */
  whenThere(act: () => void): void {
    if (this.#target && this.#parts.worlds.world) this.#whenThere.push(act);
    else act();
  }

  /** Computes what is on its way, at once: for what is asked of the present step. */
  finish(): void {
    const { world } = this.#parts.worlds;
    if (!world || !this.#target) return;
    world.advance(this.#target.to);
    this.#arrive();
  }
  #arrive(): void {
    this.#target = null;
    this.restartClock();
    this.#parts.publisher().publish();
    this.#parts.publisher().report(true);
    for (const act of this.#whenThere.splice(0)) act();
  }

  restartClock(): void {
    this.#since = performance.now();
    this.#sinceStep = this.#parts.worlds.world?.step ?? 0;
  }

  schedule(milliseconds = 0): void {
    if (this.#isScheduled) return;
    this.#isScheduled = true;
    const tick = () => {
      this.#isScheduled = false;
      this.#tick();
    };
    if (milliseconds > 0) setTimeout(tick, milliseconds);
    else soon(tick);
  }

  #tick(): void {
    const { worlds, settling, jobs, publisher } = this.#parts;
    const { world } = worlds;
    if (!world) return;
    if (this.#target && !this.#comeNearer(world, this.#target)) return this.schedule();
    if (!this.isPlaying) {
      jobs.follow(() => SLICE_MILLISECONDS);
      return jobs.isBusy ? this.schedule() : undefined;
    }
    this.#play(world);
    const spare = (least = 2) => Math.min(SLICE_MILLISECONDS, Math.max(least, this.#millisecondsAhead(world) - 2));
    if (settling.follow(world, spare(LEAST_SETTLING_MILLISECONDS))) {
      publisher().publish();
      publisher().report(true);
    }
    jobs.follow(spare);
    this.schedule(Math.max(0, Math.min(100, this.#millisecondsAhead(world))));
  }

  /** Computes a slice of the way to a step. Returns whether it is reached. */
  #comeNearer(world: Instance, target: Target): boolean {
    const until = performance.now() + SLICE_MILLISECONDS;
    world.advance(target.to, () => performance.now() > until);
    target.from ??= world.step;
    if (world.step < target.to) {
      this.#parts.publisher().report();
      return false;
    }
    this.#arrive();
    return true;
  }

  /** Time until the next step is due. */
  #millisecondsAhead(world: Instance): number {
    const due = this.#since + ((world.step + 1 - this.#sinceStep) / (world.rate * this.#speed)) * 1000;
    return due - performance.now();
  }

  #play(world: Instance): void {
    const now = performance.now();
    const due = this.#sinceStep + Math.floor(((now - this.#since) / 1000) * world.rate * this.#speed);
    if (world.isOver && world.clock.length > 0) {
      this.#overSince ||= world.step;
      if (due - this.#overSince > REST_STEPS) return this.#replay();
    } else this.#overSince = 0;
    if (due <= world.step) return;
    const to = Math.min(due, world.step + MOST_STEPS_BEHIND);
    const steps = to - world.step;
    world.advance(to);
    this.#stepMilliseconds = (performance.now() - now) / steps;
    if (due > to) this.restartClock();
    this.#parts.publisher().publish();
  }

  #replay(): void {
    this.#overSince = 0;
    this.#parts.worlds.setOutside({ strikes: [], signals: [] });
    this.#parts.publisher().tellOutside();
    this.seek(0, undefined);
  }
}
