import { ROW } from '../run/inbox.ts';
import type { Running } from '../run/running.ts';

/** Everything that a layer's next step reads, as it stood at the start of a step. */
export interface SavedLayer {
  /** Fields of the living, one after another. */
  readonly words: Uint32Array;
  readonly count: number;
  readonly counters: readonly [numbered: number, born: number, refused: number, dead: number, lost: number];
  /** Births that links have set off and that are still to come. */
  readonly pending: Float64Array;
  readonly unheard: number;
  readonly travelled: number;
  readonly turnStart: number;
}

export const bytesOf = ({ words, pending }: SavedLayer): number => words.byteLength + pending.byteLength;

/** Copies a layer's state; its dead have been cleared away. */
export function saveLayer({ population, inbox, travel, turnStart }: Running, buffer: ArrayBufferLike): SavedLayer {
  const { count, base, stride, fields } = population;
  const words = new Uint32Array(count * fields);
  for (let field = 0; field < fields; field++)
    words.set(new Uint32Array(buffer, base + field * stride, count), field * count);
  return {
    words,
    count,
    counters: [population.numbered, population.born, population.refused, population.dead, population.lost],
    pending: inbox.rows.slice(0, inbox.count * ROW),
    unheard: inbox.refused,
    travelled: travel.metres,
    turnStart,
  };
}

/** Puts a layer back into a state it was in. */
export function restoreLayer(running: Running, saved: SavedLayer, buffer: ArrayBufferLike): void {
  const { population, inbox, travel } = running;
  const { count, words } = saved;
  const { base, stride, fields } = population;
  population.empty();
  for (let field = 0; field < fields; field++)
    new Uint32Array(buffer, base + field * stride, count).set(words.subarray(field * count, (field + 1) * count));
  population.count = count;
  [population.numbered, population.born, population.refused, population.dead, population.lost] = saved.counters;
  inbox.take(saved.pending, saved.unheard);
  travel.metres = saved.travelled;
  running.turnStart = saved.turnStart;
  running.hits.count = 0;
}
