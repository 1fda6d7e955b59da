import { expect, test } from './test.ts';
import {
  newStep,
  atEffect,
  collectionOf,
  drawnLook,
  setNumber,
  setStep,
  type Effect,
  type Layer,
  type Step,
} from '@jinx/core/document';
import { linearOf } from '@jinx/core/maths';
import { choose, METRE, MIDDLE_X, MIDDLE_Y, near, pairsOf, VIEW } from './oneLayer.ts';
import { shown, StageHarness, type Shape } from './stageHarness.ts';
import { overAge, one, step, look, hard, type Values } from './looks.ts';

const stage = StageHarness.forFile();

const pair = pairsOf(stage);
async function shapeOf(change: (layer: Layer, effect: Effect) => void = () => undefined, at = 30): Promise<Shape> {
  const { withIt, without } = await pair(one(change), at);
  return withIt.shape(without);
}
/** Light in the middle of the picture, before the lens. */
async function middle(change: (layer: Layer, effect: Effect) => void = () => undefined, at = 30) {
  const { withIt } = await pair(one(change), at);
  return withIt.lightAt(MIDDLE_X, MIDDLE_Y);
}

const drawn = (values: Values) => (layer: Layer) => (layer.look = look(step('drawn', values)));
const whole =
  (...steps: Step[]) =>
  (layer: Layer) =>
    (layer.look = look(...steps));

test('drawn shapes are as soft, as wide and as many-rayed as they are told', async () => {
  const area = async (values: Values) => (await shapeOf(drawn(values))).count / (METRE * METRE);
  near(await area({ shape: 'disc', softness: 0 }), Math.PI / 4, 0.03);
  const ring = (width: number) => area({ shape: 'ring', softness: 0, width });
  near(await ring(20), (Math.PI / 4) * (1 - 0.8 ** 2), 0.04);
  near(await ring(50), (Math.PI / 4) * (1 - 0.5 ** 2), 0.04);
  expect(await area({ shape: 'streak', width: 10 })).toBeLessThan(0.5 * (await area({ shape: 'streak', width: 30 })));
  const [soft, softer] = [
    await middle(drawn({ shape: 'soft dot', softness: 10 })),
    await shapeOf(drawn({ shape: 'soft dot', softness: 90 })),
  ];
  expect(soft[0]).toBeGreaterThan(0.3);
  expect(softer.count / (METRE * METRE)).toBeLessThan(0.5);
  // A star's rays, counted along a circle about its middle.
  const rays = async (points: number) => {
    const { withIt, without } = await pair(one(drawn({ shape: 'star', points, softness: 0, width: 20 })));
    let crossings = 0;
    let was = false;
    for (let turn = 0; turn <= 720; turn++) {
      const angle = (turn * Math.PI) / 360;
      const x = Math.round(MIDDLE_X + Math.sin(angle) * 0.33 * METRE);
      const y = Math.round(MIDDLE_Y - Math.cos(angle) * 0.33 * METRE);
      const isLit = Math.abs(withIt.at(x, y)[0] - without.at(x, y)[0]) > 20;
      if (isLit && !was && turn > 0) crossings++;
      was = isLit;
    }
    return crossings;
  };
  expect(await rays(5)).toBe(5);
  expect(await rays(8)).toBe(8);
  for (const shape of ['flare', 'cells', 'clouds']) expect(await area({ shape })).toBeGreaterThan(0.03);
  const grains = async (count: number) => {
    const { withIt, without } = await pair(one(drawn({ shape: 'cells', grains: count, softness: 5, varied: false })));
    let edges = 0;
    for (let y = MIDDLE_Y - 60; y <= MIDDLE_Y + 60; y += 4)
      for (let x = MIDDLE_X - 60; x < MIDDLE_X + 60; x++)
        if (
          Math.abs(withIt.at(x, y)[0] - without.at(x, y)[0]) > 60 !==
          Math.abs(withIt.at(x + 1, y)[0] - without.at(x + 1, y)[0]) > 60
        )
          edges++;
    return edges;
  };
  near((await grains(8)) / (await grains(4)), 2, 0.7);
});

test('an amount of a shape lets as much of the whole show as it says', async () => {
  const corner = async (amount: number) => {
    const { withIt } = await pair(one(whole(step('drawn', { shape: 'disc', softness: 0, amount }))));
    return withIt.lightAt(MIDDLE_X + Math.round(0.46 * METRE), MIDDLE_Y + Math.round(0.46 * METRE))[0];
  };
  const [none, half, all] = [await corner(0), await corner(50), await corner(100)];
  near(none, linearOf('#b0602a')[0]!, 0.02);
  near(half, (none + all) / 2, 0.02);
});

test('levels set what is none and what is all, and bend what lies between by gamma', async () => {
  const at = async (values: Values) => {
    const soft = step('drawn', { shape: 'soft dot', softness: 30 });
    const { withIt, without } = await pair(one(whole(soft, step('levels', values))));
    const x = MIDDLE_X + Math.round(0.25 * METRE);
    const [behind, seen] = [without.lightAt(x, MIDDLE_Y)[0], withIt.lightAt(x, MIDDLE_Y)[0]];
    return (seen - behind) / (linearOf('#b0602a')[0]! - behind);
  };
  const plain = await at({});
  expect(plain).toBeGreaterThan(0.2);
  expect(plain).toBeLessThan(0.8);
  near(await at({ black: plain * 100 }), 0, 0.03);
  near(await at({ white: plain * 100 }), 1, 0.03);
  near(await at({ black: 10, white: 90 }), (plain - 0.1) / 0.8, 0.04);
  near(await at({ gamma: 2 }), Math.sqrt(plain), 0.04);
});

test('a scroll repeats, turns and shifts what follows it, and moves it by the second', async () => {
  const small = (values: Values) => whole(step('scroll', values), step('drawn', { shape: 'disc', softness: 0 }));
  const four = await shapeOf(small({ repeatAcross: 2, repeatAlong: 2 }));
  near(four.count / (METRE * METRE), Math.PI / 4, 0.05);
  const { withIt, without } = await pair(one(small({ repeatAcross: 2, repeatAlong: 2 })));
  // One small disc in the middle and parts of others about it: nothing where four of them meet.
  const [x, y] = [MIDDLE_X + Math.round(0.25 * METRE), MIDDLE_Y + Math.round(0.25 * METRE)];
  expect(withIt.at(x, y)).toEqual(without.at(x, y));
  expect(withIt.at(MIDDLE_X, MIDDLE_Y)).not.toEqual(without.at(MIDDLE_X, MIDDLE_Y));
  const streak = (values: Values, at = 30) =>
    shapeOf(whole(step('scroll', values), step('drawn', { shape: 'streak', width: 20, softness: 10 })), at);
  const [upright, lying] = [await streak({}), await streak({ turn: 90 })];
  expect(upright.height).toBeGreaterThan(2 * upright.width);
  expect(lying.width).toBeGreaterThan(2 * lying.height);
  near((await streak({ offsetAcross: 25 })).x - upright.x, 0.25 * METRE, 3);
  // A quarter of a second at one across: a quarter of the way.
  near((await streak({ across: 1 }, 15)).x - upright.x, 0.25 * METRE, 4);
});

test('a warp pushes what follows to and fro, further with more strength', async () => {
  const outline = async (strength: number) => {
    const { withIt } = await pair(one(whole(step('warp', { strength, varied: false, change: 0 }), hard())));
    const { withIt: round } = await pair(one());
    return withIt.changed(round, 30).length;
  };
  const [none, some, more] = [await outline(0), await outline(20), await outline(60)];
  expect(none).toBe(0);
  expect(some).toBeGreaterThan(100);
  expect(more).toBeGreaterThan(1.5 * some);
});

test('a dissolve takes away as much as it says, and its border glows', async () => {
  const left = async (amount: number, by: string) =>
    (await shapeOf(whole(hard(), step('dissolve', { amount, by, edge: 0, softness: 1, grains: 8, varied: false }))))
      .count;
  for (const by of ['clouds', 'cells']) {
    const all = await left(0, by);
    near(all / (METRE * METRE), Math.PI / 4, 0.03);
    const counts = [await left(35, by), await left(50, by), await left(65, by)];
    expect(counts[0]).toBeLessThan(all);
    expect(counts[1]).toBeLessThan(counts[0]!);
    expect(counts[2]).toBeLessThan(counts[1]!);
    expect(await left(100, by)).toBe(0);
  }
  const glow = async (edge: number) => {
    const { withIt, without } = await pair(
      one((layer) => {
        choose(layer, 'appearance.blend', 'additive');
        layer.look = look(hard(), step('dissolve', { amount: 50, edge, glow: 4, softness: 1, varied: false }));
      }),
    );
    return withIt.added(without);
  };
  const [dark, thin, wide] = [await glow(0), await glow(8), await glow(25)];
  expect(thin).toBeGreaterThan(1.1 * dark);
  expect(wide).toBeGreaterThan(1.2 * thin);
});

test('a rim is bright where the surface turns from the eye, and sharper when told', async () => {
  const radial = async (values: Values) => {
    const { withIt, without } = await pair(
      one((layer) => {
        choose(layer, 'appearance.lit', 'ball');
        setNumber(layer, 'appearance.litShare', 0);
        choose(layer, 'appearance.blend', 'additive');
        layer.look = look(hard(), step('rim', values));
      }),
    );
    return [0, 0.3, 0.46].map((far) => {
      const x = MIDDLE_X + Math.round(far * METRE);
      return withIt.lightAt(x, MIDDLE_Y)[0] - without.lightAt(x, MIDDLE_Y)[0];
    }) as [number, number, number];
  };
  const only = await radial({ does: 'shows the rim only', sharpness: 2, intensity: 1 });
  near(only[0], 0, 0.01);
  expect(only[2]).toBeGreaterThan(4 * only[1]);
  const sharp = await radial({ does: 'shows the rim only', sharpness: 6, intensity: 1 });
  expect(sharp[1]).toBeLessThan(0.4 * only[1]);
  const hides = await radial({ does: 'hides the rim', sharpness: 2 });
  expect(hides[2]).toBeLessThan(0.8 * hides[0]);
  const shines = await radial({ does: 'brightens the rim', sharpness: 2, intensity: 2 });
  near(shines[0], linearOf('#b0602a')[0]!, 0.03);
  expect(shines[2]).toBeGreaterThan(shines[0] + 0.4);
});

test('a gradient runs along, across, out from the middle and over brightness', async () => {
  const white = (layer: Layer) => (layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } });
  const seen = async (along: string, amount = 100) => {
    const made = { ...newStep('gradient') };
    setStep(made, 'along', along);
    setStep(made, 'amount', amount);
    made.stops = collectionOf([
      ['a', { at: { anchor: 'share', value: 0 }, colour: { hex: '#ff0000' } } as never],
      ['b', { at: { anchor: 'share', value: 1 }, colour: { hex: '#0000ff' } } as never],
    ]);
    const { withIt } = await pair(
      one((layer) => {
        white(layer);
        layer.look = look(made);
      }),
    );
    const off = Math.round(0.4 * METRE);
    return {
      left: withIt.lightAt(MIDDLE_X - off, MIDDLE_Y),
      right: withIt.lightAt(MIDDLE_X + off, MIDDLE_Y),
      top: withIt.lightAt(MIDDLE_X, MIDDLE_Y - off),
      middle: withIt.lightAt(MIDDLE_X, MIDDLE_Y),
    };
  };
  const across = await seen('across');
  near(across.left[0], 0.9, 0.05);
  near(across.left[2], 0.1, 0.05);
  near(across.right[2], 0.9, 0.05);
  const along = await seen('along');
  near(along.top[2], 0.9, 0.05);
  const out = await seen('out from the middle');
  near(out.middle[0], 1, 0.05);
  near(out.top[2], 0.8, 0.06);
  // White is bright: the far end of the gradient.
  near((await seen('brightness')).middle[2], 1, 0.05);
  near((await seen('across', 50)).left[2], 0.55, 0.05);
});

test('a tint and an intensity multiply by just what they say', async () => {
  const tint = step('tint', { amount: 100 });
  if (tint.kind === 'tint') tint.settings.colour.base = { kind: 'fixed', value: { hex: '#80ff40' } };
  const expected = linearOf('#b0602a').map((c, n) => c * linearOf('#80ff40')[n]!);
  (await middle(whole(hard(), tint))).forEach((c, n) => near(c, expected[n]!, 0.02));
  const bright = await middle(whole(hard(), step('intensity', { factor: 1.8 })));
  bright.forEach((c, n) => near(c, 1.8 * linearOf('#b0602a')[n]!, 0.03));
});

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
        ['b', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1 } as const],
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
