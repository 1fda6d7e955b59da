import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import { InstantRun } from './instantRun.ts';
import type { FromInstants, ToInstants } from './protocol.ts';
import { soon } from './soon.ts';

/** Longest stretch of computing before orders are heard again. */
const SLICE_MILLISECONDS = 25;

type Run = Extract<ToInstants, { kind: 'run' }>;
type Tell = (message: FromInstants, transfer?: Transferable[]) => void;

/** Computes instants of effects, run after run, a slice at a time. It runs wherever there is a clock. */
export class InstantQueue {
  readonly #tell: Tell;
  readonly #rigs = new Map<string, Rig>();
  #kernels: KernelBytes | null = null;
  #waiting: Run[] = [];
  #present: { readonly id: number; readonly run: InstantRun } | null = null;
  #isScheduled = false;

  constructor(tell: Tell) {
    this.#tell = tell;
  }

  take(order: ToInstants): void {
    switch (order.kind) {
      case 'start':
        this.#kernels = order.kernels;
        return;
      case 'rigs':
        for (const [hash, rig] of order.rigs) this.#rigs.set(hash, rig);
        return;
      case 'run':
        this.#waiting.push(order);
        return this.#schedule();
      case 'stop':
        this.#waiting = this.#waiting.filter(({ id }) => id !== order.id);
        if (this.#present?.id === order.id) this.#present = null;
    }
  }

  #schedule(): void {
    if (this.#isScheduled) return;
    this.#isScheduled = true;
    soon(() => {
      this.#isScheduled = false;
      this.#computeSlice();
    });
  }

  #computeSlice(): void {
    const present = (this.#present ??= this.#begin());
    if (!present) return;
    const { id, run } = present;
    try {
      const until = performance.now() + SLICE_MILLISECONDS;
      const found = run.advance(() => performance.now() > until);
      if (found) {
        const { f32 } = found.frame;
        const buffer = f32.buffer as ArrayBuffer;
        this.#tell({ kind: 'instant', id, buffer }, [buffer]);
      }
      if (run.isDone) this.#present = null;
    } catch (error) {
      this.#refuse(id, error);
      this.#present = null;
    }
    if (this.#present || this.#waiting.length > 0) this.#schedule();
  }

  /** The next run that can be begun. */
  #begin(): { id: number; run: InstantRun } | null {
    for (let next = this.#waiting.shift(); next; next = this.#waiting.shift()) {
      const { id, effect, rigs, budget, seconds } = next;
      try {
        const here = new Map(rigs.map((hash) => [hash, this.#rigs.get(hash)!]));
        const run = new InstantRun(effect, here, {}, seconds, { kernels: this.#kernels!, budget, historyBytes: 0 });
        return { id, run };
      } catch (error) {
        this.#refuse(id, error);
      }
    }
    return null;
  }

  #refuse(id: number, error: unknown): void {
    this.#tell({ kind: 'refused', id, sentence: (error as Error).message });
  }
}
