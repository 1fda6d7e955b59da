import { cos, setThree, sin } from '../../maths/index.ts';
import { faceOutward, filled, ofSolid, type ShapeDefinition } from './shape.ts';

/** A cylinder along Y, without ends. */
export const cylinder: ShapeDefinition = {
  words: 'on a cylinder',
  otherWords: ['tube', 'column'],
  measures: ['radius', 'length', 'arc'],
  hasRegions: true,
  dimensions: ofSolid,
  guide: ({ radius, length }) => [
    { draws: 'circle', axis: [0, 1, 0], radius, at: [0, -length / 2, 0] },
    { draws: 'circle', axis: [0, 1, 0], radius, at: [0, length / 2, 0] },
    { draws: 'segment', from: [-radius, -length / 2, 0], to: [-radius, length / 2, 0] },
    { draws: 'segment', from: [radius, -length / 2, 0], to: [radius, length / 2, 0] },
  ],
  handles: [
    { measure: 'radius', way: [1, 0, 0] },
    { measure: 'length', way: [0, 0.5, 0] },
  ],
  pointInto(p, shares, region, { radius, length, depth, arc }) {
    const u = shares[0]!;
    const v = shares[1]!;
    const w = shares[2]!;
    const turn = 2 * Math.PI * arc * u;
    const c = cos(turn);
    const s = sin(turn);
    const r = radius * (region === 'volume' ? filled(w, depth, 2) : 1);
    const y = region === 'edge' ? (v < 0.5 ? -0.5 : 0.5) : v - 0.5;
    setThree(p.at, r * c, y * length, r * s);
    setThree(p.out, c, 0, s);
    faceOutward(p);
    setThree(p.along, -s, 0, c);
  },
};
