import { cos, setThree, sin } from '../../maths/index.ts';
import { faceOutward, type ShapeDefinition } from './shape.ts';

/** A line along Y, half of it to either side. */
export const line: ShapeDefinition = {
  words: 'along a line',
  otherWords: ['edge emitter', 'segment'],
  measures: ['length'],
  hasRegions: false,
  dimensions: () => 1,
  guide: ({ length }) => [{ draws: 'line', axis: [0, 1, 0], length }],
  handles: [{ measure: 'length', way: [0, 0.5, 0] }],
  pointInto(p, shares, _region, { length }) {
    const u = shares[0]!;
    const v = shares[1]!;
    const turn = 2 * Math.PI * v;
    setThree(p.at, 0, (u - 0.5) * length, 0);
    setThree(p.out, cos(turn), 0, sin(turn));
    faceOutward(p);
    setThree(p.along, 0, 1, 0);
  },
};
