import { Worker } from 'node:worker_threads';

/** A thread that helps worlds of this one, one after another. */
export class Helper {
  readonly #worker: Worker;

  constructor() {
    const helper = new URL('./helper.ts', import.meta.url).href;
    // A Node worker must first learn to read TypeScript.
    const script = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(helper)}); });`;
    this.#worker = new Worker(script, { eval: true });
  }

  #hear(word: string): Promise<void> {
    return new Promise((resolve) => {
      const hear = (said: unknown) => {
        if (said !== word) return;
        this.#worker.off('message', hear);
        resolve();
      };
      this.#worker.on('message', hear);
    });
  }

  /** Joins the crew of a memory. */
  async join(memory: WebAssembly.Memory, thread: number): Promise<void> {
    const ready = this.#hear('ready');
    this.#worker.postMessage({ memory, thread });
    await ready;
  }

  /** Waits until it has left the crew that was stopped. */
  left(): Promise<void> {
    return this.#hear('left');
  }

  async stop(): Promise<void> {
    await this.#worker.terminate();
  }
}
