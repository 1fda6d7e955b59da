import type { Steps } from '@jinx/core/document';

/** Work on the server's one thread lets others be answered after so long. */
const MOST_MILLISECONDS = 15;

/** Lets what waits be answered before the next stretch of work. */
export const nextTurn = (): Promise<void> => new Promise((next) => setImmediate(next));

/** Does work that has steps, and lets others be answered between them. */
export async function inTurns<T>(steps: Steps<T>): Promise<T> {
  for (let began = performance.now(); ;) {
    const { done, value } = steps.next();
    if (done) return value;
    if (performance.now() - began < MOST_MILLISECONDS) continue;
    await nextTurn();
    began = performance.now();
  }
}
