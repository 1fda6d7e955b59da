import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { collectionOf, newEffect, newLayer, newThing, setNumber, type Place } from '../document/index.ts';
import { measureReach } from '../simulation/index.ts';
import { bendingTube } from '../testing/rigs.ts';
import { kernelBytes } from '../testing/kernelBytes.ts';
import { attachmentsJsonSchema, attachmentsOf, attachmentsSchema } from './index.ts';

const TUBE = 'a'.repeat(64);
function onTube() {
  const effect = newEffect('Reeds', 5);
  effect.stage.things = collectionOf([['tube', newThing('Tube', TUBE)]]);
  const place: Place = {
    kind: 'bone',
    thing: 'tube',
    bone: 'high',
    offset: [2, 0, 0],
    turn: [0, 0, 0],
    keys: collectionOf([]),
  };
  const layer = newLayer('Motes', 1);
  layer.source = { kind: 'point', place };
  layer.bursts = collectionOf([]);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'births.life', 0.5);
  setNumber(layer, 'births.rate', 100);
  setNumber(layer, 'life.size', 0.2);
  effect.layers = collectionOf([['motes', layer]]);
  effect.dials = collectionOf([['d', { kind: 'number', name: 'Charge', least: 0, most: 1, value: 0.5 }]]);
  effect.signals = collectionOf([['s', { name: 'Strike', tried: null }]]);
  effect.stretches = { opening: 0.5, hold: { kind: 'continuing', seconds: 1 }, preRoll: 0, closing: 0.5 };
  return effect;
}
const rigs = new Map([[TUBE, bendingTube()]]);

describe('what a game has to know of an effect', () => {
  it('is where it hangs, what it is told, how long it is there, and what it reaches', () => {
    const effect = onTube();
    const made = attachmentsOf(effect, measureReach(effect, rigs, { kernels: kernelBytes() }));
    expect(attachmentsSchema.parse(made)).toEqual(made);
    expect(made).toMatchObject({
      effect: 'Reeds',
      stretches: { opening: 0.5, hold: { kind: 'continuing', seconds: 1 }, closing: 0.5 },
      sockets: [{ figure: 'Tube', bone: 'high', layers: ['Motes'] }],
      dials: [{ kind: 'number', name: 'Charge', least: 0, most: 1, value: 0.5 }],
      signals: ['Strike'],
    });
    const { bounds, mostLiving, seconds, instants } = made.measured;
    // Half a second of a hundred a second.
    expect(mostLiving).toBeGreaterThan(40);
    expect(mostLiving).toBeLessThan(60);
    // It is let go after one turn of its hold, and what was born last lives out.
    expect(seconds).toBeGreaterThan(1.6);
    expect(seconds).toBeLessThan(2.7);
    // Two metres beside a bone that rests half a metre up, and half a cube's diagonal further.
    const far = 0.2 * Math.sqrt(0.75);
    expect(bounds!.least[0]).toBeLessThanOrEqual(2 - far + 1e-5);
    expect(bounds!.most[0]).toBeGreaterThanOrEqual(2 + far - 1e-5);
    for (const { bounds: own } of instants)
      for (const axis of [0, 1, 2] as const) {
        expect(own?.least[axis] ?? 9).toBeGreaterThanOrEqual(bounds!.least[axis]);
        expect(own?.most[axis] ?? -9).toBeLessThanOrEqual(bounds!.most[axis]);
      }
    expect(made.layers).toMatchObject([{ name: 'Motes', bursts: [] }]);
    expect(made.layers[0]!.last!).toBeGreaterThan(1.5);
  });

  it('has the schema that is published', () => {
    const published = JSON.parse(
      readFileSync(new URL('../../docs/attachments.schema.json', import.meta.url), 'utf8'),
    );
    expect(published).toEqual(JSON.parse(JSON.stringify(attachmentsJsonSchema())));
  });
});
