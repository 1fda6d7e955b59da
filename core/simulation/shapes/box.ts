import { setThree } from '../../maths/index.ts';
import { filled, ofSolid, type ShapeDefinition } from './shape.ts';

const HALF_ROOT = Math.sqrt(0.5);

/** How far into its weight the share lies that was chosen last. */
let rest = 0;

/** Which of three weights a share falls on. */
function chosen(x: number, y: number, z: number, u: number): 0 | 1 | 2 {
  let at = u * (x + y + z);
  if (at < x) {
    rest = at / x;
    return 0;
  }
  at -= x;
  if (at < y) {
    rest = at / y;
    return 1;
  }
  at -= y;
  rest = z > 0 ? Math.min(at / z, 1 - 1e-12) : 0;
  return 2;
}

/** A box about its place. */
export const box: ShapeDefinition = {
  words: 'on a box',
  otherWords: ['cube', 'rectangle', 'plane', 'oblong'],
  measures: ['size'],
  hasRegions: true,
  dimensions: ofSolid,
  guide: ({ size }) => [{ draws: 'box', size: [size[0]!, size[1]!, size[2]!] }],
  handles: [{ measure: 'size' }],
  pointInto(p, shares, region, { size, depth }) {
    const u = shares[0]!;
    const v = shares[1]!;
    const w = shares[2]!;
    const x = size[0]!;
    const y = size[1]!;
    const z = size[2]!;
    setThree(p.normal, 0, 0, 0);
    setThree(p.along, 0, 0, 0);
    if (region === 'edge') {
      // Four edges along each axis, as likely on each metre as on any other.
      const axis = chosen(x, y, z, u);
      const a = (axis + 1) % 3;
      const b = (axis + 2) % 3;
      const corner = Math.floor(v * 4);
      p.at[axis] = (rest - 0.5) * size[axis]!;
      p.at[a] = ((corner & 1) - 0.5) * size[a]!;
      p.at[b] = ((corner >> 1) - 0.5) * size[b]!;
      p.along[axis] = 1;
      p.normal[a] = (corner & 1 ? 1 : -1) * HALF_ROOT;
      p.normal[b] = (corner >> 1 ? 1 : -1) * HALF_ROOT;
    } else {
      // Faces by their area; for the inside, the pyramids over them, which are of one volume.
      const isFlat = x * y * z === 0;
      const isFilled = region === 'volume' && !isFlat;
      const axis = isFilled ? chosen(x * y * z, x * y * z, x * y * z, u) : chosen(y * z, z * x, x * y, u);
      const a = (axis + 1) % 3;
      const b = (axis + 2) % 3;
      const side = isFlat || rest >= 0.5 ? 1 : -1;
      const across = isFlat ? rest : rest >= 0.5 ? rest * 2 - 1 : rest * 2;
      const share = isFilled ? filled(w, depth, 3) : 1;
      p.at[axis] = (side / 2) * size[axis]! * share;
      p.at[a] = (across - 0.5) * size[a]! * share;
      p.at[b] = (v - 0.5) * size[b]! * share;
      p.normal[axis] = side;
      p.along[a] = 1;
    }
    setThree(p.out, p.normal[0]!, p.normal[1]!, p.normal[2]!);
  },
};
