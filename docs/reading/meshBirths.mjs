// A reading of the runtime contract (docs/runtime.md, "Where births fall"), apart from Jinx's own code: where births fall on a
// mesh that bends, to about a millionth of a metre.
import { add, cross, dot, draw, drawn, EVEN, fract, length, scale, subtract, unit } from './maths.mjs';

// Meshes: positions, indices, joints and weights as GLB has them, `skin` the 16 numbers of each bone's skin matrix.
const vertexAt = ({ positions }, vertex) => positions.slice(vertex * 3, vertex * 3 + 3);
const cornersOf = ({ indices }, triangle) => indices.slice(triangle * 3, triangle * 3 + 3);
/** A vertex under linear blend skinning. */
function skinned(mesh, vertex) {
  let sum = [0, 0, 0];
  for (let k = 0; k < 4; k++) {
    const m = mesh.skin.slice(mesh.joints[vertex * 4 + k] * 16);
    const p = [...vertexAt(mesh, vertex), 1];
    sum = sum.map((x, n) => x + mesh.weights[vertex * 4 + k] * dot(p, [m[n], m[n + 4], m[n + 8], m[n + 12]]));
  }
  return sum;
}
/** The frame of a spot: x along the triangle's first edge, y its normal, z across; at rest or as the skin is. */
function spotFrame(mesh, { triangle, second, third }, place) {
  const [a, b, c] = cornersOf(mesh, triangle).map((vertex) => place(mesh, vertex));
  const x = unit(subtract(b, a));
  const y = unit(cross(subtract(b, a), subtract(c, a)));
  const at = add(add(scale(a, 1 - second - third), scale(b, second)), scale(c, third));
  return { at, x, y, z: cross(x, y) };
}
/** The first of running sums that lies beyond a share of their last. */
const search = (sums, u) => sums.findIndex((sum) => sum > u * sums[sums.length - 1]);
const summed = (weights) => {
  let sum = 0;
  return weights.map((weight) => (sum += weight));
};

const nameOf = (mesh, vertex) => vertexAt(mesh, vertex).join(' ');
/** A spot at a corner of a triangle, of each place where vertices stand. */
function vertexSpots(mesh) {
  const seen = new Set();
  return [...mesh.indices].flatMap((vertex, i) => {
    if (seen.has(nameOf(mesh, vertex))) return [];
    seen.add(nameOf(mesh, vertex));
    return [{ triangle: Math.floor(i / 3), second: i % 3 === 1 ? 1 : 0, third: i % 3 === 2 ? 1 : 0 }];
  });
}
/** Each edge between two places once: its triangle, which side of it, and its length at rest. */
function edges(mesh) {
  const seen = new Set();
  return [...mesh.indices].flatMap((from, i) => {
    const to = mesh.indices[i - (i % 3) + ((i + 1) % 3)];
    const name = [nameOf(mesh, from), nameOf(mesh, to)].sort().join();
    if (nameOf(mesh, from) === nameOf(mesh, to) || seen.has(name)) return [];
    seen.add(name);
    const metres = length(subtract(vertexAt(mesh, from), vertexAt(mesh, to)));
    return [{ triangle: Math.floor(i / 3), side: i % 3, metres }];
  });
}
const onEdge = ({ triangle, side }, t) => ({
  triangle,
  second: [t, 1 - t, 0][side],
  third: [0, t, 1 - t][side],
});

/** How often a ray leaves a mesh at rest, less how often it enters it (Möller and Trumbore, 1997). */
function crossings(mesh, from, way) {
  let sum = 0;
  for (let triangle = 0; triangle < mesh.indices.length / 3; triangle++) {
    const [a, b, c] = cornersOf(mesh, triangle).map((vertex) => vertexAt(mesh, vertex));
    const [e, f, s] = [subtract(b, a), subtract(c, a), subtract(from, a)];
    const [h, q] = [cross(way, f), cross(s, e)];
    const det = dot(e, h);
    if (det === 0) continue;
    const [u, v] = [dot(s, h) / det, dot(way, q) / det];
    if (u >= 0 && v >= 0 && u + v <= 1 && dot(f, q) / det > 0) sum += det > 0 ? -1 : 1;
  }
  return sum;
}
const RAYS = [
  [0.5377, 0.6731, 0.5077],
  [-0.6143, 0.3319, 0.7159],
  [0.2273, -0.8039, 0.5496],
  [-0.4421, -0.5303, -0.7234],
  [0.7919, 0.1031, -0.6019],
];
/** The weights of the second and third corner of the point of a triangle that is nearest to a place. */
function nearestOf([a, b, c], place) {
  const [e, f, s] = [subtract(b, a), subtract(c, a), subtract(place, a)];
  const [ee, ef, ff, se, sf] = [dot(e, e), dot(e, f), dot(f, f), dot(s, e), dot(s, f)];
  const area = ee * ff - ef * ef;
  const [v, w] = [(ff * se - ef * sf) / area, (ee * sf - ef * se) / area];
  if (v >= 0 && w >= 0 && v + w <= 1) return [v, w];
  const within = (x) => Math.min(1, Math.max(0, x));
  const t = within(dot(subtract(place, b), subtract(c, b)) / dot(subtract(c, b), subtract(c, b)));
  const away = ([x, y]) => length(subtract(s, add(scale(e, x), scale(f, y))));
  return [
    [within(se / ee), 0],
    [0, within(sf / ff)],
    [1 - t, t],
  ].reduce((best, on) => (away(on) < away(best) ? on : best));
}
/** Up to 2048 points inside a mesh at rest: each a spot of the surface nearest to it, and where it lies from there. */
export function insideSpots(mesh) {
  const vertices = Array.from({ length: mesh.positions.length / 3 }, (_, vertex) => vertexAt(mesh, vertex));
  const low = [0, 1, 2].map((n) => Math.min(...vertices.map((p) => p[n])));
  const high = [0, 1, 2].map((n) => Math.max(...vertices.map((p) => p[n])));
  const [, , steps] = EVEN;
  const found = [];
  for (let n = 0; n < 60_000 && found.length < 2048; n++) {
    const place = steps.map((step, k) => low[k] + (high[k] - low[k]) * fract(drawn(1, k + 1) + n * step));
    if (RAYS.filter((way) => crossings(mesh, place, way) > 0).length < 3) continue;
    const spots = Array.from({ length: mesh.indices.length / 3 }, (_, triangle) => {
      const corners = cornersOf(mesh, triangle).map((vertex) => vertexAt(mesh, vertex));
      const [second, third] = nearestOf(corners, place);
      const frame = spotFrame(mesh, { triangle, second, third }, vertexAt);
      const off = subtract(place, frame.at);
      return {
        triangle,
        second,
        third,
        off: [dot(off, frame.x), dot(off, frame.y), dot(off, frame.z)],
        away: length(off),
      };
    });
    found.push(spots.reduce((best, spot) => (spot.away < best.away ? spot : best)));
  }
  return found;
}

/** What finds a spot of the surface, the edges or the vertices, for three shares. */
function spotsOn(mesh, region) {
  if (region === 'vertices') {
    const spots = vertexSpots(mesh);
    return (u) => spots[Math.floor(u * spots.length)];
  }
  if (region === 'edge') {
    const all = edges(mesh);
    const sums = summed(all.map(({ metres }) => metres));
    return (u, v) => onEdge(all[search(sums, u)], v);
  }
  const areas = Array.from({ length: mesh.indices.length / 3 }, (_, triangle) => {
    const [a, b, c] = cornersOf(mesh, triangle).map((vertex) => vertexAt(mesh, vertex));
    return length(cross(subtract(b, a), subtract(c, a))) / 2;
  });
  const sums = summed(areas);
  return (u, v, w) => ({ triangle: search(sums, u), second: Math.sqrt(v) * (1 - w), third: Math.sqrt(v) * w });
}

/** Spots in an order of which every beginning is evenly spread: the first `count` of those that Jinx keeps. */
export function evenSpots(mesh, region, count) {
  const spots = vertexSpots(mesh);
  const isVertices = region === 'vertices';
  const spotOn = spotsOn(mesh, region);
  const candidates = Array.from({ length: (isVertices ? spots.length : 4096) * 16 }, (_, n) =>
    isVertices ? spots[n % spots.length] : spotOn(drawn(n, 1), drawn(n, 2), drawn(n, 3)),
  );
  const places = candidates.map((spot) => spotFrame(mesh, spot, vertexAt).at);
  const away = (a, b) => length(subtract(places[a], places[b]));
  /** Beginning at one, always the one farthest from all before it; of several the first. */
  const farthestFrom = (start, among, most) => {
    const distances = Array.from({ length: among }, (_, n) => away(n, start));
    const order = [start];
    while (order.length < Math.min(most, among)) {
      const next = distances.indexOf(distances.reduce((far, d) => Math.max(far, d), 0));
      order.push(next);
      distances.forEach((d, n) => (distances[n] = Math.min(d, away(n, next))));
    }
    return order;
  };
  // Of 24 beginnings the one whose first sixteen lie farthest apart on the mean, for their number.
  const among = Math.min(1500, places.length);
  const scoreOf = (start) => {
    const order = farthestFrom(start, among, 16);
    let score = Infinity;
    for (let n = 2; n <= order.length; n++) {
      const first = order.slice(0, n);
      const apart = first.map((a) => Math.min(...first.filter((b) => b !== a).map((b) => away(a, b))));
      score = Math.min(score, (apart.reduce((sum, d) => sum + d, 0) / n) * Math.sqrt(n));
    }
    return score;
  };
  const scores = Array.from({ length: Math.min(24, among) }, (_, start) => scoreOf(start));
  return farthestFrom(scores.indexOf(Math.max(...scores)), places.length, count).map((n) => candidates[n]);
}

/**
 * The place of a birth on a mesh. `spots` are what is computed once for a mesh: those of `insideSpots` for its inside, of
 * `evenSpots` for the other regions in an even order.
 */
export function onMesh(mesh, region, order, { key, number, walk }, spots) {
  const u = order === 'walking' ? ((number % walk) + 0.5) / walk : draw(key, 'source/triangle');
  const spot =
    order === 'even'
      ? spots[number % spots.length]
      : region === 'volume'
        ? spots[Math.floor(u * spots.length)]
        : spotsOn(mesh, region)(u, draw(key, 'source/rise'), draw(key, 'source/turn'));
  const { at, x, y, z } = spotFrame(mesh, spot, skinned);
  const [a, b, c] = spot.off ?? [0, 0, 0];
  return { at: add(at, add(add(scale(x, a), scale(y, b)), scale(z, c))), out: y, normal: y, along: x };
}
