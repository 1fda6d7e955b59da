import { expect, test } from './test.ts';
import { atEffect, burst, collectionOf, newDrawn, setNumber, type Effect } from '@jinx/core/document';
import { writePicture } from '@jinx/core/formats';
import { dot, hash2, keyOf, linearOf, subtract, unit, type Vec3 } from '@jinx/core/maths';
import { FOUR, lookAt, lookOf, LOOKS, type LookedAt } from '../core/testing/contract/looks.ts';
import { ASSETS, BOX, choose, METRE, MIDDLE_X, MIDDLE_Y, standing, VIEW, view } from './oneLayer.ts';
import { one } from './looks.ts';
import { shown, StageHarness, type Picture } from './stageHarness.ts';

const PICTURE = 'e'.repeat(64);
const stage = StageHarness.forFile({
  ...ASSETS,
  [PICTURE]: writePicture({ ...FOUR, rgba: Uint8Array.from(FOUR.rgba) }),
});
const STEP = 30;
const COLOUR = '#b0602a';

/** A card of a metre that is drawn with a look; a wall stands a tenth of a metre behind it. */
function carded(steps: (typeof LOOKS)[number]): Effect {
  return one((layer, effect) => {
    layer.look = lookOf(steps, PICTURE);
    setNumber(layer, 'births.standing', 0);
    setNumber(layer, 'births.life', 2);
    layer.bursts = collectionOf([['one', burst('opening', 0, 1)]]);
    if (steps.some(({ kind }) => kind === 'rim')) {
      choose(layer, 'appearance.lit', 'ball');
      setNumber(layer, 'appearance.litShare', 0);
    }
    const wall = standing('Wall', 2);
    wall.drawn = { ...newDrawn('mesh'), meshes: collectionOf([['box', { asset: BOX, name: 'Box', chance: 1 }]]) };
    wall.source = { kind: 'point', place: atEffect([0, 1, -1.1]) };
    setNumber(wall, 'life.size', 2);
    choose(wall, 'appearance.blend', 'solid');
    choose(wall, 'appearance.facing', 'own frame');
    effect.layers = collectionOf([
      ['one', layer],
      ['wall', wall],
    ]);
  });
}

/** What is read at a place of the card, of which d changes by `fine` in a pixel and a half. */
function readAt(effect: Effect, x: number, y: number): { p: readonly [number, number]; at: LookedAt } {
  const p = [(x + 0.5 - MIDDLE_X) / METRE + 0.5, (MIDDLE_Y - y - 0.5) / METRE + 0.5] as const;
  const q = p.map((value) => value * 2 - 1) as [number, number];
  const d = Math.hypot(...q) || 1;
  const place: Vec3 = [p[0] - 0.5, p[1] + 0.5, 0];
  const normal: Vec3 = [...q, Math.sqrt(Math.max(0, 1 - d * d))];
  return {
    p,
    at: {
      seconds: STEP / 60,
      clock: STEP / 60,
      age: STEP / 60 / 2,
      lot: keyOf(hash2(effect.seed, effect.layers.byId['one']!.salt), 0) >>> 8,
      fine: Math.min(0.5, (1.5 * 2 * (Math.abs(q[0]) + Math.abs(q[1]))) / d / METRE),
      pixel: 2 / METRE,
      cosine: dot(unit(normal), unit(subtract(VIEW.position as Vec3, place))),
      before: 0.1,
    },
  };
}

/** How far the picture is from what the reading says, over the card: 0 to 255. */
function offs(effect: Effect, steps: (typeof LOOKS)[number], picture: Picture, without: Picture): number[] {
  const found: number[] = [];
  const half = Math.floor(METRE / 2) - 2;
  const own = linearOf(COLOUR);
  for (let y = MIDDLE_Y - half; y < MIDDLE_Y + half; y += 3)
    for (let x = MIDDLE_X - half; x < MIDDLE_X + half; x += 3) {
      const { p, at } = readAt(effect, x, y);
      const { rgb, a, emit } = lookAt(steps, p, at);
      const behind = without.lightAt(x, y);
      const light = rgb.map((c, n) => behind[n]! * (1 - a) + (c * own[n]! + emit[n]!) * a);
      found.push(Math.max(...picture.at(x, y).map((value, n) => Math.abs(value - shown(light[n]!)))));
    }
  return found.sort((a, b) => a - b);
}

test('every step of a look is drawn as the contract says, pixel by pixel', async () => {
  const without = await stage.picture(carded([]), STEP, { ...view, without: ['one'] });
  for (const steps of LOOKS) {
    const effect = carded(steps);
    const picture = await stage.picture(effect, STEP, view);
    const what = JSON.stringify(steps);
    expect(picture.changed(without, 20).length, what).toBeGreaterThan(500);
    const found = offs(effect, steps, picture, without);
    // Pixels of a picture that run into each other do so a little wider on some graphics cards.
    const isBlended = steps.some(({ picture, reading }) => picture && reading !== 'crisp');
    expect(found[Math.floor(found.length * 0.97)], what).toBeLessThan(isBlended ? 6 : 3);
  }
});
