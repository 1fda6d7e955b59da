import { describe, expect, it } from 'vitest';
import { picture, step } from '../building/index.ts';
import {
  collectionOf,
  newDrawn,
  newEffect,
  newLayer,
  newRibbon,
  parseEffect,
  stepsOf,
  structuredCopy,
  type DrawnAs,
  type Effect,
  type Layer,
} from '../document/index.ts';
import { drawLayerAs, drawnNow, type DrawnBefore } from './drawnAs.ts';

const WATER = 'a'.repeat(64);
function effectOf(shape: (layer: Layer) => void = () => undefined): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  shape(layer);
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}
const motes = (effect: Effect) => effect.layers.byId['motes']!;
const drawn = (effect: Effect, as: DrawnAs, before: DrawnBefore | null = null): Effect => {
  const draft = structuredCopy(effect);
  drawLayerAs(draft, 'motes', as, before);
  return parseEffect(draft);
};
const kinds = (effect: Effect) => stepsOf(effect, motes(effect)).map(({ item }) => item.kind);
const baseOf = (effect: Effect, name: 'appearance.blend' | 'appearance.lit') =>
  motes(effect).settings[name].base.value;

describe('a layer that is drawn as something else', () => {
  it('and back again is as it was: its look, its pictures, its blending and its light', () => {
    const effect = effectOf((layer) => {
      layer.look = {
        kind: 'own',
        steps: collectionOf([
          ['p', picture(WATER, 'water')],
          ['l', step('levels')],
        ]),
      };
      layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'mixed' };
    });
    const mesh = drawn(effect, newDrawn('mesh'));
    expect(kinds(mesh)).toEqual(['picture', 'levels']);
    expect(drawn(mesh, { kind: 'sprite' }, drawnNow(motes(effect)))).toEqual(effect);
    expect(drawn(effectOf(), newDrawn('mesh'), drawnNow(motes(mesh)))).toEqual(mesh);
  });

  it('as a mesh is solid and lit, without the shape of a dot', () => {
    const mesh = drawn(effectOf(), newDrawn('mesh'));
    expect([baseOf(mesh, 'appearance.blend'), baseOf(mesh, 'appearance.lit'), kinds(mesh)]).toEqual([
      'solid',
      'card',
      [],
    ]);
  });

  it('from a mesh that always was one adds its light and has a shape that is seen', () => {
    const sprite = drawn(drawn(effectOf(), newDrawn('mesh')), { kind: 'sprite' });
    expect(sprite).toEqual(effectOf());
  });

  it('keeps a solid blending that was chosen for a sprite', () => {
    const effect = effectOf(
      (layer) => (layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'normal' }),
    );
    expect(baseOf(drawn(drawn(effect, newDrawn('mesh')), { kind: 'sprite' }), 'appearance.blend')).toBe('normal');
  });

  it('leaves a look that has a name alone', () => {
    const effect = effectOf();
    effect.looks = collectionOf([['glow', { name: 'Glow', steps: collectionOf([['p', picture(WATER, 'water')]]) }]]);
    motes(effect).look = { kind: 'named', look: 'glow', changes: {} };
    const before = drawnNow(motes(effect));
    const mesh = drawn(effect, newDrawn('mesh'));
    expect(motes(mesh).look).toEqual(motes(effect).look);
    expect(motes(drawn(mesh, { kind: 'sprite' }, before)).look).toEqual(motes(effect).look);
  });

  it('does without what was taken out of the effect meanwhile', () => {
    const effect = effectOf(
      (layer) => (layer.drawn = { ...newDrawn('mesh'), parts: [{ part: 'leaf', look: 'gone' }] }),
    );
    expect(motes(drawn(effectOf(), newDrawn('mesh'), drawnNow(motes(effect)))).drawn).toEqual(newDrawn('mesh'));
    const ribbon = newRibbon('blade');
    const hung = {
      ...ribbon,
      from: { kind: 'dial', dial: 'gone', offset: [0, 0, 0], turn: [0, 0, 0], keys: collectionOf([]) },
    };
    const blade = drawnNow({ ...motes(effectOf()), drawn: hung as never });
    expect(motes(drawn(effectOf(), ribbon, blade)).drawn).toEqual(ribbon);
  });
});
