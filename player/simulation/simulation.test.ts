import { afterEach, describe, expect, it } from 'vitest';
import { collectionOf, diff, newEffect, newLayer, setNumber, structuredCopy, type Effect } from '@jinx/core/document';
import { FrameReader, HEADER_EDIT, tripleBuffer, playAlone, type Frame } from '@jinx/core/simulation';
import { kernelBytes } from '../../core/testing/kernelBytes.ts';
import { Simulation } from './orders.ts';
import type { FromSimulation, ToSimulation } from './protocol.ts';

function sparks(): Effect {
  const effect = newEffect('Sparks', 4);
  effect.stretches = { opening: 0.5, hold: { kind: 'continuing', seconds: 1 }, closing: 0.5, preRoll: 0 };
  const layer = newLayer('Motes', 5);
  setNumber(layer, 'births.rate', 200);
  setNumber(layer, 'births.life', 0.6);
  setNumber(layer, 'motion.speed', 1);
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}
const edited = (effect: Effect, recipe: (draft: Effect) => void) => {
  const draft = structuredCopy(effect);
  recipe(draft);
  return draft;
};

const started: Told[] = [];
/** A simulation without a worker: what it is told, and what it tells. */
class Told {
  readonly heard: FromSimulation[] = [];
  readonly simulation = new Simulation((message) => this.heard.push(message));
  #asked = 0;

  constructor(effect: Effect) {
    started.push(this);
    this.tell({ kind: 'start', kernels: kernelBytes(), helper: null });
    this.tell({ kind: 'load', effect, rigs: [], budget: 10_000, edit: 1 });
  }
  tell(order: ToSimulation): void {
    this.simulation.take(order);
  }
  of<K extends FromSimulation['kind']>(kind: K): Extract<FromSimulation, { kind: K }>[] {
    return this.heard.filter((message): message is Extract<FromSimulation, { kind: K }> => message.kind === kind);
  }
  get state() {
    return this.of('state').at(-1)!.state;
  }
  /** Waits for the answer to a question. */
  async ask<K extends 'settled' | 'hash' | 'pulls' | 'census' | 'inspect'>(kind: K, more: object = {}) {
    const id = ++this.#asked;
    const isAnswer = (one: { readonly id?: number }) => one.id === id;
    const answer = () => this.of(kind).find(isAnswer);
    this.tell({ kind, id, ...more } as never);
    await expect.poll(answer).toBeDefined();
    return answer()!;
  }
  #reader: FrameReader | null = null;
  /** The frame that the stage would draw. */
  frame(): Frame {
    if (!this.#reader) {
      const { buffer, address, bytes } = this.of('frames').at(-1)!;
      this.#reader = new FrameReader(tripleBuffer(buffer, bytes, address));
    }
    return this.#reader.newest()!;
  }
}
/** Nothing plays on behind the next test. */
afterEach(() => started.splice(0).forEach((told) => told.tell({ kind: 'pause' })));

const hashAt = (effect: Effect, step: number): string | null => {
  const world = playAlone(effect, new Map(), {}, { kernels: kernelBytes(), budget: 10_000 });
  world.advance(step);
  return world.hash();
};

describe('the simulation', () => {
  it('answers that it has settled once the step that was asked for last is there', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'seek', step: 20 });
    told.tell({ kind: 'settled', id: 100 });
    told.tell({ kind: 'seek', step: 75 });
    expect(told.of('settled')).toEqual([]);
    expect((await told.ask('settled')).step).toBe(75);
    expect(told.of('settled').map(({ step }) => step)).toEqual([75, 75]);
    expect(told.state).toMatchObject({ step: 75, isExact: true, progress: 1, isPlaying: false });
    expect((await told.ask('hash')).hash).toBe(hashAt(sparks(), 75));
  });

  it('plays by the clock, and stands still when it is paused', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'play' });
    await expect.poll(() => told.state.step).toBeGreaterThan(6);
    told.tell({ kind: 'pause' });
    const { step } = told.state;
    expect(told.state.isPlaying).toBe(false);
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(told.state.step).toBe(step);
  });

  it('computes only what an edit reaches, and shows it under the number of the edit', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'seek', step: 50 });
    await told.ask('settled');
    const glow = edited(sparks(), (draft) => setNumber(draft.layers.byId['motes']!, 'life.intensity', 3));
    told.tell({ kind: 'edit', changes: diff(sparks(), glow), edit: 2 });
    // How particles are drawn is seen at once, without a step.
    expect(told.frame().u32[HEADER_EDIT]).toBe(2);
    const faster = edited(glow, (draft) => setNumber(draft.layers.byId['motes']!, 'motion.speed', 2));
    told.tell({ kind: 'edit', changes: diff(glow, faster), edit: 3 });
    expect((await told.ask('settled')).step).toBe(50);
    expect(told.frame().u32[HEADER_EDIT]).toBe(3);
    expect((await told.ask('hash')).hash).toBe(hashAt(faster, 50));
  });

  it('goes on with an edit while it plays, and is exact again by itself', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'play' });
    await expect.poll(() => told.state.step).toBeGreaterThan(12);
    const slower = edited(sparks(), (draft) => setNumber(draft.layers.byId['motes']!, 'motion.speed', 0.3));
    told.tell({ kind: 'edit', changes: diff(sparks(), slower), edit: 2 });
    await expect.poll(() => told.of('state').some(({ state }) => !state.isExact)).toBe(true);
    await expect.poll(() => told.state.isExact).toBe(true);
    told.tell({ kind: 'pause' });
    const { step, hash } = await told.ask('hash');
    expect(hash).toBe(hashAt(slower, step));
  });

  it('is exact at once when it is paused before it has settled', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'play' });
    await expect.poll(() => told.state.step).toBeGreaterThan(12);
    const slower = edited(sparks(), (draft) => setNumber(draft.layers.byId['motes']!, 'motion.speed', 0.3));
    told.tell({ kind: 'edit', changes: diff(sparks(), slower), edit: 2 });
    told.tell({ kind: 'pause' });
    const { step } = await told.ask('settled');
    expect((await told.ask('hash')).hash).toBe(hashAt(slower, step));
  });

  it('computes instants beside what is seen, and forgets those that nobody wants any more', async () => {
    const told = new Told(sparks());
    await told.ask('settled');
    told.tell({ kind: 'instants', id: 1, seconds: [0.2, 0.4] });
    told.tell({ kind: 'instants', id: 2, seconds: [0.9, 0.3] });
    await expect.poll(() => told.of('instant').length).toBe(2);
    expect(told.of('instant').map(({ id }) => id)).toEqual([2, 2]);
    const shares = told.of('instant').map(({ share }) => share);
    expect(shares[0]).toBeLessThan(shares[1]!);
    expect(Math.abs(told.state.step)).toBe(0);
  });

  it('gives up a question for forces when there is another, and tells of all the living', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'seek', step: 40 });
    const { census } = await told.ask('census', { layer: 'motes' });
    const key = census.keys[0] ?? 0;
    told.tell({ kind: 'pulls', id: 50, layer: 'motes', key });
    const { pulls } = await told.ask('pulls', { layer: 'motes', key });
    expect(told.of('pulls').find(({ id }) => id === 50)!.pulls).toBeNull();
    expect(pulls).not.toBeNull();
    const { positions, step } = await told.ask('inspect', { layer: 'motes' });
    expect(step).toBe(40);
    expect(positions.length).toBeGreaterThan(30);
  });

  it('refuses a question that it cannot answer, and goes on', () => {
    const heard: FromSimulation[] = [];
    const simulation = new Simulation((message) => {
      if (message.kind === 'hash' && message.id === 1) throw new Error('there is no room');
      heard.push(message);
    });
    simulation.take({ kind: 'hash', id: 1 });
    simulation.take({ kind: 'hash', id: 2 });
    expect(heard).toEqual([
      { kind: 'refused', id: 1, sentence: 'there is no room' },
      { kind: 'hash', id: 2, step: 0, hash: null },
    ]);
  });

  it('lets go at the step that is seen, takes what comes from outside, and begins anew without it', async () => {
    const told = new Told(sparks());
    told.tell({ kind: 'seek', step: 50 });
    told.tell({ kind: 'letGo' });
    await told.ask('settled');
    expect(told.state).toMatchObject({ isLetGo: true, letGoStep: 50 });
    told.tell({ kind: 'strike', from: [0, 1, 3], to: [0, 1, 0], beside: null });
    expect(told.of('outside').at(-1)!.outside.strikes).toHaveLength(1);
    told.tell({ kind: 'outside', outside: { strikes: [], signals: [] } });
    told.tell({ kind: 'seek', step: 10 });
    await told.ask('settled');
    expect(told.state).toMatchObject({ isLetGo: false, step: 10 });
  });
});
