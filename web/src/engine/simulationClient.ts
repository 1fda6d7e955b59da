import type { Vector } from '@jinx/core/document';
import type { KernelBytes } from '@jinx/core/kernels';
import type { FromSimulation, Outside, ToSimulation } from '@jinx/player/simulation';
import { Calls } from './calls';
import { reasonOf, type Thread, type Threads } from './threads';

interface Heard {
  message(message: FromSimulation): void;
  /** A worker ended, or could not begin. */
  failed(reason: string): void;
}

/** The simulation's worker and its helper: what is asked of them. What is sent before their code is loaded waits for it. */
export class SimulationClient {
  readonly #threads: Threads;
  readonly #heard: Heard;
  #workers: Thread[] = [];
  #simulation: Thread | null = null;
  #kernels: KernelBytes | null = null;
  #waiting: ToSimulation[] = [];
  readonly #calls = new Calls<ToSimulation, FromSimulation>((order) => this.send(order));

  constructor(threads: Threads, heard: Heard) {
    this.#threads = threads;
    this.#heard = heard;
    void this.#begin();
  }

  async #begin(): Promise<void> {
    const simulation = this.#threads.simulation();
    const helper = this.#threads.helper();
    const workers = [simulation, helper];
    this.#workers = workers;
    simulation.onmessage = ({ data }: MessageEvent<FromSimulation>) => {
      if (!this.#calls.hear(data)) this.#heard.message(data);
    };
    for (const worker of workers) worker.onerror = (event) => this.#fail(workers, reasonOf(event));
    try {
      this.#kernels ??= await this.#threads.kernels();
    } catch (error) {
      return this.#fail(workers, (error as Error).message);
    }
    if (this.#workers !== workers) return;
    const kernels = this.#kernels;
    const channel = new MessageChannel();
    helper.postMessage({ kernels, port: channel.port1 }, [channel.port1]);
    simulation.postMessage({ kind: 'start', kernels, helper: channel.port2 } satisfies ToSimulation, [channel.port2]);
    this.#simulation = simulation;
    for (const order of this.#waiting.splice(0)) simulation.postMessage(order);
  }

  /** Of several workers that end together the first is told of. */
  #fail(workers: readonly Thread[], reason: string): void {
    if (this.#workers !== workers) return;
    this.#end();
    this.#calls.abandon('The simulation stopped before it could answer.');
    this.#heard.failed(reason);
  }

  send(order: ToSimulation): void {
    if (this.#simulation) this.#simulation.postMessage(order);
    else this.#waiting.push(order);
  }

  /** Begins anew with workers that have been told nothing. */
  restart(): void {
    this.#end();
    this.#calls.abandon('The simulation was started again before it could answer.');
    void this.#begin();
  }

  /** A blow now from one place toward another: of the world, or seen from where a thing stands. */
  strike(from: Vector, to: Vector, beside: string | null): void {
    this.send({ kind: 'strike', from, to, beside });
  }
  /** A signal of the effect, announced now. */
  announce(signal: string): void {
    this.send({ kind: 'announce', signal });
  }
  /** Takes what came from outside elsewhere. */
  takeOutside(outside: Outside): void {
    this.send({ kind: 'outside', outside });
  }
  /** While a layer's source or a force is dragged, the others stand at their fullest instant; null ends that. */
  compare(layer: string | null): void {
    this.send({ kind: 'compare', layer });
  }

  /** Waits until the step that is wanted is there, and its frame published. */
  settled() {
    return this.#calls.ask('settled', {});
  }
  /** The hash of the state at the present step; null where that is not exact. */
  hash() {
    return this.#calls.ask('hash', {});
  }
  inspect(layer: string) {
    return this.#calls.ask('inspect', { layer });
  }
  /** All the living of a layer, as the simulation stands. */
  census(layer: string) {
    return this.#calls.ask('census', { layer });
  }
  /** What each force does to a particle, as the simulation stands; null where that was given up for another question. */
  pulls(layer: string, key: number) {
    return this.#calls.ask('pulls', { layer, key });
  }

  stop(): void {
    this.#calls.close();
    this.#end();
  }

  #end(): void {
    for (const worker of this.#workers) worker.terminate();
    this.#workers = [];
    this.#simulation = null;
    this.#waiting = [];
  }
}
