import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  curveShaper,
  gradientShaper,
  LAYER_SETTINGS,
  newEffect,
  newLayer,
  setNumber,
  structuredCopy,
  type Effect,
  type Key,
  type Shaper,
} from '../document/index.ts';
import { ColourReader, dialShares, newReading, NumberReader } from '../simulation/index.ts';
import { setDialRange } from './dialRange.ts';
import { bringOut } from './names.ts';

const dial = { kind: 'dial' as const, dial: 'd' };

/** What a number of the only layer is, as the dials stand. */
function read(effect: Effect, name: 'births.rate' | 'life.size'): number {
  const { settings } = effect.layers.byId['motes']!;
  return new NumberReader(settings[name], LAYER_SETTINGS[name], name, effect).read({
    ...newReading(),
    dials: dialShares(effect),
  });
}
function at(effect: Effect, value: number): Effect {
  const turned = structuredCopy(effect);
  (turned.dials.byId['d'] as { value: number }).value = value;
  return turned;
}
const ranged = (effect: Effect, least: number, most: number): Effect => {
  const draft = structuredCopy(effect);
  setDialRange(draft, 'd', { least, most });
  return draft;
};

function withRate(): Effect {
  const effect = newEffect('Test', 1);
  effect.layers = collectionOf([['motes', newLayer('Motes', 5)]]);
  setNumber(effect.layers.byId['motes']!, 'births.rate', 240);
  const { settings } = effect.layers.byId['motes']!;
  bringOut(effect, settings['births.rate'], LAYER_SETTINGS['births.rate'], { dial: 'd', shaper: 's' }, 'Rate');
  return effect;
}

describe('a dial with another range', () => {
  it.each([
    [0, 1000],
    [200, 300],
    [0, 300],
    [200, 5000],
  ])('gives what it says where its range was 120 to 480 and is %d to %d', (least, most) => {
    const changed = ranged(withRate(), least, most);
    expect(changed.dials.byId['d']).toMatchObject({ least, most, value: 240 });
    for (const value of [least, 200, 240, 300, most].filter((each) => each >= least && each <= most))
      expect(read(at(changed, value), 'births.rate')).toBeCloseTo(value, 6);
  });

  it('goes on with another number that goes with it, in the same proportion', () => {
    const effect = withRate();
    setNumber(effect.layers.byId['motes']!, 'life.size', 0.5);
    const { settings } = effect.layers.byId['motes']!;
    bringOut(effect, settings['life.size'], LAYER_SETTINGS['life.size'], { dial: 'd', shaper: 's' }, 'Rate');
    const changed = ranged(effect, 60, 960);
    for (const value of [120, 240, 480]) {
      expect(read(at(changed, value), 'births.rate')).toBeCloseTo(read(at(effect, value), 'births.rate'), 6);
      expect(read(at(changed, value), 'life.size')).toBeCloseTo(read(at(effect, value), 'life.size'), 6);
    }
  });

  const key = fc.record({
    at: fc.record({
      anchor: fc.constant('share' as const),
      value: fc.integer({ min: 0, max: 20 }).map((n) => n / 20),
    }),
    value: fc.double({ min: 0, max: 5, noNaN: true }),
    slopeIn: fc.double({ min: -5, max: 5, noNaN: true }),
    slopeOut: fc.double({ min: -5, max: 5, noNaN: true }),
    held: fc.boolean(),
  });
  const keys = fc
    .uniqueArray(key, { minLength: 1, maxLength: 5, selector: ({ at }) => at.value })
    .map((all) =>
      all
        .sort((a, b) => a.at.value - b.at.value)
        .map(({ held, ...item }): Key => (held ? { ...item, held: true as const } : item)),
    );
  const combine = fc.constantFrom('multiply', 'add', 'replace', 'blend' as const);

  it('leaves every setting as it was at every value in both ranges, whatever curve it has', () => {
    fc.assert(
      fc.property(
        keys,
        combine,
        fc.integer({ min: -20, max: 30 }),
        fc.integer({ min: 1, max: 40 }),
        // No nearer to a step than the twelve digits that places are written with.
        fc.integer({ min: 0, max: 97 }).map((n) => n / 97),
        (all, how, least, width, share) => {
          const effect = withRate();
          Object.assign(effect.dials.byId['d']!, { least: 0, most: 20, value: 10 });
          const shaper: Shaper = { ...curveShaper([], how), amount: 0.5, reads: dial };
          shaper.mapping = {
            kind: 'curve',
            curve: { keys: collectionOf(all.map((item, n) => [`k${n}`, item] as const)) },
          };
          effect.layers.byId['motes']!.settings['births.rate'].shapers = collectionOf([['s', shaper]]);
          const most = least + width;
          const [from, to] = [Math.max(0, least), Math.min(20, most)];
          fc.pre(from < to);
          const value = from + (to - from) * share;
          const changed = ranged(effect, least, most);
          expect(read(at(changed, value), 'births.rate')).toBeCloseTo(read(at(effect, value), 'births.rate'), 3);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('keeps a band and a gradient as they were', () => {
    const effect = withRate();
    Object.assign(effect.dials.byId['d']!, { least: 0, most: 10, value: 5 });
    const { settings } = effect.layers.byId['motes']!;
    const gradient = gradientShaper([
      [0, { hex: '#ff0000' }],
      [0.5, { hex: '#00ff00' }],
      [1, { hex: '#0000ff' }],
    ]);
    settings['life.colour'].shapers = collectionOf([['s', { ...gradient, reads: dial }]]);
    const colour = (of: Effect) => {
      const out = new Float64Array(3);
      const setting = of.layers.byId['motes']!.settings['life.colour'];
      const reader = new ColourReader(setting, LAYER_SETTINGS['life.colour'], 'life.colour', of, {});
      reader.readInto({ ...newReading(), dials: dialShares(of) }, out);
      return [...out];
    };
    const changed = ranged(effect, 2, 20);
    for (const value of [2, 4, 5, 8, 10])
      colour(at(changed, value)).forEach((part, c) => expect(part).toBeCloseTo(colour(at(effect, value))[c]!, 2));
  });

  it('brings back, within one drag, what a narrower range had cut off', () => {
    const effect = withRate();
    const draft = structuredCopy(effect);
    setDialRange(draft, 'd', { least: 230, most: 250 }, effect);
    setDialRange(draft, 'd', { least: 120, most: 480 }, effect);
    expect(draft).toEqual(effect);
  });

  it('is never without width', () => {
    const effect = withRate();
    expect(ranged(effect, 300, 300)).toEqual(effect);
  });
});
