import { newEffect } from '@jinx/core/document';
import type { ToInstants } from '@jinx/player/simulation';
import type { StageTone, ToStageWorker } from '@jinx/stage';
import { PICTURE_VIEW } from '@jinx/player/scene';
import { describe, expect, it } from 'vitest';
import { NoAnswer } from './calls';
import { PictureTaker, type WantedPictures } from './pictureTaker';
import { SharedByPage } from './shared';
import type { Thread } from './threads';

class Answering<Order> implements Thread {
  onmessage: Thread['onmessage'] = null;
  onerror: Thread['onerror'] = null;
  readonly #take: (order: Order, say: (message: unknown) => void) => void;
  constructor(take: (order: Order, say: (message: unknown) => void) => void) {
    this.#take = take;
  }
  postMessage(order: unknown): void {
    this.#take(order as Order, (data) => this.onmessage?.call({} as Worker, { data } as MessageEvent));
  }
  terminate(): void {
    // Nothing runs.
  }
}

/** A taker whose instants come when they are told to, and whose stage draws at once: a picture is the frame it was made of. */
function setUp() {
  const runs: Extract<ToInstants, { kind: 'run' }>[] = [];
  const stopped: number[] = [];
  const shown: string[] = [];
  let say!: (message: unknown) => void;
  const instants = new Answering<ToInstants>((order, answer) => {
    say = answer;
    if (order.kind === 'run') runs.push(order);
    if (order.kind === 'stop') stopped.push(order.id);
  });
  const stage = new Answering<ToStageWorker>((told, answer) => {
    if (told.kind !== 'tell') return;
    const { scene, order } = told;
    if (order.kind === 'surround') shown.push(order.surround);
    if (order.kind === 'tone') shown.push(order.tone.kind);
    if (order.kind === 'picture')
      answer({ scene, message: { kind: 'picture', id: order.id, bitmap: order.instant!.buffer } });
  });
  const nothing = () => new Answering(() => undefined);
  const shared = new SharedByPage({
    threads: {
      simulation: nothing,
      helper: nothing,
      stage: () => stage,
      instants: () => instants,
      kernels: () => Promise.resolve({ shared: new Uint8Array(), plain: new Uint8Array() }),
    },
    asset: () => Promise.reject(new Error('no asset')),
  });
  const taker = new PictureTaker(shared, 4, 4);
  const come = (id: number, bytes: number) => say({ kind: 'instant', id, buffer: new ArrayBuffer(bytes) });
  return {
    taker,
    runs,
    stopped,
    shown,
    come,
    refuse: (id: number) => say({ kind: 'refused', id, sentence: 'no room' }),
  };
}
const FILMIC: StageTone = { kind: 'filmic' };
const wanted = (name: string, seconds: number[]): WantedPictures => ({
  effect: newEffect(name, 1),
  budget: 100,
  seconds,
  view: PICTURE_VIEW,
  tone: FILMIC,
});
const bytesOf = (picture: unknown) => (picture as ArrayBuffer).byteLength;

describe('a taker of pictures', () => {
  it('gives the pictures of several effects, each drawn as it is there, while the next is computed', async () => {
    const { taker, runs, come, shown } = setUp();
    const one = taker.take(wanted('one', [0.1, 0.2]));
    const dark = wanted('two', [0.3]);
    dark.effect.stage.surround = 'noon';
    const two = taker.take({ ...dark, tone: { kind: 'none' } });
    const [first, other] = [one.next(), two.next()];
    await expect.poll(() => runs.length).toBe(2);
    come(1, 10);
    expect(bytesOf((await first).value)).toBe(10);
    come(2, 30);
    expect(bytesOf((await other).value)).toBe(30);
    come(1, 20);
    expect(bytesOf((await one.next()).value)).toBe(20);
    expect(shown).toEqual(['dusk', 'filmic', 'noon', 'none', 'dusk', 'filmic']);
    expect((await one.next()).done).toBe(true);
  });

  it('ends at once where nobody wants any more, and so does the computing', async () => {
    const { taker, runs, stopped } = setUp();
    const held = new AbortController();
    const next = taker.take(wanted('one', [0.1]), held.signal).next();
    await expect.poll(() => runs.length).toBe(1);
    held.abort();
    expect((await next).done).toBe(true);
    await expect.poll(() => stopped).toEqual([1]);
  });

  it('says why where an effect cannot be computed', async () => {
    const { taker, runs, refuse } = setUp();
    const next = taker.take(wanted('one', [0.1])).next();
    await expect.poll(() => runs.length).toBe(1);
    refuse(1);
    await expect(next).rejects.toEqual(new NoAnswer('no room'));
  });
});
