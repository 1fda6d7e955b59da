import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { CALL_NAMES, layout, type CallName } from '../core/kernels/index.ts';
import { PROGRAM, SCRATCH } from '../core/simulation/run/memory.ts';

const ROOT = path.join(import.meta.dirname, '..');
/** Where its constants lie: behind those of the kernels, before the crew's control words. */
const CONSTANTS = 6144;
/** Where its program lies: in the second half of the room for programs. */
const OWN_PROGRAM = PROGRAM + 8192;
/** Calls of the frozen kernels, in the order of their numbers, with how many words each has. */
const CALLS: readonly (readonly [CallName, number])[] = [
  ['attraction', 9],
  ['vortex', 16],
  ['curl', 11],
];

function build(): Uint8Array<ArrayBuffer> {
  const folder = mkdtempSync(path.join(tmpdir(), 'jinx-frozen-'));
  const out = path.join(folder, 'forces.wasm');
  const options = ['-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '--importMemory', '--use', 'abort='];
  const files = ['benchmarks/frozen/forces.ts', '-o', out, '--memoryBase', String(CONSTANTS)];
  try {
    execFileSync(path.join(ROOT, 'node_modules', '.bin', 'asc'), [...files, ...options], { cwd: ROOT });
    return new Uint8Array(readFileSync(out));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

let bytes: Uint8Array<ArrayBuffer> | null = null;

type Run = (program: number, base: number, stride: number, from: number, to: number, scratch: number) => void;

/**
 * The forces of the program that stands in a world's memory, run by the frozen kernels (frozen/forces.ts): call it with the
 * layer's block and how many particles.
 */
export function frozenForces(memory: WebAssembly.Memory): (base: number, stride: number, count: number) => void {
  bytes ??= build();
  const { run } = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory } }).exports as {
    run: Run;
  };
  copyForces(new Int32Array(memory.buffer));
  return (base, stride, count) => run(OWN_PROGRAM, base, stride, 0, Math.floor(count / 4) * 4, SCRATCH);
}

/** Copies the calls that the frozen kernels know. @throws Error where the program is not one of each, or they have changed. */
function copyForces(words: Int32Array): void {
  const to = OWN_PROGRAM / 4;
  let [read, write] = [PROGRAM / 4 + 1, to + 1];
  words[to] = 0;
  for (let call = words[PROGRAM / 4]!; call > 0; call--) {
    const length = words[read + 1]!;
    const number = CALLS.findIndex(([name]) => name === CALL_NAMES[words[read]!]);
    if (number >= 0) {
      if (length !== CALLS[number]![1]) throw new Error(`${CALLS[number]![0]} has other words than the frozen one`);
      words.copyWithin(write, read, read + length);
      words[write] = number;
      write += length;
      words[to]!++;
    }
    read += length;
  }
  if (words[to] !== CALLS.length) throw new Error(`the layer runs ${words[to]} of the ${CALLS.length} frozen forces`);
}

if (layout.BLOCK * 4 !== 2048) throw new Error('the frozen forces know blocks of 512 particles only');
