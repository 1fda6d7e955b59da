import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { draw } from '../maths/index.ts';
import { curlField } from './curl.ts';
import { exponential } from './integrate.ts';
import { twinKernels, wasmKernels, type Kernels } from './kernels.ts';
import * as layout from './layout.ts';

const bytes = {
  shared: readFileSync(new URL('./shared.wasm', import.meta.url)),
  plain: readFileSync(new URL('./plain.wasm', import.meta.url)),
};
const COUNT = 1000;
const STRIDE = COUNT * 4;
const BASE = 65536;
const STRENGTHS = BASE + STRIDE * layout.FIELDS;
const ONE_STRENGTH = STRENGTHS + STRIDE;

/** Memory full of plausible particles: places within 50 m, some newborn, drags from none to fierce. */
function memoryOfParticles(shared: boolean): WebAssembly.Memory {
  const memory = new WebAssembly.Memory({ initial: 8, maximum: 8, shared });
  const f32 = new Float32Array(memory.buffer);
  const u32 = new Uint32Array(memory.buffer);
  for (let field = 0; field < layout.FIELDS; field++)
    for (let i = 0; i < COUNT; i++) {
      const u = draw(i, field);
      const word = (BASE + field * STRIDE) / 4 + i;
      if (field === layout.BIRTH_STEP) u32[word] = 40 + Math.floor(u * 11);
      else if (field === layout.DRAG) f32[word] = i % 3 === 0 ? 0 : u * u * 900;
      else if (field === layout.BIRTH_FRACTION) f32[word] = u;
      else f32[word] = (u - 0.5) * 100;
    }
  for (let i = 0; i < COUNT; i++) f32[STRENGTHS / 4 + i] = (draw(i, 99) - 0.5) * 40;
  f32.fill(3.7, ONE_STRENGTH / 4, ONE_STRENGTH / 4 + 4);
  return memory;
}

const CALLS: [string, (kernels: Kernels) => void][] = [
  ['gravity', (k) => k.gravity(BASE, STRIDE, 0, COUNT, STRENGTHS, 1)],
  ['drag', (k) => k.drag(BASE, STRIDE, 0, COUNT, STRENGTHS, 1)],
  ['attraction', (k) => k.attraction(BASE, STRIDE, 0, COUNT, STRENGTHS, 1, 1.5, 2, -3, 0.01, Math.fround(1 / 900))],
  [
    'vortex',
    (k) =>
      k.vortex(
        BASE,
        STRIDE,
        0,
        COUNT,
        STRENGTHS,
        1,
        ONE_STRENGTH,
        0,
        STRENGTHS,
        1,
        0.5,
        1,
        0,
        0,
        1,
        0,
        Math.fround(0.0004),
        0,
      ),
  ],
  ['curl noise', (k) => k.curl(BASE, STRIDE, 0, COUNT, STRENGTHS, 1, 2, 0.25, 12345, -99)],
  ['curl noise that does not change', (k) => k.curl(BASE, STRIDE, 0, COUNT, ONE_STRENGTH, 0, 2, 0, 12345, 0)],
  ['the integrator', (k) => k.integrate(BASE, STRIDE, 0, COUNT, 50, Math.fround(1 / 60))],
];

describe('SIMD kernels and their twins', () => {
  for (const shared of [true, false])
    it.each(CALLS)(`%s gives the same bits (${shared ? 'shared' : 'plain'} memory)`, (_name, call) => {
      const ours = memoryOfParticles(shared);
      const twins = memoryOfParticles(shared);
      const before = Buffer.from(new Uint8Array(ours.buffer).slice());
      call(wasmKernels(bytes, ours));
      call(twinKernels({ f32: new Float32Array(twins.buffer), i32: new Int32Array(twins.buffer) }));
      const after = Buffer.from(new Uint8Array(ours.buffer).slice());
      expect(after.equals(before)).toBe(false);
      expect(after.equals(Buffer.from(new Uint8Array(twins.buffer).slice()))).toBe(true);
    });
});

describe('the exponential', () => {
  it('is within a few units in the last place', () => {
    for (let x = 0; x > -80; x -= 0.37)
      expect(Math.abs(exponential(Math.fround(x)) / Math.exp(Math.fround(x)) - 1)).toBeLessThan(4e-7);
  });
});

describe('curl noise', () => {
  it('has no divergence', () => {
    const value = new Float32Array(3);
    const component = (axis: number, p: number[]) => {
      curlField(p[0]!, p[1]!, p[2]!, 7, value);
      return value[axis]!;
    };
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
});
