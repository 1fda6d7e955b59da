import { expect, it } from 'vitest';
import {
  collectionOf,
  diff,
  newEffect,
  newForce,
  newLayer,
  structuredCopy,
  type Effect,
  type Layer,
} from '../document/index.ts';
import { whyUnseen } from './unseen.ts';

function effectOf(shape: (layer: Layer, effect: Effect) => void = () => undefined): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Motes', 5);
  effect.layers = collectionOf([
    ['m', layer],
    ['o', newLayer('Others', 6)],
  ]);
  layer.forces = collectionOf([['v', newForce('vortex')]]);
  shape(layer, effect);
  return effect;
}
/** Why a change of the layer that is made to an effect is not seen. */
function why(before: Effect, change: (layer: Layer) => void, living = 9): string | null {
  const after = structuredCopy(before);
  change(after.layers.byId['m']!);
  return whyUnseen(after, diff(before, after), () => living);
}
const larger = (layer: Layer): void => void (layer.settings['life.size'].base = { kind: 'fixed', value: 0.7 });
const wrapDepth = (layer: Layer): void =>
  void (layer.settings['appearance.wrapDepth'].base = { kind: 'fixed', value: 2 });

it('a change that can be seen says nothing, nor does one of a name', () => {
  expect(why(effectOf(), larger)).toBeNull();
  expect(
    why(
      effectOf((layer) => (layer.hidden = true)),
      (layer) => void (layer.name = 'Dust'),
    ),
  ).toBeNull();
});

it('an axis acts on what leaves along it and on what leaves round it, and on nothing else', () => {
  const leaning = (layer: Layer): void =>
    void (layer.settings['motion.axis'].base = { kind: 'fixed', value: [1, 1, 0] });
  const launched = (value: string) =>
    why(
      effectOf((layer) => void (layer.settings['motion.launch'].base = { kind: 'fixed', value })),
      leaning,
    );
  expect([launched('axis'), launched('round')]).toEqual([null, null]);
  expect(launched('outward')).toMatch(/not launched along an axis/);
});

it('muting itself says nothing', () => {
  expect(why(effectOf(), (layer) => void (layer.settings['life.size'].muted = true))).toBeNull();
});

it.each([
  ['is hidden', effectOf((layer) => (layer.hidden = true)), larger, 9],
  ['seen alone', effectOf((_, effect) => (effect.layers.byId['o']!.solo = true)), larger, 9],
  [
    'quality',
    effectOf((layer, effect) => ((layer.quality.least = 'high'), (effect.quality.shown = 'low'))),
    larger,
    9,
  ],
  ['is muted', effectOf((layer) => (layer.settings['life.size'].muted = true)), larger, 9],
  ['does not wrap', effectOf(), wrapDepth, 9],
  [
    'is muted',
    effectOf((layer) => (layer.forces.byId['v']!.muted = true)),
    (layer: Layer): void => void (layer.forces.byId['v']!.place.offset = [0, 3, 0]),
    9,
  ],
  ['lives at this instant', effectOf(), larger, 0],
] as const)('says why it is not seen: %s', (words, before, change, living) => {
  expect(why(before, change, living)).toContain(words);
});
