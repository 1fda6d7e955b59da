import { describe, expect, it } from 'vitest';
import { burst, collectionOf, setNumber, type Burst, type Effect, type Signal } from '../../document/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { playAlone } from '../world/world.ts';

const HOLD = 1;
/** Five sparks that wait for a signal, in an effect that opens for half a second and holds. */
const sparks = (tried: Signal['tried'], own: Partial<Burst> = {}, kind: 'continuing' | 'seamless' = 'continuing') =>
  effectOf((layer, effect) => {
    effect.stretches = { opening: 0.5, hold: { kind, seconds: HOLD }, closing: 1, preRoll: 0 };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 0.25);
    effect.signals = collectionOf([['contact', { name: 'Contact', tried }]]);
    layer.bursts = collectionOf([['b', { ...burst('opening', 0.1, 5), signal: 'contact', ...own }]]);
  });
/** Births up to each step. */
function bornAt(effect: Effect, steps: readonly number[], inputs = {}): number[] {
  const world = playAlone(effect, new Map(), inputs);
  return steps.map((step) => {
    world.advance(step);
    return world.counts()[0]!.born;
  });
}

describe('a burst that waits for a signal', () => {
  it('never comes while nothing announces it', () => {
    expect(bornAt(sparks(null), [200])).toEqual([0]);
  });

  it('comes so long after the signal is tried, once in the opening, in each turn of the hold, and at its borders too', () => {
    expect(bornAt(sparks({ stretch: 'opening', at: 0.2 }), [18, 19, 200])).toEqual([0, 5, 5]);
    // Past the end of the stretch in which it was announced.
    expect(bornAt(sparks({ stretch: 'opening', at: 0.45 }), [33, 34, 200])).toEqual([0, 5, 5]);
    expect(bornAt(sparks({ stretch: 'hold', at: 0.95 }), [93, 94, 153, 154])).toEqual([0, 5, 5, 10]);
    const again = sparks({ stretch: 'opening', at: 0 }, { at: 0, times: 3, every: 0.5 });
    expect(bornAt(again, [1, 30, 31, 60, 61, 200])).toEqual([5, 5, 10, 10, 15, 15]);
  });

  it('comes in every turn alike where the hold has no seam', () => {
    const effect = sparks({ stretch: 'hold', at: 0.95 }, {}, 'seamless');
    // 0.05 s into the second turn, and so into each.
    const counts = bornAt(effect, [32, 34, 92, 94, 152, 154]);
    expect(counts.map((count) => count - counts[0]!)).toEqual([0, 5, 5, 10, 10, 15]);
  });

  it('comes when the game announces it, each time, and to the same bits however it was reached', () => {
    const effect = sparks(null);
    const played = playAlone(effect, new Map());
    for (const step of [20, 50]) {
      played.advance(step);
      played.announce('contact');
      played.announce('elsewhere');
    }
    played.advance(57);
    expect(played.counts()[0]!.born).toBe(10);
    const { signals } = played;
    expect(signals.filter(({ signal }) => signal === 'contact').map(({ step }) => step)).toEqual([20, 50]);
    const again = playAlone(effect, new Map(), { signals });
    again.advance(57);
    expect(again.hash()).toBe(played.hash());
    played.advance(10);
    played.advance(57);
    expect(played.hash()).toBe(again.hash());
    played.setLetGo(40);
    played.setLetGo(undefined);
    played.advance(57);
    expect(played.hash()).toBe(again.hash());
    played.setSignals([]);
    played.advance(57);
    expect(played.counts()[0]!.born).toBe(0);
  });

  it('is computed anew when it is tried elsewhere, and only for whom it concerns', () => {
    const effect = sparks({ stretch: 'opening', at: 0.2 });
    const world = playAlone(effect, new Map());
    world.advance(60);
    const later = {
      ...effect,
      signals: collectionOf([['contact', { name: 'Contact', tried: { stretch: 'opening' as const, at: 0.4 } }]]),
    };
    world.adopt(later);
    world.advance(27);
    expect(world.counts()[0]!.born).toBe(0);
    world.advance(31);
    expect(world.counts()[0]!.born).toBe(5);
    const taken = world.stepsTaken;
    world.adopt({
      ...later,
      signals: collectionOf([['contact', { ...later.signals.byId['contact']!, name: 'Touch' }]]),
    });
    world.advance(31);
    expect(world.stepsTaken).toBe(taken);
  });
});
