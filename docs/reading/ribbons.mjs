// A reading of the runtime contract (docs/runtime.md, "Ribbons"), apart from Jinx's own code: where the joints of strands and
// beams lie and how wide they are, to about a millionth of a metre.
import { add, blend, cross, draw, hash2, length, scale, subtract, unit } from './maths.mjs';

/** Nearer than this two points are one, metres. */
const NEAR = 1e-6;
const MOST_TURN = 0.1;
const MOST_PIECES = 12;

/** Joints of the smooth curve through points, from tail to head. */
export function jointsThrough(points) {
  const turnAt = (n) => {
    if (n < 1 || n + 1 >= points.length) return 0;
    const [before, after] = [subtract(points[n], points[n - 1]), subtract(points[n + 1], points[n])];
    return length(before) < NEAR || length(after) < NEAR ? 0 : length(subtract(unit(after), unit(before)));
  };
  const joints = points.slice(0, -1).flatMap((_, n) => {
    const turn = Math.max(turnAt(n), turnAt(n + 1));
    const pieces = Math.max(1, Math.min(MOST_PIECES, Math.ceil(turn / MOST_TURN)));
    return Array.from({ length: pieces }, (__, k) => between(points, n, k / pieces));
  });
  return [...joints, points[points.length - 1]];
}
/** A centripetal Catmull-Rom curve between points n and n + 1 (Yuksel et al., 2011), at a share t; beyond an end it goes on. */
function between(points, n, t) {
  const [b, c] = [points[n], points[n + 1]];
  const a = points[n - 1] ?? subtract(scale(b, 2), c);
  const d = points[n + 2] ?? subtract(scale(c, 2), b);
  const [before, step, after] = [
    [a, b],
    [b, c],
    [c, d],
  ].map(([p, q]) => Math.sqrt(length(subtract(q, p))));
  const along = scale(subtract(c, b), 1 / step);
  const into = add(subtract(scale(subtract(b, a), 1 / before), scale(subtract(c, a), 1 / (before + step))), along);
  const out = add(subtract(along, scale(subtract(d, b), 1 / (step + after))), scale(subtract(d, c), 1 / after));
  const parts = [
    [b, 2 * t ** 3 - 3 * t ** 2 + 1],
    [into, (t ** 3 - 2 * t ** 2 + t) * step],
    [c, 3 * t ** 2 - 2 * t ** 3],
    [out, (t ** 3 - t ** 2) * step],
  ];
  return parts.reduce((sum, [part, weight]) => add(sum, scale(part, weight)), [0, 0, 0]);
}

/** Half the width at a share x from head to tail: a cubic between two keys, each with its width (a share of the size) and its slope. */
export const halfWidthAt = (x, size, [[head, slopeOut], [tail, slopeIn]]) => {
  const t = Math.min(1, Math.max(0, x));
  const u = 1 - t;
  return (
    (size / 2) * (head * (1 + 2 * t) * u * u + tail * t * t * (3 - 2 * t) + t * u * (slopeOut * u - slopeIn * t))
  );
};

/** Level to the side of a way, and upward across both. */
function sidesOf(way) {
  const [x, y, z] = length(way) > 0 ? unit(way) : [1, 0, 0];
  const flat = Math.sqrt(x * x + z * z);
  const level = flat > 1e-6 ? [z / flat, 0, -x / flat] : [1, 0, 0];
  return [level, cross([x, y, z], level)];
}
function piecesOf(span, { jag, jagSize }) {
  const jags = jag > 0 ? Math.ceil(span / jagSize) : 0;
  return Math.max(jag > 0 ? 2 : 16, Math.min(96, jags));
}
/** Where a beam is at a share x of its way, between the jags of a strike. */
function beamAt(from, to, { sag, jag }, strike, x, pieces) {
  const [side, up] = sidesOf(subtract(to, from));
  const thrown = (n, slot) => {
    if (n <= 0 || n >= pieces) return 0;
    const grown = Math.min(1, Math.min(n, pieces - n) / Math.max(1, Math.min(4, pieces / 2)));
    return jag * grown * (2 * draw(hash2(strike, n), slot) - 1);
  };
  const k = Math.floor(x * pieces);
  const t = x * pieces - k;
  const aside = (slot) => thrown(k, slot) * (1 - t) + thrown(k + 1, slot) * t;
  const straight = add(blend(from, to, x), [0, -4 * sag * x * (1 - x), 0]);
  return add(straight, add(scale(side, aside('beam/aside')), scale(up, aside('beam/up'))));
}
function wayPoints(from, to, shape, strike, reached) {
  const pieces = piecesOf(length(subtract(to, from)), shape);
  return Array.from({ length: Math.ceil(reached * pieces) + 1 }, (_, k) =>
    beamAt(from, to, shape, strike, Math.min(k / pieces, reached), pieces),
  );
}
/** The points of a beam of a particle that has lived so long, and of its branches; they are its joints where it has jags. */
export function beamPoints(from, to, shape, key, seconds) {
  const span = length(subtract(to, from));
  const reached = shape.speed > 0 && span > 0 ? Math.min(1, (seconds * shape.speed) / span) : 1;
  const strike = hash2(key, shape.strikes > 0 ? Math.floor(seconds * shape.strikes) : 0);
  const branches = Array.from({ length: Math.floor(shape.branches) }, (_, n) => {
    const own = hash2(strike, 1000 + n);
    const where = 0.1 + 0.8 * draw(own, 'beam/where');
    const long = shape.branchLength * (0.3 + 0.7 * draw(own, 'beam/long'));
    if (where >= reached || !(long > 0)) return [];
    const [side, up] = sidesOf(subtract(to, from));
    const aside = add(scale(side, 2 * draw(own, 'beam/aside') - 1), scale(up, 2 * draw(own, 'beam/up') - 1));
    const way = unit(add(scale(subtract(to, from), 1 / span), aside));
    const root = beamAt(from, to, shape, strike, where, piecesOf(span, shape));
    return [wayPoints(root, add(root, scale(way, long)), { ...shape, sag: 0, jag: shape.jag * 0.6 }, own, 1)];
  });
  return [wayPoints(from, to, shape, strike, reached), ...branches.flat()];
}
