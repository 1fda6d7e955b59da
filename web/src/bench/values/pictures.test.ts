import { collectionOf, newEffect, newLayer, stepsOf } from '@jinx/core/document';
import { describe, expect, it } from 'vitest';
import { isOpaque, showPicture } from './pictures';

const asset = { hash: 'a'.repeat(64), name: 'embers' };
const effectOf = () => {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([['m', newLayer('Motes', 5)]]);
  return effect;
};
const stepsAfter = (...covers: boolean[]) => {
  const effect = effectOf();
  covers.forEach((each, n) => showPicture(effect, 'm', asset, `p${n}`, each));
  return stepsOf(effect, effect.layers.byId['m']!).map(({ item }) => item);
};

describe('a picture that a layer shows', () => {
  it('takes the place of an untouched soft dot', () => {
    expect(stepsAfter(false)).toMatchObject([{ kind: 'picture', picture: { asset: asset.hash } }]);
  });
  it('is opaque by its brightness where it has no transparency, else by its alpha', () => {
    const opacityAfter = (...covers: boolean[]) =>
      stepsAfter(...covers).map((step) => step.kind === 'picture' && step.settings.opacity.base.value);
    expect(opacityAfter(true)).toEqual(['its brightness']);
    expect(opacityAfter(false)).toEqual(['its alpha']);
    // What stands there is kept once it is no more what it began with.
    expect(opacityAfter(true, false)).toEqual(['its brightness']);
  });
  it('has transparency where one pixel has', () => {
    const pixels = new Uint8Array(16).fill(255);
    expect(isOpaque(pixels)).toBe(true);
    pixels[11] = 254;
    expect(isOpaque(pixels)).toBe(false);
  });
});
