import { expect, test, type Page } from '@playwright/test';
import {
  atEffect,
  burst,
  collectionOf,
  curveShaper,
  inWorld,
  newDrawn,
  newEffect,
  newFront,
  newLayer,
  newRibbon,
  newStep,
  newThing,
  setNumber,
  setStep,
  type Effect,
  type Layer,
  type NumberSetting,
  type Shaper,
  type Step,
} from '@jinx/core/document';
import { writePicture, writeRig } from '@jinx/core/formats';
import { cross, linearOf, subtract, unit, type Vec3 } from '@jinx/core/maths';
import { closedBox } from '../core/testing/rigs.ts';
import { HEIGHT, StageHarness, WIDTH, type Picture } from './stageHarness.ts';

const VIEW = { position: [0, 1, 5], target: [0, 1, 0], fieldOfView: 30, follows: false } as const;
const METRE = HEIGHT / (2 * 5 * Math.tan((15 * Math.PI) / 180));
const [MIDDLE_X, MIDDLE_Y] = [WIDTH / 2, HEIGHT / 2];
const BOX = 'b'.repeat(64);
const TALL = 'a'.repeat(64);
const GRID = 'c'.repeat(64);
const SLOPE = 'd'.repeat(64);

/** A closed box of a metre with flat sides, two of them a part of their own. */
function box() {
  const rig = closedBox();
  const { positions, indices } = rig.mesh;
  const corners = [...indices].map((index) => [...positions.subarray(index * 3, index * 3 + 3)] as unknown as Vec3);
  const normals = corners.map((_, n) => {
    const [a, b, c] = [0, 1, 2].map((k) => corners[n - (n % 3) + k]!) as [Vec3, Vec3, Vec3];
    return unit(cross(subtract(b, a), subtract(c, a)));
  });
  const count = corners.length;
  const mesh = {
    positions: Float32Array.from(corners.flat()),
    normals: Float32Array.from(normals.flat()),
    uvs: new Float32Array(count * 2),
    colours: null,
    joints: new Uint16Array(count * 4),
    weights: Float32Array.from({ length: count * 4 }, (_, n) => (n % 4 === 0 ? 1 : 0)),
    indices: Uint32Array.from({ length: count }, (_, n) => n),
    parts: [
      { name: 'sides', start: 0, count: 12 },
      { name: 'rest', start: 12, count: count - 12 },
    ],
  };
  return { ...rig, mesh };
}
/** The box, half as tall again in its other shape. */
function tall() {
  const rig = box();
  const { positions, normals } = rig.mesh;
  const raised = positions.map((x, i) => (i % 3 === 1 && x > 0 ? 2 * x : x));
  return { ...rig, name: 'tall', mesh: { ...rig.mesh, otherShape: { positions: raised, normals } } };
}
/** Four squares of 8 pixels: red and green above, blue and white below; each opaque but for the last, half clear. */
function grid(): { width: number; height: number; rgba: Uint8Array } {
  const [width, height] = [16, 16];
  const rgba = new Uint8Array(width * height * 4);
  const colours = [
    [255, 0, 0, 255],
    [0, 255, 0, 255],
    [0, 0, 255, 255],
    [255, 255, 255, 128],
  ];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) rgba.set(colours[(y < 8 ? 0 : 2) + (x < 8 ? 0 : 1)]!, (y * width + x) * 4);
  return { width, height, rgba };
}
/** A normal map that bends all to one side. */
const slope = () => ({ width: 2, height: 2, rgba: new Uint8Array(Array(4).fill([255, 128, 128, 255]).flat()) });

/** A layer of one standing particle in the middle of the picture, and a stage that shows light as it is. */
function one(change: (layer: Layer, effect: Effect) => void = () => undefined): Effect {
  const effect = newEffect('One', 7);
  effect.stage.lens.bloom.isOn = false;
  const layer = standing('One', 1);
  effect.layers = collectionOf([['one', layer]]);
  change(layer, effect);
  return effect;
}
function standing(name: string, salt: number): Layer {
  const layer = newLayer(name, salt);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'life.size', 1);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  layer.settings['life.colour'].base = { kind: 'fixed', value: { hex: '#ffffff' } };
  layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'normal' };
  layer.look = { kind: 'own', steps: collectionOf([]) };
  return layer;
}
const choose = (layer: Layer, name: keyof Layer['settings'], value: unknown) => {
  layer.settings[name].base = { kind: 'fixed', value } as never;
};
const setDrawn = (layer: Layer, name: string, value: unknown) => {
  const settings = (layer.drawn as unknown as { settings: Record<string, NumberSetting> }).settings;
  settings[name]!.base = { kind: 'fixed', value } as never;
};
const near = (value: number, expected: number, off: number, what = '') =>
  expect(Math.abs(value - expected), `${what} ${value} for ${expected}`).toBeLessThan(off);

let stage: StageHarness;
let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  stage = await StageHarness.open(page, {
    [BOX]: writeRig(box()),
    [TALL]: writeRig(tall()),
    [GRID]: writePicture(grid()),
    [SLOPE]: writePicture(slope()),
  });
});
test.afterAll(() => page.close());
const view = { view: VIEW as never };
const pair = (effect: Effect, at = 30, layers?: string[]) => stage.pair(effect, at, view, layers);

const pictured = (change: (step: Extract<Step, { kind: 'picture' }>, layer: Layer) => void) =>
  one((layer) => {
    const step = { ...newStep('picture'), picture: { asset: GRID, name: 'grid' } };
    change(step, layer);
    layer.look = { kind: 'own', steps: collectionOf([['p', step]]) };
  });

test.describe('a picture', () => {
  /** Which colour the picture shows at a share of the sprite, from its middle. */
  const seen = async (effect: Effect, x: number, y: number, at = 30) => {
    const picture = await stage.picture(effect, at, view);
    return picture.lightAt(MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(y * METRE));
  };
  const nameOf = ([r, g, b]: readonly number[]) =>
    r! > 0.5 && g! < 0.3 ? 'red' : g! > 0.5 && r! < 0.3 ? 'green' : b! > 0.5 && r! < 0.3 ? 'blue' : 'other';

  test('lies upright, and is read by the part that is asked for', async () => {
    const plain = pictured(() => undefined);
    expect(nameOf(await seen(plain, -0.25, 0.25))).toBe('red');
    expect(nameOf(await seen(plain, 0.25, 0.25))).toBe('green');
    expect(nameOf(await seen(plain, -0.25, -0.25))).toBe('blue');
    const part = (value: string) => pictured((step) => setStep(step, 'part', value));
    near((await seen(part('red'), -0.25, 0.25))[1], 1, 0.05);
    near((await seen(part('red'), 0.25, 0.25))[1], 0, 0.02);
    near((await seen(part('green'), 0.25, 0.25))[0], 1, 0.05);
    near((await seen(part('brightness'), 0.25, 0.25))[0], 0.7152, 0.04);
    near((await seen(part('alpha'), -0.25, 0.25))[2], 1, 0.05);
  });

  test('makes opaque by its alpha, by its brightness or not at all, as far as its amount says', async () => {
    const covers = async (change: (step: Step) => void, x: number, y: number) => {
      const effect = pictured(change);
      const { withIt, without } = await pair(effect);
      const at = [MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(y * METRE)] as const;
      const [seen, behind] = [withIt.lightAt(...at), without.lightAt(...at)];
      return { seen, behind };
    };
    const half = await covers(() => undefined, 0.25, -0.25);
    near(half.seen[0], half.behind[0] * 0.5 + 0.5, 0.03);
    const bright = await covers((step) => setStep(step, 'opacity', 'its brightness'), -0.25, -0.25);
    near(bright.seen[2], bright.behind[2] * (1 - 0.0722) + 0.0722, 0.02);
    const whole = await covers((step) => setStep(step, 'opacity', 'nothing'), 0.25, -0.25);
    near(whole.seen[0], 1, 0.03);
    const faint = await covers((step) => setStep(step, 'amount', 40), -0.25, 0.25);
    near(faint.seen[1], 0.6, 0.04);
  });

  test('is crisp or smooth, and goes on beyond its edges as told', async () => {
    // Across the border between red and green.
    const border = async (reading: string) => {
      const picture = await stage.picture(
        pictured((step) => setStep(step, 'reading', reading)),
        30,
        view,
      );
      let mixed = 0;
      for (let x = MIDDLE_X - 12; x < MIDDLE_X + 12; x++) {
        const [r, g] = picture.lightAt(x, MIDDLE_Y - 30);
        if (r > 0.15 && g > 0.15) mixed++;
      }
      return mixed;
    };
    expect(await border('crisp')).toBeLessThanOrEqual(1);
    expect(await border('smooth')).toBeGreaterThan(3);
    const beyond = (edges: string) => {
      const effect = pictured((step) => setStep(step, 'edges', edges));
      const { look } = effect.layers.byId['one']!;
      const scroll = newStep('scroll');
      setStep(scroll, 'repeatAcross', 2);
      setStep(scroll, 'repeatAlong', 2);
      if (look.kind === 'own')
        look.steps = collectionOf([
          ['s', scroll as Step],
          ['p', look.steps.byId['p']!],
        ]);
      return effect;
    };
    // To the right of the picture's own right half, above the middle.
    expect(nameOf(await seen(beyond('repeated'), 0.3, 0.15))).toBe('red');
    expect(nameOf(await seen(beyond('mirrored'), 0.3, 0.15))).toBe('green');
    expect(nameOf(await seen(beyond('its border'), 0.45, 0.15))).toBe('green');
    const { withIt, without } = await pair(beyond('nothing'));
    const at = [MIDDLE_X + Math.round(0.4 * METRE), MIDDLE_Y - Math.round(0.15 * METRE)] as const;
    expect(withIt.at(...at)).toEqual(without.at(...at));
  });

  test('dissolves by its brightness: the darkest quarter goes first', async () => {
    const quarters = async (amount: number) => {
      const { withIt, without } = await pair(
        one((layer) => {
          const step = {
            ...(newStep('dissolve') as Extract<Step, { kind: 'dissolve' }>),
            picture: { asset: GRID, name: 'grid' },
          };
          for (const [name, value] of Object.entries({ by: 'a picture', softness: 0, edge: 0, amount }))
            setStep(step, name, value);
          layer.look = { kind: 'own', steps: collectionOf([['d', step]]) };
        }),
      );
      const at = (x: number, y: number) => {
        const place = [MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(y * METRE)] as const;
        return withIt.at(...place).join() !== without.at(...place).join();
      };
      // Red and green above; blue, and white that is half clear, below.
      return [at(-0.25, 0.25), at(0.25, 0.25), at(-0.25, -0.25), at(0.25, -0.25)];
    };
    expect(await quarters(0)).toEqual([true, true, true, true]);
    expect(await quarters(15)).toEqual([true, true, false, true]);
    expect(await quarters(35)).toEqual([false, true, false, true]);
    expect(await quarters(60)).toEqual([false, true, false, false]);
  });

  test('plays the frames of a grid over its life, by the clock or by number, from any first, blended or not', async () => {
    const book = (
      values: Record<string, string | number | boolean>,
      change: (layer: Layer) => void = () => undefined,
    ) =>
      pictured((step, layer) => {
        setStep(step, 'columns', 2);
        setStep(step, 'rows', 2);
        setStep(step, 'blended', false);
        for (const [name, value] of Object.entries(values)) setStep(step, name, value);
        setNumber(layer, 'births.standing', 0);
        setNumber(layer, 'births.life', 2);
        layer.bursts = collectionOf([
          ['b', { stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1 } as const],
        ]);
        change(layer);
      });
    const frameAt = async (effect: Effect, at: number) => nameOf(await seen(effect, 0.1, 0.1, at));
    const life = book({ plays: 'over its life' });
    expect([await frameAt(life, 10), await frameAt(life, 40), await frameAt(life, 70)]).toEqual([
      'red',
      'green',
      'blue',
    ]);
    const twice = book({ plays: 'over its life', times: 2 });
    expect([await frameAt(twice, 5), await frameAt(twice, 20), await frameAt(twice, 65)]).toEqual([
      'red',
      'green',
      'red',
    ]);
    const clock = book({ plays: 'by the clock', rate: 4 });
    expect([await frameAt(clock, 8), await frameAt(clock, 22), await frameAt(clock, 38)]).toEqual([
      'red',
      'green',
      'blue',
    ]);
    expect(await frameAt(book({ plays: 'by its number', frame: 2 }), 30)).toBe('blue');
    expect(await frameAt(book({ plays: 'by its number', frame: 0, first: 25 }), 30)).toBe('green');
    expect(await frameAt(book({ plays: 'over its life', frames: 2 }), 70)).toBe('green');
    const [r, g] = await seen(book({ plays: 'by its number', frame: 0.5, blended: true }), 0.1, 0.1);
    near(r, 0.5, 0.06);
    near(g, 0.5, 0.06);
  });
});

/** A box of a metre as a mesh. */
const meshed = (change: (layer: Layer, effect: Effect) => void = () => undefined) =>
  one((layer, effect) => {
    layer.drawn = { ...newDrawn('mesh'), meshes: collectionOf([['box', { asset: BOX, name: 'Box', chance: 1 }]]) };
    choose(layer, 'appearance.blend', 'solid');
    choose(layer, 'appearance.facing', 'own frame');
    change(layer, effect);
  });
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

/** A light above the ground, and a lit card beside it. */
const lamp = (change: (light: Layer, effect: Effect) => void = () => undefined) =>
  one((light, effect) => {
    light.drawn = newDrawn('light');
    light.source = { kind: 'point', place: atEffect([0, 0.5, 0]) };
    setNumber(light, 'life.intensity', 2);
    const card = standing('Card', 2);
    card.source = { kind: 'point', place: atEffect([0.8, 0.7, -0.2]) };
    setNumber(card, 'life.size', 0.5);
    choose(card, 'appearance.lit', 'card');
    effect.layers = collectionOf([
      ['one', light],
      ['card', card],
    ]);
    change(light, effect);
  });

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

test.describe('ribbons', () => {
  /** A straight beam of two metres across the picture, a fifth of a metre wide. */
  const beam = (change: (layer: Layer) => void = () => undefined) =>
    one((layer) => {
      layer.drawn = newRibbon('beam', atEffect([-1, 1, 0]), atEffect([1, 1, 0]));
      setDrawn(layer, 'jag', 0);
      setNumber(layer, 'life.size', 0.2);
      change(layer);
    });
  const seen = async (change: (layer: Layer) => void = () => undefined) => {
    const { withIt, without } = await pair(beam(change));
    const across = (x: number) => {
      const column = Math.round(MIDDLE_X + x * METRE);
      let count = 0;
      for (let y = 0; y < HEIGHT; y++) if (withIt.at(column, y).join() !== without.at(column, y).join()) count++;
      return count;
    };
    return { shape: withIt.shape(without), across, withIt, without };
  };

  test('are as wide as the size, at the head, in the middle and at the tail', async () => {
    const plain = await seen();
    near(plain.shape.width, 2 * METRE, 5);
    near(plain.across(0), 0.2 * METRE, 3);
    const pointed = await seen((layer) => setDrawn(layer, 'atHead', 0));
    near(pointed.across(0), 0.1 * METRE, 3);
    expect(pointed.across(0.9)).toBeLessThan(0.03 * METRE);
    const bulged = await seen((layer) => setDrawn(layer, 'bulge', 300));
    near(bulged.across(0), 0.6 * METRE, 4);
    near(bulged.across(-0.97), 0.2 * METRE + 0.4 * METRE * 0.06, 6);
  });

  test('are sent anew for each frame, however many joints they have', async () => {
    const trails = one((layer) => {
      layer.drawn = newRibbon('trail');
      layer.source = { kind: 'disc', place: atEffect([0, 1, 0]) };
      setNumber(layer, 'births.rate', 60);
      setNumber(layer, 'births.standing', 0);
      setNumber(layer, 'births.life', 2);
      layer.settings['motion.launch'].base = { kind: 'fixed', value: 'any' };
      setNumber(layer, 'motion.speed', 0.7);
      setNumber(layer, 'life.size', 0.03);
    });
    const early = await stage.picture(trails, 30, view);
    const later = await stage.picture(trails, 80, view);
    expect(later.changed(early).length).toBeGreaterThan(1000);
    // Another effect takes the drawing away: the next is made from nothing.
    await stage.picture(one(), 30, view);
    const fresh = await stage.picture(trails, 80, view);
    expect(fresh.changed(later, 0)).toEqual([]);
  });

  test('lie flat, crossed or as a tube: turned to the camera, fixed, or with a bright middle', async () => {
    const forms = Object.fromEntries(
      await Promise.all(
        ['flat', 'crossed', 'tube'].map(async (form) => [form, await seen((layer) => setDrawn(layer, 'form', form))]),
      ),
    ) as Record<string, Awaited<ReturnType<typeof seen>>>;
    for (const form of ['flat', 'tube']) near(forms[form]!.across(0), 0.2 * METRE, 4);
    // Lit, a tube has a bright and a dark side where a flat band has one.
    const lit = async (form: string) => {
      const { withIt } = await seen((layer) => {
        setDrawn(layer, 'form', form);
        setNumber(layer, 'life.size', 0.5);
        choose(layer, 'appearance.lit', 'card');
      });
      const [up, down] = [-0.2, 0.2].map((y) => withIt.lightAt(MIDDLE_X, Math.round(MIDDLE_Y + y * METRE))[0]);
      return up! / down!;
    };
    near(await lit('flat'), 1, 0.1);
    expect(await lit('tube')).toBeGreaterThan(1.3);
    // From 45 degrees above both bands are seen, each at a slant; a flat one turns to the eye.
    const above = { view: { ...VIEW, position: [0, 1 + 5 * Math.SQRT1_2, 5 * Math.SQRT1_2] } as never };
    const light = async (form: string) => {
      const effect = beam((layer) => {
        setDrawn(layer, 'form', form);
        choose(layer, 'appearance.blend', 'additive');
        setNumber(layer, 'life.intensity', 0.2);
      });
      const { withIt, without } = await stage.pair(effect, 30, above);
      return withIt.added(without);
    };
    near((await light('crossed')) / (await light('flat')), Math.SQRT2, 0.15);
  });

  test('carry their look once along, or again by the metre, and scroll it', async () => {
    const gradient = newStep('gradient');
    setStep(gradient, 'along', 'along');
    if (gradient.kind === 'gradient')
      gradient.stops = collectionOf([
        ['a', { at: { anchor: 'share', value: 0 }, colour: { hex: '#ff0000' } } as never],
        ['b', { at: { anchor: 'share', value: 1 }, colour: { hex: '#0000ff' } } as never],
      ]);
    const redAt = async (x: number, change: (layer: Layer) => void) => {
      const { withIt } = await seen((layer) => {
        layer.look = { kind: 'own', steps: collectionOf([['g', gradient as Step]]) };
        change(layer);
      });
      return withIt.lightAt(Math.round(MIDDLE_X + x * METRE), MIDDLE_Y)[0];
    };
    near(await redAt(-0.9, () => undefined), 0.95, 0.06);
    near(await redAt(0.9, () => undefined), 0.05, 0.06);
    const rings = newStep('drawn');
    setStep(rings, 'shape', 'disc');
    setStep(rings, 'softness', 0);
    const discs = async (tile: number) => {
      const { withIt, without } = await seen((layer) => {
        const scroll = newStep('scroll');
        layer.look = {
          kind: 'own',
          steps: collectionOf([
            ['s', scroll as Step],
            ['d', rings as Step],
          ]),
        };
        setDrawn(layer, 'laid', 'by the metre');
        setDrawn(layer, 'tile', tile);
      });
      let found = 0;
      let was = false;
      for (let x = Math.round(MIDDLE_X - METRE); x < MIDDLE_X + METRE; x++) {
        // A little above the middle, between two discs there is a gap.
        const y = Math.round(MIDDLE_Y - 0.06 * METRE);
        const isLit = withIt.at(x, y).join() !== without.at(x, y).join();
        if (isLit && !was) found++;
        was = isLit;
      }
      return found;
    };
    const [coarse, fine] = [await discs(0.5), await discs(0.25)];
    near(coarse, 4, 1.1);
    near(fine, 8, 1.1);
    expect(linearOf('#ff0000')[0]).toBe(1);
  });
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
