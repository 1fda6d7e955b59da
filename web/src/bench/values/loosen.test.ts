import { collectionOf, newEffect, newForce, newLayer, setNumber } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { loosen, looseIn } from './loosen';

describe('loosening a chapter', () => {
  it('spreads every single number about what it was, says each, and leaves alone what is nothing', () => {
    const effect = newEffect('Loose', 1);
    const layer = newLayer('Motes', 2);
    setNumber(layer, 'motion.speed', 2);
    setNumber(layer, 'life.size', 0.05);
    layer.forces = collectionOf([['wind', newForce('wind')]]);
    effect.layers = collectionOf([['motes', layer]]);
    const said = loosen(effect, 'motes', 'motion', 0.2);
    expect(said).toEqual(['speed 1.6 – 2.4 m/s', 'wind strength 0.4 – 0.6/s']);
    expect(layer.settings['motion.speed'].base).toEqual({ kind: 'spread', low: 1.6, high: 2.4 });
    // The angle of the tangent is 0, sizes are of another chapter, and what is spread is not spread again.
    expect(layer.settings['motion.angle'].base).toEqual({ kind: 'fixed', value: 0 });
    expect(layer.settings['life.size'].base.kind).toBe('fixed');
    expect(looseIn(effect, 'motes', 'motion')).toEqual([]);
    // Beyond what may be, it is spread as far as may be.
    expect(loosen(effect, 'motes', 'life', 0.5)).toContain('opacity 50 – 100%');
  });
});
