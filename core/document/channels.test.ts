import { describe, expect, it } from 'vitest';
import { carryChannel, channelUse, dropChannel } from './channels.ts';
import { collectionOf } from '../settings/index.ts';
import type { Effect } from './schema/index.ts';
import { curveShaper, newEffect, newForce, newLayer } from './make.ts';
import { parseEffect } from './parse.ts';

function withHeat(): Effect {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([
    ['motes', newLayer('Motes', 1)],
    ['sparks', newLayer('Sparks', 2)],
  ]);
  carryChannel(effect, 'motes', 'heat', 'heat');
  return effect;
}
const byHeat = () =>
  collectionOf([
    [
      's',
      {
        ...curveShaper([
          [0, 0],
          [1, 1],
        ]),
        reads: { kind: 'channel', channel: 'heat' } as const,
      },
    ],
  ]);

describe('channels', () => {
  it('are made with the first layer that carries them', () => {
    const effect = withHeat();
    expect(effect.channels.byId['heat']!.name).toBe('heat');
    carryChannel(effect, 'sparks', 'heat', 'another name');
    expect(effect.channels.byId['heat']!.name).toBe('heat');
    expect(channelUse(effect, 'heat').carriedBy).toEqual(['motes', 'sparks']);
    expect(() => parseEffect(effect)).not.toThrow();
  });

  it('tell which settings they shape, of which layer and force', () => {
    const effect = withHeat();
    effect.layers.byId['sparks']!.settings['life.size'].shapers = byHeat();
    const force = newForce('gravity');
    if (force.kind === 'gravity') force.settings.strength.shapers = byHeat();
    effect.layers.byId['motes']!.forces = collectionOf([['g', force]]);
    expect(channelUse(effect, 'heat').readBy).toEqual([
      { layer: 'motes', of: 'gravity', setting: 'strength' },
      { layer: 'sparks', of: '', setting: 'life.size' },
    ]);
  });

  it('go when nothing carries or reads them, and stay while something does', () => {
    const effect = withHeat();
    effect.layers.byId['sparks']!.settings['life.size'].shapers = byHeat();
    dropChannel(effect, 'motes', 'heat');
    expect(effect.channels.order).toEqual(['heat']);
    effect.layers.byId['sparks']!.settings['life.size'].shapers = collectionOf([]);
    dropChannel(effect, 'motes', 'heat');
    expect(effect.channels.order).toEqual([]);
  });

  it('that do not exist are refused, with the path', () => {
    const effect = withHeat();
    effect.channels = collectionOf([]);
    expect(() => parseEffect(effect)).toThrow(/no channel "heat"/);
    const reading = newEffect('Test', 1);
    const layer = newLayer('Motes', 1);
    layer.settings['life.size'].shapers = byHeat();
    reading.layers = collectionOf([['motes', layer]]);
    expect(() => parseEffect(reading)).toThrow(/no channel "heat"/);
  });

  it('cannot be shaped by channels', () => {
    const effect = withHeat();
    effect.layers.byId['motes']!.channels.byId['heat']!.shapers = byHeat();
    expect(() => parseEffect(effect)).toThrow(/cannot be shaped by channel/);
  });
});
