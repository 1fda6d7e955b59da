import { expect, test } from './test.ts';
import {
  atEffect,
  burst,
  collectionOf,
  newDrawn,
  newRibbon,
  newStep,
  setNumber,
  setStep,
  type Effect,
  type Layer,
  type Step,
} from '@jinx/core/document';
import {
  VIEW,
  METRE,
  SLOPE,
  one,
  standing,
  setDrawn,
  near,
  lamp,
  MIDDLE_X,
  MIDDLE_Y,
  ASSETS,
  view,
} from './oneLayer.ts';
import { StageHarness } from './stageHarness.ts';

const stage = StageHarness.forFile(ASSETS);

test.describe('lights', () => {
  const high = { view: { ...VIEW, position: [0, 2, 5], target: [0, 0.5, 0] } as never };
  const added = async (effect: Effect) => {
    const { withIt, without } = await stage.pair(effect, 30, high, ['one']);
    return withIt.added(without);
  };
  test('light the ground and what is lit, as strongly and as far as they are told', async () => {
    const effect = lamp();
    const { withIt, without } = await stage.pair(effect, 30, high, ['one']);
    const { x, y, count } = withIt.shape(without, 4);
    expect(count).toBeGreaterThan(2000);
    near(x, MIDDLE_X, 40);
    expect(y).toBeGreaterThan(MIDDLE_Y);
    const plain = await added(lamp());
    near((await added(lamp((light) => setDrawn(light, 'surfaces', 2)))) / plain, 2, 0.25);
    near((await added(lamp((light) => setNumber(light, 'life.intensity', 1)))) / plain, 0.5, 0.1);
    expect(await added(lamp((light) => setDrawn(light, 'reach', 0.9)))).toBeLessThan(0.6 * plain);
    // A colour is the light's.
    const red = await stage.pair(
      lamp((light) => (light.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ff0000' } })),
      30,
      high,
      ['one'],
    );
    const below = [MIDDLE_X, Math.round(MIDDLE_Y + 0.55 * METRE)] as const;
    const [r, g] = red.withIt.lightAt(...below).map((c, n) => c - red.without.lightAt(...below)[n]!);
    expect(r!).toBeGreaterThan(0.01);
    near(g!, 0, 0.004);
  });

  test('light fog about them, and nothing in clear air', async () => {
    const glow = async (fog: number, isOn: boolean) => {
      const effect = lamp((light, whole) => {
        whole.stage.air.fog = { isOn, density: 20, height: 5, colour: '#000000' };
        setDrawn(light, 'surfaces', 0);
        setDrawn(light, 'fog', fog);
      });
      return added(effect);
    };
    expect(await glow(1, false)).toBe(0);
    const one = await glow(1, true);
    expect(one).toBeGreaterThan(20);
    near((await glow(2, true)) / one, 2, 0.2);
    expect(Math.abs(await glow(0, true))).toBeLessThan(0.02 * one);
  });
});

test('lights that come and go, and all else that does, need no new shader for ten seconds', async () => {
  const effect = lamp((light, whole) => {
    setNumber(light, 'births.standing', 0);
    setNumber(light, 'births.rate', 90);
    setNumber(light, 'births.life', [0.1, 0.9]);
    light.source = { kind: 'disc', place: atEffect([0, 0.4, 0]) };
    const sparks = standing('Sparks', 5);
    setNumber(sparks, 'births.standing', 0);
    sparks.bursts = collectionOf([['now', { ...burst('hold', 0.5, 40), times: 3, every: 1.2 }]]);
    setNumber(sparks, 'births.life', [0.1, 0.6]);
    const trails = standing('Trails', 6);
    trails.drawn = newRibbon('trail');
    setNumber(trails, 'births.standing', 0);
    setNumber(trails, 'births.rate', 5);
    setNumber(trails, 'births.life', 0.3);
    setNumber(trails, 'motion.speed', 1);
    whole.layers = collectionOf([
      ...whole.layers.order.map((id) => [id, whole.layers.byId[id]!] as const),
      ['sparks', sparks],
      ['trails', trails],
    ]);
    whole.stage.air.fog.isOn = true;
  });
  const first = await stage.picture(effect, 2, view);
  const { compiled } = await stage.calls();
  expect(compiled).toBeGreaterThan(0);
  let different = 0;
  for (let step = 20; step <= 620; step += 20) {
    const later = await stage.picture(effect, step, view);
    if (later.changed(first).length > 50) different++;
  }
  expect(different).toBeGreaterThan(25);
  expect((await stage.calls()).compiled).toBe(compiled);
});

test.describe('haze', () => {
  /** A hard striped card behind bent air. */
  const bent = (change: (haze: Layer, effect: Effect) => void = () => undefined) =>
    one((haze, effect) => {
      haze.drawn = newDrawn('haze');
      haze.source = { kind: 'point', place: atEffect([0, 1, 0.5]) };
      setNumber(haze, 'life.size', 0.8);
      const card = standing('Card', 2);
      setNumber(card, 'life.size', 1.6);
      const gradient = newStep('gradient');
      setStep(gradient, 'along', 'across');
      if (gradient.kind === 'gradient')
        gradient.stops = collectionOf([
          ['a', { at: { anchor: 'share', value: 0 }, colour: { hex: '#000000' } } as never],
          ['b', { at: { anchor: 'share', value: 1 }, colour: { hex: '#ffffff' } } as never],
        ]);
      card.look = { kind: 'own', steps: collectionOf([['g', gradient as Step]]) };
      effect.layers = collectionOf([
        ['one', haze],
        ['card', card],
      ]);
      change(haze, effect);
    });
  const difference = async (effect: Effect) => {
    const { withIt, without } = await stage.pair(effect, 30, view, ['one']);
    const off = Math.round(0.22 * METRE);
    const at = (x: number) => withIt.lightAt(x, MIDDLE_Y)[0] - without.lightAt(x, MIDDLE_Y)[0];
    return {
      right: at(MIDDLE_X + off),
      left: at(MIDDLE_X - off),
      count: withIt.changed(without, 3).length,
      withIt,
      without,
    };
  };

  test('shifts what is behind outward by its strength, within its ring', async () => {
    const plain = await difference(bent((haze) => setDrawn(haze, 'strength', 10)));
    // What is seen to the right of the middle comes from nearer the middle: it is darker; to the left brighter.
    expect(plain.right).toBeLessThan(-0.01);
    expect(plain.left).toBeGreaterThan(0.01);
    const strong = await difference(bent((haze) => setDrawn(haze, 'strength', 20)));
    expect(strong.right / plain.right).toBeGreaterThan(1.5);
    const inward = await difference(bent((haze) => setDrawn(haze, 'strength', -10)));
    expect(inward.right).toBeGreaterThan(0.01);
    const none = await difference(bent((haze) => setDrawn(haze, 'strength', 0)));
    expect(none.count).toBe(0);
    const narrow = await difference(bent((haze) => setDrawn(haze, 'outer', 40)));
    expect(narrow.count).toBeLessThan(0.5 * plain.count);
    const ring = await difference(bent((haze) => setDrawn(haze, 'inner', 80)));
    near(ring.right, 0, 0.004);
    const hard = await difference(bent((haze) => setDrawn(haze, 'softness', 5)));
    expect(hard.count).not.toBe(plain.count);
  });

  test('tints what is seen through it, bends in waves, or as a normal map says', async () => {
    const tinted = await difference(
      bent((haze) => {
        setDrawn(haze, 'strength', 0);
        setDrawn(haze, 'tinted', 100);
        haze.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ff0000' } };
      }),
    );
    const seen = tinted.withIt.lightAt(MIDDLE_X, MIDDLE_Y);
    near(seen[0], tinted.without.lightAt(MIDDLE_X, MIDDLE_Y)[0], 0.01);
    near(seen[1], 0, 0.02);
    const waves = await difference(
      bent((haze) => {
        setDrawn(haze, 'bends', 'in waves');
        setDrawn(haze, 'strength', 40);
      }),
    );
    expect(waves.count).toBeGreaterThan(100);
    const mapped = await difference(
      bent((haze) => {
        haze.drawn = { ...newDrawn('haze'), picture: { asset: SLOPE, name: 'slope' } };
        setDrawn(haze, 'bends', 'by a picture');
        setDrawn(haze, 'strength', 15);
      }),
    );
    // All is shifted to the right: darker on both sides.
    expect(mapped.right).toBeLessThan(-0.01);
    expect(mapped.left).toBeLessThan(-0.01);
  });

  test('bends only what is behind it among the rows, and costs nothing where there is none', async () => {
    const front = bent((haze) => setDrawn(haze, 'strength', 30));
    const behind = bent((haze, effect) => {
      setDrawn(haze, 'strength', 30);
      effect.layers.order = ['card', 'one'];
    });
    expect((await difference(front)).count).toBeGreaterThan(500);
    expect((await difference(behind)).count).toBe(0);
    await stage.picture(front, 30, view);
    const with_ = (await stage.calls()).calls;
    await stage.picture(front, 30, { ...view, without: ['one'] });
    const without = (await stage.calls()).calls;
    await stage.picture(
      one((layer) => setNumber(layer, 'life.size', 1.6)),
      30,
      view,
    );
    expect((await stage.calls()).calls).toBe(without);
    expect(with_).toBeGreaterThan(without);
  });
});
