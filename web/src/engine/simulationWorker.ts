import type { Effect } from '@jinx/core/document';
import { readRig } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import {
  Frame,
  FrameWriter,
  RECORD_AGE,
  RECORD_COLOUR,
  RECORD_TO,
  RECORD_WORDS,
  RECORDS,
  stopCrew,
  tripleBuffer,
  World,
} from '@jinx/core/simulation';
import { reachBetween } from './edits';
import type { FromSimulation, ToSimulation } from './protocol';

// The simulation's worker: owns the world and the clock, and publishes a frame for every step.
declare const self: DedicatedWorkerGlobalScope;

/** Longest stretch of computing before messages are heard again. */
const SLICE_MILLISECONDS = 25;
const REPORT_EVERY_MILLISECONDS = 60;
/** Steps behind the clock after which the picture slows down rather than leaps. */
const MOST_STEPS_BEHIND = 4;
/** Pause between the end of an effect and its next showing. */
const REST_STEPS = 30;

const tell = (message: FromSimulation) => self.postMessage(message);

class Player {
  #kernels: KernelBytes | null = null;
  #helper: MessagePort | null = null;
  #rigs = new Map<string, Rig>();
  #budget = 100_000;
  #effect: Effect | null = null;
  #world: World | null = null;
  #writer: FrameWriter | null = null;
  #letGoStep: number | undefined;
  #isPlaying = false;
  #speed = 1;
  /** The clock: at wall time `#since` the world stood at step `#sinceStep`. */
  #since = 0;
  #sinceStep = 0;
  /** Step to be reached before anything is shown: the old picture stays until then. */
  #target: { from: number; to: number } | null = null;
  #reportedAt = 0;
  #stepMilliseconds = 0;
  #overSince = 0;
  #isScheduled = false;

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
        return this.#rebuild(this.#world ? this.#world.step : 0);
      case 'edit':
        return this.#edit(order.effect);
      case 'play':
        this.#isPlaying = true;
        this.#restartClock();
        return this.#schedule();
      case 'pause':
        this.#isPlaying = false;
        if (this.#world && !this.#world.isExact) this.#rebuild(this.#world.step);
        return this.#report(true);
      case 'speed':
        this.#speed = order.speed;
        return this.#restartClock();
      case 'seek':
        return this.#seek(order.step, order.letGoStep);
      case 'letGo':
        this.#letGoStep = this.#world?.step;
        this.#world?.letGo();
        return this.#report(true);
      case 'hash':
        this.#finish();
        return tell({ kind: 'hash', id: order.id, step: this.#world?.step ?? 0, hash: this.#world?.hash() ?? null });
      case 'inspect':
        this.#finish();
        return this.#inspect(order.id, order.layer);
    }
  }

  #edit(effect: Effect): void {
    const before = this.#effect;
    this.#effect = effect;
    const world = this.#world;
    if (!before || !world) return;
    const reach = reachBetween(before, effect);
    if (reach === 'nothing') return;
    if (reach === 'dress' && !this.#target) {
      world.redress(effect);
      return this.#publish();
    }
    if (this.#isPlaying && !this.#target && world.adopt(effect)) return;
    this.#rebuild(this.#target?.to ?? world.step);
  }

  /** Makes a new world and computes it up to `step`; the old picture stays until it is there. */
  #rebuild(step: number): void {
    const effect = this.#effect!;
    if (this.#world && this.#helper) stopCrew(this.#world.memory.buffer);
    const inputs = this.#letGoStep === undefined ? {} : { letGoStep: this.#letGoStep };
    try {
      this.#world = new World(effect, this.#rigs, inputs, {
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
    this.#helper?.postMessage(this.#world.memory);
    const { address, mostRecords } = this.#world.frames!;
    const { buffer } = this.#world.memory;
    this.#writer = new FrameWriter(tripleBuffer(buffer, mostRecords, address));
    tell({ kind: 'frames', buffer, address, mostRecords });
    this.#target = { from: 0, to: step };
    this.#schedule();
  }

  #seek(step: number, letGoStep: number | undefined): void {
    if (!this.#world) return;
    const isOther = this.#letGoStep !== letGoStep;
    this.#letGoStep = letGoStep;
    if (isOther || !this.#world.isExact || this.#target) return this.#rebuild(step);
    this.#target = { from: step < this.#world.step ? 0 : this.#world.step, to: step };
    if (step < this.#world.step) this.#world.restart();
    this.#schedule();
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
      if (world.step < this.#target.to) {
        this.#report();
        return this.#schedule();
      }
      this.#target = null;
      this.#restartClock();
      this.#publish();
      this.#report(true);
      if (!this.#isPlaying) return;
    }
    if (!this.#isPlaying) return;
    this.#play(world);
    const ahead =
      this.#since + ((world.step + 1 - this.#sinceStep) / (world.rate * this.#speed)) * 1000 - performance.now();
    this.#schedule(Math.max(0, Math.min(100, ahead)));
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
    this.#letGoStep = undefined;
    this.#rebuild(0);
  }

  #publish(): void {
    if (!this.#world || !this.#writer) return;
    this.#world.writeFrame(this.#writer.frame);
    this.#writer.publish();
    this.#report();
  }

  /** Computes what is still being computed, at once: for the inspection door. */
  #finish(): void {
    if (!this.#world || !this.#target) return;
    this.#world.advance(this.#target.to);
    this.#target = null;
    this.#restartClock();
    this.#publish();
  }

  #report(isForced = false): void {
    const world = this.#world;
    const now = performance.now();
    if (!world || (!isForced && now - this.#reportedAt < REPORT_EVERY_MILLISECONDS)) return;
    this.#reportedAt = now;
    const layers = world.counts().map(({ salt, living, born, refused, microseconds }) => ({
      salt,
      living,
      born,
      refused,
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
      progress: this.#target
        ? (world.step - this.#target.from) / Math.max(1, this.#target.to - this.#target.from)
        : 1,
      isLetGo: this.#letGoStep !== undefined,
    };
    tell({ kind: 'state', state });
  }

  #inspect(id: number, layerId: string): void {
    const world = this.#world;
    if (!world || !this.#effect) return;
    const frame = new Frame(new ArrayBuffer(Frame.bytes(world.mostRecords)));
    world.writeFrame(frame);
    const layer = frame.layer(this.#effect.layers.byId[layerId]?.salt ?? -1);
    const count = layer?.count ?? 0;
    const positions = new Float32Array(count * 3);
    const colours = new Float32Array(count * 3);
    const ages = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      const at = RECORDS + (layer!.start + i) * RECORD_WORDS;
      positions.set(frame.f32.subarray(at + RECORD_TO, at + RECORD_TO + 3), i * 3);
      colours.set(frame.f32.subarray(at + RECORD_COLOUR, at + RECORD_COLOUR + 3), i * 3);
      ages[i] = frame.f32[at + RECORD_AGE]!;
    }
    tell({ kind: 'inspection', id, step: world.step, positions, ages, colours });
  }
}

const player = new Player();
self.onmessage = ({ data }: MessageEvent<ToSimulation>) => player.take(data);
