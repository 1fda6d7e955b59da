import type { KernelBytes } from '@jinx/core/kernels';
import type { FromSimulation, ToSimulation } from './protocol';
import { reasonOf, type Thread, type Threads } from './threads';

interface Heard {
  message(message: FromSimulation): void;
  /** A worker ended, or could not begin. */
  failed(reason: string): void;
}

/** The simulation's worker and its helper. What is sent before their code is loaded waits for it. */
export class SimulationThread {
  readonly #threads: Threads;
  readonly #heard: Heard;
  #workers: Thread[] = [];
  #simulation: Thread | null = null;
  #kernels: KernelBytes | null = null;
  #waiting: ToSimulation[] = [];

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
    simulation.onmessage = ({ data }: MessageEvent<FromSimulation>) => this.#heard.message(data);
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
    this.stop();
    this.#heard.failed(reason);
  }

  send(order: ToSimulation): void {
    if (this.#simulation) this.#simulation.postMessage(order);
    else this.#waiting.push(order);
  }

  /** Begins anew with workers that have been told nothing. */
  restart(): void {
    this.stop();
    void this.#begin();
  }

  stop(): void {
    for (const worker of this.#workers) worker.terminate();
    this.#workers = [];
    this.#simulation = null;
    this.#waiting = [];
  }
}
