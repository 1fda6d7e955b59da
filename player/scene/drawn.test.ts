import {
  collectionOf,
  LAYER_SETTINGS,
  newDrawn,
  newEffect,
  newLayer,
  type Effect,
  type Layer,
} from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { drawnLayers } from './drawn.ts';

function effectOf(shape: (layer: Layer) => void): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  effect.layers = collectionOf([['m', layer]]);
  shape(layer);
  return effect;
}

describe('how a layer is drawn', () => {
  const CHOICES = [
    'appearance.facing',
    'appearance.blend',
    'appearance.order',
    'appearance.depth',
    'appearance.lit',
  ] as const;
  it.each(CHOICES)('with %s muted is as it is by default', (name) => {
    const declared = LAYER_SETTINGS[name];
    for (const value of declared.choices) {
      const chosen = effectOf((layer) => (layer.settings[name].base = { kind: 'fixed', value }));
      const muted = effectOf((layer) =>
        Object.assign(layer.settings[name], { base: { kind: 'fixed', value }, muted: true }),
      );
      expect(drawnLayers(muted)).toEqual(drawnLayers(effectOf(() => undefined)));
      if (value !== declared.byDefault) expect(drawnLayers(chosen)).not.toEqual(drawnLayers(muted));
    }
  });

  it('as haze bends as by default where that is muted', () => {
    const bends = (muted: boolean) => {
      const effect = effectOf((layer) => {
        const drawn = newDrawn('haze');
        Object.assign(drawn.settings.bends, { base: { kind: 'fixed', value: 'by a picture' }, muted });
        layer.drawn = drawn;
      });
      const { drawn } = drawnLayers(effect)[0]!;
      return drawn.kind === 'haze' && drawn.bends;
    };
    expect(bends(false)).toBe('by a picture');
    expect(bends(true)).not.toBe('by a picture');
  });
});
