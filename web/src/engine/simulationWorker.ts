import { apply, listed, ownerOf, type Change, type Effect, type Vector } from '@jinx/core/document';
import { readRig } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import {
  CrewError,
  HEADER_EDIT,
  censusOf,
  FrameWriter,
  Fullest,
  PullRun,
  reachBetween,
  RECORD_AGE,
  RECORD_COLOUR,
  RECORD_TO,
  RECORD_WORDS,
  stopCrew,
  tripleBuffer,
  World,
  type Inputs,
  type Pull,
} from '@jinx/core/simulation';
import { InstantRun } from './instantRun';
import type { FromSimulation, Outside, ToSimulation } from './protocol';

// The simulation's worker: owns the world and the clock, and publishes a frame for every step.
declare const self: DedicatedWorkerGlobalScope;

/** Longest stretch of computing before messages are heard again. */
const SLICE_MILLISECONDS = 25;
/**
 * Of each round, what the exact run has at least: where a machine is too slow for both, what plays slows down until it is
 * exact, rather than that it never is.
 */
const LEAST_SETTLING_MILLISECONDS = 16;
/** After the last edit of a drag, before the exact run is begun behind what plays. */
const QUIET_MILLISECONDS = 200;
const REPORT_EVERY_MILLISECONDS = 60;
/** Steps behind the clock after which the picture slows down rather than leaps. */
const MOST_STEPS_BEHIND = 4;
/** Pause between the end of an effect and its next showing. */
const REST_STEPS = 30;

/** How much of the way from a step to another is done, 0 to 1. */
const progressOf = (step: number, from: number, to: number): number =>
  Math.max(0, Math.min(1, (step - from) / Math.max(1, to - from)));

const tell = (message: FromSimulation, transfer: Transferable[] = []) => self.postMessage(message, transfer);

class Player {
  #kernels: KernelBytes | null = null;
  #helper: MessagePort | null = null;
  #rigs = new Map<string, Rig>();
  #budget = 100_000;
  #effect: Effect | null = null;
  #world: World | null = null;
  #writer: FrameWriter | null = null;
  /** Where layers that an edit reached while playing are computed from zero, until they have caught up. */
  #behind: World | null = null;
  /** Where the run behind began, once it has counted up to there. */
  #behindFrom: number | null = null;
  #editedAt = 0;
  #letGoStep: number | undefined;
  #isPlaying = false;
  #speed = 1;
  /** The clock: at wall time `#since` the world stood at step `#sinceStep`. */
  #since = 0;
  #sinceStep = 0;
  /** Step to be reached before anything is shown: the old picture stays until then. */
  #target: { from: number | null; to: number } | null = null;
  #reportedAt = 0;
  /** The number of the edit that is being shown. */
  #editNumber = 0;
  #stepMilliseconds = 0;
  #overSince = 0;
  #isScheduled = false;
  readonly #fullest = new Fullest();
  /** The layer that is being dragged, while the others stand at their fullest. */
  #dragged: string | null = null;
  #instants: { id: number; run: InstantRun } | null = null;
  #pulls: { id: number; step: number; run: PullRun } | null = null;

  take(order: ToSimulation): void {
    switch (order.kind) {
      case 'start':
        this.#kernels = order.kernels;
        this.#helper = order.helper;
        return;
      case 'load':
        this.#rigs = new Map(order.rigs.map(([hash, bytes]) => [hash, readRig(bytes)]));
        this.#effect = order.effect;
        this.#budget = order.budget;
        this.#editNumber = order.edit;
        return this.#rebuild(this.#target?.to ?? this.#world?.step ?? 0);
      case 'edit':
        this.#editNumber = order.edit;
        return this.#edit(order.changes);
      case 'frames':
        if (!this.#world) return;
        this.#beginFrames(this.#world);
        return this.#target ? undefined : this.#publish();
      case 'play':
        this.#isPlaying = true;
        this.#restartClock();
        return this.#schedule();
      case 'pause':
        this.#isPlaying = false;
        this.#catchUp();
        return this.#report(true);
      case 'speed':
        this.#speed = order.speed;
        return this.#restartClock();
      case 'seek':
        return this.#seek(order.step, order.letGoStep);
      case 'compare':
        this.#dragged = order.layer;
        return this.#target ? undefined : this.#publish();
      case 'letGo':
        return this.#letGo();
      case 'strike':
        return this.#strike(order.from, order.to, order.beside);
      case 'outside':
        return this.#takeOutside(order.outside);
      case 'announce':
        return this.#announce(order.signal);
      case 'instants':
        return this.#beginInstants(order.id, order.seconds);
      case 'hash':
        this.#finish();
        return tell({ kind: 'hash', id: order.id, step: this.#world?.step ?? 0, hash: this.#world?.hash() ?? null });
      case 'census':
        return this.#census(order.id, order.layer);
      case 'pulls':
        return this.#beginPulls(order.id, order.layer, order.key);
      case 'inspect':
        this.#finish();
        return this.#inspect(order.id, order.layer);
    }
  }

  #edit(changes: readonly Change[]): void {
    const before = this.#effect;
    if (!before) return;
    // What is not changed stays the very same, so that how far it reaches is soon found out.
    const effect = apply(before, changes);
    this.#effect = effect;
    const world = this.#world;
    if (!world) return;
    const reach = reachBetween(before, effect, changes);
    const { kind, layers } = reach;
    if (kind === 'nothing') return this.#isPlaying || this.#target ? undefined : this.#publish();
    if (kind === 'dress' || layers === 'all') this.#fullest.forget();
    else this.#fullest.forget([...layers].flatMap((id) => effect.layers.byId[id]?.salt ?? []));
    const step = this.#target?.to ?? world.step;
    const settles = this.#isPlaying && !this.#target && kind === 'state';
    if (!world.adopt(effect, settles, reach)) return this.#rebuild(step);
    if (kind === 'dress' && !this.#target) return this.#publish();
    this.#behind = null;
    this.#editedAt = performance.now();
    if (!settles) this.#goTo(step);
  }

  /** A world for the layers that an edit has reached, computed from zero beside the playing, which goes on as it is. */
  #worldBehind(world: World): World | null {
    try {
      return new World(this.#effect!, this.#rigs, this.#inputs(), {
        kernels: this.#kernels!,
        budget: this.#budget,
        only: world.inexact,
      });
    } catch {
      // No room for a second world: what is seen is exact again when it is paused.
      this.#editedAt = Infinity;
      return null;
    }
  }

  /** Computes the run behind for some milliseconds; once it stands where the playing does, it takes its place. */
  #followBehind(world: World, milliseconds: number): void {
    if (world.isExact) return;
    const now = performance.now();
    if (!this.#behind && now - this.#editedAt > QUIET_MILLISECONDS) {
      this.#behind = this.#worldBehind(world);
      this.#behindFrom = null;
    }
    const behind = this.#behind;
    if (!behind) return;
    if (behind.step < world.step) behind.advance(world.step, () => performance.now() > now + milliseconds);
    if (behind.step === world.step) this.#swap(world, behind);
  }

  /** How far the run behind has come, from where it began. */
  #settledShare(world: World): number {
    if (!this.#behind) return 0;
    const { step } = this.#behind;
    if (this.#behindFrom === null && step > 0) this.#behindFrom = step;
    return this.#behindFrom === null ? 0 : progressOf(step, this.#behindFrom, world.step);
  }

  #swap(world: World, behind: World): void {
    world.takeLayers(behind, world.inexact);
    this.#behind = null;
    this.#publish();
    this.#report(true);
  }

  /** Paused while something is not exact: it is computed to the end, from where the run behind has come. */
  #catchUp(): void {
    const world = this.#world;
    if (!world || world.isExact) return;
    const { step } = world;
    const behind = this.#behind;
    this.#behind = null;
    world.startAnew();
    if (behind && behind.step <= step) world.takeLayers(behind, behind.computed);
    this.#goTo(step);
  }

  #beginInstants(id: number, seconds: readonly number[]): void {
    this.#instants = null;
    if (seconds.length === 0 || !this.#effect || !this.#world) return;
    const options = { kernels: this.#kernels!, budget: this.#budget };
    try {
      const run = new InstantRun(this.#effect, this.#rigs, this.#inputs(), seconds, options);
      this.#instants = { id, run };
      this.#schedule();
    } catch {
      tell({
        kind: 'failed',
        sentence: 'There is no room to compute other instants beside what plays. Close other effects.',
      });
    }
  }

  /** Computes instants for some milliseconds. */
  #followInstants(milliseconds: number): void {
    if (!this.#instants) return;
    const { id, run } = this.#instants;
    const until = performance.now() + milliseconds;
    const found = run.advance(() => performance.now() > until);
    if (run.isDone) this.#instants = null;
    if (!found) return;
    const { frame, share } = found;
    const buffer = frame.f32.buffer as ArrayBuffer;
    tell({ kind: 'instant', id, buffer, mostJoints: frame.mostJoints, share }, [buffer]);
  }

  #beginPulls(id: number, layerId: string, key: number): void {
    this.#finish();
    this.#endPulls(null);
    const [effect, world] = [this.#effect, this.#world];
    const { step = 0 } = world ?? {};
    if (!effect?.layers.byId[layerId] || !world) return tell({ kind: 'pulls', id, step, pulls: null });
    const options = { kernels: this.#kernels!, budget: this.#budget };
    try {
      const run = new PullRun(effect, this.#rigs, this.#inputs(), { layerId, key, step }, options, world);
      this.#pulls = { id, step, run };
      this.#schedule();
    } catch {
      tell({ kind: 'pulls', id, step, pulls: null });
    }
  }

  #endPulls(pulls: readonly Pull[] | null): void {
    if (!this.#pulls) return;
    tell({ kind: 'pulls', id: this.#pulls.id, step: this.#pulls.step, pulls });
    this.#pulls = null;
  }

  /** Finds out what forces do, for some milliseconds. */
  #followPulls(milliseconds: number): void {
    const until = performance.now() + milliseconds;
    const found = this.#pulls?.run.advance(() => performance.now() > until);
    if (found) this.#endPulls(found);
  }

  #inputs(): Inputs {
    const { strikes = [], signals = [] } = this.#world ?? {};
    return { strikes, signals, ...(this.#letGoStep === undefined ? {} : { letGoStep: this.#letGoStep }) };
  }

  #strike(from: Vector, to: Vector, beside: string | null): void {
    this.#finish();
    const world = this.#world;
    if (!world) return;
    const [x, z] = (beside !== null && world.feetOf(beside)) || [0, 0];
    world.strike([from[0] + x, from[1], from[2] + z], [to[0] + x, to[1], to[2] + z]);
    this.#behind = null;
    this.#tellOutside();
  }

  #setOutside({ strikes, signals }: Outside): void {
    this.#world?.setStrikes(strikes);
    this.#world?.setSignals(signals);
    this.#behind = null;
  }
  /** What was computed after it is computed anew. */
  #takeOutside(outside: Outside): void {
    const step = this.#target?.to ?? this.#world?.step;
    this.#setOutside(outside);
    if (step !== undefined) this.#goTo(step);
  }
  #tellOutside(): void {
    const { strikes, signals } = this.#world!;
    tell({ kind: 'outside', outside: { strikes, signals } });
  }

  #announce(signal: string): void {
    this.#finish();
    this.#world?.announce(signal);
    this.#behind = null;
    this.#tellOutside();
  }

  #letGo(): void {
    const world = this.#world;
    if (!world) return;
    this.#letGoStep = this.#target?.to ?? world.step;
    world.setLetGo(this.#letGoStep);
    this.#behind = null;
    if (!this.#target) world.advance(this.#letGoStep);
    this.#report(true);
  }

  /** Makes a new world and computes it up to `step`; the old picture stays until it is there. */
  #rebuild(step: number): void {
    const effect = this.#effect!;
    const before = this.#world;
    if (before && this.#helper) stopCrew(before.memory.buffer);
    this.#behind = null;
    this.#fullest.forget();
    try {
      this.#world = new World(effect, this.#rigs, this.#inputs(), {
        kernels: this.#kernels!,
        budget: this.#budget,
        shared: true,
        frames: true,
        helpers: this.#helper ? 1 : 0,
        now: () => performance.now() * 1000,
      });
    } catch (error) {
      tell({ kind: 'failed', sentence: (error as Error).message });
      return;
    }
    if (before) this.#world.inherit(before);
    this.#helper?.postMessage(this.#world.memory);
    this.#beginFrames(this.#world);
    this.#goTo(step);
  }

  /** Begins the buffer of frames anew, and tells the stage where it lies. */
  #beginFrames({ frames, memory: { buffer } }: World): void {
    const { address, mostRecords, mostJoints } = frames!;
    this.#writer = new FrameWriter(tripleBuffer(buffer, frames!, address));
    tell({ kind: 'frames', buffer, address, mostRecords, mostJoints });
  }

  /** Goes to a step; the old picture stays until it is computed. */
  #goTo(step: number): void {
    this.#target = { from: null, to: step };
    this.#schedule();
  }

  #seek(step: number, letGoStep: number | undefined): void {
    const world = this.#world;
    if (!world) return;
    this.#letGoStep = letGoStep;
    world.setLetGo(letGoStep);
    if (!world.isExact) world.startAnew();
    this.#behind = null;
    this.#goTo(step);
  }

  #restartClock(): void {
    this.#since = performance.now();
    this.#sinceStep = this.#world?.step ?? 0;
  }

  #schedule(milliseconds = 0): void {
    if (this.#isScheduled) return;
    this.#isScheduled = true;
    setTimeout(() => {
      this.#isScheduled = false;
      this.#tick();
    }, milliseconds);
  }

  #tick(): void {
    const world = this.#world;
    if (!world) return;
    if (this.#target) {
      const until = performance.now() + SLICE_MILLISECONDS;
      world.advance(this.#target.to, () => performance.now() > until);
      this.#target.from ??= world.step;
      if (world.step < this.#target.to) {
        this.#report();
        return this.#schedule();
      }
      this.#target = null;
      this.#restartClock();
      this.#publish();
      this.#report(true);
    }
    if (!this.#isPlaying) {
      this.#followInstants(SLICE_MILLISECONDS);
      this.#followPulls(SLICE_MILLISECONDS);
      return this.#instants || this.#pulls ? this.#schedule() : undefined;
    }
    this.#play(world);
    const spare = (least = 2) => Math.min(SLICE_MILLISECONDS, Math.max(least, this.#millisecondsAhead(world) - 2));
    this.#followBehind(world, spare(LEAST_SETTLING_MILLISECONDS));
    this.#followInstants(spare());
    this.#followPulls(spare());
    this.#schedule(Math.max(0, Math.min(100, this.#millisecondsAhead(world))));
  }

  /** Time until the next step is due. */
  #millisecondsAhead(world: World): number {
    const due = this.#since + ((world.step + 1 - this.#sinceStep) / (world.rate * this.#speed)) * 1000;
    return due - performance.now();
  }

  #play(world: World): void {
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
    if (due > to) this.#restartClock();
    this.#publish();
  }

  #replay(): void {
    this.#overSince = 0;
    this.#setOutside({ strikes: [], signals: [] });
    this.#tellOutside();
    this.#seek(0, undefined);
  }

  #publish(): void {
    if (!this.#world || !this.#writer) return;
    const { frame } = this.#writer;
    this.#world.writeFrame(frame);
    frame.u32[HEADER_EDIT] = this.#editNumber;
    const world = this.#world;
    const standOf = (salt: number) => world.standOf(salt);
    this.#fullest.note(frame, standOf);
    if (this.#dragged !== null) this.#fullest.put(frame, this.#saltsOf(this.#dragged), standOf);
    this.#writer.publish();
    this.#report();
  }

  /** A layer and all that show its particles, by salt. */
  #saltsOf(layerId: string): Set<number> {
    const effect = this.#effect!;
    return new Set(
      listed(effect.layers)
        .filter(({ id }) => ownerOf(effect, id) === layerId)
        .map(({ item }) => item.salt),
    );
  }

  /** Computes what is still being computed, at once: for the inspection door. */
  #finish(): void {
    if (!this.#world || !this.#target) return;
    this.#world.advance(this.#target.to);
    this.#target = null;
    this.#restartClock();
    this.#publish();
    this.#report(true);
  }

  #report(isForced = false): void {
    const world = this.#world;
    const now = performance.now();
    if (!world || (!isForced && now - this.#reportedAt < REPORT_EVERY_MILLISECONDS)) return;
    this.#reportedAt = now;
    const layers = world.counts().map(({ salt, living, born, refused, lost, microseconds }) => ({
      salt,
      living,
      born,
      refused,
      lost,
      milliseconds: microseconds / 1000,
    }));
    const state = {
      step: this.#target ? this.#target.to : world.step,
      sheetTime: world.clock.sheetTime(world.clock.timeOf(this.#target ? this.#target.to : world.step)),
      living: world.living,
      layers,
      stepMilliseconds: this.#stepMilliseconds,
      isExact: world.isExact,
      isPlaying: this.#isPlaying,
      progress: this.#target ? progressOf(world.step, this.#target.from ?? world.step, this.#target.to) : 1,
      settled: world.isExact ? 1 : this.#settledShare(world),
      isLetGo: this.#letGoStep !== undefined,
      letGoStep: this.#letGoStep ?? null,
    };
    tell({ kind: 'state', state });
  }

  #census(id: number, layerId: string): void {
    if (this.#world && this.#effect)
      tell({ kind: 'census', id, census: censusOf(this.#world, this.#effect, layerId) });
  }

  #inspect(id: number, layerId: string): void {
    const world = this.#world;
    if (!world || !this.#effect) return;
    // The dead are cleared away first: a record for each that lives.
    world.population(ownerOf(this.#effect, layerId));
    const records = world.records(layerId);
    const count = records.length / RECORD_WORDS;
    const positions = new Float32Array(count * 3);
    const colours = new Float32Array(count * 3);
    const ages = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      const at = i * RECORD_WORDS;
      positions.set(records.subarray(at + RECORD_TO, at + RECORD_TO + 3), i * 3);
      colours.set(records.subarray(at + RECORD_COLOUR, at + RECORD_COLOUR + 3), i * 3);
      ages[i] = records[at + RECORD_AGE]!;
    }
    tell({ kind: 'inspection', id, step: world.step, positions, ages, colours });
  }
}

const player = new Player();
self.onmessage = ({ data }: MessageEvent<ToSimulation>) => {
  if (!('id' in data) || data.kind === 'instants') return player.take(data);
  try {
    player.take(data);
  } catch (error) {
    // A thread that is gone is a fault of the whole; any other, of the question.
    if (error instanceof CrewError) throw error;
    tell({ kind: 'refused', id: data.id, sentence: (error as Error).message });
  }
};
