import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addReady, READY, type ReadyKind } from '../building/index.ts';
import {
  atEffect,
  collectionOf,
  curveShaper,
  newEffect,
  newLayer,
  newLink,
  newThing,
  setNumber,
  structuredCopy,
  type Effect,
  type Layer,
  type Vector,
} from '../document/index.ts';
import { drawn } from '../building/index.ts';
import { resize } from '../editing/index.ts';
import { bendingTube } from '../testing/rigs.ts';
import { findings, type Observed } from './findings.ts';

const RIGS = new Map([['sedge', bendingTube()]]);
const said = (effect: Effect, observed: Partial<Observed> = {}) =>
  findings(effect, RIGS, { refused: {}, isBudgetFull: false, ...observed }).map(({ sentence }) => sentence);
const MESH = { asset: 'b'.repeat(64), name: 'Block' };
const ACROSS = [atEffect([-0.5, 1, 0]), atEffect([0.5, 1, 0])] as const;

function of(...layers: [string, Layer][]): Effect {
  const effect = newEffect('Quiet', 3);
  effect.stage.things = collectionOf([['sedge', newThing('Sedge', 'a'.repeat(64))]]);
  effect.layers = collectionOf(layers);
  return effect;
}
function layerOf(name: string, shape: (layer: Layer) => unknown): Layer {
  const layer = newLayer(name, name.length);
  shape(layer);
  return layer;
}

describe('nothing is found wrong', () => {
  it('with ready layers as they come, wherever they are moved, turned and resized', () => {
    const kinds = Object.keys(READY) as ReadyKind[];
    const metres = fc.double({ min: -4, max: 4, noNaN: true });
    const degrees = fc.double({ min: -180, max: 180, noNaN: true });
    const placed = fc.record({
      kind: fc.constantFrom(...kinds),
      offset: fc.tuple(metres, fc.double({ min: 0, max: 3, noNaN: true }), metres),
      turn: fc.tuple(degrees, degrees, degrees),
    });
    fc.assert(
      fc.property(
        fc.array(placed, { maxLength: 4 }),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        fc.double({ min: 0.6, max: 1.6, noNaN: true }),
        (all, size, tempo) => {
          let effect = of();
          // A glow throughout, so that something lives at every instant.
          for (const { kind, offset, turn } of [
            ...all,
            { kind: 'glow' as const, offset: [0, 1, 0], turn: [0, 0, 0] },
          ]) {
            const id = `l${effect.layers.order.length}`;
            const salt = effect.layers.order.length + 1;
            effect = structuredCopy(effect);
            addReady(effect, id, kind, { salt, beside: '', blade: ACROSS, mesh: MESH });
            const { source } = effect.layers.byId[id]!;
            if ('place' in source) Object.assign(source.place, { offset, turn });
          }
          const draft = structuredCopy(effect);
          resize(draft, { size, tempo });
          expect(said(draft)).toEqual([]);
        },
      ),
      { numRuns: 1000 },
    );
  });

  it('with what stands so many to the square metre, which never dies', () =>
    expect(
      said(
        of([
          'glow',
          layerOf('Glow', (layer) => {
            setNumber(layer, 'births.rate', 0);
            setNumber(layer, 'births.perArea', 40);
            layer.source = { kind: 'disc', place: atEffect([0, 1, 0]) };
            layer.settings['life.opacity'].shapers = collectionOf([]);
          }),
        ]),
      ),
    ).toEqual([]));

  it.each([0.1, 0.2, 0.3])('with a fade of a twentieth of a life of %d s', (life) =>
    expect(
      said(
        of([
          'motes',
          layerOf('Motes', (layer) => {
            setNumber(layer, 'births.life', life);
            const ramp: [number, number][] = [
              [0, 0],
              [0.05, 1],
              [0.95, 1],
              [1, 0],
            ];
            layer.settings['life.opacity'].shapers = collectionOf([['s', curveShaper(ramp)]]);
          }),
        ]),
      ),
    ).toEqual([]),
  );

  it('with a hidden layer that another follows, is born on, or is set off by', () => {
    const hidden = layerOf('Seeds', (layer) => (layer.hidden = true));
    const follower = layerOf('Halo', (layer) => (layer.population = { kind: 'follows', layer: 'seeds' }));
    expect(said(of(['seeds', hidden], ['halo', follower]))).toEqual([]);
    const child = layerOf('Buds', (layer) => (layer.source = { kind: 'particles', layer: 'seeds' }));
    expect(said(of(['seeds', hidden], ['buds', child]))).toEqual([]);
    const setOff = layerOf('Sparks', (layer) => setNumber(layer, 'births.rate', 0));
    const linked = { ...hidden, links: collectionOf([['l', newLink('death', 'sparks', 4)]]) };
    expect(said(of(['seeds', linked], ['sparks', setOff])).filter((told) => told.includes('shows nothing'))).toEqual(
      [],
    );
    expect(said(of(['seeds', hidden]))).toEqual(['Seeds shows nothing: it is hidden.']);
  });

  it('with measures of a source that was another shape, and after a change of size and tempo', () => {
    const other = layerOf('Motes', (layer) => {
      setNumber(layer, 'source.radius', 2);
      setNumber(layer, 'source.length', 3);
      layer.source = { kind: 'box', place: atEffect([0, 1, 0]) };
    });
    const effect = of(['motes', other]);
    expect(said(effect)).toEqual([]);
    resize(effect, { size: 1.7, tempo: 0.6 });
    expect(said(effect)).toEqual([]);
  });

  it('with two turned halves of one solid mesh, and is with two that lie in each other', () => {
    const half = (name: string, tilt: Vector) =>
      layerOf(name, (layer) => {
        setNumber(layer, 'births.rate', 0);
        setNumber(layer, 'births.standing', 1);
        setNumber(layer, 'life.size', 1);
        layer.source = { kind: 'point', place: atEffect([0, 1, 0]) };
        layer.settings['life.opacity'].shapers = collectionOf([]);
        layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'solid' };
        layer.settings['appearance.facing'].base = { kind: 'fixed', value: 'own frame' };
        layer.settings['life.tilt'].base = { kind: 'fixed', value: tilt };
        drawn(
          layer,
          'mesh',
          {},
          { meshes: collectionOf([['m', { asset: 'b'.repeat(64), name: 'leaf', chance: 1 }]]) },
        );
      });
    expect(said(of(['left', half('Left', [0, 0, 0])], ['right', half('Right', [0, 180, 0])]))).toEqual([]);
    expect(said(of(['left', half('Left', [0, 0, 0])], ['right', half('Right', [0, 0, 0])]))).toHaveLength(1);
  });
});

it('births that had no parent are told', () => {
  const child = layerOf('Buds', (layer) => (layer.source = { kind: 'particles', layer: 'seeds' }));
  const effect = of(['seeds', layerOf('Seeds', () => undefined)], ['buds', child]);
  expect(said(effect, { lost: { buds: 12 } })).toEqual([
    'Buds lost 12 births: no particle of Seeds lived to be born on.',
  ]);
});
