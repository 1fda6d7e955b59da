import { describe, expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  curveShaper,
  defaultSetting,
  gradientShaper,
  LAYER_SETTINGS,
  newEffect,
  newForce,
  newLayer,
  newLink,
  setNumber,
  settingSchema,
  settingsByName,
  STEP_SETTINGS,
  shownOpacity,
  type ColourSetting,
  type Effect,
  type Layer,
  type NumberSetting,
  type Shaper,
} from '../../document/index.ts';
import { oklabOf, type Vec3 } from '../../maths/index.ts';
import { playAlone, type Instance } from '../index.ts';
import { ColourReader } from './colourReader.ts';
import { NumberReader } from './numberReader.ts';
import { newReading } from './reading.ts';
import { VectorReader } from './vectorReader.ts';

const EFFECT = newEffect('Bases', 3);
const setting = (more: Partial<NumberSetting>): NumberSetting => ({
  ...defaultSetting(LAYER_SETTINGS['life.size']),
  ...more,
});
const sizes = (own: NumberSetting) => new NumberReader(own, LAYER_SETTINGS['life.size'], 'life.size', EFFECT);
const colours = (own: Partial<ColourSetting>) =>
  new ColourReader(
    { ...defaultSetting(LAYER_SETTINGS['life.colour']), ...own },
    LAYER_SETTINGS['life.colour'],
    'life.colour',
    EFFECT,
  );
const line = (from: number, to: number, more: Partial<Shaper> = {}): Shaper => ({
  ...curveShaper([
    [0, from],
    [1, to],
  ]),
  ...more,
});
const KEYS = Array.from({ length: 3000 }, (_, key) => Math.imul(key + 1, 0x9e3779b1) >>> 0);

describe('a number that is one of several', () => {
  it('is each as often as its weight says, and the same for one particle at any time', () => {
    const values = [1, 2, 4].map((value, n) => ({ value, weight: [1, 0, 3][n]! }));
    const reader = sizes(setting({ base: { kind: 'set', values } }));
    const drawn = KEYS.map((key) => reader.read({ ...newReading(), key }));
    expect(new Set(drawn)).toEqual(new Set([1, 4]));
    expect(drawn.filter((value) => value === 4).length / drawn.length).toBeCloseTo(0.75, 1);
    expect(reader.read({ ...newReading(), key: KEYS[7]!, age: 0.8 })).toBe(drawn[7]);
    expect(reader.bounds({})).toEqual([1, 4]);
  });
});

describe('a blend whose amount changes', () => {
  it('goes as far as its amount times the curve says', () => {
    const blend = line(5, 5, { combine: 'blend', amount: 0.8 });
    const { mapping } = line(0, 1);
    const curve = mapping.kind === 'curve' ? mapping.curve : null;
    const reader = sizes(
      setting({
        base: { kind: 'fixed', value: 1 },
        shapers: collectionOf([['b', { ...blend, amountBy: { reads: { kind: 'age' }, curve: curve! } }]]),
      }),
    );
    for (const age of [0, 0.5, 1]) expect(reader.read({ ...newReading(), age })).toBeCloseTo(1 + 4 * 0.8 * age, 9);
  });
});

describe('what a number may come to', () => {
  it('lies within its bounds, whatever is read', () => {
    const shapers = [
      ['m', line(0.5, 2)],
      ['a', line(-1, 3, { combine: 'add', reads: { kind: 'speed' } })],
    ] as const;
    const own = sizes(setting({ base: { kind: 'spread', low: 1, high: 2 }, shapers: collectionOf(shapers) }));
    const [least, most] = own.bounds({});
    expect([least, most]).toEqual([0, 7]);
    for (const [n, key] of KEYS.slice(0, 200).entries()) {
      const value = own.read({ ...newReading(), key, age: (n % 11) / 10, speed: (n % 7) / 6 });
      expect(value).toBeGreaterThanOrEqual(least);
      expect(value).toBeLessThanOrEqual(most);
    }
  });
});

describe('a colour', () => {
  const rgbOf = (reader: ColourReader, key: number, more = {}): Vec3 => {
    const out = new Float64Array(3);
    reader.readInto({ ...newReading(), key, ...more }, out);
    return [out[0]!, out[1]!, out[2]!];
  };

  it('between two is drawn on the even way from one to the other', () => {
    const [low, high] = [{ hex: '#ff8800' }, { hex: '#0044ff' }];
    const reader = colours({ base: { kind: 'spread', low, high } });
    const ends = [low, high].map((value) => oklabOf(rgbOf(colours({ base: { kind: 'fixed', value } }), 0)));
    const shares = KEYS.slice(0, 300).map((key) => {
      const lab = oklabOf(rgbOf(reader, key));
      const share = (lab[0] - ends[0]![0]) / (ends[1]![0] - ends[0]![0]);
      lab.forEach((x, n) => expect(x).toBeCloseTo(ends[0]![n]! + (ends[1]![n]! - ends[0]![n]!) * share, 4));
      return share;
    });
    expect(Math.min(...shares)).toBeLessThan(0.05);
    expect(Math.max(...shares)).toBeGreaterThan(0.95);
  });

  it('that is one of several is each as often as its weight says', () => {
    const values = ['#ff0000', '#0000ff'].map((hex, n) => ({ value: { hex }, weight: 1 + 3 * n }));
    const reader = colours({ base: { kind: 'set', values } });
    const blue = KEYS.filter((key) => rgbOf(reader, key)[2] === 1).length;
    expect(blue / KEYS.length).toBeCloseTo(0.8, 1);
  });

  it('is taken only where a particle keeps it, and refused elsewhere', () => {
    const taken = { base: { kind: 'taken', from: 'parent' }, shapers: collectionOf([]), muted: false };
    expect(settingSchema(LAYER_SETTINGS['life.colour']).safeParse(taken).success).toBe(true);
    const refused = settingSchema(STEP_SETTINGS.tint.colour).safeParse(taken);
    expect(refused.error?.issues[0]?.message).toMatch(/it cannot be taken/);
  });

  it('is blended with a gradient as far as a curve over age says', () => {
    const blend = gradientShaper([[0, { hex: '#0000ff' }]], 'blend');
    const { mapping } = line(0, 1);
    const curve = mapping.kind === 'curve' ? mapping.curve : null;
    const shaper = { ...blend, amount: 1, amountBy: { reads: { kind: 'age' as const }, curve: curve! } };
    const reader = colours({
      base: { kind: 'fixed', value: { hex: '#ff0000' } },
      shapers: collectionOf([['g', shaper]]),
    });
    for (const age of [0, 0.25, 1]) expect(rgbOf(reader, 1, { age })).toEqual([1 - age, 0, age]);
  });
});

describe('how opaque the stops of a gradient are', () => {
  const gradient = gradientShaper([
    [0, { hex: '#ffffff' }],
    [0.5, { hex: '#ff0000' }],
    [1, { hex: '#000000' }],
  ]);
  if (gradient.mapping.kind === 'gradient') gradient.mapping.stops.byId['s2']!.opacity = 0;
  const colour: ColourSetting = {
    ...defaultSetting(LAYER_SETTINGS['life.colour']),
    shapers: collectionOf([['g', gradient]]),
  };
  const opacityAt = (own: NumberSetting, age: number) =>
    new NumberReader(shownOpacity(own, colour), LAYER_SETTINGS['life.opacity'], 'life.opacity', EFFECT).read({
      ...newReading(),
      age,
    });

  it('multiplies the opacity, and acts where that is muted too', () => {
    const own: NumberSetting = {
      ...defaultSetting(LAYER_SETTINGS['life.opacity']),
      base: { kind: 'fixed', value: 80 },
    };
    expect([0, 0.5, 0.75, 1].map((age) => opacityAt(own, age))).toEqual([80, 80, 40, 0]);
    expect(opacityAt({ ...own, muted: true }, 0.75)).toBe(50);
  });
});

describe('a vector', () => {
  it('is drawn and shaped axis by axis', () => {
    const declared = LAYER_SETTINGS['motion.velocity'];
    const own = {
      base: {
        kind: 'spread' as const,
        low: [0, 1, -1] as [number, number, number],
        high: [0, 2, 1] as [number, number, number],
      },
      shapers: collectionOf([
        ['all', line(2, 2)],
        ['y', line(10, 10, { axis: 'y' as const, combine: 'add' })],
      ]),
      muted: false,
    };
    const reader = new VectorReader(own, declared, 'motion.velocity', EFFECT);
    const out = [0, 0, 0];
    for (const key of KEYS.slice(0, 50)) {
      reader.readInto(out, { ...newReading(), key });
      expect(out[0]).toBe(0);
      expect(out[1]).toBeGreaterThanOrEqual(12);
      expect(out[1]).toBeLessThanOrEqual(14);
      expect(Math.abs(out[2]!)).toBeLessThanOrEqual(2);
    }
    expect(reader.isShared).toBe(false);
  });
});

/** An effect of one layer that is born at a point and goes nowhere, and its particles after so many steps. */
const alone = (change: (layer: Layer, effect: Effect) => void): Effect => {
  const effect = newEffect('Alone', 5);
  effect.stretches = { opening: 4, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
  const layer = newLayer('Motes', 9);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 60);
  setNumber(layer, 'births.life', 3);
  setNumber(layer, 'motion.speed', 0);
  effect.layers = collectionOf([['motes', layer]]);
  change(layer, effect);
  return effect;
};
const played = (effect: Effect, steps: number, rate = 60): Instance => {
  const world = playAlone(effect, new Map(), {}, { rate });
  world.advance(steps);
  return world;
};
const livesOf = (world: Instance, id = 'motes') => {
  const { life, count } = world.population(id)!;
  return [...life.subarray(0, count)];
};

describe('what is known at a birth', () => {
  it('is read by a lifetime: the distance to the aim, and the speed of what carries the source', () => {
    const far = played(
      alone((layer) => {
        layer.aim = atEffect([3, 1, 4]);
        layer.settings['births.life'].shapers = collectionOf([
          ['d', { ...line(5, 5, { combine: 'replace' }), reads: { kind: 'aimDistance' } }],
          [
            'm',
            {
              ...curveShaper(
                [
                  [0, 0],
                  [10, 1],
                ].map(([x, y]) => [x! / 10, y!] as const),
              ),
              reads: { kind: 'aimDistance' },
            },
          ],
        ]);
      }),
      10,
    );
    // Level beyond its last key at a metre.
    expect(livesOf(far).every((life) => Math.abs(life - 5) < 1e-5)).toBe(true);
    const moving = (speed: number) =>
      livesOf(
        played(
          alone((layer, effect) => {
            effect.stage.carrier = { kind: 'circle', radius: 1, speed };
            layer.settings['births.life'].shapers = collectionOf([
              [
                'c',
                {
                  ...curveShaper([
                    [0, 1],
                    [1, 0.5],
                  ]),
                  reads: { kind: 'carrierSpeed' },
                },
              ],
            ]);
          }),
          10,
        ),
      )[5]!;
    expect(moving(0.5)).toBeCloseTo(3 * 0.75, 1);
    expect(moving(2)).toBeCloseTo(1.5, 3);
  });

  it('is read by a lifetime: what a link has passed on in a channel', () => {
    const effect = alone((layer, whole) => {
      whole.channels = collectionOf([['heat', { name: 'heat' }]]);
      const heat = (value: number): NumberSetting => ({
        base: { kind: 'fixed', value },
        shapers: collectionOf([]),
        muted: false,
      });
      layer.channels = collectionOf([['heat', heat(0.25)]]);
      const child = newLayer('Children', 10);
      setNumber(child, 'births.rate', 0);
      child.channels = collectionOf([['heat', heat(1)]]);
      Object.assign(child.settings['births.life'], {
        base: { kind: 'fixed', value: 2 },
        shapers: collectionOf([['h', { ...line(0, 1), reads: { kind: 'channel', channel: 'heat' } }]]),
        muted: false,
      });
      const link = newLink('birth', 'children', 7);
      link.settings.channels.base = { kind: 'fixed', value: 100 };
      layer.links = collectionOf([['l', link]]);
      whole.layers = collectionOf([...Object.entries(whole.layers.byId), ['children', child]]);
    });
    const lives = livesOf(played(effect, 10), 'children');
    expect(lives.length).toBeGreaterThan(10);
    for (const life of lives) expect(life).toBeCloseTo(0.5, 5);
  });
});

describe('a constraint', () => {
  it.each(['limit', 'orbit'] as const)('halves its excess in the same time at any step rate: %s', (kind) => {
    const left = [30, 60, 240].map((rate) => {
      const effect = alone((layer) => {
        setNumber(layer, 'births.rate', 0);
        setNumber(layer, 'births.standing', 1);
        layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
        setNumber(layer, 'motion.speed', kind === 'limit' ? 5 : 0);
        if (kind === 'orbit') layer.source = { kind: 'point', place: atEffect([3, 0, 0]) };
        const force = newForce(kind);
        const settings = settingsByName<NumberSetting>(force);
        settings['halves']!.base = { kind: 'fixed', value: 0.25 };
        if (kind === 'limit') settings['fastest']!.base = { kind: 'fixed', value: 1 };
        else settings['speed']!.base = { kind: 'fixed', value: 0.0001 };
        layer.forces = collectionOf([['f', force]]);
      });
      const { velocity, position } = played(effect, rate / 2, rate).population('motes')!;
      return kind === 'limit' ? velocity[1][0]! - 1 : Math.hypot(position[0][0]!, position[2][0]!) - 1;
    });
    // Two halvings in half a second; a quarter of the excess of 4 m/s, or of 2 m, is left.
    for (const rest of left) expect(rest / (kind === 'limit' ? 4 : 2)).toBeCloseTo(0.25, 1);
    expect(Math.max(...left) - Math.min(...left)).toBeLessThan(0.06);
  });
});
