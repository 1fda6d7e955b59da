/** What a session publishes to. */
export interface SessionPort<D> {
  /** Gets what the document needs. Null when all that can be had is here. */
  prepare(document: D): Promise<void> | null;
  /** Shows the document. Called with rising numbers only, or again with the last one. */
  publish(document: D, edit: number): void;
}

interface Numbered<D> {
  readonly document: D;
  readonly edit: number;
}

/**
 * The edits of a document, one after another: each has a number, its assets come first, then it is published. While
 * assets are on their way later edits take the place of earlier ones, so that an older document never follows a newer one.
 */
export class EditSession<D> {
  readonly #port: SessionPort<D>;
  #edits = 0;
  #next: Numbered<D> | null = null;
  #last: Numbered<D> | null = null;
  #isWaiting = false;
  #waiters: { edit: number; resolve: () => void; reject: (error: unknown) => void }[] = [];

  constructor(port: SessionPort<D>) {
    this.#port = port;
  }

  /** The number of the last edit that was made. */
  get edits(): number {
    return this.#edits;
  }

  /** Takes a document. Resolves once it, or a later one, is published. */
  put(document: D): Promise<void> {
    const edit = ++this.#edits;
    this.#next = { document, edit };
    const published = new Promise<void>((resolve, reject) => this.#waiters.push({ edit, resolve, reject }));
    if (!this.#isWaiting) this.#advance();
    return published;
  }

  /** Publishes the last document again, as something it needs has come. */
  again(): void {
    if (this.#next || !this.#last) return;
    this.#next = this.#last;
    if (!this.#isWaiting) this.#advance();
  }

  #advance(): void {
    while (this.#next) {
      const wait = this.#prepare(this.#next.document);
      if (wait) {
        this.#isWaiting = true;
        const goOn = () => {
          this.#isWaiting = false;
          this.#advance();
        };
        void wait.then(goOn, goOn);
        return;
      }
      this.#publish(this.#next);
    }
  }

  /** What cannot be prepared is published as it is. */
  #prepare(document: D): Promise<void> | null {
    try {
      return this.#port.prepare(document);
    } catch {
      return null;
    }
  }

  #publish(now: Numbered<D>): void {
    this.#next = null;
    const heard = this.#waiters.filter(({ edit }) => edit <= now.edit);
    this.#waiters = this.#waiters.filter(({ edit }) => edit > now.edit);
    try {
      this.#port.publish(now.document, now.edit);
      this.#last = now;
      for (const { resolve } of heard) resolve();
    } catch (error) {
      for (const { reject } of heard) reject(error);
    }
  }
}
