import { expect, test } from './test.ts';
import {
  atEffect,
  collectionOf,
  drawnLook,
  setNumber,
  type Effect,
  type Layer,
  type Step,
} from '@jinx/core/document';
import { linearOf } from '@jinx/core/maths';
import { METRE, MIDDLE_X, MIDDLE_Y, near, pairsOf, VIEW } from './oneLayer.ts';
import { shown, StageHarness, type Shape } from './stageHarness.ts';
import { overAge, one, step, look, hard } from './looks.ts';

const stage = StageHarness.forFile();

const pair = pairsOf(stage);
async function shapeOf(change: (layer: Layer, effect: Effect) => void = () => undefined, at = 30): Promise<Shape> {
  const { withIt, without } = await pair(one(change), at);
  return withIt.shape(without);
}
const whole =
  (...steps: Step[]) =>
  (layer: Layer) =>
    (layer.look = look(...steps));

test('a muted step does nothing, a step seen alone is all there is, and the order of steps acts', async () => {
  const muted = { ...hard(), muted: true } as Step;
  near((await shapeOf(whole(muted))).count / (METRE * METRE), 1, 0.04);
  const effect = one(whole(hard(), step('intensity', { factor: 2 })));
  const alone = await stage.picture(effect, 30, {
    view: VIEW as never,
    seen: { alone: { layer: 'one', step: 's1' } },
  });
  const off = Math.round(0.46 * METRE);
  near(alone.lightAt(MIDDLE_X + off, MIDDLE_Y + off)[0], 2 * linearOf('#b0602a')[0]!, 0.06);
  // Shifted by half before it is drawn, the disc begins anew in the middle and leaves it free; after, it is where it was.
  const shift = step('scroll', { offsetAcross: 50 });
  const isFree = async (...steps: Step[]) => {
    const { withIt, without } = await pair(one(whole(...steps)));
    return withIt.at(MIDDLE_X, MIDDLE_Y - 30).join() === without.at(MIDDLE_X, MIDDLE_Y - 30).join();
  };
  expect(await isFree(shift, hard())).toBe(true);
  expect(await isFree(hard(), shift)).toBe(false);
});

test('numbers of a look are drawn for each particle and shaped by its age', async () => {
  const at = (when: number) =>
    shapeOf((layer) => {
      setNumber(layer, 'births.standing', 0);
      setNumber(layer, 'births.life', 2);
      layer.bursts = collectionOf([
        ['b', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1, muted: false } as const],
      ]);
      const ring = step('drawn', { shape: 'ring', softness: 0, width: 100 });
      if (ring.kind === 'drawn')
        ring.settings.width.shapers = collectionOf([['s', overAge([0, 0], [1, 1])]]) as never;
      layer.look = look(ring);
    }, when);
  const covered = (width: number) => (Math.PI / 4) * (1 - (1 - width) ** 2) * METRE * METRE;
  near((await at(30)).count / covered(0.25), 1, 0.1);
  near((await at(90)).count / covered(0.75), 1, 0.05);
});

test('bloom spreads only what is brighter than the screen; exposure doubles; raw shows neither, dim darkens', async () => {
  const glow = async (intensity: number, isOn: boolean) => {
    const { withIt, without } = await pair(
      one((layer, effect) => {
        setNumber(layer, 'life.size', 0.3);
        setNumber(layer, 'life.intensity', intensity);
        layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
        effect.stage.lens.bloom = { isOn, strength: 100, spread: 10 };
      }),
    );
    return withIt.shape(without, 3).count;
  };
  const [plain, dull, bright] = [await glow(6, false), await glow(0.9, true), await glow(6, true)];
  near(dull, plain, 0.06 * plain);
  expect(bright).toBeGreaterThan(2 * plain);
  const lensed = async (change: (effect: Effect) => void, seen = {}) => {
    const effect = one((_, whole) => change(whole));
    return (await stage.picture(effect, 30, { view: VIEW as never, seen })).lightAt(MIDDLE_X, MIDDLE_Y)[0];
  };
  const own = linearOf('#b0602a')[0]!;
  near(await lensed((effect) => (effect.stage.lens.exposure = 1)), 2 * own, 0.03);
  near(await lensed((effect) => (effect.stage.lens.exposure = -1)), own / 2, 0.02);
  near(await lensed((effect) => (effect.stage.lens.exposure = 2), { isRaw: true }), own, 0.02);
  near(await lensed(() => undefined, { isDim: true }), own * 0.3, 0.02);
});

test('fog hides by its density and its colour, and is thinner higher up', async () => {
  const seen = (density: number, height = 1000, y = 1) =>
    (async () => {
      const effect = one((layer, whole) => {
        layer.source = { kind: 'point', place: atEffect([0, y, 0]) };
        whole.stage.air.fog = { isOn: density > 0, density, height, colour: '#2040ff' };
      });
      const view = { ...VIEW, position: [0, y, 5], target: [0, y, 0] };
      return (await stage.picture(effect, 30, { view: view as never })).lightAt(MIDDLE_X, MIDDLE_Y);
    })();
  const fog = linearOf('#2040ff');
  const through = 0.9 ** 5;
  (await seen(10)).forEach((c, n) => near(c, linearOf('#b0602a')[n]! * through + fog[n]! * (1 - through), 0.02));
  // Four metres up in fog that thins to a third every metre hardly any is left.
  (await seen(10, 1, 4)).forEach((c, n) => near(c, linearOf('#b0602a')[n]!, 0.04));
});

test('pictures of colours come back as they were, above one they bloom', async () => {
  for (const hex of ['#ff0000', '#10a040', '#808080', '#f0e8d0']) {
    const { withIt } = await pair(
      one((layer) => (layer.settings['life.colour'].base = { kind: 'fixed', value: { hex } })),
    );
    linearOf(hex).forEach((light, c) => near(withIt.at(MIDDLE_X, MIDDLE_Y)[c]!, shown(light), 2, hex));
  }
});

test('the drawn look of a new layer is a soft dot', async () => {
  const soft = await shapeOf((layer) => (layer.look = drawnLook('soft dot')));
  expect(soft.count).toBeGreaterThan(0.3 * METRE * METRE);
});
