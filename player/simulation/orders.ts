import { ownerOf, type Change, type Vector } from '@jinx/core/document';
import {
  censusOf,
  CrewError,
  reachBetween,
  RECORD_AGE,
  RECORD_COLOUR,
  RECORD_TO,
  RECORD_WORDS,
} from '@jinx/core/simulation';
import { Jobs } from './jobs.ts';
import { Playback } from './playback.ts';
import type { Outside, ToSimulation } from './protocol.ts';
import { Publisher, type Tell } from './publisher.ts';
import { Settling } from './settling.ts';
import { Worlds } from './worlds.ts';

/** Carries out what the page asks of the simulation. It runs wherever there is a clock: in a worker, or in a test. */
export class Simulation {
  readonly #tell: Tell;
  readonly #worlds = new Worlds();
  readonly #settling = new Settling(this.#worlds);
  readonly #jobs: Jobs;
  readonly #playback: Playback;
  readonly #publisher: Publisher;

  constructor(tell: Tell) {
    this.#tell = tell;
    const worlds = this.#worlds;
    this.#jobs = new Jobs(worlds, tell);
    this.#playback = new Playback({
      worlds,
      settling: this.#settling,
      jobs: this.#jobs,
      publisher: () => this.#publisher,
    });
    this.#publisher = new Publisher(worlds, tell, (world) => this.#playback.standing(world));
  }

  /** Carries out an order; a question that cannot be answered is refused, with the reason. */
  take(order: ToSimulation): void {
    if (!('id' in order) || order.kind === 'instants') return this.#do(order);
    try {
      this.#do(order);
    } catch (error) {
      // A thread that is gone is a fault of the whole; any other, of the question.
      if (error instanceof CrewError) throw error;
      this.#tell({ kind: 'refused', id: order.id, sentence: (error as Error).message });
    }
  }

  #do(order: ToSimulation): void {
    const playback = this.#playback;
    switch (order.kind) {
      case 'start':
        return this.#worlds.start(order.kernels, order.helper);
      case 'load': {
        const { step } = playback;
        this.#worlds.load(order.effect, order.rigs, order.budget);
        this.#publisher.edit = order.edit;
        return this.#rebuild(step);
      }
      case 'edit':
        this.#publisher.edit = order.edit;
        return this.#edit(order.changes);
      case 'frames':
        if (!this.#worlds.world) return;
        this.#publisher.begin(this.#worlds.world);
        return this.#publishUnlessUnderWay();
      case 'play':
        return playback.play();
      case 'pause':
        return playback.pause();
      case 'speed':
        playback.speed = order.speed;
        return;
      case 'seek':
        return playback.seek(order.step, order.letGoStep);
      case 'compare':
        this.#publisher.dragged = order.layer;
        return this.#publishUnlessUnderWay();
      case 'letGo':
        return playback.letGo();
      case 'strike':
        return this.#strike(order.from, order.to, order.beside);
      case 'outside':
        return this.#takeOutside(order.outside);
      case 'announce':
        return this.#announce(order.signal);
      case 'instants':
        this.#jobs.beginInstants(order.id, order.seconds);
        return playback.schedule();
      case 'settled':
        return playback.whenThere(() => this.#tell({ kind: 'settled', id: order.id, step: playback.step }));
      case 'hash': {
        playback.finish();
        const { world } = this.#worlds;
        const [step, hash] = [world?.step ?? 0, world?.hash() ?? null];
        return this.#tell({ kind: 'hash', id: order.id, step, hash });
      }
      case 'census':
        return this.#census(order.id, order.layer);
      case 'pulls':
        playback.finish();
        this.#jobs.beginPulls(order.id, order.layer, order.key);
        return playback.schedule();
      case 'inspect':
        playback.finish();
        return this.#inspect(order.id, order.layer);
    }
  }

  #publishUnlessUnderWay(): void {
    if (!this.#playback.isUnderWay) this.#publisher.publish();
  }

  /** Makes a new world and computes it up to `step`; the old picture stays until it is there. */
  #rebuild(step: number): void {
    this.#settling.forget();
    this.#publisher.fullest.forget();
    try {
      this.#publisher.begin(this.#worlds.rebuild());
    } catch (error) {
      return this.#tell({ kind: 'failed', sentence: (error as Error).message });
    }
    this.#playback.goTo(step);
  }

  #edit(changes: readonly Change[]): void {
    const [playback, publisher] = [this.#playback, this.#publisher];
    const edited = this.#worlds.change(changes);
    const { world } = this.#worlds;
    if (!edited || !world) return;
    const { before, after } = edited;
    const reach = reachBetween(before, after, changes);
    const { kind, layers } = reach;
    if (kind === 'nothing') return playback.isPlaying ? undefined : this.#publishUnlessUnderWay();
    if (kind === 'dress' || layers === 'all') publisher.fullest.forget();
    else publisher.fullest.forget([...layers].flatMap((id) => after.layers.byId[id]?.salt ?? []));
    const { step, isUnderWay } = playback;
    const settles = playback.isPlaying && !isUnderWay && kind === 'state';
    if (!world.adopt(after, settles, reach)) return this.#rebuild(step);
    if (kind === 'dress' && !isUnderWay) return publisher.publish();
    this.#settling.edited();
    if (!settles) playback.goTo(step);
  }

  #strike(from: Vector, to: Vector, beside: string | null): void {
    this.#playback.finish();
    const { world } = this.#worlds;
    if (!world) return;
    const [x, z] = (beside !== null && world.feetOf(beside)) || [0, 0];
    world.strike([from[0] + x, from[1], from[2] + z], [to[0] + x, to[1], to[2] + z]);
    this.#settling.forget();
    this.#publisher.tellOutside();
  }
  #announce(signal: string): void {
    this.#playback.finish();
    if (!this.#worlds.world) return;
    this.#worlds.world.announce(signal);
    this.#settling.forget();
    this.#publisher.tellOutside();
  }
  /** What was computed after it is computed anew. */
  #takeOutside(outside: Outside): void {
    const { step } = this.#playback;
    this.#worlds.setOutside(outside);
    this.#settling.forget();
    if (this.#worlds.world) this.#playback.goTo(step);
  }

  #census(id: number, layerId: string): void {
    const { world, effect } = this.#worlds;
    if (world && effect) this.#tell({ kind: 'census', id, census: censusOf(world, effect, layerId) });
  }

  #inspect(id: number, layerId: string): void {
    const { world, effect } = this.#worlds;
    if (!world || !effect) return;
    // The dead are cleared away first: a record for each that lives.
    world.population(ownerOf(effect, layerId));
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
    this.#tell({ kind: 'inspect', id, step: world.step, positions, ages, colours });
  }
}
