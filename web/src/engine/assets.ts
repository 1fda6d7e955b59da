/** Why an asset is not here, and whether it is worth asking for again. */
export interface AssetProblem {
  readonly sentence: string;
  readonly isFinal: boolean;
}

interface Options<T> {
  /** Fetches and reads one asset. A rejection is told as its message. */
  readonly fetch: (hash: string) => Promise<T>;
  /** Whether the same question would be answered the same way again. */
  readonly isFinal: (error: unknown) => boolean;
  /** Called when an asset that nobody waits for any more has come. */
  readonly onLate: () => void;
  /** Milliseconds that one asset may hold an edit back. */
  readonly patience?: number;
}

const PATIENCE_MILLISECONDS = 2000;

/**
 * Assets by hash, fetched once. An asset that could not be had is asked for again only by `retry`, and one that takes
 * longer than the patience holds nothing back from then on.
 */
export class AssetCache<T> {
  readonly #options: Options<T>;
  readonly #here = new Map<string, T>();
  readonly #problems = new Map<string, AssetProblem>();
  readonly #underWay = new Map<string, Promise<void>>();
  readonly #late = new Set<string>();

  constructor(options: Options<T>) {
    this.#options = options;
  }

  get(hash: string): T | undefined {
    return this.#here.get(hash);
  }
  has(hash: string): boolean {
    return this.#here.has(hash);
  }
  problem(hash: string): AssetProblem | undefined {
    return this.#problems.get(hash);
  }

  /** Fetches what was never asked for. Resolves once nothing holds an edit back; null when nothing does now. */
  ensure(hashes: Iterable<string>): Promise<void> | null {
    const waits = [...hashes].flatMap((hash) => {
      if (this.#here.has(hash) || this.#problems.has(hash) || this.#late.has(hash)) return [];
      const fetched = this.#underWay.get(hash) ?? this.#fetch(hash);
      return [Promise.race([fetched, this.#patienceWith(hash)])];
    });
    return waits.length === 0 ? null : Promise.all(waits).then(() => undefined);
  }

  /** Asks once more for those that could not be had; all of them, or those for which it may help. */
  retry(hashes: Iterable<string>, isFinalToo: boolean): void {
    for (const hash of hashes) {
      const problem = this.#problems.get(hash);
      if (!problem || (problem.isFinal && !isFinalToo)) continue;
      // Known as missing meanwhile, so that no edit waits for it.
      if (!this.#underWay.has(hash)) void this.#fetch(hash);
    }
  }

  async #fetch(hash: string): Promise<void> {
    const fetched = this.#take(hash);
    this.#underWay.set(hash, fetched);
    await fetched;
  }

  async #take(hash: string): Promise<void> {
    const wasMissing = this.#problems.has(hash);
    try {
      this.#here.set(hash, await this.#options.fetch(hash));
      this.#problems.delete(hash);
      if (wasMissing || this.#late.has(hash)) this.#options.onLate();
    } catch (error) {
      this.#problems.set(hash, {
        sentence: error instanceof Error ? error.message : String(error),
        isFinal: this.#options.isFinal(error),
      });
      if (this.#late.has(hash)) this.#options.onLate();
    } finally {
      this.#underWay.delete(hash);
      this.#late.delete(hash);
    }
  }

  #patienceWith(hash: string): Promise<void> {
    return new Promise((resolve) =>
      setTimeout(() => {
        if (this.#underWay.has(hash)) this.#late.add(hash);
        resolve();
      }, this.#options.patience ?? PATIENCE_MILLISECONDS),
    );
  }
}
