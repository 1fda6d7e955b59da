import {
  emptyCollection,
  gradientShaper,
  listed,
  newLayer,
  stretchedCurve,
  stretchedStops,
  type NumberSetting,
  type Shaper,
} from '@jinx/core/document';
import { curveAt, readyCurve } from '@jinx/core/maths';
import { describe, expect, it } from 'vitest';
import {
  ageShaper,
  curvesOf,
  ageGradient,
  newShaper,
  newTint,
  readsOffered,
  readyCurveOf,
  READY_SHAPES,
  setAgeCurve,
  setAgeGradient,
  widthOf,
} from './shapers';

const plain = (): NumberSetting => ({ base: { kind: 'fixed', value: 2 }, shapers: emptyCollection(), muted: false });
const bySpeed: Shaper = {
  reads: { kind: 'speed' },
  mapping: { kind: 'curve', curve: readyCurveOf([[0, 1]]) },
  combine: 'multiply',
  amount: 1,
  muted: false,
};

describe('a shape over age', () => {
  it('multiplies the base it is given to', () => {
    const setting = plain();
    setAgeCurve(setting, readyCurveOf(READY_SHAPES[1]!.points), 'a');
    expect(setting.base).toEqual({ kind: 'fixed', value: 2 });
    expect(ageShaper(setting)!.shaper.combine).toBe('multiply');
  });

  it('is replaced in place: how it combines, and what else shapes the setting, stay', () => {
    const setting = plain();
    setting.shapers = { order: ['s'], byId: { s: bySpeed } };
    setAgeCurve(setting, readyCurveOf(READY_SHAPES[1]!.points), 'a');
    setting.shapers.byId['a']!.combine = 'add';
    setAgeCurve(setting, readyCurveOf(READY_SHAPES[2]!.points), 'b');
    expect(setting.shapers.order).toEqual(['s', 'a']);
    expect(ageShaper(setting)!.shaper.combine).toBe('add');
    expect(curveAt(readyCurve(curvesOf(ageShaper(setting)!.shaper)[0]!), 0)).toBe(1);
  });

  it('is not what another reading shapes', () => {
    const setting = plain();
    setting.shapers = { order: ['s'], byId: { s: bySpeed } };
    expect(ageShaper(setting)).toBeNull();
  });
});

describe('a gradient over age', () => {
  it('keeps the way it was combined when its stops change', () => {
    const layer = newLayer('Motes', 1);
    const stops = (hex: string) => {
      const { mapping } = gradientShaper([[0, { hex }]]);
      return mapping.kind === 'gradient' ? mapping.stops : emptyCollection<never>();
    };
    setAgeGradient(layer.settings['life.colour'], stops('#ff0000'), 'g');
    layer.settings['life.colour'].shapers.byId['g']!.combine = 'multiply';
    setAgeGradient(layer.settings['life.colour'], stops('#00ff00'), 'h');
    expect(layer.settings['life.colour'].shapers.order).toEqual(['g']);
    expect(layer.settings['life.colour'].shapers.byId['g']!.combine).toBe('multiply');
    expect(listed(ageGradient(layer.settings['life.colour'])!.stops)[0]!.item.colour).toEqual({ hex: '#00ff00' });
  });
});

describe('ready shapes', () => {
  it.each(READY_SHAPES.map(({ name, points }) => [name, points] as const))(
    '%s stays between 0 and 1',
    (_, points) => {
      const curve = readyCurve(readyCurveOf(points));
      for (let x = 0; x <= 1; x += 0.01) {
        expect(curveAt(curve, x)).toBeGreaterThanOrEqual(-1e-9);
        expect(curveAt(curve, x)).toBeLessThanOrEqual(1 + 1e-9);
      }
    },
  );
});

describe('what else may shape', () => {
  const shared = {
    channels: { order: ['h'], byId: { h: { name: 'heat' } } },
    dials: emptyCollection<never>(),
  };

  it('is offered by name: every channel, and of the rest what the setting allows', () =>
    expect(readsOffered(['age', 'speed', 'channel', 'dial'], shared).map(({ text }) => text)).toEqual([
      'by age',
      'by speed',
      'by heat',
    ]));

  it('begins as a line to all, as far as such a thing usually goes', () => {
    const { mapping } = newShaper({ kind: 'speed' });
    if (mapping.kind !== 'curve') throw new Error('a number is shaped by a curve');
    expect(widthOf(mapping.curve.keys)).toBe(4);
    const ready = readyCurve(mapping.curve);
    for (const x of [0, 1, 2, 4]) expect(curveAt(ready, x)).toBeCloseTo(x / 4, 6);
    const tint = newTint({ kind: 'distance' }).mapping;
    expect(tint.kind === 'gradient' && widthOf(tint.stops)).toBe(2);
  });

  it('keeps its form when it is made to run further', () => {
    const curve = readyCurveOf(READY_SHAPES[3]!.points);
    const wide = readyCurve(stretchedCurve(curve, 5));
    const plainly = readyCurve(curve);
    for (let x = 0; x <= 1; x += 0.05) expect(curveAt(wide, 5 * x)).toBeCloseTo(curveAt(plainly, x), 4);
    const stops = gradientShaper([
      [0.2, { hex: '#ff0000' }],
      [1, { hex: '#00ff00' }],
    ]).mapping;
    if (stops.kind !== 'gradient') throw new Error('a gradient was made');
    const further = listed(stretchedStops(stops.stops, 3)).map(({ item }) => item.at.value);
    expect(further).toEqual([0.6, 3]);
  });
});
