import { scale, type Vec3 } from '../../maths/index.ts';
import type { ForceNumber, ForceWriter } from './force.ts';
import type { GuideShape } from './guide.ts';

/** An arrow along a way; nothing where it leads nowhere. */
export const guideOfWay = (x: number, y: number, z: number): GuideShape[] => {
  const way: Vec3 = [x, y, z];
  return way.every((metres) => metres === 0) ? [] : [{ draws: 'arrow', way: scale(way, 0.25) }];
};

/** Numbers along the three axes of a place. */
export type Ways = readonly [x: ForceNumber, y: ForceNumber, z: ForceNumber];

/** Writes the call that moves particles along the axes of a place: at velocities, or with `isOnce` by ways for the step. */
export function writeShift(
  writer: ForceWriter,
  [x, y, z]: Ways,
  isOnce: boolean,
  when: 'start' | 'end' = 'start',
  sign: 1 | -1 = 1,
): void {
  const [alongX, alongY, alongZ] = writer.axes();
  const first = writer.value(x, when, sign);
  const second = writer.value(y, when, sign);
  const third = writer.value(z, when, sign);
  const seconds = Math.fround(writer.seconds);
  writer.calls.shift(first, second, third, alongX, alongY, alongZ, isOnce ? 1 : 0, writer.step, seconds);
}
