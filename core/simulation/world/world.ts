import type { Effect } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { twinKernels, wasmKernels, type KernelBytes } from '../../kernels/index.ts';
import { Composer, type FramePart } from '../frames/composer.ts';
import type { Frame } from '../frames/frame.ts';
import { PoseCache } from '../scene/posing.ts';
import { Compiled, type InstanceOptions } from './compiled.ts';
import { HISTORY_BYTES, type HistoryBudget } from './history.ts';
import type { Inputs } from './inputs.ts';
import { Instance } from './instance.ts';
import { WorldMemory, roomFor, type WorldRoom } from './memory.ts';
import { blockBytes, type Needs } from './needs.ts';
import type { Shared } from './shared.ts';

export const DEFAULT_RATE = 60;

export interface WorldOptions {
  /** SIMD kernels; without them the twins run, to the same bits. */
  readonly kernels?: KernelBytes;
  /** Steps a second. */
  readonly rate?: number;
  /** Whether the memory is shared, for helpers and for the stage. */
  readonly shared?: boolean;
  /** Whether three frames lie in the world's memory, to be written in place and read by the stage. */
  readonly frames?: boolean;
  /** Threads beside this one that have joined the crew (run/crew.ts). */
  readonly helpers?: number;
  /** Particles from which on a layer is shared with the crew; fewer cost more to share than to step. */
  readonly worthSharing?: number;
  /** Microseconds, for what each layer costs; nothing computed depends on it. */
  readonly now?: () => number;
  /** Bytes of past states that all instances keep together, so that going back is quick. */
  readonly historyBytes?: number;
}

const megabytes = (bytes: number): string => `${Math.max(0.1, bytes / 1048576).toFixed(1)} MB`;

/** Effects that are computed side by side in one memory: instances come and go while it runs. */
export class World {
  readonly rate: number;
  /** How much it has room for. */
  readonly room: WorldRoom;
  readonly #memory: WorldMemory;
  readonly #shared: Shared;
  readonly #history: HistoryBudget;
  readonly #poses = new PoseCache();
  readonly #composer = new Composer();
  /** In the order of their numbers. */
  #instances: Instance[] = [];
  #numbers = 0;
  /** Documents of which instances are drawn alike, each by its place here. */
  #looks: Effect[] = [];
  #step = 0;
  /** Numbers of those that are not drawn. */
  readonly #unseen = new Set<number>();
  /** What each that had begun gave to the last frame. */
  readonly #parts: FramePart[] = [];

  /** @throws RangeError with a sentence when the machine will not give as much memory. */
  constructor(room: WorldRoom, options: WorldOptions = {}) {
    this.rate = options.rate ?? DEFAULT_RATE;
    this.room = room;
    this.#memory = new WorldMemory(room, options);
    this.#history = { most: options.historyBytes ?? HISTORY_BYTES, bytes: 0 };
    const { memory, scratch, frames } = this.#memory;
    const { buffer } = memory;
    this.#shared = {
      memory,
      scratch,
      frames,
      kernels: options.kernels
        ? wasmKernels(options.kernels, memory)
        : twinKernels({ f32: new Float32Array(buffer), i32: new Int32Array(buffer) }),
      rate: this.rate,
      helpers: options.helpers ?? 0,
      ...(options.worthSharing === undefined ? {} : { worthSharing: options.worthSharing }),
      ...(options.now ? { now: options.now } : {}),
    };
  }

  get memory(): WebAssembly.Memory {
    return this.#memory.memory;
  }
  /** Where the frames lie in the memory (frames/tripleBuffer.ts), of so many bytes each; null without any. */
  get frames(): { readonly address: number; readonly bytes: number } | null {
    return this.#memory.frames;
  }
  get instances(): readonly Instance[] {
    return this.#instances;
  }
  /** The step up to which all is computed. */
  get step(): number {
    return this.#step;
  }
  get living(): number {
    return this.#instances.reduce((sum, { living }) => sum + living, 0);
  }

  /**
   * Adds an effect, held until it is let go. It begins at its own step 0, which lies at the step `start` of the world: the
   * present one, unless told.
   * @throws RangeError with a sentence when there is not room for all of it; then nothing is changed.
   */
  add(effect: Effect, rigs: ReadonlyMap<string, Rig>, inputs: Inputs = {}, options: InstanceOptions = {}): Instance {
    const own = { start: this.#step, ...options };
    return this.take(new Compiled(effect, rigs, inputs, own, this.rate, this.#poses));
  }

  /** The same of an effect that was compiled before, for a world of the same rate. */
  take(made: Compiled): Instance {
    const { needs } = made;
    const block = this.#memory.take(needs);
    if (block === null) throw new RangeError(this.#refusal(made.effect.name, needs));
    new Uint8Array(this.memory.buffer, block, blockBytes(needs)).fill(0);
    const instance = new Instance(this.#shared, made, block, this.#numbers++, this.#history, () => this.#changed());
    this.#instances = [...this.#instances, instance];
    this.#changed();
    return instance;
  }

  #refusal(name: string, needs: Needs): string {
    const most = needs.layers.reduce((sum, { cap }) => sum + cap, 0);
    const why = `up to ${most.toLocaleString('en')} particles in ${needs.dresses} layers take ${megabytes(blockBytes(needs))}`;
    return `There is not room for "${name}" beside what is there: ${why}, and what is free is less or in pieces. Lower its layers' caps, or take something else away first.`;
  }

  /** Takes an instance away; its room is free for others. */
  remove(instance: Instance): void {
    if (!this.#instances.includes(instance)) return;
    this.#instances = this.#instances.filter((one) => one !== instance);
    instance.leave();
    this.#unseen.delete(instance.number);
    this.#memory.give(instance.block, instance.needs);
    this.#changed();
  }

  #changed(): void {
    this.#composer.forget();
    this.#looks = [...new Set(this.#instances.map(({ effect }) => effect))];
  }

  /** Instances of the same number are drawn alike: they are of the very same document. */
  looksOf({ effect }: Instance): number {
    return this.#looks.indexOf(effect);
  }

  /** Whether an instance's layers are in the frames; it is computed all the same. */
  setSeen({ number }: Instance, isSeen: boolean): void {
    if (isSeen === !this.#unseen.has(number)) return;
    if (isSeen) this.#unseen.delete(number);
    else this.#unseen.add(number);
    this.#composer.forget();
  }

  /** Computes all up to a step. Returns early when `isCancelled` says so. */
  advance(toStep: number, isCancelled?: () => boolean): void {
    for (const instance of this.#instances) {
      if (toStep >= instance.start) instance.advance(toStep - instance.start, isCancelled);
      if (isCancelled?.()) return;
    }
    this.#step = toStep;
  }

  /** Writes the present instant of all instances that have begun. A frame that lies in this world's memory is written in place. */
  writeFrame(frame: Frame): void {
    const parts = this.#parts;
    const before = parts.length;
    let begun = 0;
    for (const instance of this.#instances)
      if (instance.start <= this.#step) parts[begun++] = instance.framePart(this.looksOf(instance));
    if (begun !== before) this.#composer.forget();
    parts.length = begun;
    this.#composer.write(frame, parts, this.#step, this.rate, this.#unseen);
  }
}

/** A world with room for some effects, which are still to be added. */
export const worldFor = (all: readonly Needs[], options: WorldOptions = {}): World =>
  new World(roomFor(all), options);

/** How an effect in a world of its own is computed. */
export type PlayOptions = WorldOptions & InstanceOptions;

/** An effect in a world of its own. @throws RangeError with a sentence when the machine will not give the memory. */
export function playAlone(
  effect: Effect,
  rigs: ReadonlyMap<string, Rig>,
  inputs: Inputs = {},
  options: PlayOptions = {},
): Instance {
  const made = new Compiled(effect, rigs, inputs, options, options.rate ?? DEFAULT_RATE);
  return worldFor([made.needs], options).take(made);
}

/** What an effect would take up of a world: for making one with room for so many. */
export const needsFor = (
  effect: Effect,
  rigs: ReadonlyMap<string, Rig>,
  options: InstanceOptions & Pick<WorldOptions, 'rate'> = {},
): Needs => new Compiled(effect, rigs, {}, options, options.rate ?? DEFAULT_RATE).needs;
