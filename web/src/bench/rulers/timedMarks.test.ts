import { burst, collectionOf, newEffect, newLayer } from '@jinx/core/document';
import { sheetClock } from '@jinx/core/checks';
import { describe, expect, it } from 'vitest';
import { burstAt, copyMark, marksOf, moveMark, removeMark } from './timedMarks';

const effect = newEffect('Bells', 1);
effect.stretches = { opening: 1, hold: { kind: 'continuing', seconds: 2 }, closing: 1, preRoll: 0 };
const clock = sheetClock(effect);
const layer = () => {
  const own = newLayer('Toll', 1);
  own.bursts = collectionOf([
    ['a', burst('opening', 0.5, 10)],
    ['b', { ...burst('hold', 0.25, 40), times: 3, every: 0.5 }],
  ]);
  return own;
};

describe('marks on the time sheet', () => {
  it('stand where their stretch begins, the largest highest', () => {
    const [a, b] = marksOf(layer(), effect, clock);
    expect([a!.seconds, b!.seconds]).toEqual([0.5, 1.25]);
    expect(a!.share).toBeLessThan(b!.share);
    expect(b!.share).toBe(1);
  });

  it('moved over a border they belong to the next stretch', () => {
    const own = layer();
    const [a] = marksOf(own, effect, clock);
    moveMark(own, a!, clock, 1.75);
    expect(own.bursts.byId['a']).toMatchObject({ stretch: 'hold', at: 0.75 });
    moveMark(own, a!, clock, 3.5);
    expect(own.bursts.byId['a']).toMatchObject({ stretch: 'closing', at: 0.5 });
    moveMark(own, a!, clock, 9);
    expect(own.bursts.byId['a']).toMatchObject({ stretch: 'closing', at: 1 });
  });

  it('of what waits for a signal stand where that is tried, and never before it', () => {
    const own = layer();
    own.bursts.byId['a']!.signal = 'contact';
    own.bursts.byId['a']!.at = 0.2;
    const untold = { ...effect, signals: collectionOf([['contact', { name: 'Contact', tried: null }]]) };
    expect(marksOf(own, untold, clock).map(({ id }) => id)).toEqual(['b']);
    const tried = { name: 'Contact', tried: { stretch: 'hold' as const, at: 0.5 } };
    const told = { ...effect, signals: collectionOf([['contact', tried]]) };
    const [a] = marksOf(own, told, clock);
    expect(a!.seconds).toBeCloseTo(1.7);
    moveMark(own, a!, clock, 2.5);
    expect(own.bursts.byId['a']).toMatchObject({ signal: 'contact', at: 1 });
    moveMark(own, a!, clock, 0.3);
    expect(own.bursts.byId['a']).toMatchObject({ signal: 'contact', at: 0 });
  });

  it('are copied with their count and taken away', () => {
    const own = layer();
    const [a] = marksOf(own, effect, clock);
    copyMark(own, a!, clock, { seconds: 2, id: 'c' });
    expect(own.bursts.byId['c']).toEqual({ ...burst('hold', 1, 10) });
    removeMark(own, a!);
    expect(own.bursts.order).toEqual(['b', 'c']);
  });

  it('a new one stands in the stretch it was asked for', () => {
    expect(burstAt(clock, 0.2, 5)).toEqual(burst('opening', 0.2, 5));
    expect(burstAt(clock, 3, 5)).toEqual(burst('closing', 0, 5));
  });
});
