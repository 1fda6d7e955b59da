import type { Front } from '../../document/index.ts';
import type { FrontReader } from '../fronts/front.ts';
import {
  FRONT_BORDERS,
  FRONT_FROM,
  FRONT_KIND,
  FRONT_LOWS,
  FRONT_NOISE,
  FRONT_SEED,
  FRONT_SIZE,
  FRONT_TO,
} from './frame.ts';

const KINDS: readonly Front['kind'][] = ['sphere', 'box', 'plane'];

/** Writes what a frame tells of a front between two times: FRONT_* of a frame, from word `at` on. */
export function writeFront(
  front: FrontReader,
  f32: Float32Array,
  u32: Uint32Array,
  at: number,
  from: number,
  to: number,
): void {
  front.pose(from, to);
  for (const [n, time] of [from, to].entries()) {
    const [low, high] = front.freedBy(time);
    f32[at + FRONT_LOWS + n] = low;
    f32[at + FRONT_BORDERS + n] = high;
  }
  f32[at + FRONT_NOISE] = front.mostRagged;
  f32[at + FRONT_NOISE + 1] = front.ragSize;
  for (let axis = 0; axis < 3; axis++) f32[at + FRONT_SIZE + axis] = front.size[axis]!;
  f32[at + FRONT_KIND] = KINDS.indexOf(front.kind);
  u32[at + FRONT_SEED] = front.seed;
  f32.set(front.from, at + FRONT_FROM);
  f32.set(front.to, at + FRONT_TO);
}
