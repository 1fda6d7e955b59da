import { cos, setThree, sin } from '../../maths/index.ts';
import { faceOutward, ofSolid, type ShapeDefinition } from './shape.ts';

/** A ring in the XZ plane, thin or as a tube. */
export const ring: ShapeDefinition = {
  words: 'along a ring',
  otherWords: ['circle', 'circle edge', 'torus'],
  measures: ['radius', 'thickness', 'arc'],
  hasRegions: true,
  dimensions: (region) => (region === 'edge' ? 1 : ofSolid(region)),
  guide: ({ radius }) => [{ draws: 'circle', axis: [0, 1, 0], radius }],
  handles: [{ measure: 'radius', way: [1, 0, 0] }],
  pointInto(p, shares, region, { radius, thickness, arc }) {
    const u = shares[0]!;
    const v = shares[1]!;
    const w = shares[2]!;
    const turn = 2 * Math.PI * arc * u;
    const c = cos(turn);
    const s = sin(turn);
    const tube = region === 'edge' ? 0 : thickness * (region === 'volume' ? Math.sqrt(w) : 1);
    if (tube === 0) {
      setThree(p.at, radius * c, 0, radius * s);
      setThree(p.out, c, 0, s);
      setThree(p.normal, 0, 1, 0);
    } else {
      const round = 2 * Math.PI * v;
      const flat = cos(round);
      const up = sin(round);
      const from = radius + tube * flat;
      setThree(p.at, from * c, tube * up, from * s);
      setThree(p.out, flat * c, up, flat * s);
      faceOutward(p);
    }
    setThree(p.along, -s, 0, c);
  },
};
