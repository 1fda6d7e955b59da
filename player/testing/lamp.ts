import { collectionOf, curveShaper, newEffect, newLayer, setNumber, type Effect } from '@jinx/core/document';

/** A small effect that is held, has a dial for size and one for the rate, and listens to a signal. */
export function lamp(seed = 5): Effect {
  const effect = newEffect('Lamp', seed);
  const layer = newLayer('Motes', 1);
  layer.source = {
    ...{ kind: 'point' },
    place: { kind: 'effect', offset: [0, 1, 0], turn: [0, 0, 0], keys: collectionOf([]) },
  } as typeof layer.source;
  effect.dials = collectionOf([
    ['size', { kind: 'number', name: 'Charge', least: 0, most: 10, value: 5 }],
    ['rate', { kind: 'number', name: 'Flow', least: 0, most: 1, value: 1 }],
  ]);
  const byDial = (dial: string) => ({
    ...curveShaper([
      [0, 0.1],
      [1, 1],
    ]),
    reads: { kind: 'dial' as const, dial },
  });
  layer.settings['life.size'].shapers = collectionOf([['s', byDial('size')]]);
  layer.settings['births.rate'].shapers = collectionOf([['s', byDial('rate')]]);
  setNumber(layer, 'births.rate', 200);
  setNumber(layer, 'births.life', 0.4);
  setNumber(layer, 'life.size', 0.4);
  setNumber(layer, 'motion.speed', 1);
  layer.bursts = collectionOf([]);
  effect.signals = collectionOf([['flash', { name: 'Flash', tried: null }]]);
  effect.stretches = { opening: 0.2, hold: { kind: 'continuing', seconds: 1 }, preRoll: 0, closing: 0.3 };
  effect.layers = collectionOf([['motes', layer]]);
  return effect;
}
