import { describe, expect, it } from 'vitest';
import {
  collectionOf,
  inWorld,
  newForce,
  newLayer,
  newRibbon,
  setWidthAlong,
  newSurface,
  setNumber,
  type Layer,
  type NumberSetting,
  type Ribbon,
} from '../../../document/index.ts';
import { kernelBytes } from '../../../testing/kernelBytes.ts';
import { frameOf } from '../../../testing/riders.ts';
import { ribbonsOf, apart, lengthOf, setRibbon, flown, at } from '../../../testing/ribbons.ts';

describe('a trail', () => {
  it('lies where its particle has come from, laid at even metres, as long as it lasts', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.1, lasts: 0.3 }));
    for (const step of [20, 30, 45]) {
      const ribbons = ribbonsOf(at(effect, step));
      expect(ribbons.length).toBe(3);
      const lived = step / 60 - 0.1;
      for (const joints of ribbons) {
        const [tail, head] = [joints[0]!, joints[joints.length - 1]!];
        expect(head.at[0]).toBeCloseTo(2 * lived, 4);
        expect(head.metres).toBeCloseTo(2 * lived, 4);
        expect(tail.at[0]).toBeCloseTo(2 * Math.max(0, lived - 0.3), 3);
        for (const joint of joints) expect(joint.metres).toBeCloseTo(joint.at[0]!, 4);
      }
    }
  });

  it('is wide and dressed as its settings say: by the size, narrower to the tail, older behind', () => {
    const drawn = setRibbon(newRibbon('trail'), { every: 0.05, lasts: 0.3 });
    setWidthAlong(drawn, 100, 20);
    const joints = ribbonsOf(at(flown(drawn), 45))[0]!;
    expect(joints[0]!.width).toBeCloseTo(0.02, 3);
    expect(joints[joints.length - 1]!.width).toBeCloseTo(0.1, 5);
    expect(joints[0]!.age).toBeCloseTo(1, 3);
    for (let n = 1; n < joints.length; n++) expect(joints[n]!.age).toBeLessThan(joints[n - 1]!.age);
  });

  it('stays behind when its particle has died, and draws in to nothing; or goes with it', () => {
    const stays = flown(setRibbon(newRibbon('trail'), { lasts: 0.5 }));
    const after = ribbonsOf(at(stays, 80));
    expect(after.length).toBe(3);
    expect(after[0]![after[0]!.length - 1]!.at[0]).toBeCloseTo(2, 3);
    expect(after[0]![0]!.at[0]).toBeCloseTo(2 * (80 / 60 - 0.1 - 0.5), 2);
    expect(ribbonsOf(at(stays, 98)).length).toBe(0);
    const goes = flown(setRibbon(newRibbon('trail'), { lasts: 0.5 }));
    const drawn = goes.layers.byId['motes']!.drawn as Extract<Ribbon, { kind: 'trail' }>;
    drawn.settings.ends.base = { kind: 'fixed', value: 'goes too' };
    expect(ribbonsOf(at(goes, 60)).length).toBe(3);
    expect(ribbonsOf(at(goes, 67)).length).toBe(0);
  });

  it('never jumps: from step to step it grows and draws in by no more than its particle goes', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.4, lasts: 0.35 }));
    const world = at(effect, 6);
    let before = 0;
    for (let step = 7; step < 95; step++) {
      world.advance(step);
      const joints = ribbonsOf(world)[0];
      const length = joints ? lengthOf(joints) : 0;
      expect(Math.abs(length - before)).toBeLessThan((2 / 60) * 1.05);
      before = length;
    }
    expect(before).toBe(0);
  });

  it('keeps its metres at every place it lies, while its head flies on and its tail goes', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.05, lasts: 0.6 }), (layer) => {
      layer.forces = collectionOf([['v', newForce('vortex', inWorld([0.4, 1, 0.4]))]]);
      setNumber(layer, 'births.life', 2);
    });
    const world = at(effect, 30);
    const seen = ribbonsOf(world)[0]!;
    const place = seen[Math.floor(seen.length * 0.7)]!;
    let looked = 0;
    for (let step = 31; step < 50; step++) {
      world.advance(step);
      const joints = ribbonsOf(world)[0]!;
      // Where the ribbon passes the place now: on the piece that is nearest to it.
      let [best, metres] = [Infinity, NaN];
      for (let n = 1; n < joints.length; n++) {
        const [a, b] = [joints[n - 1]!, joints[n]!];
        const way = b.at.map((x, axis) => x - a.at[axis]!);
        const size = way.reduce((sum, x) => sum + x * x, 0);
        const dot = way.reduce((sum, x, axis) => sum + x * (place.at[axis]! - a.at[axis]!), 0);
        const t = Math.max(0, Math.min(1, dot / size));
        const gap = apart(
          place.at,
          a.at.map((x, axis) => x + way[axis]! * t),
        );
        if (gap < best) [best, metres] = [gap, a.metres + (b.metres - a.metres) * t];
      }
      expect(best).toBeLessThan(0.002);
      expect(Math.abs(metres - place.metres)).toBeLessThan(0.01 * place.metres);
      looked++;
    }
    expect(looked).toBe(19);
  });

  it('is laid by time where a particle is slow, and at every place it bounces', () => {
    const slow = flown(setRibbon(newRibbon('trail'), { every: 5, seconds: 0.05, lasts: 5 }));
    expect(ribbonsOf(at(slow, 40))[0]!.length).toBeGreaterThanOrEqual(11);
    const bounced = flown(setRibbon(newRibbon('trail'), { every: 5, lasts: 5 }), (_, effect) => {
      const wall = newSurface('ground', { place: inWorld([0.73, 1, 0], [0, 0, 90]) });
      (wall.settings.bounce as NumberSetting).base = { kind: 'fixed', value: 100 };
      effect.surfaces = collectionOf([['wall', wall]]);
    });
    const joints = ribbonsOf(at(bounced, 40))[0]!;
    expect(Math.max(...joints.map(({ at: [x] }) => x!))).toBeCloseTo(0.73, 2);
    expect(joints[joints.length - 1]!.metres).toBeCloseTo(2 * (40 / 60 - 0.1), 3);
  });

  it('drifts with a share of its particle’s velocity, and feels its forces, only when told to', () => {
    const settings = { every: 0.05, lasts: 2 };
    const tailOf = (shape: (layer: Layer) => void, numbers = {}) => {
      const effect = flown(setRibbon(newRibbon('trail'), { ...settings, ...numbers }), shape);
      return ribbonsOf(at(effect, 36))[0]![0]!.at;
    };
    const falls = (layer: Layer) => (layer.forces = collectionOf([['g', newForce('gravity')]]));
    expect(tailOf(() => undefined)).toEqual([0, 1, 0]);
    expect(tailOf(falls)).toEqual([0, 1, 0]);
    expect(tailOf(() => undefined, { drift: 25 })[0]).toBeCloseTo(0.25 * 2 * 0.5, 3);
    const felt = tailOf((layer) => {
      falls(layer);
      const drawn = layer.drawn as Extract<Ribbon, { kind: 'trail' }>;
      drawn.settings.feels.base = { kind: 'fixed', value: true };
    });
    expect(1 - felt[1]!).toBeCloseTo((9.81 * 0.5 * 0.5) / 2, 1);
  });

  it('may be shown by a layer that follows, beside the heads themselves', () => {
    const effect = flown(newRibbon('trail'), (layer, whole) => {
      const tails = newLayer('tails', 99);
      tails.population = { kind: 'follows', layer: 'motes' };
      tails.drawn = layer.drawn;
      layer.drawn = { kind: 'sprite' };
      whole.layers = collectionOf([
        ['motes', layer],
        ['tails', tails],
      ]);
    });
    const world = at(effect, 40);
    expect(frameOf(world).layer(1234)!.count).toBe(3);
    expect(frameOf(world).layer(99)!.count).toBe(0);
    expect(ribbonsOf(world, 99).length).toBe(3);
  });

  it('refuses points beyond its most, and counts them', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { every: 0.01, lasts: 5, most: 50 }));
    const world = at(effect, 60);
    expect(lengthOf(ribbonsOf(world)[0]!)).toBeGreaterThan(0);
    expect(world.laid('motes')).toEqual({ living: 50, refused: expect.any(Number) as number });
    expect(world.laid('motes')!.refused).toBeGreaterThan(100);
  });

  it('gives the same bits by kernel and twin, played and gone back to', () => {
    const effect = flown(setRibbon(newRibbon('trail'), { drift: 30 }), (layer, whole) => {
      layer.forces = collectionOf([
        ['c', newForce('curl')],
        ['g', newForce('gravity')],
      ]);
      (layer.drawn as Extract<Ribbon, { kind: 'trail' }>).settings.feels.base = { kind: 'fixed', value: true };
      whole.surfaces = collectionOf([['g', newSurface('ground', { place: inWorld() })]]);
      setNumber(layer, 'births.rate', 60);
    });
    const straight = at(effect, 70, { historyBytes: 0 });
    const kernels = at(effect, 100, { kernels: kernelBytes() });
    kernels.advance(70);
    expect(kernels.hash()).toBe(straight.hash());
    expect(ribbonsOf(straight).length).toBeGreaterThan(20);
  });
});
