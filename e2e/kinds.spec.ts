import { expect, test } from './test.ts';
import {
  newThing,
  atEffect,
  collectionOf,
  inWorld,
  newStep,
  setNumber,
  type Effect,
  type Layer,
  type Step,
} from '@jinx/core/document';
import {
  VIEW,
  METRE,
  BOX,
  TALL,
  GRID,
  one,
  choose,
  setDrawn,
  near,
  meshed,
  MIDDLE_X,
  MIDDLE_Y,
  ASSETS,
  pairsOf,
  view,
} from './oneLayer.ts';
import { HEIGHT, StageHarness } from './stageHarness.ts';

const stage = StageHarness.forFile(ASSETS);
const pair = pairsOf(stage);

const shapeOf = async (effect: Effect, at = 30) => {
  const { withIt, without } = await pair(effect, at);
  return withIt.shape(without);
};

test.describe('mesh particles', () => {
  test('are as long as their size, per axis, and turn about their axle', async () => {
    const near5 = 5 / 4.5;
    const plain = await shapeOf(meshed());
    near(plain.width, METRE * near5, 4);
    near(plain.height, METRE * near5, 4);
    const half = await shapeOf(meshed((layer) => setNumber(layer, 'life.size', 0.5)));
    near(half.width, 0.5 * METRE * (5 / 4.75), 4);
    const flat = await shapeOf(meshed((layer) => setNumber(layer, 'life.height', 20)));
    near(flat.height, 0.2 * METRE * near5, 4);
    near(flat.width, METRE * near5, 4);
    const thin = await shapeOf(meshed((layer) => setNumber(layer, 'life.depth', 1)));
    near(thin.width, METRE, 4);
    const turned = await shapeOf(meshed((layer) => setNumber(layer, 'life.angle', 45)));
    expect(turned.width).toBeGreaterThan(1.3 * plain.width);
  });

  test('go over into the other shape of their file, as far as told', async () => {
    const heightAt = async (share: number, size = 1) =>
      (
        await shapeOf(
          meshed((layer) => {
            if (layer.drawn.kind === 'mesh')
              layer.drawn.meshes = collectionOf([['tall', { asset: TALL, name: 'Tall', chance: 1 }]]);
            setDrawn(layer, 'otherShape', share);
            setNumber(layer, 'life.size', size);
          }),
        )
      ).height;
    const [plain, half, whole] = [await heightAt(0), await heightAt(50), await heightAt(100)];
    near(plain, METRE * (5 / 4.5), 4);
    near(half / plain, 1.25, 0.03);
    near(whole / plain, 1.5, 0.03);
    near((await heightAt(100, 0.5)) / whole, 0.5, 0.04);
  });

  test('are lit where the light comes from, dull or shining, and show parts in looks of their own', async () => {
    const lit = async (change: (layer: Layer) => void) => {
      const effect = meshed((layer) => {
        choose(layer, 'appearance.lit', 'card');
        layer.settings['life.tilt'].base = { kind: 'fixed', value: [35, 40, 0] };
        change(layer);
      });
      return stage.pair(effect, 30, view);
    };
    const { withIt, without } = await lit(() => undefined);
    const sides = withIt.changed(without).map((p) => withIt.luminance(p));
    // Sides that lie otherwise are not equally bright.
    expect(Math.max(...sides) / Math.min(...sides)).toBeGreaterThan(1.5);
    const share = await lit((layer) => setNumber(layer, 'appearance.litShare', 0));
    const plain = share.withIt.changed(share.without).map((p) => share.withIt.luminance(p));
    expect(Math.max(...plain) / Math.min(...plain)).toBeLessThan(1.1);
    const brightest = async (name: string, value: number) => {
      const seen = await lit((layer) => setDrawn(layer, name, value));
      return Math.max(...seen.withIt.changed(seen.without).map((p) => seen.withIt.luminance(p)));
    };
    expect(Math.abs((await brightest('metalness', 100)) - (await brightest('metalness', 0)))).toBeGreaterThan(0.02);
    const parted = meshed((layer, effect) => {
      const tint = newStep('tint');
      if (tint.kind === 'tint') tint.settings.colour.base = { kind: 'fixed', value: { hex: '#ff0000' } };
      effect.looks = collectionOf([['red', { name: 'Red', steps: collectionOf([['t', tint as Step]]) }]]);
      if (layer.drawn.kind === 'mesh') layer.drawn.parts = [{ part: 'sides', look: 'red' }];
      layer.settings['life.tilt'].base = { kind: 'fixed', value: [35, 40, 0] };
    });
    const two = await pair(parted);
    const colours = two.withIt.changed(two.without).map((p) => [0, 1].map((c) => two.withIt.rgba[p * 4 + c]!));
    expect(colours.filter(([r, g]) => r! > 150 && g! < 40).length).toBeGreaterThan(200);
    expect(colours.filter(([r, g]) => r! > 150 && g! > 150).length).toBeGreaterThan(200);
  });

  test('mirror a picture of all directions: what lies where they are turned to, as bright and as turned as told', async () => {
    // A mirror that lies flat, seen from before and above: it shows what is above and behind it.
    const mirror = (change: (effect: Effect) => void = () => undefined) =>
      meshed((layer, effect) => {
        choose(layer, 'appearance.facing', 'own frame');
        choose(layer, 'appearance.lit', 'card');
        setDrawn(layer, 'roughness', 2);
        setDrawn(layer, 'metalness', 100);
        effect.stage.surround = 'dusk';
        effect.stage.air.surroundings = {
          isOn: true,
          picture: { asset: GRID, name: 'grid' },
          brightness: 1,
          turn: 0,
        };
        change(effect);
      });
    const above = { view: { ...VIEW, position: [0, 4.5, 3.5], target: [0, 1.5, 0] } as never };
    const top = async (effect: Effect) => {
      const picture = await stage.picture(effect, 30, above);
      return picture.lightAt(MIDDLE_X, MIDDLE_Y);
    };
    const sky = await top(mirror((effect) => (effect.stage.air.surroundings.picture = null)));
    // Its middle lies away from the eye: a little to the right of it is the right half, green above.
    const seen = async (turn: number, brightness = 1) =>
      top(mirror((effect) => Object.assign(effect.stage.air.surroundings, { turn, brightness })));
    const [right, left] = [await seen(45), await seen(-45)];
    expect(right[1]).toBeGreaterThan(right[0] + 0.3);
    expect(left[0]).toBeGreaterThan(left[1] + 0.3);
    const black = await seen(45, 0);
    near(((await seen(45, 0.5))[1] - black[1]) / (right[1] - black[1]), 0.5, 0.03);
    const off = await top(mirror((effect) => (effect.stage.air.surroundings.isOn = false)));
    off.forEach((value, c) => near(value, sky[c]!, 0.003));
  });

  test('darken the ground under them if told, and hide what is behind by their depth', async () => {
    const high = { ...VIEW, position: [0, 3, 5], target: [0, 0.3, 0] };
    const ground = async (hasShadow: boolean) => {
      const effect = meshed((layer, whole) => {
        whole.stage.surround = 'noon';
        layer.source = { kind: 'point', place: atEffect([0, 0.7, 0]) };
        setNumber(layer, 'life.size', 0.4);
        setDrawn(layer, 'shadow', hasShadow);
      });
      const { withIt, without } = await stage.pair(effect, 30, { view: high as never });
      return withIt.changed(without, 4).filter((p) => withIt.luminance(p) < 0.95 * without.luminance(p)).length;
    };
    expect(await ground(true)).toBeGreaterThan(2 * (await ground(false)) + 200);
  });

  test('are chosen among several by chance', async () => {
    const effect = meshed((layer) => {
      setNumber(layer, 'births.standing', 200);
      setNumber(layer, 'life.size', 0.05);
      layer.source = { kind: 'box', place: atEffect([0, 1, 0]) };
      layer.settings['source.size'].base = { kind: 'fixed', value: [3, 1.5, 0] };
      layer.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
    });
    const all = (await shapeOf(effect)).count;
    const { drawn } = effect.layers.byId['one']!;
    // The other mesh is not there: what falls to it is not drawn, and the rest goes on.
    if (drawn.kind === 'mesh')
      drawn.meshes = collectionOf([
        ['box', { asset: BOX, name: 'Box', chance: 1 }],
        ['none', { asset: BOX, name: 'Box', chance: 0 }],
      ]);
    near((await shapeOf(effect)).count / all, 1, 0.02);
  });
});

test('a mark wraps the step it lies on, within its depth, and leaves steep sides out', async () => {
  const seenFrom = { view: { ...VIEW, position: [0, 3, 3], target: [0, 0, 0] } as never };
  const marked = async (change: (mark: Layer) => void) => {
    const effect = one((mark, whole) => {
      whole.stage.things = collectionOf([
        ['box', { ...newThing('Box', BOX), at: [0.3, 0.15, 0] as [number, number, number], scale: 0.3 }],
      ]);
      mark.source = { kind: 'point', place: inWorld() };
      choose(mark, 'appearance.facing', 'ground');
      choose(mark, 'appearance.wraps', true);
      setNumber(mark, 'appearance.wrapDepth', 1);
      setNumber(mark, 'life.size', 1.4);
      mark.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ff0000' } };
      change(mark);
    });
    const withIt = await stage.picture(effect, 30, seenFrom);
    return (x: number, y: number, z: number) => {
      // The place in the picture of a place in the world, seen from there.
      const [up, deep] = [(y - z) * Math.SQRT1_2, 3 * Math.SQRT2 - (y + z) * Math.SQRT1_2];
      const scale = HEIGHT / (2 * deep * Math.tan((15 * Math.PI) / 180));
      const [r, g] = withIt.at(Math.round(MIDDLE_X + x * scale), Math.round(MIDDLE_Y - up * scale));
      return r > 150 && g < 60;
    };
  };
  const [ground, top, side, beyond] = [
    [-0.3, 0, 0.2],
    [0.3, 0.3, 0],
    [0.3, 0.12, 0.15],
    [-0.3, 0, -0.9],
  ] as const;
  const wrapped = await marked(() => undefined);
  expect([ground, top, side, beyond].map(([x, y, z]) => wrapped(x, y, z))).toEqual([true, true, false, false]);
  const shallow = await marked((mark) => setNumber(mark, 'appearance.wrapDepth', 0.1));
  expect([ground, top, side, beyond].map(([x, y, z]) => shallow(x, y, z))).toEqual([true, false, false, false]);
  const flat = await marked((mark) => choose(mark, 'appearance.wraps', false));
  expect([ground, top, side, beyond].map(([x, y, z]) => flat(x, y, z))).toEqual([true, false, false, false]);
});

test('a lost graphics context comes back by itself, with all that was there', async () => {
  const effect = meshed((layer, whole) => {
    whole.stage.air.fog.isOn = true;
    const step = { ...newStep('picture'), picture: { asset: GRID, name: 'grid' } };
    layer.look = { kind: 'own', steps: collectionOf([['p', step]]) };
  });
  const before = await stage.picture(effect, 30, view);
  expect(await stage.loseContext()).toEqual({ lost: 1, restored: 1 });
  const after = await stage.picture(effect, 30, view);
  expect(after.changed(before, 1)).toEqual([]);
});

test('eight instances of an effect are drawn where each stands, with the draw calls of one', async () => {
  const effect = one((layer, whole) => {
    setNumber(layer, 'life.size', 0.2);
    const [bright, mesh] = ['bright', 'mesh'].map((name, n) => {
      const other = structuredClone(layer);
      return [name, { ...other, name, salt: 2 + n }] as [string, Layer];
    }) as [[string, Layer], [string, Layer]];
    choose(bright[1], 'appearance.blend', 'additive');
    whole.layers = collectionOf([['one', layer], bright, mesh]);
    mesh[1].drawn = meshed().layers.byId['one']!.drawn;
    setNumber(mesh[1], 'life.size', 0.1);
  });
  const places = Array.from({ length: 8 }, (_, n): [number, number, number] => [(n - 3.5) * 0.25, 0, 0]);
  const alone = await stage.picture(effect, 30, { ...view, places: [places[0]!] });
  const { calls } = await stage.calls();
  const nothing = await stage.picture(effect, 30, { ...view, without: effect.layers.order });
  const all = await stage.picture(effect, 30, { ...view, places });
  expect((await stage.calls()).calls).toBe(calls);
  near(alone.shape(nothing).x, MIDDLE_X + places[0]![0] * METRE, 2);
  for (const [x] of places)
    expect(all.at(Math.round(MIDDLE_X + x * METRE), MIDDLE_Y)).not.toEqual(
      nothing.at(Math.round(MIDDLE_X + x * METRE), MIDDLE_Y),
    );
});
