import { describe, expect, it } from 'vitest';
import { collectionOf } from '../settings/index.ts';
import { areShapedBy, concerns, forcesOn, surfacesFor } from './concerns.ts';
import type { Surface } from './schema/index.ts';
import { atEffect, curveShaper, newEffect, newForce, newLayer, newSurface } from './make.ts';

function family() {
  const effect = newEffect('Test', 1);
  const [motes, sparks] = [newLayer('Motes', 1), newLayer('Sparks', 2)];
  motes.forces = collectionOf([['own', newForce('gravity')]]);
  effect.layers = collectionOf([
    ['motes', motes],
    ['sparks', sparks],
  ]);
  effect.forces = collectionOf([
    ['all', { force: newForce('wind'), layers: [] }],
    ['some', { force: newForce('drag'), layers: ['sparks'] }],
  ]);
  effect.surfaces = collectionOf<Surface>([
    ['ground', newSurface('ground', { place: atEffect() })],
    ['ball', { ...newSurface('sphere', { place: atEffect() }), layers: ['motes'] }],
  ]);
  return effect;
}
const ids = (list: { id: string }[]) => list.map(({ id }) => id);

describe('what is for a layer', () => {
  it('is what lists it, and what lists none', () => {
    expect(concerns({ layers: [] }, 'motes')).toBe(true);
    expect(concerns({ layers: ['motes'] }, 'motes')).toBe(true);
    expect(concerns({ layers: ['sparks'] }, 'motes')).toBe(false);
  });

  it('are its own forces, then those of the effect that act on it', () => {
    expect(forcesOn(family(), 'motes').map(({ id, isShared }) => [id, isShared])).toEqual([
      ['own', false],
      ['all', true],
    ]);
    expect(ids(forcesOn(family(), 'sparks'))).toEqual(['all', 'some']);
  });

  it('are the surfaces that its particles meet', () => {
    expect(ids(surfacesFor(family(), 'motes'))).toEqual(['ground', 'ball']);
    expect(ids(surfacesFor(family(), 'sparks'))).toEqual(['ground']);
  });
});

describe('settings shaped by something', () => {
  const shaped = () => {
    const { settings } = newLayer('Motes', 1);
    const shaper = curveShaper([
      [0, 0],
      [1, 1],
    ]);
    settings['life.opacity'].shapers = collectionOf([]);
    settings['life.size'].shapers = collectionOf([['s', { ...shaper, reads: { kind: 'distance' } }]]);
    return settings;
  };

  it('are those of which any reads it, and nothing else', () => {
    expect(areShapedBy(shaped(), ['distance'])).toBe(true);
    expect(areShapedBy(shaped(), ['speed', 'age'])).toBe(false);
    expect(areShapedBy({}, ['distance'])).toBe(false);
  });

  it('are not shaped where the shaper, or the setting, is muted', () => {
    const muted = shaped();
    muted['life.size'].muted = true;
    expect(areShapedBy(muted, ['distance'])).toBe(false);
    const off = shaped();
    off['life.size'].shapers.byId['s']!.muted = true;
    expect(areShapedBy(off, ['distance'])).toBe(false);
  });
});
