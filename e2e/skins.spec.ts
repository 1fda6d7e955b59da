import { expect, test } from './test.ts';
import {
  collectionOf,
  curveShaper,
  inWorld,
  newDrawn,
  newFront,
  newThing,
  setNumber,
  type Effect,
  type Layer,
  type Shaper,
} from '@jinx/core/document';
import {
  METRE,
  BOX,
  one,
  standing,
  choose,
  setDrawn,
  near,
  MIDDLE_X,
  MIDDLE_Y,
  ASSETS,
  pairsOf,
  view,
} from './oneLayer.ts';
import { StageHarness, WIDTH, type Picture } from './stageHarness.ts';

const stage = StageHarness.forFile(ASSETS);
const pair = pairsOf(stage);

test.describe('a body', () => {
  /** A box stands on the stage; the layer is its skin. */
  const skinned = (change: (layer: Layer, effect: Effect) => void = () => undefined) =>
    one((layer, effect) => {
      effect.stage.things = collectionOf([
        ['box', { ...newThing('Box', BOX), at: [0, 1, 0] as [number, number, number] }],
      ]);
      layer.drawn = newDrawn('body', 'box');
      setDrawn(layer, 'offset', 0.002);
      change(layer, effect);
    });
  const red = (layer: Layer) => (layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ff0000' } });

  test('is flashed, tinted and grown by a layer on its skin', async () => {
    const flash = await pair(
      skinned((layer) => {
        choose(layer, 'appearance.blend', 'additive');
        setNumber(layer, 'life.intensity', 2);
      }),
    );
    const shape = flash.withIt.shape(flash.without);
    near(shape.width, METRE * (5 / 4.5), 5);
    near(shape.x, MIDDLE_X, 2);
    const tint = await pair(
      skinned((layer) => {
        red(layer);
        choose(layer, 'appearance.blend', 'multiply');
      }),
    );
    const [before, after] = [tint.without.lightAt(MIDDLE_X, MIDDLE_Y), tint.withIt.lightAt(MIDDLE_X, MIDDLE_Y)];
    near(after[0], before[0], 0.01);
    near(after[1], 0, 0.01);
    const grown = await pair(skinned((layer) => setDrawn(layer, 'offset', 0.2)));
    expect(grown.withIt.shape(grown.without).width).toBeGreaterThan(1.15 * shape.width);
  });

  /** The skin in place of the body, cut by a plane that has come so high. */
  const cut = (border: number, change: (layer: Layer, effect: Effect) => void = () => undefined) =>
    skinned((layer, effect) => {
      const front = newFront('Front', 'plane', inWorld([0, 0, 0]));
      front.settings.border.shapers = collectionOf([]);
      front.settings.border.base = { kind: 'fixed', value: border };
      front.settings.noise.base = { kind: 'fixed', value: 0 };
      effect.fronts = collectionOf([['front', front]]);
      layer.drawn = { ...newDrawn('body', 'box'), front: 'front' };
      setDrawn(layer, 'stands', 'in its place');
      setDrawn(layer, 'offset', 0);
      setDrawn(layer, 'edge', 0);
      choose(layer, 'appearance.blend', 'solid');
      choose(layer, 'appearance.lit', 'card');
      change(layer, effect);
    });
  /** The body as it is, and nothing where it stands. */
  const bare = async () => {
    const effect = skinned();
    const body = await stage.picture(effect, 30, { ...view, without: ['one'] });
    const empty = structuredClone(effect);
    empty.stage.things = collectionOf([]);
    return { body, nothing: await stage.picture(empty, 30, { ...view, without: ['one'] }) };
  };

  test('is flashed by every instance of its effect, on the figure of each', async () => {
    const effect = skinned((layer, whole) => {
      choose(layer, 'appearance.blend', 'additive');
      whole.stage.things.byId['box']!.scale = 0.5;
    });
    const places: [number, number, number][] = [
      [-1, 0.25, 0],
      [1, 0.25, 0],
    ];
    const { withIt, without } = await stage.pair(effect, 30, { ...view, places });
    for (const x of [-1, 1]) {
      const at = [MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(0.25 * METRE)] as const;
      expect(withIt.lightAt(...at)[0]).toBeGreaterThan(without.lightAt(...at)[0] + 0.3);
    }
    expect(withIt.at(MIDDLE_X, MIDDLE_Y)).toEqual(without.at(MIDDLE_X, MIDDLE_Y));
  });

  test('is replaced by its skin without a change of outline or colour, until a front takes it away', async () => {
    const { body, nothing } = await bare();
    const before = await stage.picture(cut(-1), 30, view);
    const [own, mine] = [body.shape(nothing), before.shape(nothing)];
    near(mine.count / own.count, 1, 0.02);
    const mean = (picture: typeof body) => {
      const pixels = picture.changed(nothing);
      return [0, 1, 2].map((c) => pixels.reduce((sum, p) => sum + picture.rgba[p * 4 + c]!, 0) / pixels.length);
    };
    mean(before).forEach((c, n) => near(c / mean(body)[n]!, 1, 0.02));
    // Half of it is gone once the plane is half way up; all once it is past.
    const half = (await stage.picture(cut(1), 30, view)).shape(nothing);
    near(half.count / own.count, 0.5, 0.06);
    expect(half.top).toBe(mine.top);
    expect((await stage.picture(cut(2.2), 30, view)).changed(nothing, 14).length).toBeLessThan(0.02 * own.count);
  });

  test('glows along the border, as wide and as bright as told, ragged by the same noise', async () => {
    const glowing = async (edge: number, glow: number) => {
      const dark = await stage.picture(cut(1), 30, view);
      const lit = await stage.picture(
        cut(1, (layer) => {
          setDrawn(layer, 'edge', edge);
          setDrawn(layer, 'glow', glow);
        }),
        30,
        view,
      );
      return { shape: lit.shape(dark), light: lit.added(dark) };
    };
    const thin = await glowing(0.1, 2);
    near(thin.shape.height, 0.1 * METRE * (5 / 4.5), 4);
    expect((await glowing(0.2, 2)).shape.height).toBeGreaterThan(1.7 * thin.shape.height);
    expect((await glowing(0.1, 4)).light).toBeGreaterThan(1.3 * thin.light);
    const straight = await stage.picture(cut(1), 30, view);
    const ragged = await stage.picture(
      cut(1, (_, effect) => {
        effect.fronts.byId['front']!.settings.noise.base = { kind: 'fixed', value: 0.2 };
      }),
      30,
      view,
    );
    expect(ragged.changed(straight).length).toBeGreaterThan(300);
  });

  test('is nowhere drawn where free pieces lie, and nowhere bare of both: the kernel frees what the shader cuts', async () => {
    const torn = (change: (pieces: Layer, effect: Effect) => void) =>
      cut(0, (body, effect) => {
        red(body);
        choose(body, 'appearance.lit', 'unlit');
        const front = newFront('Front', 'sphere', inWorld([0.1, 1.1, 0.5]));
        front.settings.border.base = { kind: 'fixed', value: 0.42 };
        front.settings.border.shapers = collectionOf([
          [
            'grows',
            {
              ...curveShaper([
                [0, 0],
                [0.5, 2],
              ]),
              reads: { kind: 'effectTime' },
            } as Shaper,
          ],
        ]);
        front.settings.noise.base = { kind: 'fixed', value: 0.15 };
        front.settings.noiseSize.base = { kind: 'fixed', value: 0.25 };
        effect.fronts = collectionOf([['front', front]]);
        const pieces = standing('Pieces', 3);
        pieces.source = { kind: 'mesh', thing: 'box', bones: [] };
        choose(pieces, 'source.order', 'even');
        setNumber(pieces, 'births.standing', 6000);
        pieces.front = 'front';
        setNumber(pieces, 'release.heldOpacity', 0);
        setNumber(pieces, 'motion.ride', 100);
        setNumber(pieces, 'life.size', 0.012);
        setNumber(pieces, 'appearance.nudge', 0.02);
        pieces.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#00ff00' } };
        // A blue card within, so that the far side is not seen through what is gone.
        const card = standing('Card', 4);
        setNumber(card, 'life.size', 0.98);
        choose(card, 'appearance.blend', 'solid');
        card.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#0000ff' } };
        effect.layers = collectionOf([
          ['pieces', pieces],
          ['one', body],
          ['card', card],
        ]);
        effect.stretches = { opening: 1, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
        change(pieces, effect);
      });
    // What the card fills: beside it the box's other sides are seen.
    const [left, top, side] = [0.47, 0.47, 0.94].map((share) => Math.round(share * METRE)) as [
      number,
      number,
      number,
    ];
    const face = Array.from({ length: side * side }, (_, n) => {
      const [x, y] = [MIDDLE_X - left + (n % side), MIDDLE_Y - top + Math.floor(n / side)];
      return y * WIDTH + x;
    });
    const is = (picture: Picture, p: number, channel: number) =>
      [0, 1, 2].every((c) => picture.rgba[p * 4 + c]! > 120 === (c === channel));
    const [RED, GREEN, BLUE] = [0, 1, 2];
    const around = [-2, -1, 0, 1, 2].flatMap((y) => [-2, -1, 0, 1, 2].map((x) => y * WIDTH + x));
    for (const step of [12, 16]) {
      const fine = torn(() => undefined);
      const skin = await stage.picture(fine, step, { ...view, without: ['pieces'] });
      const both = await stage.picture(fine, step, view);
      const free = face.filter((p) => is(both, p, GREEN));
      expect(free.length).toBeGreaterThan(150);
      expect(face.filter((p) => is(skin, p, RED)).length).toBeGreaterThan(500);
      // A piece is two pixels wide: one that is deeper in the skin than that is free and drawn at once.
      const wrong = free.filter((p) => around.every((by) => is(skin, p + by, RED)));
      expect(wrong.length, `at step ${step}`).toBe(0);
      // Pieces as wide as the gaps between them leave nothing bare: what the skin has lost is all free.
      const covered = await stage.picture(
        torn((pieces) => setNumber(pieces, 'life.size', 0.06)),
        step,
        view,
      );
      const bared = face.filter((p) => is(covered, p, BLUE)).length;
      const lost = face.filter((p) => is(skin, p, BLUE)).length;
      expect(lost).toBeGreaterThan(2000);
      expect(bared / lost, `at step ${step}`).toBeLessThan(0.02);
    }
  });
});
