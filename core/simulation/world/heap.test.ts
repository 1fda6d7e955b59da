import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Heap } from './heap.ts';

describe('the heap of a world', () => {
  it('hands out no byte twice, and all of it again once everything was given back', () => {
    const orders = fc.array(fc.record({ takes: fc.boolean(), size: fc.integer({ min: 1, max: 900 }) }), {
      maxLength: 60,
    });
    fc.assert(
      fc.property(orders, (all) => {
        const heap = new Heap(100, 8192);
        const whole = heap.free;
        const taken: { at: number; bytes: number }[] = [];
        for (const { takes, size } of all) {
          if (!takes && taken.length > 0) heap.give(taken.splice(size % taken.length, 1)[0]!.at);
          const at = takes ? heap.take(size) : null;
          if (at === null) continue;
          expect(at % 64).toBe(0);
          for (const other of taken) expect(at + size <= other.at || other.at + other.bytes <= at).toBe(true);
          expect(at >= 100 && at + size <= 8192).toBe(true);
          taken.push({ at, bytes: size });
        }
        for (const { at } of taken) heap.give(at);
        expect(heap.free).toBe(whole);
        expect(heap.take(whole)).not.toBeNull();
      }),
    );
  });

  it('gives up its end only where nothing lies', () => {
    const heap = new Heap(0, 1024);
    const first = heap.take(512)!;
    expect(heap.moveEnd(448)).toBe(false);
    expect(heap.moveEnd(640)).toBe(true);
    expect(heap.take(256)).toBeNull();
    heap.give(first);
    expect(heap.moveEnd(1024)).toBe(true);
    expect(heap.free).toBe(1024);
    expect(() => heap.give(64)).toThrow('no block begins at 64');
  });
});
