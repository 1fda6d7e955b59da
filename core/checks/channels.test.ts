import { describe, expect, it } from 'vitest';
import {
  carryChannel,
  collectionOf,
  curveShaper,
  newEffect,
  newLayer,
  structuredCopy,
  type Effect,
} from '../document/index.ts';
import { findings } from './findings.ts';

function shapedByHeat(): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 1);
  const shaper = curveShaper([
    [0, 0.5],
    [1, 1],
  ]);
  layer.settings['life.size'].shapers = collectionOf([
    ['s', { ...shaper, reads: { kind: 'channel', channel: 'heat' } }],
  ]);
  effect.layers = collectionOf([['motes', layer]]);
  effect.channels = collectionOf([['heat', { name: 'heat' }]]);
  return effect;
}
const found = (effect: Effect) =>
  findings(effect, new Map(), { refused: {}, isBudgetFull: false }).filter(({ id }) => id.includes('channel'));

describe('a channel that nothing carries', () => {
  it('is found where it shapes something, and its mend lets the particles carry it', () => {
    const effect = shapedByHeat();
    const [finding] = found(effect);
    expect(finding!.sentence).toBe('Motes is shaped by heat, which its particles do not carry: it counts as 0.');
    const draft = structuredCopy(effect);
    finding!.mend!.apply(draft);
    expect(draft.layers.byId['motes']!.channels.order).toEqual(['heat']);
    expect(found(draft)).toEqual([]);
  });

  it('is no matter where nothing reads it, or it is carried', () => {
    const effect = shapedByHeat();
    carryChannel(effect, 'motes', 'heat', 'heat');
    expect(found(effect)).toEqual([]);
    effect.layers.byId['motes']!.settings['life.size'].shapers = collectionOf([]);
    effect.layers.byId['motes']!.channels = collectionOf([]);
    expect(found(effect)).toEqual([]);
  });
});
