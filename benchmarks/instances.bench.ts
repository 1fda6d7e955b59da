// Eight instances of Lamplit Mantle in one world: what one of them costs a step and a frame, beside one alone (`ratioEight`).
import { readFileSync } from 'node:fs';
import { importGlb } from '@jinx/core/formats';
import {
  frameBytes,
  FrameWriter,
  needsFor,
  tripleBuffer,
  worldFor,
  type Instance,
  type World,
} from '@jinx/core/simulation';
import { KIT, lamplitMantle } from '@jinx/demo';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { median, rounded } from './figures.ts';

const INSTANCES = 8;
const WARM_STEPS = 240;
const STEPS = 120;
const RUNS = 5;
const HASH = 'a'.repeat(64);

const rig = await importGlb(new Uint8Array(readFileSync(new URL('sedge.glb', KIT))), 'Sedge');
const rigs = new Map([[HASH, rig]]);
const effect = lamplitMantle(HASH);
const needs = needsFor(effect, rigs);
const kernels = kernelBytes();

/** A world with so many of them, each so many steps after the one before, a way into its frames, and what a step of it takes, frame included, in milliseconds. */
function worldOf(count: number, apart = 0) {
  const world: World = worldFor(
    Array.from({ length: count }, () => needs),
    { kernels, frames: true, historyBytes: 0 },
  );
  const instances: Instance[] = Array.from({ length: count }, (_, n) =>
    world.add(effect, rigs, {}, { start: n * apart }),
  );
  const { address, bytes } = world.frames!;
  const writer = new FrameWriter(tripleBuffer(world.memory.buffer, bytes, address));
  const step = (to: number) => {
    world.advance(to);
    world.writeFrame(writer.frame);
    writer.publish();
  };
  for (let to = 1; to <= WARM_STEPS; to++) step(to);
  const time = () => {
    const times = Array.from({ length: STEPS }, () => {
      const start = performance.now();
      step(world.step + 1);
      return performance.now() - start;
    });
    return median(times);
  };
  return { world, instances, bytes, time };
}

const [one, eight, staggered] = [worldOf(1), worldOf(INSTANCES), worldOf(INSTANCES, 7)];
// By turns, so that both have the same machine.
const runs = Array.from({ length: RUNS }, () => {
  const alone = one.time();
  const each = eight.time() / INSTANCES;
  const apart = staggered.time() / INSTANCES;
  return { alone, each, ratio: each / alone, apart: apart / alone };
});
const [alone] = one.instances;
const areSame = eight.instances.every((instance) => instance.hash() === alone!.hash());
if (!areSame) throw new Error('an instance in company has other bits than alone');

const result = {
  benchmark: 'instances',
  instances: INSTANCES,
  living: { one: one.world.living, eight: eight.world.living },
  aloneMilliseconds: rounded(median(runs.map((run) => run.alone))),
  eachMilliseconds: rounded(median(runs.map((run) => run.each))),
  ratioEight: rounded(median(runs.map(({ ratio }) => ratio))),
  /** The same where each began seven steps after the one before: they stand in other poses. */
  ratioStaggered: rounded(median(runs.map(({ apart }) => apart))),
  ratios: runs.map(({ ratio }) => rounded(ratio)),
  megabytes: {
    one: rounded(one.world.memory.buffer.byteLength / 1048576),
    eight: rounded(eight.world.memory.buffer.byteLength / 1048576),
  },
  frameBytes: frameBytes(needs.frame),
  sameBits: areSame,
};
console.log(`alone ${result.aloneMilliseconds} ms, each of eight ${result.eachMilliseconds} ms`);
console.log(JSON.stringify(result));
