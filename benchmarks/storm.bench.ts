// A storm on 100,000 particles: gravity, wind, attraction with falloff, a vortex, curl noise, drag. The kernels on one
// thread and on two, their twins, and ordinary double-precision TypeScript (stormBaseline.ts), in turns within one run.
import { decayOf, ProgramWriter, twinKernels, wasmKernels } from '../core/kernels/index.ts';
import { draw, hash2 } from '../core/maths/index.ts';
import { runShared, stopCrew } from '../core/simulation/run/crew.ts';
import { PROGRAM, SCRATCH, HEAP } from '../core/simulation/run/memory.ts';
import { Population } from '../core/simulation/run/population.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { Helper } from '../core/testing/startHelper.ts';
import { median, rounded } from './figures.ts';
import { BaselineStorm, type Storm } from './stormBaseline.ts';

const PARTICLES = 100_000;
const SECONDS = 1 / 60;
const CHECKED_STEPS = 60;
const ROUNDS = 60;

const STORM: Storm = {
  gravity: 0.4,
  windShare: 0.5,
  wind: [1.5, 0, 0.5],
  attraction: 4,
  attractor: [0, 1.5, 0],
  attractionReach: 9,
  spin: 3,
  pull: 1,
  vortexReach: 8,
  near: 0.05,
  curl: 2,
  swirlSize: 0.5,
  swirlSeed: 20261125,
  drag: 0.6,
};

/** Where and how fast particle `i` begins: in a ball of three metres. */
const start = (i: number, word: number): number =>
  word < 3 ? (draw(hash2(7, i), word) - 0.5) * 6 + (word === 1 ? 1.5 : 0) : draw(hash2(7, i), word) - 0.5;

/** The storm in a memory of its own, with the program that steps it. */
class KernelStorm {
  readonly memory: WebAssembly.Memory;
  readonly population: Population;
  readonly #kernels;

  constructor(kind: 'simd' | 'twin') {
    const bytes = HEAP + Population.bytes(PARTICLES);
    const pages = Math.ceil(bytes / 65536) + 1;
    this.memory = new WebAssembly.Memory({ initial: pages, maximum: pages, shared: true });
    const buffer = this.memory.buffer;
    this.#kernels =
      kind === 'simd'
        ? wasmKernels(kernelBytes(), this.memory)
        : twinKernels({ f32: new Float32Array(buffer), i32: new Int32Array(buffer) });
    this.population = new Population(buffer, HEAP, PARTICLES);
    this.population.count = PARTICLES;
    this.population.newbornFrom = PARTICLES;
    for (let i = 0; i < PARTICLES; i++)
      for (let axis = 0; axis < 3; axis++) {
        this.population.position[axis]![i] = start(i, axis);
        this.population.velocity[axis]![i] = start(i, 3 + axis);
      }
    const constants = new Float32Array(buffer, 32768, 64);
    const constant = (n: number, value: number) => {
      constants.fill(value, n * 4, n * 4 + 4);
      return { address: 32768 + n * 16, each: 0 };
    };
    const near = STORM.near * STORM.near;
    const program = new ProgramWriter(buffer, PROGRAM);
    program.start();
    const reach = 1 / (STORM.attractionReach * STORM.attractionReach);
    program.attraction(constant(2, STORM.attraction), STORM.attractor, near, reach);
    const pull = constant(4, STORM.pull);
    const vortexReach = 1 / (STORM.vortexReach * STORM.vortexReach);
    program.vortex(constant(3, STORM.spin), pull, constant(5, 0), [0, 0, 0], [0, 1, 0], near, vortexReach);
    program.curl(constant(6, STORM.curl), 1 / STORM.swirlSize, [0, 0, 0], 0, STORM.swirlSeed, 0);
    const k = Math.fround(STORM.windShare + STORM.drag);
    const { kept, first, second } = decayOf(k, Math.fround(SECONDS));
    const wind = STORM.wind.map((speed) => speed * STORM.windShare);
    const push = [wind[0]!, wind[1]! - STORM.gravity, wind[2]!];
    program.integrate(push, PARTICLES, kept, first, second, k, 1, SECONDS);
  }

  step(helpers = 0): void {
    const { base, stride } = this.population;
    if (helpers > 0) runShared(this.#kernels, this.memory.buffer, base, stride, PARTICLES, helpers);
    else this.#kernels.run(PROGRAM, base, stride, 0, PARTICLES, SCRATCH);
  }
}

function baselineStorm(): BaselineStorm {
  const storm = new BaselineStorm(PARTICLES);
  [storm.px, storm.py, storm.pz, storm.vx, storm.vy, storm.vz].forEach((field, word) => {
    for (let i = 0; i < PARTICLES; i++) field[i] = Math.fround(start(i, word));
  });
  return storm;
}

/** Largest distance between where kernel and baseline have brought a particle, in metres. */
function largestDifference(ours: Population, theirs: BaselineStorm): number {
  let largest = 0;
  for (let i = 0; i < PARTICLES; i++) {
    const [x, y, z] = ours.position.map((axis) => axis[i]!) as [number, number, number];
    largest = Math.max(largest, Math.hypot(x - theirs.px[i]!, y - theirs.py[i]!, z - theirs.pz[i]!));
  }
  return largest;
}

const timed = (work: () => void): number => {
  const from = performance.now();
  work();
  return performance.now() - from;
};

const kernel = new KernelStorm('simd');
const baseline = baselineStorm();
for (let step = 0; step < CHECKED_STEPS; step++) {
  kernel.step();
  baseline.step(STORM, SECONDS);
}
const difference = largestDifference(kernel.population, baseline);
if (!(difference < 1e-4))
  throw new Error(`kernel and baseline are ${difference} m apart after ${CHECKED_STEPS} steps`);

const twin = new KernelStorm('twin');
const pair = new KernelStorm('simd');
const helper = new Helper();
await helper.join(pair.memory, 1);
const times = { kernel: [] as number[], baseline: [] as number[], threads2: [] as number[], twin: [] as number[] };
for (let round = 0; round < ROUNDS; round++) {
  times.baseline.push(timed(() => baseline.step(STORM, SECONDS)));
  times.kernel.push(timed(() => kernel.step()));
  times.threads2.push(timed(() => pair.step(1)));
  if (round % 10 === 0) times.twin.push(timed(() => twin.step()));
}
stopCrew(pair.memory.buffer);
await helper.stop();

const millions = (milliseconds: number[]) => rounded(PARTICLES / median(milliseconds) / 1000);
const result = {
  benchmark: 'storm',
  particles: PARTICLES,
  steps: ROUNDS,
  kernelStepsPerSecond: millions(times.kernel),
  twinStepsPerSecond: millions(times.twin),
  baselineStepsPerSecond: millions(times.baseline),
  threads2StepsPerSecond: millions(times.threads2),
  kernelToBaseline: rounded(median(times.baseline.map((time, i) => time / times.kernel[i]!))),
  threads2ToKernel: rounded(median(times.kernel.map((time, i) => time / times.threads2[i]!))),
  metresApartAfter60Steps: difference,
};
console.log(
  `Million particle-steps a second: baseline ${result.baselineStepsPerSecond}, kernel ${result.kernelStepsPerSecond} (${result.kernelToBaseline} times), two threads ${result.threads2StepsPerSecond} (${result.threads2ToKernel} times one), twin ${result.twinStepsPerSecond}.`,
);
console.log(JSON.stringify(result));
