// A whole layer's step at 1,000 to 1,000,000 living: births, ageing, shapers by table, three forces, deaths, compaction
// and the frame; and the kernels of the same three forces alone. Also what a step allocates.
import { runInNewContext } from 'node:vm';
import { setFlagsFromString } from 'node:v8';
import { FrameWriter, tripleBuffer, playAlone } from '../core/simulation/index.ts';
import { PROGRAM, SCRATCH } from '../core/simulation/run/memory.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { CALL_NAMES, wasmKernels } from '../core/kernels/index.ts';
import { median, rounded } from './figures.ts';
import { layerOf, LIFE_SECONDS } from './layerEffect.ts';

const COUNTS = [1_000, 10_000, 100_000, 1_000_000];
const ROUNDS = 40;

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;
/** Steps in a row over which allocation is counted: few enough that nothing is collected between. */
const COUNTED_STEPS = 20;

interface Figures {
  readonly nsPerParticle: number;
  readonly nsForcesAlone: number;
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
  const kernels = wasmKernels(kernelBytes(), world.memory);
  const calls = forcesAlone(world.memory.buffer);
  const whole: number[] = [];
  const alone: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const started = performance.now();
    world.advance(world.step + 1);
    world.writeFrame(writer.frame);
    writer.publish();
    const between = performance.now();
    kernels.run(calls, population.base, population.stride, 0, Math.floor(living / 4) * 4, SCRATCH);
    whole.push(between - started);
    alone.push(performance.now() - between);
  }
  const ns = (times: number[]) => rounded((median(times) * 1e6) / living);
  return {
    nsPerParticle: ns(whole),
    nsForcesAlone: ns(alone),
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
  const rounds = Array.from({ length: 9 }, () => {
    collect();
    const before = process.memoryUsage().heapUsed;
    for (let step = 0; step < COUNTED_STEPS; step++) {
      world.advance(world.step + 1);
      world.writeFrame(writer.frame);
    }
    return (process.memoryUsage().heapUsed - before) / COUNTED_STEPS;
  });
  return Math.round(median(rounds));
}

/** Copies the force calls of the program that stands in a world's memory; returns the address of the copy. */
function forcesAlone(buffer: ArrayBufferLike): number {
  const words = new Int32Array(buffer);
  const to = PROGRAM / 4 + 2048;
  let [read, write] = [PROGRAM / 4 + 1, to + 1];
  words[to] = 0;
  for (let call = words[PROGRAM / 4]!; call > 0; call--) {
    const length = words[read + 1]!;
    if (CALL_NAMES[words[read]!] !== 'integrate') {
      words.copyWithin(write, read, read + length);
      write += length;
      words[to]!++;
    }
    read += length;
  }
  if (words[to] !== 3) throw new Error(`the layer runs ${words[to]} forces, not three`);
  return to * 4;
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
  toForcesAloneAt100000: rounded(at(100_000).nsPerParticle / at(100_000).nsForcesAlone),
};
for (const { count, nsPerParticle, nsForcesAlone } of figures)
  console.log(`${count}: ${nsPerParticle} ns a particle, its three forces alone ${nsForcesAlone} ns`);
console.log(JSON.stringify(result));
