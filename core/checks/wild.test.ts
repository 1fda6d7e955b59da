import { describe, expect, it } from 'vitest';
import { findings } from '../checks/index.ts';
import {
  atBone,
  burst,
  collectionOf,
  FORCE_KINDS,
  FORCE_SETTINGS,
  inWorld,
  newForce,
  newLink,
  newRibbon,
  newSurface,
  parseEffect,
  setNumber,
  structuredCopy,
  type Effect,
  curveShaper,
  type Layer,
  type NumberDeclaration,
  type NumberSetting,
  type Surface,
} from '../document/index.ts';
import type { Rig } from '../geometry/index.ts';
import { noNumberIn } from '../testing/bits.ts';
import { effectOf, onStage, TUBE } from '../testing/effects.ts';
import { bendingTube, closedBox } from '../testing/rigs.ts';
import { playAlone, type Instance } from '../simulation/index.ts';

const mesh = (change: (rig: Rig['mesh']) => Partial<Rig['mesh']>): Rig => {
  const box = closedBox();
  return { ...box, mesh: { ...box.mesh, ...change(box.mesh) } };
};
const noArea = mesh(({ positions }) => ({ positions: positions.map(() => 0.5) }));
const noTriangles = mesh(() => ({ indices: new Uint32Array(0) }));

function wild(shape: (layer: Layer, effect: Effect) => void): Effect {
  return effectOf((layer, effect) => {
    effect.stage.things = onStage('');
    layer.bursts = collectionOf([['b', burst('opening', 0, 50)]]);
    shape(layer, effect);
  });
}

/** Runs a second and more, and returns what the findings say. */
function run(effect: Effect, rig: Rig = bendingTube(), budget = 100_000): { said: string; world: Instance } {
  const world = playAlone(parseEffect(structuredCopy(effect)), new Map([[TUBE, rig]]), {}, { budget });
  for (let step = 10; step <= 90; step += 10) {
    world.advance(step);
    expect(noNumberIn(world)).toBeNull();
    expect(world.hash()).toMatch(/^[0-9a-f]{16}$/);
  }
  const refused = Object.fromEntries(effect.layers.order.map((id, n) => [id, world.counts()[n]?.refused ?? 0]));
  const found = findings(effect, new Map([['figure', rig]]), { refused, isBudgetFull: world.living >= budget });
  return { said: found.map(({ sentence }) => sentence).join('\n'), world };
}
const number = (holder: { settings: unknown }, name: string, value: number) =>
  ((holder.settings as Record<string, NumberSetting>)[name]!.base = { kind: 'fixed', value });

describe('wild values', () => {
  it.each<[string, Rig]>([
    ['of no area', noArea],
    ['without triangles', noTriangles],
  ])('a mesh %s bears nothing, and a finding says so', (_name, rig) => {
    const { said, world } = run(
      wild((layer) => (layer.source = { kind: 'mesh', thing: 'figure', bones: [] })),
      rig,
    );
    expect(world.living).toBe(0);
    expect(said).toMatch(/has no surface to be born on/);
  });

  it.each<[string, Rig]>([
    ['of no area', noArea],
    ['without triangles', noTriangles],
  ])('a mesh %s may be met, and an attraction lead to it', (_name, rig) => {
    run(
      wild((layer, effect) => {
        effect.surfaces = collectionOf([['s', newSurface('thing', { thing: 'figure' })]]);
        const drawn = newForce('attraction', { ...inWorld(), kind: 'thing', thing: 'figure' });
        if (drawn.kind === 'attraction') drawn.settings.toward.base = { kind: 'fixed', value: 'skin' };
        layer.forces = collectionOf([['a', drawn]]);
      }),
      rig,
    );
  });

  it('shapes of no size bear at their middle', () => {
    for (const kind of ['ring', 'disc', 'sphere', 'cylinder', 'cone', 'line', 'box'] as const) {
      const { world } = run(
        wild((layer) => {
          layer.source = { kind, place: inWorld([0, 1, 0]) };
          for (const name of ['source.radius', 'source.length', 'source.thickness', 'source.arc'] as const)
            setNumber(layer, name, 0);
          layer.settings['source.size'].base = { kind: 'fixed', value: [0, 0, 0] };
          layer.settings['source.stretch'].base = { kind: 'fixed', value: [0, 0, 0] };
          setNumber(layer, 'motion.speed', 0);
        }),
      );
      expect(world.living).toBeGreaterThan(0);
    }
  });

  it('spheres and boxes of no size are met by nobody; the sphere is found', () => {
    const { said } = run(
      wild((_, effect) => {
        const [ball, box] = [newSurface('sphere', { place: inWorld() }), newSurface('box', { place: inWorld() })];
        number(ball, 'radius', 0);
        for (const side of ['wide', 'tall', 'deep']) number(box, side, 0);
        effect.surfaces = collectionOf<Surface>([
          ['ball', ball],
          ['box', box],
        ]);
      }),
    );
    expect(said).toMatch(/its radius is 0/);
  });

  it('the shortest life, and more births than there is room for, are handled and told', () => {
    const { said, world } = run(
      wild((layer) => {
        setNumber(layer, 'births.life', 0.02);
        setNumber(layer, 'births.rate', 100_000);
        setNumber(layer, 'births.cap', 100);
      }),
    );
    expect(world.living).toBeLessThanOrEqual(100);
    expect(said).toMatch(/births refused/);
  });

  it.each<[string, (effect: Effect) => void]>([
    ['a life of nothing', (effect) => setNumber(effect.layers.byId['motes']!, 'births.life', 0)],
    ['ten million a second', (effect) => setNumber(effect.layers.byId['motes']!, 'births.rate', 1e7)],
    ['ten million at once', (effect) => (effect.layers.byId['motes']!.bursts.byId['b']!.count = 1e7)],
    [
      'a place without end',
      (effect) => (effect.layers.byId['motes']!.source = { kind: 'point', place: inWorld([Infinity, 0, 0]) }),
    ],
    [
      'a strength that is no number',
      (effect) => {
        const force = newForce('gravity');
        number(force, 'strength', NaN);
        effect.layers.byId['motes']!.forces = collectionOf([['g', force]]);
      },
    ],
    [
      'a link to nothing',
      (effect) => (effect.layers.byId['motes']!.links = collectionOf([['l', newLink('death', 'gone', 1)]])),
    ],
    ['a front that is gone', (effect) => (effect.layers.byId['motes']!.front = 'gone')],
  ])('%s is refused at the door, with its path', (_name, shape) => {
    const effect = wild(() => undefined);
    shape(effect);
    let problem: unknown;
    try {
      parseEffect(effect);
    } catch (error) {
      problem = error;
    }
    expect(problem).toMatchObject({ path: expect.stringMatching(/layers/) as string });
  });

  it('a bone that is not there bears nothing and is named; a thing that is gone likewise', () => {
    const { said } = run(wild((layer) => (layer.source = { kind: 'point', place: atBone('figure', 'tail') })));
    expect(said).toMatch(/has no bone "tail"/);
    const gone = run(wild((layer) => (layer.source = { kind: 'point', place: atBone('nobody', 'hand') })));
    expect(gone.said).toMatch(/is not on the stage/);
  });

  it.each<Layer['source']>([
    { kind: 'mesh', thing: 'nobody', bones: [] },
    { kind: 'bones', thing: 'nobody', bones: [] },
    { kind: 'drawn', layer: 'motes' },
  ])('the speed of a carrier that is not there is none ($kind)', (source) => {
    run(
      wild((layer) => {
        layer.source = source;
        const by = curveShaper([
          [0, 1],
          [1, 2],
        ]);
        layer.settings['births.life'].shapers = collectionOf([['by', { ...by, reads: { kind: 'carrierSpeed' } }]]);
      }),
    );
  });

  it('forces at their most, all at once, move nobody out of the numbers', () => {
    run(
      wild((layer) => {
        setNumber(layer, 'births.life', 10);
        layer.forces = collectionOf(
          FORCE_KINDS.map((kind) => {
            const force = newForce(kind, inWorld([0, 1, 0]));
            for (const [name, setting] of Object.entries(force.settings as unknown as Record<string, NumberSetting>))
              if (name === 'strength')
                setting.base = {
                  kind: 'fixed',
                  value: (FORCE_SETTINGS[kind] as unknown as Record<string, NumberDeclaration>)[name]!.most,
                };
            return [kind, force];
          }),
        );
      }),
    );
  });

  it('ribbons of no length, of no width and between one place draw no number that is none', () => {
    for (const kind of ['trail', 'strand', 'blade', 'beam'] as const)
      run(
        wild((layer) => {
          layer.drawn = newRibbon(kind, inWorld(), inWorld());
          setNumber(layer, 'motion.speed', 0);
          setNumber(layer, 'life.size', 0);
        }),
      );
  });
});
