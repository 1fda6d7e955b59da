import { describe, expect, it } from 'vitest';
import { newFrame, NO_LAYER, RECORD_COLOUR, RECORD_LOT, RECORD_OPACITY, RECORD_TO } from '@jinx/core/simulation';
import { MOST_LIGHTS } from '@jinx/core/document';
import { newCommonUniforms } from '../looks/light.ts';
import type { DrawnLayer } from '../protocol.ts';
import { Lights } from './lights.ts';
import { NO_SIZES } from '../../core/simulation/frames/frame.ts';

interface Glowing {
  readonly lot: number;
  readonly place: readonly [number, number, number];
  readonly strength: number;
}
const NAMES = ['drawn/reach', 'drawn/surfaces', 'drawn/fog'];
const layer = {
  salt: 5,
  isVisible: true,
  drawn: { kind: 'light', most: MOST_LIGHTS },
  look: {
    plan: 1,
    ownWords: 0,
    steps: [],
    places: Object.fromEntries(NAMES.map((name, at) => [name, { kind: 'shared', at }])),
  },
} as unknown as DrawnLayer;

/** A frame of particles that give light, and the one layer they are of. */
function frameOf(step: number, particles: readonly Glowing[]) {
  const frame = newFrame({ frameSizes: { ...NO_SIZES, records: 400, own: 400 * 8 } });
  frame.layOut({ ...NO_SIZES, records: 400, own: 400 * 8 });
  frame.u32[0] = step;
  particles.forEach(({ lot, place, strength }, n) => {
    const at = frame.recordAt(n);
    frame.f32.set(place, at);
    frame.f32.set(place, at + RECORD_TO);
    frame.f32.set([strength, strength, strength], at + RECORD_COLOUR);
    frame.f32[at + RECORD_OPACITY] = 1;
    frame.f32[at + RECORD_LOT] = lot;
  });
  const shared = frame.own;
  frame.f32.set([2, 1, 1], shared);
  const found = { ...NO_LAYER, salt: 5, count: particles.length, shared };
  return { frame, layers: [{ layer, found }] };
}
const still = (lot: number, strength: number): Glowing => ({ lot, place: [lot, 1, 0], strength });

describe('the pool of lights', () => {
  it('goes to the strongest particles, as many as it has, at once after a leap in time', () => {
    const lights = new Lights();
    const particles = Array.from({ length: 40 }, (_, n) => still(n, 1 + ((n * 7) % 40)));
    const { frame, layers } = frameOf(100, particles);
    lights.take(frame, layers, 60);
    const strongest = [...particles].sort((a, b) => b.strength - a.strength).slice(0, MOST_LIGHTS);
    expect(lights.given.map(({ lot }) => lot).sort()).toEqual(strongest.map(({ lot }) => lot).sort());
    expect(lights.given.every(({ fade }) => fade === 1)).toBe(true);
    const common = newCommonUniforms();
    lights.show(common, 1);
    expect(common.lights.value).toBe(MOST_LIGHTS);
  });

  it('goes to no more of an effect than its tier has', () => {
    const lights = new Lights();
    const { frame, layers } = frameOf(100, [still(1, 3), still(2, 9), still(3, 6)]);
    const few = { ...layer, drawn: { kind: 'light', most: 2 } } as DrawnLayer;
    lights.take(frame, [{ ...layers[0]!, layer: few }], 60);
    expect(lights.given.map(({ lot }) => lot).sort()).toEqual([2, 3]);
  });

  it('stays with whoever has it while another is a little stronger, and goes over when it is clearly so', () => {
    const lights = new Lights();
    const rivals = (strength: number) => [
      ...Array.from({ length: MOST_LIGHTS }, (_, n) => still(n, 10)),
      still(99, strength),
    ];
    const at = (step: number, strength: number) => {
      const { frame, layers } = frameOf(step, rivals(strength));
      lights.take(frame, layers, 60);
      return lights.given.some(({ lot, fade }) => lot === 99 && fade > 0.5);
    };
    at(1, 5);
    for (let step = 2; step < 40; step++) expect(at(step, 15)).toBe(false);
    for (let step = 40; step < 80; step++) at(step, 30);
    expect(at(80, 30)).toBe(true);
  });

  it('never jumps in ten seconds of churn: a light moves with its particle, or fades before another comes', () => {
    const lights = new Lights();
    const before = new Map<number, { lot: number; fade: number; place: readonly number[] }>();
    let changes = 0;
    for (let step = 1; step <= 600; step++) {
      // Sixty particles are born and die all the time, grow strong and weak, and go along.
      const particles = Array.from({ length: 60 }, (_, n): Glowing => {
        const generation = Math.floor((step + n * 11) / (40 + (n % 7) * 9));
        const age = ((step + n * 11) % (40 + (n % 7) * 9)) / (40 + (n % 7) * 9);
        const lot = n + generation * 100;
        return { lot, place: [n + age, 1, generation % 5], strength: 20 * Math.sin(Math.PI * age) + 0.01 };
      });
      const { frame, layers } = frameOf(step, particles);
      lights.take(frame, layers, 60);
      const slots = lights.slots;
      slots.forEach(({ lot, fade, place }, slot) => {
        const was = before.get(slot);
        if (was && was.fade > 0 && fade > 0) {
          const moved = Math.hypot(...place.map((x, axis) => x - was.place[axis]!));
          if (was.lot !== lot) {
            // Another particle's: only once the old light had gone.
            changes++;
            expect(was.fade).toBeLessThan(0.2);
          } else expect(moved).toBeLessThan(0.2);
          expect(Math.abs(fade - was.fade)).toBeLessThan(0.2);
        }
        before.set(slot, { lot, fade, place });
      });
    }
    expect(changes + before.size).toBeGreaterThan(MOST_LIGHTS - 1);
  });
});
