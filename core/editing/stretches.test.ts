import { describe, expect, it } from 'vitest';
import { findings } from '../checks/index.ts';
import { burst, collectionOf, newEffect, newLayer, setNumber, type Effect } from '../document/index.ts';
import { playAlone } from '../simulation/index.ts';
import { playingOf, setPlaying, setStretch } from './stretches.ts';

function withBurst(at: number, opening = 0, closing = 1): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  setNumber(layer, 'births.rate', 0);
  layer.bursts = collectionOf([['b', burst('hold', at, 12)]]);
  effect.layers = collectionOf([['motes', layer]]);
  effect.stretches = { opening, hold: { kind: 'continuing', seconds: 4 }, closing, preRoll: 0 };
  return effect;
}

describe('a hold that is taken away', () => {
  it.each([
    [0.4, 0.5, 1, { stretch: 'closing', at: 0.4 }],
    [3, 0.5, 1, { stretch: 'closing', at: 0 }],
    [0.2, 0.5, 0, { stretch: 'opening', at: 0.2 }],
    [3, 0.5, 0, { stretch: 'opening', at: 0.5 - 1 / 60 }],
  ])('lets a burst %d s into it come, with %d s of opening and %d s of closing', (at, opening, closing, expected) => {
    const effect = withBurst(at, opening, closing);
    setStretch(effect, 'hold', 0);
    expect(effect.layers.byId['motes']!.bursts.byId['b']).toMatchObject(expected);
    const world = playAlone(effect, new Map());
    world.advance(Math.ceil((opening + closing) * 60));
    expect(world.counts()[0]!.born).toBe(12);
    const said = findings(effect, new Map(), { refused: {}, isBudgetFull: false }).map(({ sentence }) => sentence);
    expect(said.filter((sentence) => sentence.includes('never comes'))).toEqual([]);
  });

  it('leaves what is in other stretches alone, and is a hold again when it is given a length', () => {
    const effect = withBurst(0.4);
    effect.layers.byId['motes']!.bursts.byId['b']!.stretch = 'closing';
    setStretch(effect, 'hold', 0.05);
    expect(effect.layers.byId['motes']!.bursts.byId['b']).toMatchObject({ stretch: 'closing', at: 0.4 });
    setStretch(effect, 'hold', 2);
    expect(effect.stretches.hold).toEqual({ kind: 'continuing', seconds: 2 });
  });
});

describe('how an effect plays', () => {
  it('is once, held or looped; a hold keeps its length between the two, and has one of its own after once', () => {
    const effect = withBurst(0.4);
    effect.stretches.hold = { kind: 'continuing', seconds: 2.5 };
    setPlaying(effect, 'looped');
    expect(effect.stretches.hold).toEqual({ kind: 'seamless', seconds: 2.5 });
    expect(playingOf(effect)).toBe('looped');
    setPlaying(effect, 'once');
    expect(effect.stretches.hold).toEqual({ kind: 'none' });
    expect(effect.layers.byId['motes']!.bursts.byId['b']!.stretch).toBe('closing');
    setPlaying(effect, 'held');
    expect(effect.stretches.hold).toEqual({ kind: 'continuing', seconds: 4 });
  });
});
