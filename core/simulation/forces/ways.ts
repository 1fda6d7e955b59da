import { scale, type Vec3 } from '../../maths/index.ts';
import type { GuideShape } from './guide.ts';

/** An arrow along a way; nothing where it leads nowhere. */
export const guideOfWay = (x: number, y: number, z: number): GuideShape[] => {
  const way: Vec3 = [x, y, z];
  return way.every((metres) => metres === 0) ? [] : [{ draws: 'arrow', way: scale(way, 0.25) }];
};
