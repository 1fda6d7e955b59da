import { Refusal } from '../errors.ts';

/** Lets only so many do something at once, of each owner and in all; others wait a while for their turn. */
export class Slots {
  readonly #most: number;
  readonly #mostPerOwner: number;
  readonly #waitMilliseconds: number;
  readonly #perOwner = new Map<string, number>();
  readonly #waiting: { owner: string; start: () => void }[] = [];
  #count = 0;

  constructor(most: number, mostPerOwner: number, waitMilliseconds: number) {
    [this.#most, this.#mostPerOwner, this.#waitMilliseconds] = [most, mostPerOwner, waitMilliseconds];
  }

  /** Takes a slot, and returns how it is given back. @throws Refusal when there is none for too long. */
  async take(owner: string): Promise<() => void> {
    if (!this.#isFree(owner))
      await new Promise<void>((start, fail) => {
        const timer = setTimeout(() => {
          this.#waiting.splice(this.#waiting.indexOf(entry), 1);
          fail(new Refusal(503, 'busy', 'Too much is read at once: try again in a moment.', { seconds: 2 }));
        }, this.#waitMilliseconds);
        const entry = { owner, start: () => (clearTimeout(timer), start()) };
        this.#waiting.push(entry);
      });
    else this.#add(owner, 1);
    let isOver = false;
    return () => {
      if (isOver) return;
      isOver = true;
      this.#add(owner, -1);
      const next = this.#waiting.findIndex((entry) => this.#isFree(entry.owner));
      if (next < 0) return;
      const [entry] = this.#waiting.splice(next, 1);
      this.#add(entry!.owner, 1);
      entry!.start();
    };
  }

  #isFree(owner: string): boolean {
    return this.#count < this.#most && (this.#perOwner.get(owner) ?? 0) < this.#mostPerOwner;
  }

  #add(owner: string, by: number): void {
    this.#count += by;
    const own = (this.#perOwner.get(owner) ?? 0) + by;
    if (own > 0) this.#perOwner.set(owner, own);
    else this.#perOwner.delete(owner);
  }
}
