import { describe, expect, it } from 'vitest';
import {
  burst,
  collectionOf,
  curveShaper,
  inWorld,
  newDrawn,
  newLayer,
  setNumber,
  type Effect,
  type Layer,
} from '../../document/index.ts';
import { effectOf } from '../../testing/effects.ts';
import { closedBox } from '../../testing/rigs.ts';
import { playAlone } from '../world/world.ts';

const BOX = 'b'.repeat(64);
const rigs = new Map([[BOX, closedBox()]]);
const choose = (layer: Layer, name: 'source.region' | 'source.order' | 'appearance.facing', value: string) =>
  (layer.settings[name].base = { kind: 'fixed', value });

/** A box of the effect's own that grows from 1 m to 3 m in 2 s, at [0, 2, 0], and motes born on it that stay. */
function shelled(shape: (motes: Layer, shell: Layer, effect: Effect) => void = () => undefined): Effect {
  return effectOf((motes, effect) => {
    effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    const shell = newLayer('Shell', 99);
    shell.source = { kind: 'point', place: inWorld([0, 2, 0]) };
    shell.drawn = { ...newDrawn('mesh'), meshes: collectionOf([['box', { asset: BOX, name: 'Box', chance: 1 }]]) };
    choose(shell, 'appearance.facing', 'own frame');
    setNumber(shell, 'births.rate', 0);
    setNumber(shell, 'births.standing', 1);
    setNumber(shell, 'motion.speed', 0);
    setNumber(shell, 'life.size', 1);
    const grows = curveShaper([
      [0, 1],
      [1, 3],
    ]);
    shell.settings['life.size'].shapers = collectionOf([['grow', { ...grows, reads: { kind: 'effectTime' } }]]);
    effect.layers.byId['shell'] = shell;
    effect.layers.order.push('shell');
    motes.source = { kind: 'drawn', layer: 'shell' };
    setNumber(motes, 'births.rate', 600);
    setNumber(motes, 'births.life', 5);
    setNumber(motes, 'motion.speed', 0);
    shape(motes, shell, effect);
  });
}
function bornIn(effect: Effect, steps = 60) {
  const world = playAlone(effect, rigs);
  world.advance(steps);
  const { position, count, birthStep, birthFraction } = world.population('motes')!;
  return Array.from({ length: count }, (_, i) => ({
    at: [position[0][i]!, position[1][i]! - 2, position[2][i]!],
    born: (birthStep[i]! + birthFraction[i]!) / 60,
  }));
}
/** How far a place is from the middle of the box, in halves of its side. */
const reach = (at: readonly number[], side: number) => (Math.max(...at.map(Math.abs)) * 2) / side;

describe('the mesh that a layer is drawn as', () => {
  it('bears on its surface, as large as it is at the instant of each birth', () => {
    const all = bornIn(shelled());
    expect(all.length).toBeGreaterThan(500);
    for (const { at, born } of all) expect(reach(at, 1 + born)).toBeCloseTo(1, 2);
  });

  it('carries what rides on it as it grows', () => {
    const all = bornIn(shelled((motes) => setNumber(motes, 'motion.ride', 100)));
    expect(all.length).toBeGreaterThan(500);
    for (const { at } of all) expect(reach(at, 2)).toBeCloseTo(1, 3);
  });

  it('bears at its vertices, at its edges and inside it', () => {
    const on = (region: string) =>
      bornIn(shelled((motes) => choose(motes, 'source.region', region))).map(({ at, born }) =>
        at.map((x) => (2 * x) / (1 + born)),
      );
    for (const at of on('vertices')) for (const x of at) expect(Math.abs(x)).toBeCloseTo(1, 2);
    for (const at of on('edge')) expect(Math.max(...at.map(Math.abs))).toBeCloseTo(1, 2);
    const inside = on('volume').map((at) => Math.max(...at.map(Math.abs)));
    expect(Math.max(...inside)).toBeLessThan(1.001);
    // An eighth of the volume lies in the inner half.
    expect(inside.filter((x) => x < 0.5).length / inside.length).toBeCloseTo(0.125, 1);
  });

  it('is even on what was drawn out to one side', () => {
    const all = bornIn(
      shelled((motes, shell) => {
        choose(motes, 'source.order', 'even');
        setNumber(shell, 'life.width', 400);
        shell.settings['life.size'].shapers = collectionOf([]);
      }),
    );
    // A box of 4 by 1 by 1 m: of 18 m² of its surface, 2 lie at its ends.
    const atEnds = all.filter(({ at }) => Math.abs(at[0]!) > 1.999).length;
    expect(atEnds / all.length).toBeGreaterThan(0.08);
    expect(atEnds / all.length).toBeLessThan(0.15);
  });

  it('may be born in one burst: it bears as its age is', () => {
    const all = bornIn(
      shelled((_, shell) => {
        setNumber(shell, 'births.standing', 0);
        setNumber(shell, 'births.life', 1);
        shell.bursts = collectionOf([['once', burst('opening', 0.25, 1)]]);
        const grows = curveShaper([
          [0, 1],
          [1, 3],
        ]);
        shell.settings['life.size'].shapers = collectionOf([['grow', grows]]);
      }),
      90,
    );
    expect(all.length).toBeGreaterThan(500);
    for (const { at, born } of all) {
      const age = Math.min(1, Math.max(0, born - 0.25));
      expect(reach(at, 1 + 2 * age)).toBeCloseTo(1, 2);
    }
  });

  it('stands where it does after an edit as from the beginning, with keys and a pre-roll too', () => {
    const made = (rate: number) =>
      shelled((motes, shell, whole) => {
        whole.stretches = { opening: 0, hold: { kind: 'seamless', seconds: 1 }, closing: 1, preRoll: 0.5 };
        setNumber(motes, 'births.rate', rate);
        setNumber(motes, 'motion.ride', 100);
        const place = inWorld([0, 2, 0]);
        const key = (at: number, y: number) => ({
          at,
          offset: [0, y, 0] as [number, number, number],
          turn: [0, 0, 0] as [number, number, number],
          ease: 'straight' as const,
        });
        place.keys = collectionOf([
          ['a', key(0, 0)],
          ['b', key(1, 2)],
        ]);
        shell.source = { kind: 'point', place };
      });
    const fresh = playAlone(made(600), rigs);
    const world = playAlone(made(300), rigs);
    for (const step of [0, 1, 2, 20]) {
      world.adopt(made(300));
      world.adopt(made(600));
      for (const each of [fresh, world]) each.advance(step);
      expect(fresh.population('motes')!.count).toBeGreaterThan(0);
      expect(world.hash()).toBe(fresh.hash());
    }
  });

  it('bears nothing where none of it stands', () => {
    expect(bornIn(shelled((_, shell) => setNumber(shell, 'births.standing', 0)))).toEqual([]);
    expect(bornIn(shelled((motes) => (motes.source = { kind: 'drawn', layer: 'motes' })))).toEqual([]);
  });
});
