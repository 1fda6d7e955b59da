import fc from 'fast-check';
import { Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { Order } from './order.ts';

describe('the order of particles', () => {
  it('puts the nearest last where all lie within the last digits of a depth', () => {
    const words = new Float32Array([0, 0.00001, 0, 0, 0, 0]);
    const order = new Order();
    const out = new Float32Array(6);
    for (const way of [new Vector3(0, -1, 0), new Vector3(0, 1, 0)])
      for (let far = 1; far < 40; far += 0.37) {
        order.byDepth(words, 0, 3, 2, new Vector3(0, -way.y * far, 0), way);
        order.copy(words, 0, 3, 2, out);
        const depths = [out[1]!, out[4]!].map((y) => Math.fround((y + way.y * far) * way.y));
        expect(depths[1]).toBeLessThanOrEqual(depths[0]!);
      }
  });

  it('puts the nearest last for any places and any direction of sight', () => {
    const place = fc.tuple(...([0, 1, 2].map(() => fc.double({ min: -50, max: 50, noNaN: true })) as []));
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 300 }), place, (places, sight) => {
        const way = new Vector3(...(sight as unknown as [number, number, number]));
        if (way.length() < 0.1) return;
        way.normalize();
        const words = Float32Array.from((places as unknown as number[][]).flat());
        const order = new Order();
        order.byDepth(words, 0, 3, places.length, new Vector3(1, 2, 3), way);
        const out = new Float32Array(words.length);
        order.copy(words, 0, 3, places.length, out);
        const depth = (n: number) =>
          (out[n * 3]! - 1) * way.x + (out[n * 3 + 1]! - 2) * way.y + (out[n * 3 + 2]! - 3) * way.z;
        const depths = places.map((_, n) => depth(n));
        const step = (Math.max(...depths) - Math.min(...depths)) / 65_000;
        for (let n = 1; n < depths.length; n++) expect(depths[n]).toBeLessThanOrEqual(depths[n - 1]! + step + 1e-5);
        // Every one is there, once.
        const sorted = (words32: Float32Array) =>
          Array.from({ length: places.length }, (_, n) => words32.subarray(n * 3, n * 3 + 3).join()).sort();
        expect(sorted(out)).toEqual(sorted(words));
      }),
      { numRuns: 60 },
    );
  });
});
