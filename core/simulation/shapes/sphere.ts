import { cos, setThree, sin } from '../../maths/index.ts';
import { faceOutward, filled, ofSolid, type ShapeDefinition } from './shape.ts';

/** A ball, or its cap. */
export const sphere: ShapeDefinition = {
  words: 'round a sphere',
  otherWords: ['ball', 'hemisphere'],
  measures: ['radius', 'rise', 'arc'],
  hasRegions: true,
  dimensions: ofSolid,
  guide: ({ radius }) => [{ draws: 'globe', radius }],
  handles: [{ measure: 'radius', way: [1, 0, 0] }],
  pointInto(p, shares, region, { radius, depth, arc, rise }) {
    const u = shares[0]!;
    const v = shares[1]!;
    const w = shares[2]!;
    const turn = 2 * Math.PI * arc * u;
    // As likely on each square metre as on any other (Archimedes' hat-box theorem).
    const lowest = cos(rise);
    const rim = rise >= Math.PI ? 0 : lowest;
    const y = region === 'edge' ? rim : 1 - (1 - lowest) * v;
    const flat = Math.sqrt(Math.max(0, 1 - y * y));
    const c = cos(turn);
    const s = sin(turn);
    const r = radius * (region === 'volume' ? filled(w, depth, 3) : 1);
    setThree(p.out, flat * c, y, flat * s);
    setThree(p.at, r * flat * c, r * y, r * flat * s);
    faceOutward(p);
    setThree(p.along, -s, 0, c);
  },
};
