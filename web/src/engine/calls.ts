/** A question that no answer will come to. */
export class NoAnswer extends Error {
  /** Whether the one who was asked was closed on purpose. */
  readonly isClosed: boolean;
  constructor(sentence: string, isClosed = false) {
    super(sentence);
    this.isClosed = isClosed;
  }
}

interface Message {
  readonly kind: string;
}
/** Orders with a number are questions; the answer has the same kind and the same number. */
type Question<To extends Message> = Extract<To, { readonly id: number }>;
type Kind<To extends Message> = Question<To>['kind'];
/** What goes with a question beside its kind and its number. */
type Asked<To extends Message, K extends Kind<To>> = Omit<Extract<To, { kind: K; id: number }>, 'kind' | 'id'>;
export type Answer<From extends Message, K extends string> = Extract<From, { kind: K; id: number }>;

interface Waiting {
  readonly resolve: (answer: never) => void;
  readonly reject: (error: NoAnswer) => void;
}

/**
 * Typed calls of one worker: what is told it, and questions to it that are answered, refused, or given up where the worker
 * ends. A general library for calls would never settle a call whose worker has ended, and would answer every order of a
 * drag; here only questions are answered.
 */
export class Calls<To extends Message, From extends Message> {
  readonly #send: (order: To, transfer: Transferable[]) => void;
  readonly #waiting = new Map<number, Waiting>();
  #next = 1;
  #closed: NoAnswer | null = null;

  constructor(send: (order: To, transfer: Transferable[]) => void) {
    this.#send = send;
  }

  /** Asks the worker. Rejects with NoAnswer when no answer will come. */
  ask<K extends Kind<To>>(kind: K, asked: Asked<To, K>, transfer: Transferable[] = []): Promise<Answer<From, K>> {
    if (this.#closed) return Promise.reject(this.#closed);
    const id = this.#next++;
    return new Promise<Answer<From, K>>((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      this.#send({ kind, id, ...asked } as unknown as To, transfer);
    });
  }

  /** Takes a message of the worker, if it is an answer or a refusal. Returns whether it was. */
  hear(message: From): boolean {
    const { kind, id, sentence } = message as From & { readonly id?: number; readonly sentence?: string };
    const waiting = id === undefined ? undefined : this.#waiting.get(id);
    if (!waiting) return id !== undefined && kind === 'refused';
    this.#waiting.delete(id!);
    if (kind === 'refused') waiting.reject(new NoAnswer(sentence!));
    else waiting.resolve(message as never);
    return true;
  }

  /** The worker is gone: nothing that was asked of it will be answered. */
  abandon(sentence: string): void {
    const error = new NoAnswer(sentence);
    for (const { reject } of this.#waiting.values()) reject(error);
    this.#waiting.clear();
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
