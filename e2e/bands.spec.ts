import { expect, test } from './test.ts';
import {
  atEffect,
  collectionOf,
  curveShaper,
  gradientShaper,
  newRibbon,
  setWidthAlong,
  type ColourSetting,
  type NumberSetting,
  type Ribbon,
  newStep,
  setNumber,
  setStep,
  type Layer,
  type Step,
} from '@jinx/core/document';
import { linearOf } from '@jinx/core/maths';
import { VIEW, METRE, one, choose, setDrawn, near, MIDDLE_X, MIDDLE_Y, ASSETS, pairsOf, view } from './oneLayer.ts';
import { HEIGHT, StageHarness } from './stageHarness.ts';

/** Linear light of eight bits of a picture. */
const linearOf8 = (level: number) => linearOf(`#${level.toString(16).padStart(2, '0').repeat(3)}`)[0];
const stage = StageHarness.forFile(ASSETS);
const pair = pairsOf(stage);

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
    const pointed = await seen((layer) => setWidthAlong(layer.drawn as Ribbon, 0, 100));
    near(pointed.across(0), 0.1 * METRE, 3);
    expect(pointed.across(0.9)).toBeLessThan(0.03 * METRE);
    const bulged = await seen((layer) => setWidthAlong(layer.drawn as Ribbon, 100, 100, 300));
    near(bulged.across(0), 0.6 * METRE, 4);
    near(bulged.across(-0.97), 0.2 * METRE + 0.4 * METRE * 0.06, 6);
  });

  test('go out along their length, and change their colour, as their curves and gradients say', async () => {
    const along = { kind: 'along' } as const;
    const { withIt, without } = await seen(({ drawn }) => {
      const { settings } = drawn as Ribbon;
      const opacity = settings.opacity as NumberSetting;
      const fade = curveShaper([
        [0, 1],
        [1, 0],
      ]);
      opacity.shapers = collectionOf([['fade', { ...fade, reads: along }]]);
      const colour = settings.colour as ColourSetting;
      const tint = gradientShaper([
        [0, { hex: '#ff0000' }],
        [1, { hex: '#0000ff' }],
      ]);
      colour.shapers = collectionOf([['tint', { ...tint, reads: along }]]);
    });
    // From its head at the right to its tail at the left: more of it, and redder, the nearer to the head.
    const added = (x: number) => {
      const at = [Math.round(MIDDLE_X + x * METRE), MIDDLE_Y] as const;
      const [lit, bare] = [withIt.at(...at), without.at(...at)];
      return lit.map((c, n) => linearOf8(c) - linearOf8(bare[n]!));
    };
    const [head, middle, tail] = [added(0.9), added(0), added(-0.9)];
    expect(head[0]!).toBeGreaterThan(middle[0]! * 1.5);
    expect(head[0]!).toBeGreaterThan(10 * Math.max(0.001, head[2]!));
    expect(middle[2]!).toBeGreaterThan(tail[2]!);
    expect(tail[0]!).toBeLessThan(0.01);
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
