import { cos, cubeRoot, setThree, sin } from '../../maths/index.ts';
import { filled, ofSolid, type ShapeDefinition } from './shape.ts';

const squared = (a: number, b: number, v: number): number => Math.sqrt(a * a + (b * b - a * a) * v);
const cubed = (a: number, b: number, v: number): number => cubeRoot(a * a * a + (b * b * b - a * a * a) * v);

/** A cone cut off at its place, widening upward. */
export const cone: ShapeDefinition = {
  words: 'on a cone',
  otherWords: ['cone emitter'],
  measures: ['radius', 'length', 'angle', 'arc'],
  hasRegions: true,
  dimensions: ofSolid,
  guide: ({ radius, length, angle }) => {
    const tall = length || 0.3;
    const top = radius + tall * (sin(angle) / cos(angle));
    return [
      { draws: 'circle', axis: [0, 1, 0], radius },
      { draws: 'circle', axis: [0, 1, 0], radius: top, at: [0, tall, 0] },
      { draws: 'segment', from: [-radius, 0, 0], to: [-top, tall, 0] },
      { draws: 'segment', from: [radius, 0, 0], to: [top, tall, 0] },
      { draws: 'segment', from: [0, 0, -radius], to: [0, tall, -top] },
      { draws: 'segment', from: [0, 0, radius], to: [0, tall, top] },
    ];
  },
  handles: [
    { measure: 'radius', way: [1, 0, 0] },
    { measure: 'length', way: [0, 1, 0] },
  ],
  pointInto(p, shares, region, { radius, length, depth, arc, angle }) {
    const u = shares[0]!;
    const v = shares[1]!;
    const w = shares[2]!;
    const turn = 2 * Math.PI * arc * u;
    const c = cos(turn);
    const s = sin(turn);
    const lean = sin(angle) / cos(angle);
    const isFlat = length === 0 || region === 'edge';
    const top = radius + length * lean;
    // Evenly over the side or the inside of a cut-off cone: its girth grows with its height, its section by the square.
    const wide = region === 'volume' ? cubed(radius, top, v) : squared(radius, top, v);
    const y = isFlat ? 0 : lean > 0 ? (wide - radius) / lean : v * length;
    const border = isFlat ? radius : lean > 0 ? wide : radius;
    const share = region === 'edge' ? 1 : isFlat ? filled(w, 1, 2) : region === 'volume' ? filled(w, depth, 2) : 1;
    setThree(p.at, border * share * c, y, border * share * s);
    const tilt = angle * (border > 0 ? share : Math.sqrt(w));
    const up = cos(tilt);
    const flat = sin(tilt);
    setThree(p.out, flat * c, up, flat * s);
    setThree(p.normal, cos(angle) * c, -sin(angle), cos(angle) * s);
    setThree(p.along, -s, 0, c);
  },
};
