import { cos, setThree, sin } from '../../maths/index.ts';
import { ofSolid, type ShapeDefinition } from './shape.ts';

/** A point: outward is any way. */
export const point: ShapeDefinition = {
  words: 'at a point',
  otherWords: ['single point'],
  measures: [],
  hasRegions: false,
  dimensions: ofSolid,
  guide: () => [{ draws: 'cross' }],
  handles: [],
  pointInto(p, shares) {
    const u = shares[0]!;
    const v = shares[1]!;
    const y = 1 - 2 * v;
    const flat = Math.sqrt(Math.max(0, 1 - y * y));
    const turn = 2 * Math.PI * u;
    setThree(p.at, 0, 0, 0);
    setThree(p.out, flat * cos(turn), y, flat * sin(turn));
    setThree(p.normal, 0, 1, 0);
    setThree(p.along, 1, 0, 0);
  },
};
