import { expect, test } from './test.ts';
import {
  atEffect,
  collectionOf,
  drawnLook,
  newStep,
  setNumber,
  setStep,
  type Effect,
  type Layer,
  type Step,
  type StepKind,
} from '@jinx/core/document';
import { linearOf } from '@jinx/core/maths';
import { choose, METRE, MIDDLE_X, MIDDLE_Y, near, one as blank, pairsOf, VIEW } from './oneLayer.ts';
import { shown, StageHarness, type Shape } from './stageHarness.ts';

/** One standing sprite of a metre in the middle; it shows light as it is: no bloom. */
const one = (change: (layer: Layer, effect: Effect) => void = () => undefined): Effect =>
  blank((layer, effect) => {
    layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#b0602a' } };
    layer.look = disc();
    change(layer, effect);
  });
type Values = Record<string, string | number | boolean | readonly [number, number]>;
const step = (kind: StepKind, values: Values = {}): Step => {
  const made = newStep(kind);
  for (const [name, value] of Object.entries(values)) setStep(made, name, value);
  return made;
};
const look = (...steps: Step[]): Layer['look'] => ({
  kind: 'own',
  steps: collectionOf(steps.map((made, n) => [`s${n}`, made])),
});
const hard = () => step('drawn', { shape: 'disc', softness: 0 });
const disc = () => look(hard());

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
        ['b', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1 } as const],
      ]);
      layer.settings['life.height'].shapers = collectionOf([['s', overAge([0, 0], [1, 1])]]);
    }, at);
  near((await aging(30)).height, 0.25 * METRE, 3);
  near((await aging(90)).height, 0.75 * METRE, 3);
});

/** A straight line over age. */
const overAge = (from: readonly [number, number], to: readonly [number, number]) => ({
  reads: { kind: 'age' } as const,
  mapping: {
    kind: 'curve' as const,
    curve: {
      keys: collectionOf(
        [from, to].map(([x, value], n): [string, never] => {
          const slope = (to[1] - from[1]) / (to[0] - from[0]);
          return [`k${n}`, { at: { anchor: 'share', value: x }, value, slopeIn: slope, slopeOut: slope } as never];
        }),
      ),
    },
  },
  combine: 'multiply' as const,
  amount: 1,
  muted: false,
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
        ['b', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1 } as const],
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
        ['a', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 2, every: 0.25 } as const],
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
