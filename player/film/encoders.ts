import type { EncodeJob } from './encode.ts';
import type { Encoded } from './encodeWorker.ts';

type Coder = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>;

interface Waiting {
  readonly job: EncodeJob;
  readonly done: (bytes: Uint8Array<ArrayBuffer>) => void;
  readonly fail: (error: Error) => void;
}

/** The memory of a picture goes along with it: it is copied nowhere. */
function memoryOf(job: EncodeJob): Transferable[] {
  const layers = job.kind === 'exr' ? [job.layer, job.factor] : [job.layer];
  return [
    ...layers.flatMap((layer) => [layer?.picture?.buffer, layer?.linear?.buffer]),
    ...(job.kind === 'exr' ? Object.values(job.marks ?? {}).map(({ buffer }) => buffer) : []),
  ].filter((buffer): buffer is ArrayBuffer => buffer !== undefined);
}

/** Workers that encode pictures, each one at a time. */
export class Encoders {
  readonly #idle: Coder[] = [];
  readonly #all: Coder[] = [];
  readonly #waiting: Waiting[] = [];

  constructor(count: number, start: () => Coder) {
    for (let n = 0; n < count; n++) this.#all.push(start());
    this.#idle.push(...this.#all);
  }

  encode(job: EncodeJob): Promise<Uint8Array<ArrayBuffer>> {
    return new Promise((done, fail) => {
      this.#waiting.push({ job, done, fail });
      this.#next();
    });
  }

  #next(): void {
    const coder = this.#waiting.length > 0 ? this.#idle.pop() : undefined;
    if (!coder) return;
    const { job, done, fail } = this.#waiting.shift()!;
    const rest = (act: () => void) => {
      this.#idle.push(coder);
      act();
      this.#next();
    };
    coder.onmessage = ({ data }: MessageEvent<Encoded>) =>
      rest(() => ('bytes' in data ? done(data.bytes) : fail(new Error(data.sentence))));
    coder.onerror = (event) => fail(new Error(`A picture could not be encoded: ${event.message}`));
    coder.postMessage(job, memoryOf(job));
  }

  close(): void {
    for (const coder of this.#all) coder.terminate();
  }
}
