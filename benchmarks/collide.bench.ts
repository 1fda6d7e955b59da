// 50,000 particles fall on a knobbly ball of 1,000, 10,000 and 100,000 triangles, bounce, slide and come to rest in its
// hollows; the ball stands still, or turns. What meeting it costs: the step with the surface less the step without.
import {
  collectionOf,
  inWorld,
  newForce,
  newSurface,
  setNumber,
  type Effect,
  type Surface,
  type Vector,
} from '../core/document/index.ts';
import { closedBox } from '../core/testing/rigs.ts';
import { effectOf } from '../core/testing/effects.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { playAlone } from '../core/simulation/index.ts';
import type { Rig } from '../core/geometry/index.ts';
import { median, rounded } from './figures.ts';

const PARTICLES = 50_000;
const STEPS = 60;
const BALL = 'b'.repeat(64);

/** A ball of a metre's radius with knobs and hollows, of about so many triangles. */
function knobblyBall(triangles: number): Rig {
  const rows = Math.round(Math.sqrt(triangles / 4));
  const around = rows * 2;
  const positions: number[] = [];
  const indices: number[] = [];
  for (let row = 0; row <= rows; row++)
    for (let k = 0; k <= around; k++) {
      const [rise, turn] = [(row / rows) * Math.PI, (k / around) * 2 * Math.PI];
      const radius = 1 + 0.12 * Math.sin(6 * turn) * Math.sin(rise) ** 2 * Math.sin(9 * rise);
      positions.push(
        radius * Math.sin(rise) * Math.cos(turn),
        radius * Math.cos(rise),
        -radius * Math.sin(rise) * Math.sin(turn),
      );
      if (row === rows || k === around) continue;
      const a = row * (around + 1) + k;
      indices.push(a, a + around + 1, a + 1, a + 1, a + around + 1, a + around + 2);
    }
  const plain = closedBox();
  const vertices = positions.length / 3;
  return {
    ...plain,
    mesh: {
      ...plain.mesh,
      positions: Float32Array.from(positions),
      normals: Float32Array.from(positions),
      uvs: new Float32Array(vertices * 2),
      joints: new Uint16Array(vertices * 4),
      weights: Float32Array.from({ length: vertices * 4 }, (_, i) => (i % 4 === 0 ? 1 : 0)),
      indices: Uint32Array.from(indices),
    },
  };
}

function effectWith(surface: Surface | null): Effect {
  return effectOf((layer, effect) => {
    layer.source = { kind: 'box', place: inWorld([0, 2, 0]) };
    layer.settings['source.size'].base = { kind: 'fixed', value: [2.4, 1.2, 2.4] };
    layer.settings['source.region'].base = { kind: 'fixed', value: 'volume' };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.standing', PARTICLES);
    setNumber(layer, 'births.cap', PARTICLES);
    setNumber(layer, 'motion.speed', [0, 1]);
    layer.forces = collectionOf([['gravity', newForce('gravity', inWorld())]]);
    effect.surfaces = surface ? collectionOf([['ball', surface]]) : collectionOf<Surface>([]);
  });
}

function surfaceOf(isTurning: boolean): Surface {
  const place = inWorld();
  const key = (at: number, turn: number) => ({
    at,
    offset: [0, 0, 0] as Vector,
    turn: [0, turn, 0] as Vector,
    ease: 'straight' as const,
  });
  if (isTurning)
    place.keys = collectionOf([
      ['a', key(0, 0)],
      ['b', key(4, 360)],
    ]);
  return newSurface('mesh', { place, asset: BALL, name: 'ball' });
}

/** Milliseconds of a step in the middle of the fall, when most are about the ball. */
function stepMilliseconds(effect: Effect, rigs: ReadonlyMap<string, Rig>): number {
  const world = playAlone(effect, rigs, {}, { kernels: kernelBytes(), budget: PARTICLES });
  world.advance(30);
  const times: number[] = [];
  for (let step = 0; step < STEPS; step++) {
    const started = performance.now();
    world.advance(world.step + 1);
    times.push(performance.now() - started);
  }
  return median(times);
}

const without = stepMilliseconds(effectWith(null), new Map());
const still: Record<number, number> = {};
const turning: Record<number, number> = {};
for (const wanted of [1_000, 10_000, 100_000]) {
  const rigs = new Map([[BALL, knobblyBall(wanted)]]);
  still[wanted] = rounded(stepMilliseconds(effectWith(surfaceOf(false)), rigs) - without);
  turning[wanted] = rounded(stepMilliseconds(effectWith(surfaceOf(true)), rigs) - without);
  console.log(`${wanted} triangles: ${still[wanted]} ms standing still, ${turning[wanted]} ms turning`);
}
console.log(
  JSON.stringify({
    benchmark: 'collide',
    particles: PARTICLES,
    millisecondsWithout: rounded(without),
    millisecondsStill: still,
    millisecondsTurning: turning,
    ratioTenfold: rounded(still[100_000]! / still[10_000]!),
    ratioTenfoldFromThousand: rounded(still[10_000]! / still[1_000]!),
    ratioTenfoldTurning: rounded(turning[100_000]! / turning[10_000]!),
  }),
);
