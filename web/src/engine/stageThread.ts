import type { FromStage, ToStage } from '@jinx/stage';
import { reasonOf, type Thread } from './threads';

/** Orders that are done with once they are carried out: all others say how the stage is from then on. */
const PASSING: ReadonlySet<ToStage['kind']> = new Set<ToStage['kind']>([
  'start',
  // The simulation tells a new stage of them itself: the buffer has to begin anew with its reader.
  'frames',
  'instant',
  'forgetInstants',
  'pixels',
  'particlePictures',
  'time',
  'pixel',
  'pixelSteps',
]);

interface Heard {
  message(message: FromStage): void;
  /** The worker ended; it has to be started again with another canvas. */
  failed(reason: string): void;
}

/** The stage's worker, and all it was told that still holds, so that another can take its place. */
export class StageThread {
  readonly #make: () => Thread;
  readonly #heard: Heard;
  readonly #standing = new Map<ToStage['kind'], ToStage>();
  #worker: Thread;

  constructor(make: () => Thread, heard: Heard) {
    this.#make = make;
    this.#heard = heard;
    this.#worker = this.#begin();
  }

  #begin(): Thread {
    const worker = this.#make();
    worker.onmessage = ({ data }: MessageEvent<FromStage>) => this.#heard.message(data);
    worker.onerror = (event) => this.#heard.failed(reasonOf(event));
    return worker;
  }

  send(order: ToStage, transfer: Transferable[] = []): void {
    if (!PASSING.has(order.kind)) {
      // Told again in the order in which it was told last.
      this.#standing.delete(order.kind);
      this.#standing.set(order.kind, order);
    }
    this.#worker.postMessage(order, transfer);
  }

  /** Another worker, told all that still holds. It draws once it has a canvas. */
  restart(): void {
    this.#worker.terminate();
    this.#worker = this.#begin();
    for (const order of this.#standing.values()) this.#worker.postMessage(order, []);
  }

  stop(): void {
    this.#worker.terminate();
  }
}
