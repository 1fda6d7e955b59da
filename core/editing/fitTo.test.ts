import { describe, expect, it } from 'vitest';
import {
  atBone,
  atEffect,
  collectionOf,
  type Effect,
  newDrawn,
  newEffect,
  newLayer,
  setNumber,
} from '../document/index.ts';
import { fitSource } from './fitTo.ts';

function two(): Effect {
  const effect = newEffect('Test', 1);
  const [a, b] = [newLayer('Ring', 1), newLayer('Dust', 2)];
  a.source = { kind: 'ring', place: atEffect([1, 2, 3], [0, 30, 0]) };
  setNumber(a, 'source.radius', 0.6);
  b.source = { kind: 'cylinder', place: atEffect() };
  effect.layers = collectionOf([
    ['a', a],
    ['b', b],
  ]);
  return effect;
}
const BOX = { low: [-0.3, 0, -0.2], high: [0.3, 1.8, 0.2] } as const;

describe('a source that is fitted', () => {
  it('to another layer stands there, is turned so and is as wide', () => {
    const effect = two();
    fitSource(effect, 'b', { kind: 'layer', layer: 'a' }, null);
    const { source, settings } = effect.layers.byId['b']!;
    expect('place' in source && source.place).toMatchObject({ offset: [1, 2, 3], turn: [0, 30, 0] });
    expect(settings['source.radius'].base).toEqual({ kind: 'fixed', value: 0.6 });
  });

  it('as a shared measure is as wide as the other from then on', () => {
    const effect = two();
    fitSource(effect, 'b', { kind: 'layer', layer: 'a' }, null, ['m', 'n']);
    const [a, b] = ['a', 'b'].map((id) => effect.layers.byId[id]!.settings['source.radius'].base);
    expect(a).toEqual({ kind: 'measure', measure: 'm' });
    expect(b).toEqual(a);
    expect(effect.measures.byId['m']).toMatchObject({ value: 0.6, quantity: 'length' });
  });

  it('at a point, drawn as a mesh, makes the mesh as large', () => {
    const effect = two();
    const dome = effect.layers.byId['b']!;
    dome.source = { kind: 'point', place: atEffect() };
    dome.drawn = newDrawn('mesh');
    fitSource(effect, 'b', { kind: 'thing', thing: 'tallow' }, BOX);
    expect(dome.settings['life.size'].base).toEqual({ kind: 'fixed', value: 1.8 });
  });

  it('to a figure or a bone is about its middle, as wide and as tall', () => {
    const effect = two();
    fitSource(effect, 'b', { kind: 'thing', thing: 'sedge' }, BOX);
    const { source, settings } = effect.layers.byId['b']!;
    expect('place' in source && source.place).toMatchObject({ kind: 'thing', thing: 'sedge', offset: [0, 0.9, 0] });
    expect(settings['source.radius'].base).toEqual({ kind: 'fixed', value: 0.3 });
    expect(settings['source.length'].base).toEqual({ kind: 'fixed', value: 1.8 });
    effect.layers.byId['b']!.source = { kind: 'box', place: atEffect() };
    fitSource(effect, 'b', { kind: 'bone', thing: 'sedge', bone: 'head' }, BOX);
    expect(effect.layers.byId['b']!.source).toMatchObject({ place: atBone('sedge', 'head', [0, 0.9, 0]) });
    expect(effect.layers.byId['b']!.settings['source.size'].base).toEqual({ kind: 'fixed', value: [0.6, 1.8, 0.4] });
  });
});
