import { describe, expect, it } from 'vitest';
import { collectionOf, newEffect, newLayer, setNumber, type Effect } from '@jinx/core/document';
import { EffectClock, Frame, playAlone } from '@jinx/core/simulation';
import { kernelBytes } from '../../core/testing/kernelBytes.ts';
import { InstantQueue } from './instantQueue.ts';
import type { FromInstants } from './protocol.ts';

function sparks(rate: number): Effect {
  const effect = newEffect('Sparks', 4);
  effect.stretches = { opening: 0.5, hold: { kind: 'continuing', seconds: 1 }, closing: 0.5, preRoll: 0 };
  const layer = newLayer('Motes', 5);
  setNumber(layer, 'births.rate', rate);
  setNumber(layer, 'births.life', 0.6);
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}

function begun() {
  const heard: FromInstants[] = [];
  const queue = new InstantQueue((message) => heard.push(message));
  queue.take({ kind: 'start', kernels: kernelBytes() });
  const run = (id: number, effect: Effect, seconds: number[]) =>
    queue.take({ kind: 'run', id, effect, rigs: [], budget: 1000, seconds });
  return { heard, queue, run };
}

describe('instants of effects', () => {
  it('come run after run, each as a world of its own has it', async () => {
    const { heard, run } = begun();
    const [slow, dense] = [sparks(20), sparks(300)];
    run(1, slow, [0.2, 1]);
    run(2, dense, [0.4]);
    await expect.poll(() => heard.length).toBe(3);
    expect(heard.map(({ id }) => id)).toEqual([1, 1, 2]);
    const living = heard.map((message) => {
      if (message.kind !== 'instant') throw new Error(message.sentence);
      const { buffer } = message;
      return new Frame(buffer).particles;
    });
    const alone = (effect: Effect, seconds: number) => {
      const world = playAlone(effect, new Map(), {}, { kernels: kernelBytes(), budget: 1000 });
      world.advance(new EffectClock(effect.stretches).stepAt(seconds));
      return world.living;
    };
    expect(living).toEqual([alone(slow, 0.2), alone(slow, 1), alone(dense, 0.4)]);
  });

  it('are not computed once nobody waits for them', async () => {
    const { heard, queue, run } = begun();
    run(1, sparks(20), [0.2]);
    run(2, sparks(20), [0.2]);
    queue.take({ kind: 'stop', id: 1 });
    await expect.poll(() => heard.map(({ id }) => id)).toEqual([2]);
  });

  it('are refused where they cannot be computed, and those after them are not', async () => {
    const { heard, queue, run } = begun();
    queue.take({ kind: 'run', id: 1, effect: {} as Effect, rigs: [], budget: 1000, seconds: [0.2] });
    run(2, sparks(20), [0.2]);
    await expect.poll(() => heard.map(({ kind }) => kind)).toEqual(['refused', 'instant']);
  });
});
