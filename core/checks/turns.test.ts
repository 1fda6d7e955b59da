import { describe, expect, it } from 'vitest';
import {
  atEffect,
  collectionOf,
  curveShaper,
  newEffect,
  newLayer,
  setNumber,
  type Effect,
  type Layer,
  type PlaceKey,
} from '../document/index.ts';
import { findings } from './findings.ts';

function held(shape: (layer: Layer, effect: Effect) => void): Effect {
  const effect = newEffect('Test', 1);
  const layer = newLayer('Glow', 5);
  layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', 1);
  layer.settings['life.opacity'].shapers = collectionOf([]);
  effect.layers = collectionOf([['glow', layer]]);
  shape(layer, effect);
  return effect;
}
const turns = (effect: Effect) =>
  findings(effect, new Map(), { refused: {}, isBudgetFull: false }).filter(({ id }) => id.includes('turn/'));
const FADE: [number, number][] = [
  [0, 0],
  [0.1, 1],
  [0.85, 1],
  [1, 0],
];

describe('where a hold begins anew', () => {
  it('a layer that fades by the effect’s time is told, with a mend that keeps it level', () => {
    const effect = held((layer) => {
      const fade = { ...curveShaper(FADE), reads: { kind: 'effectTime' as const } };
      layer.settings['life.opacity'].shapers = collectionOf([['s', fade]]);
    });
    const [found] = turns(effect);
    expect(found!.sentence).toBe('Glow: opacity jumps from 100 to 0% each time the hold begins anew.');
    found!.mend!.apply(effect);
    expect(turns(effect)).toEqual([]);
  });

  it.each([
    ['continuing', 1],
    ['seamless', 1],
    ['none', 0],
  ] as const)('so is what grows by the stretch’s time where the hold is %s', (kind, count) => {
    const grow = {
      ...curveShaper([
        [0, 0.2],
        [1, 1],
      ]),
      reads: { kind: 'stretchTime' as const },
    };
    const effect = held((layer, own) => {
      own.stretches.hold = kind === 'none' ? { kind } : { kind, seconds: 2 };
      layer.settings['life.size'].shapers = collectionOf([['s', grow]]);
    });
    expect(turns(effect)).toHaveLength(count);
  });

  it('a place whose keys end elsewhere than they begin is told', () => {
    const key = (at: number, x: number): PlaceKey => ({ at, ease: 'straight', offset: [x, 1, 0], turn: [0, 0, 0] });
    const moved = (x: number) =>
      held((layer) => {
        if ('place' in layer.source)
          layer.source.place.keys = collectionOf([
            ['a', key(0, 0)],
            ['b', key(2, 1)],
            ['c', key(4, x)],
          ]);
      });
    expect(turns(moved(0.5)).map(({ sentence }) => sentence)).toEqual([
      'Glow: the point jumps 0.5 m each time the hold begins anew.',
    ]);
    expect(turns(moved(0))).toEqual([]);
  });

  it('what stands and has faded by then is told', () => {
    const effect = held((layer, own) => {
      own.stretches.closing = 0;
      layer.settings['life.opacity'].shapers = collectionOf([['s', curveShaper(FADE)]]);
    });
    expect(turns(effect)[0]!.sentence).toContain('is not seen while the effect holds on');
    effect.stretches.closing = 4;
    expect(turns(effect)).toEqual([]);
  });
});
