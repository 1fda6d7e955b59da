import { expect, test } from './test.ts';
import { atEffect, collectionOf, setNumber, type Effect, type Layer } from '@jinx/core/document';
import { linearOf } from '@jinx/core/maths';
import { choose, METRE, MIDDLE_X, MIDDLE_Y, near, pairsOf, VIEW } from './oneLayer.ts';
import { shown, StageHarness, type Shape } from './stageHarness.ts';
import { overAge, one, step, look, disc } from './looks.ts';

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

test('a sprite is as wide and as high as its size and its shares say, and stands from its place as its pivot says', async () => {
  const plain = await shapeOf();
  near(plain.width, METRE, 3);
  near(plain.height, METRE, 3);
  const narrow = await shapeOf((layer) => setNumber(layer, 'life.width', 40));
  near(narrow.width, 0.4 * METRE, 3);
  near(narrow.height, METRE, 3);
  const low = await shapeOf((layer) => setNumber(layer, 'life.height', 25));
  near(low.height, 0.25 * METRE, 3);
  near(low.width, METRE, 3);
  const right = await shapeOf((layer) => setNumber(layer, 'appearance.pivotAcross', 50));
  near(right.x - plain.x, 0.5 * METRE, 2);
  near(right.y, plain.y, 2);
  const up = await shapeOf((layer) => setNumber(layer, 'appearance.pivotAlong', 30));
  near(plain.y - up.y, 0.3 * METRE, 2);
});

test('width and height are drawn for each and shaped over its life', async () => {
  const spread = await shapeOf((layer, effect) => {
    setNumber(layer, 'births.standing', 40);
    setNumber(layer, 'life.width', [20, 60]);
    effect.seed = 5;
  });
  // Forty between the two, all in one place: the widest shows.
  expect(spread.width).toBeGreaterThan(0.5 * METRE);
  expect(spread.width).toBeLessThan(0.62 * METRE);
  const aging = async (at: number) =>
    shapeOf((layer) => {
      setNumber(layer, 'births.standing', 0);
      setNumber(layer, 'births.life', 2);
      layer.bursts = collectionOf([
        ['b', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1, muted: false } as const],
      ]);
      layer.settings['life.height'].shapers = collectionOf([['s', overAge([0, 0], [1, 1])]]);
    }, at);
  near((await aging(30)).height, 0.25 * METRE, 3);
  near((await aging(90)).height, 0.75 * METRE, 3);
});

test('sprites stand as their facing says: seen from above, upright ones shorten, flat ones widen, others keep facing', async () => {
  // From 45° above.
  const above = { ...VIEW, position: [0, 1 + 5 * Math.SQRT1_2, 5 * Math.SQRT1_2] };
  const seen = async (facing: string, more: (layer: Layer) => void = () => undefined) => {
    const effect = one((layer) => {
      choose(layer, 'appearance.facing', facing);
      more(layer);
    });
    const { withIt, without } = await stage.pair(effect, 30, { view: above as never });
    return withIt.shape(without);
  };
  near((await seen('camera')).height, METRE, 4);
  near((await seen('upright')).height, Math.SQRT1_2 * METRE, 5);
  near((await seen('upright')).width, METRE, 4);
  near((await seen('ground')).height, Math.SQRT1_2 * METRE, 5);
  near((await seen('own frame')).height, Math.SQRT1_2 * METRE, 5);
  const tilted = (layer: Layer) => (layer.settings['life.tilt'].base = { kind: 'fixed', value: [-45, 0, 0] });
  near((await seen('own frame', tilted)).height, METRE, 5);
});

test('along its motion a sprite is longer by the way it goes in its seconds', async () => {
  const flying = (seconds: number) =>
    shapeOf((layer) => {
      setNumber(layer, 'births.standing', 0);
      setNumber(layer, 'births.life', 5);
      setNumber(layer, 'life.size', 0.2);
      layer.bursts = collectionOf([
        ['b', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1, muted: false } as const],
      ]);
      layer.settings['motion.velocity'].base = { kind: 'fixed', value: [1, 0, 0] };
      choose(layer, 'appearance.facing', 'motion');
      setNumber(layer, 'appearance.lengthening', seconds);
    }, 12);
  near((await flying(0)).width, 0.2 * METRE, 3);
  const long = await flying(0.5);
  near(long.width, 0.7 * METRE, 4);
  near(long.height, 0.2 * METRE, 3);
});

const SURROUNDS = ['dusk', 'overcast', 'noon', 'busy'] as const;
const MODES = [
  { blend: 'normal', opacity: 40, intensity: 1 },
  { blend: 'normal', opacity: 100, intensity: 3 },
  { blend: 'additive', opacity: 25, intensity: 2 },
  { blend: 'mixed', opacity: 80, intensity: 1, covers: 30 },
  { blend: 'multiply', opacity: 70, intensity: 1 },
  { blend: 'solid', opacity: 100, intensity: 2 },
  { blend: 'holes', opacity: 100, intensity: 1 },
] as const;
for (const surround of SURROUNDS)
  test(`at ${surround}, what is seen through a disc is what the arithmetic of its blending says`, async () => {
    for (const { blend, opacity, intensity, ...more } of MODES) {
      const covers = 'covers' in more ? more.covers : 0;
      const { withIt, without } = await pair(
        one((layer, effect) => {
          effect.stage.surround = surround;
          choose(layer, 'appearance.blend', blend);
          setNumber(layer, 'life.opacity', opacity);
          setNumber(layer, 'life.intensity', intensity);
          setNumber(layer, 'appearance.covers', covers);
        }),
      );
      const behind = without.lightAt(MIDDLE_X, MIDDLE_Y);
      linearOf('#b0602a').forEach((hue, c) => {
        const [light, o] = [hue * intensity, opacity / 100];
        const expected = {
          normal: behind[c]! * (1 - o) + light * o,
          additive: behind[c]! + light * o,
          mixed: behind[c]! * (1 - (o * covers) / 100) + light * o,
          multiply: behind[c]! * (1 - o + light * o),
          solid: light,
          holes: light,
        }[blend];
        const value = withIt.at(MIDDLE_X, MIDDLE_Y)[c]!;
        near(value, shown(expected), 3, `${blend}, channel ${c}:`);
      });
    }
  });

test('solid sprites fade grain by grain, and holes open where the look is thinner than their threshold', async () => {
  const whole = await shapeOf((layer) => choose(layer, 'appearance.blend', 'solid'));
  // What is solid fills its whole square; half of its grains are left at half its opacity.
  near(whole.count, METRE * METRE, 0.06 * METRE * METRE);
  const half = await shapeOf((layer) => {
    choose(layer, 'appearance.blend', 'solid');
    setNumber(layer, 'life.opacity', 50);
  });
  near(half.count / whole.count, 0.5, 0.03);
  const holes = (threshold: number) =>
    shapeOf((layer) => {
      choose(layer, 'appearance.blend', 'holes');
      layer.look = look(step('drawn', { shape: 'soft dot', softness: 30 }));
      setNumber(layer, 'appearance.threshold', threshold);
    });
  const [wide, small] = [await holes(10), await holes(70)];
  expect(small.count).toBeGreaterThan(50);
  expect(small.count).toBeLessThan(0.5 * wide.count);
});

test('a lit sprite takes the light there is, by its share, and as a ball has a bright and a dark side', async () => {
  const lit = (as: string, share: number) =>
    middle((layer, effect) => {
      effect.stage.surround = 'overcast';
      choose(layer, 'appearance.lit', as);
      setNumber(layer, 'appearance.litShare', share);
    });
  const [own, card, half] = [await lit('unlit', 100), await lit('card', 100), await lit('card', 50)];
  expect(card[0] / own[0]).toBeLessThan(0.95);
  near(half[0], (own[0] + card[0]) / 2, 0.02);
  near((await lit('card', 0))[0], own[0], 0.01);
  const ball = await stage.picture(
    one((layer) => choose(layer, 'appearance.lit', 'ball')),
    30,
    { view: VIEW as never },
  );
  const up = Math.round(0.35 * METRE);
  const [top, bottom] = [ball.lightAt(MIDDLE_X, MIDDLE_Y - up), ball.lightAt(MIDDLE_X, MIDDLE_Y + up)];
  expect(top[0]).toBeGreaterThan(1.5 * bottom[0]);
});

test('the newest, the oldest or the nearest is drawn in front, as told', async () => {
  // Two in one place, the younger red and nearer or further by its own way.
  const front = async (order: string, way: number) => {
    const [red, , blue] = await middle((layer) => {
      setNumber(layer, 'births.standing', 0);
      setNumber(layer, 'births.life', 5);
      layer.bursts = collectionOf([
        [
          'a',
          { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 2, every: 0.25, muted: false } as const,
        ],
      ]);
      layer.settings['motion.velocity'].base = { kind: 'fixed', value: [0, 0, way] };
      layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
      layer.settings['life.colour'].shapers = collectionOf([
        [
          'g',
          {
            reads: { kind: 'age' },
            mapping: {
              kind: 'gradient',
              stops: collectionOf([
                ['a', { at: { anchor: 'share', value: 0.06 }, colour: { hex: '#ff0000' } } as never],
                ['b', { at: { anchor: 'share', value: 0.09 }, colour: { hex: '#0000ff' } } as never],
              ]),
            },
            combine: 'replace',
            amount: 1,
            muted: false,
          } as never,
        ],
      ]);
      choose(layer, 'appearance.order', order);
    }, 32);
    return red > blue ? 'young' : 'old';
  };
  expect(await front('newest', 0.5)).toBe('young');
  expect(await front('oldest', 0.5)).toBe('old');
  // They go toward the camera: the older one is nearer. Away from it: the younger one.
  expect(await front('nearest', 0.5)).toBe('old');
  expect(await front('nearest', -0.5)).toBe('young');
});

/** A solid card of half a metre before the sprite, hiding its middle. */
function hidden(change: (layer: Layer, effect: Effect) => void): Effect {
  return one((layer, effect) => {
    const card = structuredClone(layer);
    Object.assign(card, { name: 'Card', salt: 2, source: { kind: 'point', place: atEffect([0, 1, 0.5]) } });
    setNumber(card, 'life.size', 0.45);
    choose(card, 'appearance.blend', 'solid');
    card.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
    effect.layers = collectionOf([
      ['one', layer],
      ['card', card],
    ]);
    change(layer, effect);
  });
}
const countOf = async (effect: Effect) => {
  const { withIt, without } = await stage.pair(effect, 30, { view: VIEW as never }, ['one']);
  return withIt.shape(without).count;
};

test('a layer is hidden as its depth rule says, and nudged before what stands there', async () => {
  const seen = (depth: string, nudge = 0) =>
    countOf(
      hidden((layer) => {
        choose(layer, 'appearance.depth', depth);
        setNumber(layer, 'appearance.nudge', nudge);
      }),
    );
  const disc = Math.PI * (METRE / 2) ** 2;
  // The card is nearer, and so looks larger.
  const card = (0.45 * METRE * (5 / 4.5)) ** 2;
  near((await seen('as placed')) / (disc - card), 1, 0.06);
  near((await seen('never hidden')) / disc, 1, 0.04);
  near((await seen('only where hidden')) / card, 1, 0.06);
  near((await seen('as placed', 0.6)) / disc, 1, 0.04);
  near((await seen('as placed', 0.4)) / (disc - card), 1, 0.06);
});

test('a layer that is kept inside another is seen only where that covers the picture', async () => {
  const effect = hidden((layer, whole) => {
    const mask = whole.layers.byId['card']!;
    choose(mask, 'appearance.blend', 'normal');
    setNumber(mask, 'life.opacity', 100);
    mask.look = disc();
    layer.inside = 'card';
    choose(layer, 'appearance.depth', 'never hidden');
  });
  const inside = Math.PI * ((0.45 * METRE * (5 / 4.5)) / 2) ** 2;
  near((await countOf(effect)) / inside, 1, 0.08);
});
