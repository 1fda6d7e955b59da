/** A question that no answer will come to. */
export class NoAnswer extends Error {
  /** Whether the one who was asked was closed on purpose. */
  readonly isClosed: boolean;
  constructor(sentence: string, isClosed = false) {
    super(sentence);
    this.isClosed = isClosed;
  }
}

interface Waiting<W> {
  readonly of: W;
  readonly resolve: (answer: never) => void;
  readonly reject: (error: NoAnswer) => void;
}

/** Questions to workers that are not answered yet, by number. */
export class Questions<W> {
  readonly #waiting = new Map<number, Waiting<W>>();
  #next = 1;
  #closed: NoAnswer | null = null;

  /** Asks one worker; `send` posts the question with its number. Rejects with NoAnswer when none will come. */
  ask<T>(of: W, send: (id: number) => void): Promise<T> {
    if (this.#closed) return Promise.reject(this.#closed);
    const id = this.#next++;
    return new Promise<T>((resolve, reject) => {
      this.#waiting.set(id, { of, resolve, reject });
      send(id);
    });
  }

  answer(id: number, answer: unknown): void {
    this.#waiting.get(id)?.resolve(answer as never);
    this.#waiting.delete(id);
  }

  refuse(id: number, sentence: string): void {
    this.#waiting.get(id)?.reject(new NoAnswer(sentence));
    this.#waiting.delete(id);
  }

  /** The worker is gone: nothing that was asked of it will be answered. */
  abandon(of: W, sentence: string): void {
    for (const [id, waiting] of [...this.#waiting]) if (waiting.of === of) this.refuse(id, sentence);
  }

  /** Nothing is asked or answered from now on. */
  close(): void {
    this.#closed = new NoAnswer('The stage was closed.', true);
    for (const { reject } of this.#waiting.values()) reject(this.#closed);
    this.#waiting.clear();
  }
}

/** The answer, or null where none will come: what went wrong is told by the engine itself. */
export async function answered<T>(asked: Promise<T>): Promise<T | null> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof NoAnswer) return null;
    throw error;
  }
}
