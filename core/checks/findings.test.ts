import { describe, expect, it } from 'vitest';
import {
  atBone,
  atThing,
  collectionOf,
  curveShaper,
  inWorld,
  newEffect,
  newLayer,
  newLink,
  newSurface,
  setNumber,
  structuredCopy,
  type Effect,
  type Key,
  type Layer,
  type Surface,
} from '../document/index.ts';
import { effectOf } from '../testing/effects.ts';
import { bendingTube } from '../testing/rigs.ts';
import { findings, type Finding } from './findings.ts';

const RIGS = new Map([['figure', bendingTube()]]);

const found = (shape: (layer: Layer, effect: Effect) => void, refused = 0): { effect: Effect; list: Finding[] } => {
  const effect = effectOf(shape);
  return { effect, list: findings(effect, RIGS, { refused: { motes: refused }, isBudgetFull: false }) };
};
const mended = (effect: Effect, finding: Finding): Effect => {
  const copy = structuredCopy(effect);
  finding.mend!.apply(copy);
  return copy;
};
const again = (effect: Effect) => findings(effect, RIGS, { refused: {}, isBudgetFull: false });

describe('a layer shaped by how it fares', () => {
  it('shows something as long as it may, however small it is standing still', () => {
    const effect = newEffect('Test', 1);
    const layer = newLayer('Motes', 1);
    const shaper = curveShaper([
      [0, 0],
      [1, 1],
    ]);
    layer.settings['life.size'].shapers = collectionOf([['s', { ...shaper, reads: { kind: 'speed' } }]]);
    effect.layers = collectionOf([['motes', layer]]);
    const sentences = () =>
      findings(effect, new Map(), { refused: {}, isBudgetFull: false }).map(({ sentence }) => sentence);
    expect(sentences().filter((sentence) => sentence.includes('nothing'))).toEqual([]);
    const none = curveShaper([
      [0, 0],
      [1, 0],
    ]);
    layer.settings['life.size'].shapers = collectionOf([['s', { ...none, reads: { kind: 'speed' } }]]);
    expect(sentences().some((sentence) => sentence.includes('nothing'))).toBe(true);
  });
});

describe('findings', () => {
  it('leave a sound layer alone', () => expect(found(() => undefined).list).toEqual([]));

  it.each<[string, RegExp, (layer: Layer) => void]>([
    ['no births', /nothing is born/, (layer) => setNumber(layer, 'births.rate', 0)],
    ['zero size', /size is zero/, (layer) => setNumber(layer, 'life.size', 0)],
    ['full transparency', /transparent/, (layer) => setNumber(layer, 'life.opacity', 0)],
    ['being hidden', /hidden/, (layer) => (layer.hidden = true)],
    [
      'a missing bone',
      /no bone "tail"/,
      (layer) => (layer.source = { kind: 'point', place: atBone('figure', 'tail') }),
    ],
    [
      'a thing gone from the stage',
      /not on the stage/,
      (layer) => (layer.source = { kind: 'point', place: atThing('gone') }),
    ],
    [
      'bones it has none of',
      /none of the bones/,
      (layer) => (layer.source = { kind: 'bones', thing: 'figure', bones: ['tail'] }),
    ],
    [
      'skin that no bone moves',
      /no skin/,
      (layer) => (layer.source = { kind: 'mesh', thing: 'figure', bones: ['tail'] }),
    ],
    ['no light', /adds no light/, (layer) => setNumber(layer, 'life.intensity', 0)],
  ])('say why nothing is seen for %s, and mend it in one step', (_name, why, shape) => {
    const { effect, list } = found(shape);
    expect(list).toHaveLength(1);
    expect(list[0]!.sentence).toMatch(why);
    expect(again(mended(effect, list[0]!))).toEqual([]);
  });

  it('measure pops at birth and death, and fade them without touching the rest', () => {
    const { effect, list } = found((layer) => (layer.settings['life.opacity'].shapers = collectionOf([])));
    expect(list.map(({ sentence }) => sentence)).toEqual([
      'motes pops in at birth: 100% of its light is there at age 0.',
      'motes pops out at death: 100% of its light is there at age 1.',
    ]);
    const once = mended(effect, list[0]!);
    expect(again(once)).toHaveLength(1);
    expect(again(mended(once, again(once)[0]!))).toEqual([]);
  });

  it('do not call 2% of the peak a pop, but 4%', () => {
    const fading = (rest: number) =>
      found(
        (layer) =>
          (layer.settings['life.opacity'].shapers = collectionOf([
            [
              'fade',
              curveShaper([
                [0, 0],
                [0.5, 1],
                [1, rest],
              ]),
            ],
          ])),
      ).list;
    expect(fading(0.019)).toHaveLength(0);
    expect(fading(0.04)).toHaveLength(1);
  });

  it('bend an existing fade down rather than adding another', () => {
    const { effect, list } = found(
      (layer) =>
        (layer.settings['life.opacity'].shapers = collectionOf([
          [
            'fade',
            curveShaper([
              [0, 1],
              [0.5, 1],
              [1, 0],
            ]),
          ],
        ])),
    );
    const after = mended(effect, list[0]!);
    expect(after.layers.byId['motes']!.settings['life.opacity'].shapers.order).toEqual(['fade']);
    expect(again(after)).toEqual([]);
  });

  it('count refused births and offer a cap that holds them', () => {
    const { effect, list } = found(
      (layer) => (setNumber(layer, 'births.cap', 20), setNumber(layer, 'births.rate', 100)),
      37,
    );
    expect(list[0]!.sentence).toBe('motes had 37 births refused: 20 may live at once.');
    const base = mended(effect, list[0]!).layers.byId['motes']!.settings['births.cap'].base;
    expect(base.kind === 'fixed' && base.value).toBeGreaterThanOrEqual(110);
  });

  it('say when it is the budget that refused, which no cap can mend', () => {
    const effect = effectOf(() => undefined);
    const [finding] = findings(effect, RIGS, { refused: { motes: 5 }, isBudgetFull: true });
    expect(finding!.sentence).toContain('the project’s budget is used up');
    expect(finding!.mend).toBeNull();
  });

  describe('of a layer that follows another', () => {
    const following = (shape: (owner: Layer, follower: Layer) => void): Effect =>
      effectOf((owner, effect) => {
        const follower = newLayer('glow', 99);
        follower.population = { kind: 'follows', layer: 'motes' };
        shape(owner, follower);
        effect.layers = collectionOf([
          ['motes', owner],
          ['glow', follower],
        ]);
      });

    it('blame the followed layer where that has no particles, and mend it there', () => {
      const effect = following((owner) => setNumber(owner, 'births.rate', 0));
      const [, glow] = again(effect);
      expect(glow!.sentence).toBe('glow shows nothing: motes, which it follows, has no particles.');
      expect(again(mended(effect, glow!))).toEqual([]);
    });

    it('do not ask for births of its own', () =>
      expect(again(following((_, follower) => setNumber(follower, 'births.rate', 0)))).toEqual([]));

    it('measure pops over the followed layer’s lives', () => {
      const fade = (life: number) =>
        again(
          following((owner, follower) => {
            setNumber(owner, 'births.life', life);
            setNumber(follower, 'births.life', 5);
            const keys = ([0, 0.2, 1.5, 2] as const).map((value, i): [string, Key] => [
              `k${i}`,
              { at: { anchor: 'afterBirth', value }, value: i === 1 || i === 2 ? 1 : 0, slopeIn: 0, slopeOut: 0 },
            ]);
            const fading = follower.settings['life.opacity'].shapers.byId['fade']!;
            fading.mapping = { kind: 'curve', curve: { keys: collectionOf(keys) } };
          }),
        );
      expect(fade(2)).toEqual([]);
      // A fade that ends two seconds after birth comes too late for lives of one.
      expect(fade(1).map(({ sentence }) => sentence)).toEqual([
        expect.stringContaining('glow pops out at death'),
        expect.stringContaining('past the shortest life of 1 s'),
      ]);
    });
  });
});

describe('findings about surfaces', () => {
  const withSurface = (surface: Surface) => found((_, effect) => (effect.surfaces = collectionOf([['s', surface]])));
  const empty = newSurface('sphere', { place: inWorld() });
  empty.settings.radius.base = { kind: 'fixed', value: 0 };

  it.each<[string, RegExp, Surface]>([
    ['a thing that is gone', /not on the stage/, newSurface('thing', { thing: 'gone' })],
    ['a place on a thing that is gone', /not on the stage/, newSurface('box', { place: atThing('gone') })],
    ['a bone it does not have', /"tail"/, newSurface('box', { place: atBone('figure', 'tail') })],
    ['a sphere without a radius', /radius is 0/, empty],
  ])('say that nothing meets %s, and mend it in one step', (_name, why, surface) => {
    const { effect, list } = withSurface(surface);
    expect(list.map(({ sentence }) => sentence)).toEqual([expect.stringMatching(why)]);
    expect(again(mended(effect, list[0]!))).toEqual([]);
  });

  it('are none about a surface that is muted, or that can be met', () => {
    expect(withSurface({ ...newSurface('thing', { thing: 'gone' }), muted: true }).list).toEqual([]);
    expect(withSurface(newSurface('thing', { thing: 'figure' })).list).toEqual([]);
  });
});

describe('findings about links', () => {
  const withLinks = (shape: (spark: Layer, dust: Layer) => void) =>
    found((spark, effect) => {
      const dust = newLayer('dust', 99);
      effect.layers.order.push('dust');
      effect.layers.byId['dust'] = dust;
      shape(spark, dust);
    });
  const sentences = (list: Finding[]) => list.map(({ sentence }) => sentence);

  it('let a layer be without births of its own where a link leads to it', () => {
    expect(
      sentences(
        withLinks((spark, dust) => {
          setNumber(dust, 'births.rate', 0);
          spark.links = collectionOf([['a', newLink('death', 'dust', 1)]]);
        }).list,
      ),
    ).toEqual([]);
  });

  it('say that a circle is not closed, and mend it in one step', () => {
    const { effect, list } = withLinks((spark, dust) => {
      spark.links = collectionOf([['a', newLink('death', 'dust', 1)]]);
      dust.links = collectionOf([['b', newLink('death', 'motes', 1)]]);
    });
    expect(sentences(list)).toEqual([expect.stringMatching(/closes the circle/)]);
    expect(again(mended(effect, list[0]!))).toEqual([]);
  });

  it('say that nothing is born of one’s own particles', () => {
    const { effect, list } = withLinks((spark, dust) => {
      dust.source = { kind: 'particles', layer: 'motes' };
      spark.source = { kind: 'particles', layer: 'dust' };
    });
    expect(sentences(list)).toEqual([expect.stringMatching(/come of its own/)]);
    expect(again(mended(effect, list[0]!))).toEqual([]);
  });

  it('say that a layer which shows another’s particles has none to be set off', () => {
    const { effect, list } = withLinks((spark, dust) => {
      dust.population = { kind: 'follows', layer: 'motes' };
      spark.links = collectionOf([['a', newLink('death', 'dust', 1)]]);
    });
    expect(sentences(list)).toEqual([expect.stringMatching(/none of its own/)]);
    expect(again(mended(effect, list[0]!))).toEqual([]);
  });
});
