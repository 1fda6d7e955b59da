import { describe, expect, it } from 'vitest';
import {
  atBone,
  burst,
  collectionOf,
  curveShaper,
  inWorld,
  newFront,
  newLayer,
  newLink,
  setNumber,
  type Effect,
  type Front,
  type Layer,
  type NumberSetting,
} from '../../document/index.ts';
import { effectOf, onStage, TUBE } from '../../testing/effects.ts';
import { kernelBytes } from '../../testing/kernelBytes.ts';
import { distancesToSkin, frameOf } from '../../testing/riders.ts';
import { bendingTube, closedBox } from '../../testing/rigs.ts';
import { RECORD_OPACITY, RECORD_SIZE } from '../frames/frame.ts';
import { Instance } from '../index.ts';
import { FrontReader } from '../fronts/front.ts';
import { playAlone } from '../world/world.ts';

const rigs = new Map([[TUBE, closedBox()]]);

const settings = (front: Front) => front.settings as unknown as Record<string, NumberSetting>;
const setBorder = (front: Front, border: number, noise = 0) => {
  settings(front)['border']!.base = { kind: 'fixed', value: border };
  settings(front)['noise']!.base = { kind: 'fixed', value: noise };
};

/** A still box of a metre gives birth to a thousand held pieces; a sphere grows from its middle to `most` metres in 2 s. */
function unmade(shape: (layer: Layer, effect: Effect, front: Front) => void = () => undefined, most = 2): Effect {
  return effectOf((layer, effect) => {
    effect.stretches = { opening: 2, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    effect.stage.things = onStage('');
    layer.source = { kind: 'mesh', thing: 'figure', bones: [] };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 0.5);
    setNumber(layer, 'motion.speed', 1);
    layer.bursts = collectionOf([['all', burst('opening', 0, 1000)]]);
    const front = newFront('border', 'sphere', inWorld());
    setBorder(front, most);
    effect.fronts = collectionOf([['front', front]]);
    layer.front = 'front';
    shape(layer, effect, front);
  });
}

const far = (p: readonly number[]) => Math.hypot(...p);
function placesOf(world: Instance, id = 'motes') {
  const population = world.population(id)!;
  return Array.from({ length: population.count }, (_, i) => ({
    i,
    place: population.position.map((axis) => axis[i]!),
    isHeld: population.isHeld(i),
    born: (population.birthStep[i]! + population.birthFraction[i]!) / 60,
  }));
}

describe('a release front', () => {
  it('holds what it has not passed still, and frees the rest at the very instant it passes', () => {
    const whole = playAlone(unmade(), rigs);
    whole.advance(1);
    const births = new Map(placesOf(whole).map(({ i, place }) => [whole.population('motes')!.key[i]!, place]));
    const world = playAlone(unmade(), rigs);
    world.advance(40);
    const border = 40 / 60;
    let [held, free] = [0, 0];
    for (const { i, place, isHeld, born } of placesOf(world)) {
      const began = births.get(world.population('motes')!.key[i]!)!;
      expect(isHeld).toBe(far(began) > border);
      if (isHeld) {
        held++;
        expect(far(place.map((x, axis) => x - began[axis]!))).toBeLessThan(1e-6);
      } else {
        free++;
        // The border goes a metre a second: it passes a piece when it has come as far as the piece lies.
        expect(born).toBeCloseTo(far(began), 3);
        expect(far(place.map((x, axis) => x - began[axis]!))).toBeCloseTo(40 / 60 - born, 3);
      }
    }
    expect(held).toBeGreaterThan(50);
    expect(free).toBeGreaterThan(50);
  });

  const freeing = (frees: string, band: number, at = 40, most = 2) => {
    const world = playAlone(
      unmade((_, __, front) => {
        front.settings.frees.base = { kind: 'fixed', value: frees };
        settings(front)['band']!.base = { kind: 'fixed', value: band };
      }, most),
      rigs,
    );
    world.advance(1);
    const began = new Map(placesOf(world).map(({ i, place }) => [world.population('motes')!.key[i]!, far(place)]));
    world.advance(at);
    return placesOf(world).map(({ i, isHeld, born }) => ({
      distance: began.get(world.population('motes')!.key[i]!)!,
      isHeld,
      born,
    }));
  };

  it('frees what lies beyond it, where it is told to', () => {
    // It stands still at 0.7 m from its middle: what lies further out is free from the beginning.
    const world = playAlone(
      unmade((layer, _, front) => {
        setNumber(layer, 'births.life', 5);
        front.settings.frees.base = { kind: 'fixed', value: 'beyond' };
        settings(front)['border']!.shapers = collectionOf([]);
      }, 0.7),
      rigs,
    );
    world.advance(1);
    const seen = placesOf(world).map(({ place, isHeld }) => ({ isBeyond: far(place) > 0.7, isHeld, d: far(place) }));
    expect(seen.filter(({ isBeyond }) => isBeyond).length).toBeGreaterThan(50);
    for (const { isBeyond, isHeld, d } of seen) if (Math.abs(d - 0.7) > 0.02) expect(isHeld).toBe(!isBeyond);
  });

  it('frees what a band along it reaches, however thin the band and fast the border', () => {
    const border = 40 / 60;
    for (const { distance, isHeld, born } of freeing('band', 0.2)) {
      if (Math.abs(distance - border - 0.1) > 0.001) expect(isHeld).toBe(distance > border + 0.1);
      if (!isHeld) expect(born).toBeCloseTo(Math.max(0, distance - 0.1), 2);
    }
    // A border of 60 m in 2 s goes half a metre in each step.
    const all = freeing('band', 0.001, 3, 60);
    expect(all.every(({ isHeld }) => !isHeld)).toBe(true);
  });

  it('leaves held what its band does not come to', () => {
    const world = playAlone(
      unmade((layer, _, front) => {
        setNumber(layer, 'births.life', 5);
        front.settings.frees.base = { kind: 'fixed', value: 'band' };
        settings(front)['band']!.base = { kind: 'fixed', value: 0.1 };
        settings(front)['border']!.shapers = collectionOf([]);
      }, 0.7),
      rigs,
    );
    world.advance(1);
    const seen = placesOf(world);
    expect(seen.filter(({ isHeld }) => !isHeld).length).toBeGreaterThan(20);
    for (const { place, isHeld } of seen) {
      const off = Math.abs(far(place) - 0.7);
      if (Math.abs(off - 0.05) > 0.02) expect(isHeld).toBe(off > 0.05);
    }
  });

  it('keeps free what was freed when the border draws back', () => {
    const world = playAlone(
      unmade((layer, _, front) => {
        setNumber(layer, 'births.life', 5);
        settings(front)['border']!.shapers = collectionOf([
          [
            'there and back',
            {
              ...curveShaper([
                [0, 0],
                [0.4, 0.35],
                [0.6, 0],
              ]),
              reads: { kind: 'effectTime' },
            },
          ],
        ]);
      }),
      rigs,
    );
    world.advance(48);
    const freed = placesOf(world).filter(({ isHeld }) => !isHeld).length;
    expect(freed).toBeGreaterThan(100);
    world.advance(75);
    expect(placesOf(world).filter(({ isHeld }) => !isHeld).length).toBe(freed);
  });

  it('shows what is held at a size and opacity of its own, and what is free by its life', () => {
    const effect = unmade((layer) => {
      setNumber(layer, 'life.size', 0.1);
      setNumber(layer, 'release.heldSize', 50);
      setNumber(layer, 'release.heldOpacity', 80);
      setNumber(layer, 'life.opacity', 40);
      layer.settings['life.opacity'].shapers = collectionOf([]);
    });
    const world = playAlone(effect, rigs, {}, { kernels: kernelBytes() });
    world.advance(40);
    const population = world.population('motes')!;
    const frame = frameOf(world);
    const { f32 } = frame;
    for (let i = 0; i < population.count; i++) {
      const at = frame.recordAt(i);
      expect(f32[at + RECORD_SIZE]).toBeCloseTo(population.isHeld(i) ? 0.05 : 0.1, 5);
      expect(f32[at + RECORD_OPACITY]).toBeCloseTo(population.isHeld(i) ? 0.8 : 0.4, 5);
    }
  });

  it('frees pieces on skin from the skin, where the bending body is at that instant, and draws no jump', () => {
    const tube = bendingTube();
    const effect = unmade((layer, whole, front) => {
      whole.stage.things = onStage('sway', { kind: 'circle', radius: 2 });
      setNumber(layer, 'motion.speed', 0);
      front.place = atBone('figure', 'low');
    });
    const world = playAlone(effect, new Map([[TUBE, tube]]));
    for (let step = 1; step < 60; step++) {
      world.advance(step);
      const population = world.population('motes')!;
      const away = distancesToSkin(world, 'motes', tube, 1, false);
      for (let i = 0; i < population.count; i++) {
        if (population.isHeld(i)) expect(away[i]).toBeLessThan(1e-4);
        // Where each is drawn at the start of a step is where it was drawn at the end of the one before.
        if (population.birthStep[i] !== step - 1 || step < 2) continue;
        const apart = population.position.map((axis, a) => axis[i]! - population.from[a]![i]!);
        expect(far(apart)).toBeLessThan(0.2);
      }
    }
    expect(placesOf(world).some(({ isHeld }) => !isHeld)).toBe(true);
  });

  it('is ragged by noise alike for a layer on the surface and for one inside', () => {
    const effect = unmade((layer, whole, front) => {
      setBorder(front, 2, 0.15);
      const inside = newLayer('inside', 99);
      inside.source = { kind: 'mesh', thing: 'figure', bones: [] };
      inside.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
      setNumber(inside, 'births.rate', 0);
      setNumber(inside, 'births.life', 5);
      inside.bursts = layer.bursts;
      inside.front = 'front';
      setNumber(layer, 'births.life', 5);
      for (const each of [layer, inside]) setNumber(each, 'motion.speed', 0);
      whole.layers = collectionOf([
        ['motes', layer],
        ['inside', inside],
      ]);
    });
    const world = playAlone(effect, rigs);
    world.advance(40);
    const reader = new FrontReader('front', effect.fronts.byId['front']!, {
      effect,
      scene: { placeInto: (m) => m.set([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]) },
      clock: world.clock,
      dials: new Map() as never,
    });
    let [early, late, ragged] = [0, 0, 0];
    for (const id of ['motes', 'inside'])
      for (const { place, isHeld } of placesOf(world, id)) {
        const apart = far(place) - 40 / 60;
        // Beyond the reach of the noise nothing differs; within it, the surface goes by the noise where it lies.
        if (apart > 0.16) expect(isHeld).toBe(true);
        else if (apart < -0.16) expect(isHeld).toBe(false);
        else if (id === 'motes') {
          const rags = reader.raggednessAt(place[0]!, place[1]!, place[2]!);
          if (Math.abs(apart + rags) > 1e-3) expect(isHeld).toBe(apart + rags > 0);
          ragged++;
        }
        if (isHeld && apart < 0) late++;
        if (!isHeld && apart > 0) early++;
      }
    expect(ragged).toBeGreaterThan(100);
    expect(early).toBeGreaterThan(20);
    expect(late).toBeGreaterThan(20);
  });

  it('goes as a plane along its up, and as a box by its sides', () => {
    const freeAt = (kind: Front['kind'], shape: (front: Front) => void = () => undefined) => {
      const effect = unmade((layer, whole) => {
        const front = newFront('border', kind, inWorld());
        setBorder(front, 1);
        shape(front);
        whole.fronts = collectionOf([['front', front]]);
        setNumber(layer, 'births.life', 9);
        setNumber(layer, 'motion.speed', 0);
      });
      const world = playAlone(effect, rigs);
      world.advance(36);
      return placesOf(world);
    };
    // At 0.6 s a border of 1 m in 2 s stands at 0.3 m.
    for (const { place, isHeld } of freeAt('plane')) expect(isHeld).toBe(place[1]! > 0.3);
    const box = freeAt('box', (front) => {
      front.settings.size.base = { kind: 'fixed', value: [0.6, 0, 0.6] };
    });
    for (const { place, isHeld } of box)
      expect(isHeld).toBe(
        Math.max(Math.abs(place[0]!) - 0.3, Math.abs(place[1]!), Math.abs(place[2]!) - 0.3) > 0.3 + 1e-6,
      );
  });

  it('sets links off where and when it frees', () => {
    const effect = unmade((layer, whole) => {
      const spark = newLayer('spark', 50);
      spark.source = { kind: 'point', place: inWorld() };
      setNumber(spark, 'births.rate', 0);
      setNumber(spark, 'births.life', 9);
      setNumber(spark, 'motion.speed', 0);
      layer.links = collectionOf([['link', newLink('release', 'spark', 8)]]);
      whole.layers = collectionOf([
        ['motes', layer],
        ['spark', spark],
      ]);
    });
    const world = playAlone(effect, rigs);
    world.advance(45);
    const sparks = placesOf(world, 'spark');
    expect(sparks.length).toBeGreaterThan(100);
    for (const { place, born } of sparks) expect(born).toBeCloseTo(far(place), 3);
  });

  it('lets what it never reached die with the effect', () => {
    const world = playAlone(
      unmade(() => undefined, 0.6),
      rigs,
    );
    world.advance(119);
    expect(placesOf(world).filter(({ isHeld }) => isHeld).length).toBeGreaterThan(100);
    world.advance(121);
    expect(placesOf(world).filter(({ isHeld }) => isHeld)).toEqual([]);
  });

  it('gives the same bits by kernel and twin', () => {
    const effect = unmade((_, whole, front) => {
      setBorder(front, 2, 0.1);
      whole.stage.things = onStage('sway');
    });
    const hashes = [{}, { kernels: kernelBytes() }].map((options) => {
      const world = playAlone(effect, new Map([[TUBE, bendingTube()]]), {}, options);
      world.advance(50);
      return world.hash();
    });
    expect(hashes[0]).toBe(hashes[1]);
  });
});
