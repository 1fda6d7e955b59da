// A reading of the runtime contract (docs/runtime.md, "Where births fall"), apart from Jinx's own code. It says where births
// fall on shapes, drawn paths, bones, other particles and hits, and which way they leave, to about a millionth of a metre:
// Jinx rounds on the way, and has sines of its own (docs/definitions.md).
import {
  add,
  betweenCorners,
  blend,
  cross,
  draw,
  drawn,
  EVEN,
  fract,
  hash2,
  length,
  roundOf,
  scale,
  subtract,
  unit,
} from './maths.mjs';

/** The three shares of a birth on a source: of a key, and a number in a layer of a salt. */
export function sharesOf(order, { key, number, salt, walk }, kind, region) {
  const shares = ['source/turn', 'source/rise', 'source/depth'].map((slot) => draw(key, slot));
  if (order === 'walking') shares[0] = fract(((number % walk) + 0.5) / walk);
  if (order !== 'even') return shares;
  EVEN[dimensionsOf(kind, region) - 1].forEach((step, n) => {
    shares[n] = fract(drawn(salt, n) + (number + 1) * step);
  });
  // A disc has no height: its second dimension is the depth.
  if (kind === 'disc') shares[2] = shares[1];
  return shares;
}

/** The share of the radius at which a share w of what is filled to a depth lies. */
function filled(w, depth, dimensions) {
  if (depth === 0) return 1;
  const hole = (1 - depth) ** dimensions;
  return (hole + (1 - hole) * w) ** (1 / dimensions);
}

/** A way as likely as any other: round by the share u, down by v. */
function onBall(u, v) {
  const y = 1 - 2 * v;
  const flat = Math.sqrt(Math.max(0, 1 - y * y));
  return [flat * Math.cos(2 * Math.PI * u), y, flat * Math.sin(2 * Math.PI * u)];
}

/** How many dimensions births spread over evenly: on a shape's surface, edge or volume. */
function dimensionsOf(kind, region) {
  if (kind === 'line' || kind === 'path' || kind === 'bones' || (kind === 'ring' && region === 'edge')) return 1;
  return region === 'volume' && kind !== 'disc' ? 3 : 2;
}

/** A place on a shape in its own frame. Metres; `rise` and `angle` in radians, `arc` and `depth` as shares. */
export function onShape(kind, region, { radius, length, thickness, arc, rise, angle, depth, size }, [u, v, w]) {
  const turn = 2 * Math.PI * arc * u;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [side, along] = [
    [c, 0, s],
    [-s, 0, c],
  ];
  const like = (at, out, way = along) => ({ at, out, normal: out, along: way });
  switch (kind) {
    case 'point':
      return { at: [0, 0, 0], out: onBall(u, v), normal: [0, 1, 0], along: [1, 0, 0] };
    case 'line':
      return like([0, (u - 0.5) * length, 0], [Math.cos(2 * Math.PI * v), 0, Math.sin(2 * Math.PI * v)], [0, 1, 0]);
    case 'ring': {
      const tube = region === 'edge' ? 0 : thickness * (region === 'volume' ? Math.sqrt(w) : 1);
      if (tube === 0) return { at: scale(side, radius), out: side, normal: [0, 1, 0], along };
      const out = add(scale(side, Math.cos(2 * Math.PI * v)), [0, Math.sin(2 * Math.PI * v), 0]);
      return like(add(scale(side, radius), scale(out, tube)), out);
    }
    case 'disc': {
      const r = radius * (region === 'edge' ? 1 : filled(w, region === 'volume' ? depth : 1, 2));
      return { at: scale(side, r), out: side, normal: [0, 1, 0], along };
    }
    case 'sphere': {
      const y = region === 'edge' ? (rise >= Math.PI ? 0 : Math.cos(rise)) : 1 - (1 - Math.cos(rise)) * v;
      const out = add(scale(side, Math.sqrt(Math.max(0, 1 - y * y))), [0, y, 0]);
      return like(scale(out, radius * (region === 'volume' ? filled(w, depth, 3) : 1)), out);
    }
    case 'cylinder': {
      const y = region === 'edge' ? (v < 0.5 ? -0.5 : 0.5) : v - 0.5;
      return like(
        add(scale(side, radius * (region === 'volume' ? filled(w, depth, 2) : 1)), [0, y * length, 0]),
        side,
      );
    }
    case 'cone': {
      const [lean, isFlat] = [Math.tan(angle), length === 0 || region === 'edge'];
      const power = region === 'volume' ? 3 : 2;
      const wide = (radius ** power + ((radius + length * lean) ** power - radius ** power) * v) ** (1 / power);
      const border = isFlat || lean <= 0 ? radius : wide;
      const inside = isFlat ? filled(w, 1, 2) : region === 'volume' ? filled(w, depth, 2) : 1;
      const share = region === 'edge' ? 1 : inside;
      const height = isFlat ? 0 : lean > 0 ? (wide - radius) / lean : v * length;
      const tilt = angle * (border > 0 ? share : Math.sqrt(w));
      return {
        at: add(scale(side, border * share), [0, height, 0]),
        out: add(scale(side, Math.sin(tilt)), [0, Math.cos(tilt), 0]),
        normal: add(scale(side, Math.cos(angle)), [0, -Math.sin(angle), 0]),
        along,
      };
    }
    case 'box':
      return onBox(region, size, depth, [u, v, w]);
  }
  throw new Error(`There is no shape "${kind}".`);
}

/** Which of three weights a share falls on, and how far into it. */
function chosen(weights, u) {
  let at = u * (weights[0] + weights[1] + weights[2]);
  for (let n = 0; n < 2; n++) {
    if (at < weights[n]) return [n, at / weights[n]];
    at -= weights[n];
  }
  return [2, weights[2] > 0 ? Math.min(at / weights[2], 1 - 1e-12) : 0];
}
function onBox(region, size, depth, [u, v, w]) {
  const [x, y, z] = size;
  const [at, normal, along] = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  if (region === 'edge') {
    const [axis, rest] = chosen(size, u);
    const [a, b, corner] = [(axis + 1) % 3, (axis + 2) % 3, Math.floor(v * 4)];
    at[axis] = (rest - 0.5) * size[axis];
    at[a] = ((corner & 1) - 0.5) * size[a];
    at[b] = ((corner >> 1) - 0.5) * size[b];
    [along[axis], normal[a], normal[b]] = [1, (corner & 1 || -1) * Math.SQRT1_2, (corner >> 1 || -1) * Math.SQRT1_2];
  } else {
    const isFlat = x * y * z === 0;
    const isFilled = region === 'volume' && !isFlat;
    const [axis, rest] = chosen(isFilled ? [1, 1, 1] : [y * z, z * x, x * y], u);
    const [a, b] = [(axis + 1) % 3, (axis + 2) % 3];
    const side = isFlat || rest >= 0.5 ? 1 : -1;
    const share = isFilled ? filled(w, depth, 3) : 1;
    at[axis] = (side / 2) * size[axis] * share;
    at[a] = ((isFlat ? rest : fract(2 * rest)) - 0.5) * size[a] * share;
    at[b] = (v - 0.5) * size[b] * share;
    [normal[axis], along[a]] = [side, 1];
  }
  return { at, out: normal, normal, along };
}

/** A place on a drawn path: at a share u of its length, v of a turn about it. */
export function onPath(points, closed, [u, v]) {
  const point = (n) =>
    closed ? points[(n + points.length) % points.length] : points[Math.min(points.length - 1, Math.max(0, n))];
  const curve = (span, t) => {
    const [p, q, r, s] = [-1, 0, 1, 2].map((n) => point(span + n));
    return q.map((_, n) => {
      const [a, b] = [2 * p[n] - 5 * q[n] + 4 * r[n] - s[n], 3 * (q[n] - r[n]) + s[n] - p[n]];
      return 0.5 * (2 * q[n] + t * (r[n] - p[n] + t * (a + t * b)));
    });
  };
  // Sixteen straight pieces a span.
  const spans = closed ? points.length : points.length - 1;
  const places = Array.from({ length: spans * 16 }, (_, n) => curve(Math.floor(n / 16), (n % 16) / 16));
  places.push(curve(spans - 1, 1));
  const pieces = places.slice(1).map((place, n) => length(subtract(place, places[n])));
  let left = u * pieces.reduce((sum, piece) => sum + piece, 0);
  let n = 0;
  while (n < pieces.length - 1 && left >= pieces[n]) left -= pieces[n++];
  const along = unit(subtract(places[n + 1], places[n]));
  const out = roundOf(along, 2 * Math.PI * v);
  return { at: blend(places[n], places[n + 1], pieces[n] > 0 ? left / pieces[n] : 0), out, normal: out, along };
}

/** A place between the joints of two bones, whose world matrices these are; both may be one. */
export function onBones(spans, [u, v]) {
  const which = Math.min(spans.length - 1, Math.floor(u * spans.length));
  const [from, to] = spans[which];
  const joint = (m) => m.slice(12, 15);
  const along = unit(from === to ? from.slice(4, 7) : subtract(joint(to), joint(from)));
  const out = roundOf(along, 2 * Math.PI * v);
  return { at: blend(joint(from), joint(to), from === to ? 0 : u * spans.length - which), out, normal: out, along };
}

/** Random values of whole places, −1 to 1, and what lies between. */
const valueNoise = (place, seed) =>
  betweenCorners(place, ([x, y, z]) => hash2(hash2(hash2(seed, x), y), z) / 2147483648 - 1);

/**
 * A place on one of another layer's living particles, or on the ring about it: its radius, how far it is pushed, how large
 * the noise is and how fast it moves. `share` is the instant within the step, `time` the same in seconds.
 */
export function onParticle(parents, { key, number, share, time }, { radius, push, grain, change, walk = null }) {
  const parent = parents[Math.floor(draw(key, 'source/who') * parents.length)];
  const at = blend(parent.from, parent.to, share);
  const out = length(parent.velocity) > 0 ? unit(parent.velocity) : [0, 1, 0];
  if (radius === 0) return { at, out, normal: [0, 1, 0], along: [1, 0, 0] };
  const round = walk === null ? draw(key, 'source/round') : ((number % walk) + 0.5) / walk;
  const turn = 2 * Math.PI * (round + draw(parent.key, 'source/ringTurn'));
  const outward = roundOf(parent.normal, turn);
  const spot = [(radius * Math.cos(turn)) / grain, (radius * Math.sin(turn)) / grain, time * change];
  const reach = Math.max(0, radius + (push > 0 ? push * valueNoise(spot, parent.key) : 0));
  return {
    at: add(at, scale(outward, reach)),
    out: outward,
    normal: parent.normal,
    along: cross(parent.normal, outward),
  };
}

/**
 * The way a particle leaves: `launch` as the document names it, `angle` and `opening` in degrees, `axis` as its carrier
 * turns it, `aim` a place and the axis through it.
 */
export function wayOf(launch, birth, key, { angle = 0, opening = 0, axis, aim }) {
  const within = (turn) =>
    unit(add(scale(birth.along, Math.cos(turn)), scale(cross(birth.normal, birth.along), Math.sin(turn))));
  const ways = {
    outward: () => birth.out,
    normal: () => birth.normal,
    tangent: () => within((angle * Math.PI) / 180),
    within: () => within(2 * Math.PI * draw(key, 'launch/anyTurn')),
    axis: () => unit(axis),
    toward: () => unit(subtract(aim.at, birth.at)),
    round: () => unit(cross(aim.axis, subtract(birth.at, aim.at))),
    any: () => onBall(draw(key, 'launch/anyTurn'), draw(key, 'launch/anyRise')),
  };
  const way = ways[launch]();
  if (!(opening > 0) || length(way) === 0) return way;
  const along = 1 - draw(key, 'launch/open') * (1 - Math.cos((opening * Math.PI) / 180));
  const aside = Math.sqrt(Math.max(0, 1 - along * along));
  return unit(add(scale(way, along), scale(roundOf(way, 2 * Math.PI * draw(key, 'launch/turn')), aside)));
}
