// A whole layer's step at 1,000 to 1,000,000 living: births, ageing, shapers by table, three forces, deaths, compaction
// and the frame; and the same three forces alone, by the kernels as they were when the goal was set. Also what a step
// allocates.
import { runInNewContext } from 'node:vm';
import { setFlagsFromString } from 'node:v8';
import { FrameWriter, tripleBuffer, playAlone } from '../core/simulation/index.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { median, rounded } from './figures.ts';
import { frozenForces } from './frozenForces.ts';
import { layerOf, LIFE_SECONDS } from './layerEffect.ts';

const COUNTS = [1_000, 10_000, 100_000, 1_000_000];
/** Rounds at each count: many where a round is short, since the machine's speed changes from one second to the next. */
const roundsOf = (count: number): number => (count > 100_000 ? 40 : 200);

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;
/** Steps in a row over which allocation is counted: few enough that nothing is collected between. */
const countedSteps = (count: number): number => (count > 10_000 ? 20 : 200);

interface Figures {
  readonly nsPerParticle: number;
  readonly nsForcesAlone: number;
  /** Of the two, round by round. */
  readonly toForcesAlone: number;
  readonly living: number;
  readonly bytesAllocatedPerStep: number;
}

function measured(count: number): Figures {
  const world = playAlone(
    layerOf(count),
    new Map(),
    {},
    {
      kernels: kernelBytes(),
      budget: 2_000_000,
      frames: true,
    },
  );
  const room = world.frames!;
  const writer = new FrameWriter(tripleBuffer(world.memory.buffer, room.bytes, room.address));
  world.advance(Math.round(LIFE_SECONDS * 1.25 * world.rate));
  const living = world.living;
  // The program of the layer's last step stands in memory still: its forces are run again by themselves.
  const population = world.population('motes')!;
  const forces = frozenForces(world.memory);
  const whole: number[] = [];
  const alone: number[] = [];
  for (let round = 0; round < roundsOf(count); round++) {
    const started = performance.now();
    world.advance(world.step + 1);
    world.writeFrame(writer.frame);
    writer.publish();
    const between = performance.now();
    forces(population.base, population.stride, living);
    whole.push(between - started);
    alone.push(performance.now() - between);
  }
  const ns = (times: number[]) => rounded((median(times) * 1e6) / living);
  return {
    nsPerParticle: ns(whole),
    nsForcesAlone: ns(alone),
    toForcesAlone: rounded(median(whole.map((time, round) => time / alone[round]!))),
    living,
    bytesAllocatedPerStep: count > 100_000 ? NaN : allocated(count),
  };
}

/** Bytes of the heap that a step and its frame take up; kept states are left out. */
function allocated(count: number): number {
  const world = playAlone(
    layerOf(count),
    new Map(),
    {},
    { kernels: kernelBytes(), budget: 2_000_000, frames: true, historyBytes: 0 },
  );
  const room = world.frames!;
  const writer = new FrameWriter(tripleBuffer(world.memory.buffer, room.bytes, room.address));
  world.advance(Math.round(LIFE_SECONDS * 1.25 * world.rate));
  const steps = countedSteps(count);
  const rounds = Array.from({ length: 9 }, () => {
    collect();
    const before = process.memoryUsage().heapUsed;
    for (let step = 0; step < steps; step++) {
      world.advance(world.step + 1);
      world.writeFrame(writer.frame);
    }
    return (process.memoryUsage().heapUsed - before) / steps;
  });
  return Math.round(median(rounds));
}

const figures = COUNTS.map((count) => ({ count, ...measured(count) }));
const at = (count: number) => figures.find((figure) => figure.count === count)!;
const byCount = (pick: (figure: Figures) => number) =>
  Object.fromEntries(figures.map((figure) => [figure.count, pick(figure)]));
const result = {
  benchmark: 'layer',
  living: byCount((figure) => figure.living),
  nsPerParticle: byCount((figure) => figure.nsPerParticle),
  nsForcesAlone: byCount((figure) => figure.nsForcesAlone),
  bytesAllocatedPerStep: Object.fromEntries(
    figures
      .filter(({ count }) => count <= 100_000)
      .map(({ count, bytesAllocatedPerStep }) => [count, bytesAllocatedPerStep]),
  ),
  millionToTenThousand: rounded(at(1_000_000).nsPerParticle / at(10_000).nsPerParticle),
  toForcesAloneAt100000: at(100_000).toForcesAlone,
};
for (const { count, nsPerParticle, nsForcesAlone } of figures)
  console.log(`${count}: ${nsPerParticle} ns a particle, its three forces alone ${nsForcesAlone} ns`);
console.log(JSON.stringify(result));
