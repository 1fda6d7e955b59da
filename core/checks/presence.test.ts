import { describe, expect, it } from 'vitest';
import { atBorder, burst, collectionOf, newEffect, newLayer, newLink, setNumber } from '../document/index.ts';
import type { Effect, Layer } from '../document/index.ts';
import { deadSpans, presenceOf, PRESENCE_CELLS } from './presence.ts';

function effectOf(layers: readonly [string, Layer][], stretches: Partial<Effect['stretches']> = {}): Effect {
  const effect = newEffect('Reeds', 1);
  effect.layers = collectionOf(layers);
  effect.stretches = { opening: 4, hold: { kind: 'none' }, closing: 0, preRoll: 0, ...stretches };
  return effect;
}
const puffs = (...bursts: [at: number, life: number][]): Layer => {
  const layer = newLayer('Puffs', 1);
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.life', bursts[0]![1]);
  layer.bursts = collectionOf(bursts.map(([at], n) => [`b${n}`, burst('opening', at, 20)]));
  return layer;
};
/** Seconds of the sheet that are marked. */
const seconds = (marks: Uint8Array, length: number) =>
  (marks.reduce((sum, n) => sum + n, 0) / PRESENCE_CELLS) * length;

describe('presence', () => {
  it('a burst is present for its lifetime, and the rest of the sheet is dead', () => {
    const effect = effectOf([['puffs', puffs([1, 0.5])]]);
    const { alive } = presenceOf(effect).get('puffs')!;
    expect(seconds(alive, 4)).toBeGreaterThan(0.49);
    expect(seconds(alive, 4)).toBeLessThan(0.56);
    const spans = deadSpans(effect);
    expect(spans.length).toBe(2);
    expect(spans[0]!.from).toBe(0);
    expect(spans[0]!.to).toBeCloseTo(1, 1);
    expect(spans[1]!.from).toBeCloseTo(1.5, 1);
    expect(spans[1]!.to).toBe(4);
  });

  it('a rate lasts from when births begin until its last have died', () => {
    const layer = newLayer('Motes', 1);
    setNumber(layer, 'births.life', 1);
    layer.births = { from: { ...atBorder('start'), seconds: 1 }, until: { ...atBorder('start'), seconds: 2 } };
    const [before, after, ...none] = deadSpans(effectOf([['motes', layer]]));
    expect(before!.to).toBeCloseTo(1, 1);
    expect(after!.from).toBeCloseTo(3, 1);
    expect(none).toEqual([]);
  });

  it('in a hold what lives on over its end fills the next turn’s beginning', () => {
    const layer = newLayer('Tolls', 1);
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 1);
    layer.bursts = collectionOf([['b', burst('hold', 1.5, 20)]]);
    const effect = effectOf([['tolls', layer]], {
      opening: 0,
      hold: { kind: 'continuing', seconds: 2 },
      closing: 0,
    });
    const [dead, ...none] = deadSpans(effect);
    expect(none).toEqual([]);
    // The first time through nothing has come before it.
    expect(dead!.from).toBe(0);
    expect(dead!.to).toBeCloseTo(1.5, 1);
    effect.stretches.preRoll = 2;
    expect(deadSpans(effect)[0]!.from).toBeCloseTo(0.5, 1);
    setNumber(layer, 'births.life', 2.1);
    expect(deadSpans(effect)).toEqual([]);
  });

  it('births that end within a hold never come again, unless it repeats without a seam', () => {
    const layer = newLayer('Motes', 1);
    setNumber(layer, 'births.life', 0.5);
    layer.births.until = { ...atBorder('hold'), seconds: 1 };
    const effect = effectOf([['motes', layer]], { opening: 0, hold: { kind: 'continuing', seconds: 2 } });
    expect(seconds(presenceOf(effect).get('motes')!.again, 2)).toBe(0);
    effect.stretches.hold = { kind: 'seamless', seconds: 2 };
    expect(seconds(presenceOf(effect).get('motes')!.again, 2)).toBeGreaterThan(1.4);
  });

  it('links carry it on: what is set off at death begins when its parents die', () => {
    const parent = puffs([0.5, 1]);
    const child = newLayer('Spores', 2);
    setNumber(child, 'births.rate', 0);
    setNumber(child, 'births.life', 0.5);
    parent.links = collectionOf([['l', newLink('death', 'spores', 3)]]);
    const effect = effectOf([
      ['puffs', parent],
      ['spores', child],
    ]);
    const { alive } = presenceOf(effect).get('spores')!;
    const first = (alive.indexOf(1) / PRESENCE_CELLS) * 4;
    expect(first).toBeCloseTo(1.5, 1);
    expect(deadSpans(effect).at(-1)!.from).toBeCloseTo(2, 1);
    parent.links.byId['l']!.muted = true;
    expect(seconds(presenceOf(effect).get('spores')!.alive, 4)).toBe(0);
  });

  it('a layer that is hidden does not fill what is dead; standing ones always do', () => {
    const standing = newLayer('Shell', 1);
    setNumber(standing, 'births.rate', 0);
    setNumber(standing, 'births.standing', 1);
    const effect = effectOf([['shell', standing]]);
    expect(deadSpans(effect)).toEqual([]);
    standing.hidden = true;
    expect(deadSpans(effect)).toEqual([]);
    effect.layers = collectionOf([
      ['shell', standing],
      ['puffs', puffs([0, 0.5])],
    ]);
    expect(deadSpans(effect).length).toBe(1);
  });
});
