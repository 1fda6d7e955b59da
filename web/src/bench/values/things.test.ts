import { atBone, collectionOf, newEffect, newLayer, type Effect } from '@jinx/core/document';
import { drawn } from '@jinx/core/building';
import { expect, it } from 'vitest';
import { placeThing } from './things';

const ASSET = 'a'.repeat(64);
function placed(use: (effect: Effect) => unknown): Effect {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([['motes', newLayer('Motes', 5)]]);
  use(effect);
  placeThing(effect, 'Sedge', ASSET, 'new');
  return effect;
}

it('a figure that a layer is drawn on the skin of takes the place that is missing', () => {
  const effect = placed((draft) => drawn(draft.layers.byId['motes']!, 'body', {}, { thing: 'gone' }));
  expect(effect.stage.things.order).toEqual(['gone']);
});

it('and so does one whose bone a source hangs on', () =>
  expect(
    placed((draft) => (draft.layers.byId['motes']!.source = { kind: 'point', place: atBone('arm', 'hand') })).stage
      .things.order,
  ).toEqual(['arm']));

it('otherwise a figure stands under an id of its own', () =>
  expect(placed(() => undefined).stage.things.order).toEqual(['new']));
