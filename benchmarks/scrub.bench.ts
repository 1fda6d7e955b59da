// Ten seconds of 50,000 living: going to a hundred instants at random, against computing each from zero.
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { playAlone } from '../core/simulation/index.ts';
import { median, rounded } from './figures.ts';
import { layerOf } from './layerEffect.ts';

const LIVING = 50_000;
const LAST_STEP = 600;
const JUMPS = 100;
/** Every so-manyth jump is held against a run from zero. */
const COMPARED = 5;

const effect = layerOf(LIVING);
const world = playAlone(effect, new Map(), {}, { kernels: kernelBytes() });
let state = 12345;
const random = () => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 4294967296;
};
const timed = (act: () => void): number => {
  const start = performance.now();
  act();
  return performance.now() - start;
};
/** Milliseconds that a run from zero takes to each step, and its hash at those that are asked for. */
function fromZero(steps: ReadonlySet<number>): { milliseconds: Float64Array; hashes: Map<number, string | null> } {
  const straight = playAlone(effect, new Map(), {}, { kernels: kernelBytes(), historyBytes: 0 });
  const milliseconds = new Float64Array(LAST_STEP + 1);
  const hashes = new Map<number, string | null>();
  for (let step = 1; step <= LAST_STEP; step++) {
    milliseconds[step] = milliseconds[step - 1]! + timed(() => straight.advance(step));
    if (steps.has(step)) hashes.set(step, straight.hash());
  }
  return { milliseconds, hashes };
}

const playedMilliseconds = timed(() => world.advance(LAST_STEP));
const instants = Array.from({ length: JUMPS }, () => 1 + Math.floor(random() * LAST_STEP));
const { milliseconds, hashes } = fromZero(new Set(instants.filter((_, n) => n % COMPARED === 0)));
let peak = 0;
const jumps = instants.map((step, n) => {
  const spent = timed(() => world.advance(step));
  if (n % COMPARED === 0 && world.hash() !== hashes.get(step)) throw new Error(`step ${step} is not what it was`);
  peak = Math.max(peak, process.memoryUsage().rss);
  return { spent, ratio: spent / milliseconds[step]! };
});
const result = {
  bench: 'scrub',
  living: LIVING,
  steps: LAST_STEP,
  jumps: JUMPS,
  playedMilliseconds: rounded(playedMilliseconds),
  fromZeroMilliseconds: rounded(milliseconds[LAST_STEP]!),
  jumpMedianMilliseconds: rounded(median(jumps.map(({ spent }) => spent))),
  medianRatio: Math.round(median(jumps.map(({ ratio }) => ratio)) * 10000) / 10000,
  historyMegabytes: rounded(world.historyBytes / 1048576),
  peakMegabytes: rounded(peak / 1048576),
};
if (!process.argv.includes('--json'))
  console.log(
    `Going to an instant takes ${result.jumpMedianMilliseconds} ms, ${result.medianRatio} of computing it from zero; ${result.peakMegabytes} MB at most.`,
  );
console.log(JSON.stringify(result));
