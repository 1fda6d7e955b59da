import { cos, setThree, sin } from '../../maths/index.ts';
import { filled, type ShapeDefinition } from './shape.ts';

/** A disc in the XZ plane. */
export const disc: ShapeDefinition = {
  words: 'on a disc',
  otherWords: ['filled circle', 'circle area'],
  measures: ['radius', 'arc'],
  hasRegions: true,
  dimensions: () => 2,
  isFlat: true,
  guide: ({ radius }) => [{ draws: 'circle', axis: [0, 1, 0], radius }],
  handles: [{ measure: 'radius', way: [1, 0, 0] }],
  pointInto(p, shares, region, { radius, depth, arc }) {
    const u = shares[0]!;
    const w = shares[2]!;
    const turn = 2 * Math.PI * arc * u;
    const c = cos(turn);
    const s = sin(turn);
    const r = radius * (region === 'edge' ? 1 : filled(w, region === 'volume' ? depth : 1, 2));
    setThree(p.at, r * c, 0, r * s);
    setThree(p.out, c, 0, s);
    setThree(p.normal, 0, 1, 0);
    setThree(p.along, -s, 0, c);
  },
};
