import { describe, expect, it } from 'vitest';
import { draw } from '../maths/index.ts';
import { kernelBytes } from '../testing/kernelBytes.ts';
import { curlField } from './curl.ts';
import { logarithm } from './drag.ts';
import * as dressed from './dress.ts';
import { decayOf, exponential } from './integrate.ts';
import { twinKernels, wasmKernels, type Kernels } from './kernels.ts';
import * as layout from './layout.ts';
import { CALLS } from './generated/calls.ts';
import { CALL_NAMES, ProgramWriter, scratchSlot, type CallName } from './program.ts';
import { CELLS } from './shape.ts';

const COUNT = 1032;
const STRIDE = COUNT * 4;
const PROGRAM = 8192;
const SCRATCH = 32768;
const BASE = 131072;
const STRENGTHS = BASE + STRIDE * layout.FIELDS;
const ONE_STRENGTH = STRENGTHS + STRIDE;
const TABLE = ONE_STRENGTH + 64;
const DRESS = TABLE + (CELLS + 1) * 64;
const OUT = DRESS + 1024;
const PAGES = 8;
const STEP = 50;

/** Memory full of plausible particles: places within 50 m, some newborn, some standing, some dead. */
function memoryOfParticles(shared: boolean): WebAssembly.Memory {
  const memory = new WebAssembly.Memory({ initial: PAGES, maximum: PAGES, shared });
  const f32 = new Float32Array(memory.buffer);
  const i32 = new Int32Array(memory.buffer);
  for (let field = 0; field < layout.FIELDS; field++)
    for (let i = 0; i < COUNT; i++) {
      const u = draw(i, field);
      const word = (BASE + field * STRIDE) / 4 + i;
      if (field === layout.BIRTH_STEP) i32[word] = 40 + Math.floor(u * (STEP + 1 - 40));
      else if (field === layout.DEATH_STEP) i32[word] = 40 + Math.floor(u * 30);
      else if (field === layout.FLAGS) i32[word] = u < 0.1 ? layout.IS_DEAD : u > 0.6 ? layout.WAS_HELD : 0;
      else if (field === layout.KEY || field === layout.NUMBER) i32[word] = Math.floor(u * 4e9);
      else if (field === layout.BIRTH_FRACTION) f32[word] = u;
      else if (field === layout.LIFE) f32[word] = u < 0.1 ? 0 : u * 2;
      else f32[word] = (u - 0.5) * 100;
    }
  for (let i = 0; i < COUNT; i++) f32[STRENGTHS / 4 + i] = (draw(i, 99) - 0.5) * 40;
  f32.fill(3.7, ONE_STRENGTH / 4, ONE_STRENGTH / 4 + 4);
  for (let i = 0; i < (CELLS + 1) * dressed.DRESS_ROW; i++) f32[TABLE / 4 + i] = draw(i, 5) * 2 - 0.5;
  return memory;
}

/** What SIMD and twin make of the same memory. */
function bothOf(shared: boolean, act: (kernels: Kernels, buffer: ArrayBufferLike) => void): [Buffer, Buffer, Buffer] {
  const bytesOf = (memory: WebAssembly.Memory) => Buffer.from(new Uint8Array(memory.buffer).slice(8192));
  const ours = memoryOfParticles(shared);
  const before = bytesOf(ours);
  act(wasmKernels(kernelBytes(), ours), ours.buffer);
  const twins = memoryOfParticles(shared);
  act(twinKernels({ f32: new Float32Array(twins.buffer), i32: new Int32Array(twins.buffer) }), twins.buffer);
  return [before, bytesOf(ours), bytesOf(twins)];
}

/** What each value of a call is: an integer (i), a float (f), or an address (p). */
const signatureOf = (name: CallName): string => CALLS[CALL_NAMES.indexOf(name)]![1];

/** Writes a call by its name, values as its signature says. */
function writeCall(program: ProgramWriter, name: CallName, values: readonly number[]): void {
  program.begin(CALL_NAMES.indexOf(name), values.length);
  Array.from(signatureOf(name), (type, n) => (type === 'f' ? program.num(values[n]!) : program.int(values[n]!)));
}

const VARYING = [STRENGTHS, 1] as const;
const EVEN = [ONE_STRENGTH, 0] as const;
const TURNED = [0.6, 0.8, 0, -0.8, 0.6, 0, 0, 0, 1];
const OUTS = [4, 5, 6].map(scratchSlot);
const decay = decayOf(2.5, Math.fround(1 / 60));
const DECAY = [decay.kept, decay.first, decay.second] as const;

/** Values for calls, some of them in several ways; `plausible` makes those of the others. Whatever it writes to scratch then pushes the particles. */
const VALUES: Partial<Record<string, readonly (readonly number[])[]>> = {
  uniform: [
    [...VARYING, 0.5, -1, 2],
    [...EVEN, 0, -1, 0],
  ],
  drag: [VARYING, EVEN],
  airDrag: [[...VARYING, Math.fround(1 / 60), 60]],
  attraction: [[...VARYING, 1.5, 2, -3, 0.01, Math.fround(1 / 900)]],
  attractionLine: [[...VARYING, 1.5, 2, -3, 10, 0, 4, Math.fround(1 / 116), 0.01, 0]],
  attractionEach: [[...EVEN, STRENGTHS, STRENGTHS, STRENGTHS, 0.01, Math.fround(1 / 900)]],
  vortex: [[...VARYING, ...EVEN, ...VARYING, 0.5, 1, 0, 0, 1, 0, Math.fround(0.0004), 0]],
  curl: [
    [...VARYING, 2, 0.5, 0, -0.25, 0.25, 12345, -99],
    [...EVEN, 2, 0, 0, 0, 0, 12345, 0],
  ],
  shell: [[...VARYING, 1, 0, 2, 30, 0.1, 0.0025, Math.fround(1 / 3000)]],
  weigh: [0, 1, 2, 3].map((falloff) => [OUTS[0]!, ...VARYING, 1, 2, 3, Math.fround(1 / 1600), falloff]),
  pick: [[OUTS[0]!, ...EVEN, 0.4, 1234]],
  shape: [
    [OUTS[0]!, TABLE, 0, 0, -2, 5, 99, -3, 4, 1.5, STEP, Math.fround(1 / 60), 0.3],
    [OUTS[0]!, TABLE, 1, Math.fround(1 / 60), 2, 0, 0, 0, 9, 1, STEP, Math.fround(1 / 60), 0],
  ],
  setAside: [OUTS],
  exceed: [[STRENGTHS, STRENGTHS, STRENGTHS, 2000]],
  keep: [[77], [701], [5000]],
  integrate: [
    [0, -9, 0.5, 0, ...DECAY, 0, STEP, Math.fround(1 / 60)],
    [1, 2, 3, 700, ...DECAY, 2.5, STEP, Math.fround(1 / 60)],
  ],
  shift: [
    [...VARYING, ...EVEN, ...VARYING, ...TURNED, 0, STEP, Math.fround(1 / 60)],
    [...VARYING, ...EVEN, ...EVEN, ...TURNED, 1, STEP, Math.fround(1 / 60)],
  ],
  orbit: [
    [...EVEN, ...EVEN, 0, 1, 2, 3, 0, 1, 0, ...EVEN, Math.fround(1 / 60)],
    [...VARYING, ...VARYING, 1, 1, 2, 3, 0, 0.6, 0.8, ...VARYING, Math.fround(1 / 60)],
  ],
  limit: [
    [...EVEN, ...EVEN],
    [...VARYING, ...VARYING],
  ],
};
/** Values by what each is: an address with whether each particle has its own, integers, floats about 1. */
function plausible(name: CallName): number[][] {
  const signature = signatureOf(name);
  const value = (type: string, n: number, isEach: boolean) => {
    if (type === 'p') return isEach ? STRENGTHS : ONE_STRENGTH;
    if (type === 'i') return signature[n - 1] === 'p' ? Number(isEach) : 77 + n;
    return Math.fround(draw(n, 7) * 3 - 1);
  };
  return [true, false].map((isEach) => Array.from(signature, (type, n) => value(type, n, isEach)));
}
const CASES = CALL_NAMES.flatMap((name) =>
  (VALUES[name] ?? plausible(name)).map((values, i) => [`${name} ${i + 1}`, name, values] as const),
);

describe('SIMD kernels and their twins', () => {
  for (const shared of [true, false])
    it.each(CASES)(`%s gives the same bits (${shared ? 'shared' : 'plain'} memory)`, (_title, name, values) => {
      const [before, ours, twins] = bothOf(shared, (kernels, buffer) => {
        const program = new ProgramWriter(buffer, PROGRAM);
        program.start();
        const strengths = { address: STRENGTHS, each: 1 };
        program.drag(strengths);
        program.uniform(strengths, [1, 2, 3]);
        if (name === 'setAside' || name === 'exceed') program.uniform(strengths, [1, 2, 3]);
        writeCall(program, name, values);
        if (signatureOf(name).startsWith('pp') || name === 'shape')
          program.uniform({ address: OUTS[0]!, each: 1 }, [1, 1, 0]);
        program.integrate([0, -9, 0.5], 0, ...DECAY, 0, STEP, Math.fround(1 / 60));
        kernels.run(PROGRAM, BASE, STRIDE, 4, COUNT, SCRATCH);
      });
      expect(ours.equals(before)).toBe(false);
      expect(ours.equals(twins)).toBe(true);
    });

  it.each([false, true])('a dress gives the same bits (shared memory: %s)', (shared) => {
    for (const [colours, spread, arrays, turning, scales] of [
      [1, 0, 0, 0, 0],
      [3, 1, 0, 1, 1],
      [1, 1, 1, 1, 0],
      [1, 0, 1, 0, 1],
      [0, 1, 0, 0, 0],
    ] as const) {
      const counts: number[] = [];
      const [before, ours, twins] = bothOf(shared, (kernels, buffer) => {
        const f32 = new Float32Array(buffer, DRESS, dressed.DRESS_WORDS);
        const i32 = new Int32Array(buffer, DRESS, dressed.DRESS_WORDS);
        i32.set([TABLE, STRENGTHS, colours, 55, STEP]);
        f32.set([Math.fround(1 / 60), 0.4, 6], 5);
        i32.set([spread, arrays, turning], dressed.DRESS_HAS_SPREAD);
        f32.set([0.3, 1.5], dressed.DRESS_ANGLE);
        i32.set([9, 11, 12, 13, 14, 1, 0, 1, 1], dressed.DRESS_ANGLE + 2);
        f32.set([0, 0, 0, -1e6, 2, 1, 50, 1e6, 0.7, 0.1], dressed.DRESS_LOWEST);
        i32[dressed.DRESS_HAS_SCALES] = scales;
        if (arrays) i32.fill(STRENGTHS, dressed.DRESS_ARRAYS, dressed.DRESS_ARRAYS + 8);
        counts.push(kernels.dress(BASE, STRIDE, 0, COUNT - 3, DRESS, SCRATCH, OUT));
      });
      expect(counts[0]).toBe(counts[1]);
      expect(counts[0]).toBeGreaterThan(800);
      expect(counts[0]).toBeLessThan(COUNT);
      expect(ours.equals(before)).toBe(false);
      const records = (all: Buffer) => all.subarray(OUT - 8192, OUT - 8192 + counts[0]! * 64);
      expect(records(ours).equals(records(twins))).toBe(true);
      // The one behind the last may hold anything, what lies behind that is another's.
      const behind = (all: Buffer) => all.subarray(OUT - 8192 + (counts[0]! + 1) * 64);
      expect(behind(ours).equals(behind(before))).toBe(true);
    }
  });

  it('the dying are found and gaps closed alike', () => {
    const found: number[] = [];
    const [before, ours, twins] = bothOf(false, (kernels) => {
      found.push(kernels.dying(BASE, STRIDE, 0, COUNT, STEP, OUT));
      found.push(kernels.compact(BASE, STRIDE, layout.FIELDS, COUNT, OUT + 8192));
    });
    expect(found.slice(0, 2)).toEqual(found.slice(2));
    expect(found[0]).toBeGreaterThan(200);
    expect(found[1]).toBeLessThan(COUNT - found[0]!);
    const until = BASE + 4 * found[1]! - 8192;
    for (let field = 0; field < layout.FIELDS; field++) {
      const at = BASE + field * STRIDE - 8192;
      expect(ours.subarray(at, until + field * STRIDE).equals(twins.subarray(at, until + field * STRIDE))).toBe(true);
    }
    expect(ours.equals(before)).toBe(false);
  });
});

describe('the exponential and the logarithm', () => {
  it('are within a few units in the last place', () => {
    for (let x = 0; x > -80; x -= 0.37)
      expect(Math.abs(exponential(Math.fround(x)) / Math.exp(Math.fround(x)) - 1)).toBeLessThan(4e-7);
    for (let x = 1; x < 1e6; x *= 1.07)
      expect(Math.abs(logarithm(Math.fround(x)) - Math.log(Math.fround(x)))).toBeLessThan(2e-6);
  });
});

describe('curl noise', () => {
  const value = new Float32Array(3);
  const component = (axis: number, p: number[]) => {
    curlField(p[0]!, p[1]!, p[2]!, 7, value);
    return value[axis]!;
  };

  it('has no divergence', () => {
    const h = 1 / 256;
    let worst = 0;
    let largest = 0;
    for (let n = 0; n < 500; n++) {
      const p = [draw(n, 1) * 20 - 10, draw(n, 2) * 20 - 10, draw(n, 3) * 20 - 10].map(Math.fround);
      let divergence = 0;
      let slopes = 0;
      for (let axis = 0; axis < 3; axis++) {
        const ahead = p.map((x, i) => (i === axis ? x + h : x));
        const behind = p.map((x, i) => (i === axis ? x - h : x));
        const slope = (component(axis, ahead) - component(axis, behind)) / (2 * h);
        divergence += slope;
        slopes += Math.abs(slope);
      }
      worst = Math.max(worst, Math.abs(divergence));
      largest = Math.max(largest, slopes);
    }
    expect(largest).toBeGreaterThan(5);
    expect(worst).toBeLessThan(0.02 * largest);
  });

  it('pushes as hard along each axis, and neither way', () => {
    const sums = [0, 0, 0];
    const squares = [0, 0, 0];
    for (let n = 0; n < 20000; n++) {
      curlField(draw(n, 1) * 400 - 200, draw(n, 2) * 400 - 200, draw(n, 3) * 400 - 200, 7, value);
      value.forEach((v, axis) => {
        sums[axis]! += v / 20000;
        squares[axis]! += (v * v) / 20000;
      });
    }
    for (const mean of sums) expect(Math.abs(mean)).toBeLessThan(0.05);
    for (const square of squares) expect(square / squares[0]!).toBeCloseTo(1, 1);
  });

  it('looks the same nowhere near by: neighbouring swirls are not alike', () => {
    let alike = 0;
    for (let n = 0; n < 4000; n++) {
      const p = [draw(n, 1) * 100, draw(n, 2) * 100, draw(n, 3) * 100] as const;
      curlField(p[0], p[1], p[2], 7, value);
      const here = [...value];
      curlField(p[0] + 3, p[1] + 2, p[2], 7, value);
      alike += here.reduce((s, v, axis) => s + v * value[axis]!, 0) / 4000;
    }
    expect(Math.abs(alike)).toBeLessThan(0.15);
  });
});
