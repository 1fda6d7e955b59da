import type { KernelBytes } from '@jinx/core/kernels';
import { DEFAULT_RATE, FrameWriter, stopCrew, tripleBuffer, type World } from '@jinx/core/simulation';
import type { PlayingState } from '../api.ts';
import type { FromPlayer, PlayingOrder, ToPlayer } from './messages.ts';
import { playableParcel, type PlayableParcel } from './parcels.ts';
import { Playings, type PlayingEffect } from './playings.ts';
import { PlayedScene } from './scene.ts';
import type { Screen } from './screen.ts';
import { Sight } from './sight.ts';

/** Steps that are made up for at most, when the page was busy: time is lost rather than the picture. */
const MOST_STEPS_AT_ONCE = 6;

type Tell = (message: FromPlayer, transfer?: Transferable[]) => void;
type Start = Extract<ToPlayer, { kind: 'start' }>;
type Question = Extract<ToPlayer, { id: number }>;

/** Plays effects, and tells a screen what is to be seen: everything of the player but the page. */
export class Runtime {
  readonly #tell: Tell;
  readonly #screen: Screen;
  readonly #scene: PlayedScene;
  readonly #playings: Playings;
  readonly #sight = new Sight();
  readonly #parcels = new Map<number, PlayableParcel>();
  /** The world that the screen reads frames of. */
  #shown: World | null = null;
  #writer: FrameWriter | null = null;
  #isPaused = false;
  #speed = 1;
  /** Steps that are due, with what is left of one. */
  #due = 0;
  #before: number | null = null;

  constructor(screen: Screen, helper: MessagePort | null, kernels: KernelBytes, tell: Tell) {
    [this.#tell, this.#screen] = [tell, screen];
    this.#scene = new PlayedScene(screen);
    this.#playings = new Playings({
      kernels,
      isShared: helper !== null,
      join: helper && ((memory) => helper.postMessage(memory)),
      leave: (memory) => helper && stopCrew(memory.buffer),
    });
    this.#setPace();
  }

  take(order: Exclude<ToPlayer, Start>): void {
    try {
      this.#do(order);
    } catch (error) {
      const sentence = (error as Error).message;
      this.#tell('id' in order ? { kind: 'refused', id: order.id, sentence } : { kind: 'told', sentence });
    }
  }

  #do(order: Exclude<ToPlayer, Start>): void {
    if (order.kind === 'camera') this.#sight.look(order.camera);
    if (order.kind === 'size') this.#sight.aspect = order.width / order.height;
    if (this.#screen.handle(order)) return;
    if ('id' in order) return this.#answer(order);
    switch (order.kind) {
      case 'play': {
        const parcel = this.#parcels.get(order.parcel);
        if (parcel) this.#playings.begin(order.playing, parcel, order.effect, order.options, this.#sight);
        return this.#changed();
      }
      case 'tell': {
        const playing = this.#playings.get(order.playing);
        if (playing) this.#order(playing, order.order);
        return;
      }
      case 'pause':
        [this.#isPaused, this.#before] = [order.isPaused, null];
        return this.#setPace();
      case 'quality':
        this.#sight.quality = order.quality;
        return;
      case 'speed':
        this.#speed = Math.min(8, Math.max(0.01, order.speed));
        return this.#setPace();
    }
  }

  #setPace(): void {
    this.#screen.setPace(!this.#isPaused, DEFAULT_RATE * this.#speed);
  }

  #answer(order: Question): void {
    switch (order.kind) {
      case 'load': {
        const parcel = playableParcel(order.bytes);
        this.#parcels.set(order.id, parcel);
        const effects = parcel.effects.map(({ info }) => info);
        return this.#tell({ kind: 'loaded', id: order.id, licence: parcel.licence, effects });
      }
      case 'state': {
        const playing = this.#playings.get(order.playing);
        return this.#tell({ kind: 'state', id: order.id, state: playing ? stateOf(playing) : null });
      }
      case 'hash':
        return this.#tell({
          kind: 'hash',
          id: order.id,
          hash: this.#playings.get(order.playing)?.instance.hash() ?? null,
        });
    }
  }

  #order(playing: PlayingEffect, order: PlayingOrder): void {
    const playings = this.#playings;
    switch (order.kind) {
      case 'letGo':
        return playings.letGo(playing);
      case 'seek':
        playings.seek(playing, order.step, order.letGoStep);
        return this.#changed();
      case 'dial':
        playings.setDial(playing, order.name, order.value);
        return this.#changed();
      case 'signal':
        return playings.signal(playing, order.name);
      case 'strike':
        playing.instance.strike(order.from, order.to, order.strength);
        return;
      case 'place':
        return playings.place(playing, order.at, order.turn);
      case 'stop':
        playings.stop(playing.number);
        return this.#changed();
    }
  }

  /** Other effects play, or they are others: the stage is told, and reads the frames of the world that they are in. */
  #changed(): void {
    const { world } = this.#playings;
    if (!world) return;
    if (world !== this.#shown) {
      const { address, bytes } = world.frames!;
      const { buffer } = world.memory;
      this.#writer = new FrameWriter(tripleBuffer(buffer, bytes, address));
      this.#screen.read(world);
      this.#shown = world;
    }
    this.#scene.show(world, [...this.#playings.all]);
    this.#publish();
  }

  #publish(): void {
    const { world } = this.#playings;
    if (!world || !this.#writer) return;
    const { frame } = this.#writer;
    world.writeFrame(frame);
    this.#screen.published(frame);
    this.#writer.publish();
  }

  /** Computes what is due, and lets the screen draw. */
  turn(now: number): void {
    if (this.#playings.look(this.#sight)) this.#changed();
    const { world } = this.#playings;
    if (!this.#isPaused && world) {
      const passed = this.#before === null ? 0 : (now - this.#before) / 1000;
      this.#before = now;
      this.#due = Math.min(MOST_STEPS_AT_ONCE, this.#due + passed * DEFAULT_RATE * this.#speed);
      const steps = Math.floor(this.#due);
      this.#due -= steps;
      for (let n = 0; n < steps; n++) this.#step(world);
      if (steps > 0) this.#publish();
    }
    this.#screen.turn(now);
  }

  #step(world: World): void {
    world.advance(world.step + 1);
    let hasRestarted = false;
    for (const playing of this.#playings.all) {
      if (this.#playings.world !== world) return;
      this.#report(playing);
      if (playing.hasEnded && playing.options.repeats) {
        this.#playings.restart(playing);
        hasRestarted = true;
      }
    }
    if (hasRestarted) this.#changed();
  }

  /** Tells what happened to an effect in the last step. */
  #report(playing: PlayingEffect): void {
    const { instance, number } = playing;
    const seconds = instance.step / DEFAULT_RATE;
    if (!playing.hasLit && instance.living > 0) {
      playing.hasLit = true;
      this.#tell({ kind: 'event', playing: number, event: 'firstLight', told: { seconds } });
    }
    const { layers } = instance.effect;
    for (const id of layers.order) {
      const hits = instance.hits(id);
      if (!hits || hits.count === 0) continue;
      const { where, count, strength } = hits;
      const at = [where[0]!, where[1]!, where[2]!] as const;
      const told = { seconds, layer: layers.byId[id]!.name, count, at, strength: strength[0]! };
      this.#tell({ kind: 'event', playing: number, event: 'hit', told });
    }
    if (playing.hasEnded || !instance.isOver) return;
    playing.hasEnded = true;
    this.#tell({ kind: 'event', playing: number, event: 'ended', told: { seconds } });
  }
}

function stateOf({ instance, letGoStep, hasEnded, tier, isCulled }: PlayingEffect): PlayingState {
  return {
    step: instance.step,
    seconds: instance.step / DEFAULT_RATE,
    living: instance.living,
    quality: tier,
    isCulled,
    isLetGo: letGoStep !== undefined && letGoStep <= instance.step,
    hasEnded: hasEnded || instance.isOver,
  };
}
