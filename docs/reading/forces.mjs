// A reading of the runtime contract (docs/runtime.md, "Forces"), apart from Jinx's own code: what each force does to a
// particle in a step of a sixtieth of a second, to about a millionth of a metre: Jinx computes in single precision.
import { add, cross, dot, hash2, length, scale, slotOf, subtract, unit } from './maths.mjs';

const DT = 1 / 60;
/** (1 − r²/reach²)², and nothing beyond the reach; 1 without one. */
const fade = (squared, reach) => (reach > 0 ? Math.max(0, 1 - squared / reach ** 2) ** 2 : 1);
const towards = (from, to, share) => from + (to - from) * share;

/** The three numbers −1 to 1 that a hash holds. */
const partsOf = (hash) => [0, 10, 20].map((shift) => (((hash >>> shift) & 1023) - 512) / 512);

/** The curl field of a seed at a place, in swirls: docs/definitions.md, "Curl noise". */
function curlAt(place, seed) {
  const primes = [0x27d4eb2d, 0x165667b1, 0x1b873593];
  const cell = place.map(Math.floor);
  const t = place.map((x, n) => x - cell[n]);
  const ease = t.map((x) => x ** 3 * (x * (6 * x - 15) + 10));
  const slope = t.map((x) => 30 * (x * (x - 1)) ** 2);
  const lattice = (x) => new Int32Array(Float32Array.of(x + 12582912).buffer)[0];
  // The slopes of three potentials along the axes: of each corner the weight along one axis is its slope.
  const slopes = [0, 1, 2].map(() => [0, 0, 0]);
  for (let corner = 0; corner < 8; corner++) {
    const o = [corner & 1, (corner >> 1) & 1, corner >> 2];
    let h = seed | 0;
    o.forEach((step, n) => (h ^= Math.imul(lattice(cell[n]) + step, primes[n])));
    h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
    h ^= h >>> 13;
    [0, 16, 6].forEach((shift, potential) => {
      const value = (((h >>> shift) & 1023) - 512) / 512;
      for (let axis = 0; axis < 3; axis++) {
        const weights = o.map((step, n) => (n === axis ? (step ? 1 : -1) * slope[n] : step ? ease[n] : 1 - ease[n]));
        slopes[potential][axis] += value * weights[0] * weights[1] * weights[2];
      }
    });
  }
  const [a, b, c] = slopes;
  return [c[1] - b[2], a[2] - c[0], b[0] - a[1]];
}
/** Two fields, and how far the one has gone over into the next. */
function changing(time, perSecond) {
  const changes = time * perSecond;
  return { now: Math.floor(changes), next: Math.floor(changes) + 1, share: changes - Math.floor(changes) };
}

/** What a force adds to the acceleration and to the drag of a particle; `step` is the one that is computed. */
function pushOf(kind, s, at, { place, velocity, key }, { id, seed, step }) {
  const away = subtract(place, at);
  const squared = dot(away, away);
  const time = (step + 1) * DT;
  switch (kind) {
    case 'gravity':
      return [[0, -s.strength, 0], 0];
    case 'wind':
      return [scale(unit(s.axis), s.strength * s.speed), s.strength];
    case 'drag':
      return [[0, 0, 0], s.strength + Math.log(1 + s.air * length(velocity) * DT) / DT];
    case 'attraction':
      return [scale(away, (-s.strength * fade(squared, s.reach)) / Math.sqrt(squared + s.softness ** 2)), 0];
    case 'vortex': {
      const n = unit(s.axis);
      const round = cross(n, away);
      const w = fade(dot(round, round), s.reach);
      const q = w / Math.sqrt(dot(round, round) + s.softness ** 2);
      const up = s.lift * w + dot(away, n) * s.pull * q;
      return [add(subtract(scale(round, s.strength * q), scale(away, s.pull * q)), scale(n, up)), 0];
    }
    case 'push': {
      if (time < s.start) return [[0, 0, 0], 0];
      const far = Math.sqrt(squared + s.softness ** 2);
      const weight = fade((far - s.speed * (time - s.start)) ** 2, s.width) * fade(squared, s.reach);
      return [scale(away, (s.strength * weight) / far), 0];
    }
    case 'curl': {
      const { now, next, share } = changing(time, s.change);
      const fields = hash2(seed, slotOf(`force/${id}/field`));
      const spot = place.map((x, n) => (x - s.drift[n] * time) / s.size);
      const [one, two] = [now, next].map((n) => curlAt(spot, hash2(fields, n)));
      const eased = share * share * (3 - 2 * share);
      return [one.map((x, n) => towards(x, two[n], eased) * s.strength), 0];
    }
    case 'jitter': {
      const { now, next, share } = changing(time, s.change);
      const [one, two] = [now, next].map((n) => partsOf(hash2(key, hash2(slotOf(`force/${id}/jitter`), n))));
      return [one.map((x, n) => towards(x, two[n], share) * s.strength), 0];
    }
  }
  return [[0, 0, 0], 0];
}

/** What a constraint makes of a particle that has been moved. */
function constrained(kind, s, at, { place, velocity }) {
  const grip = s.halves > 0 ? 1 - 2 ** (-DT / s.halves) : 1;
  if (kind === 'limit') {
    const share = Math.min(1, s.fastest / Math.max(length(velocity), 1e-6));
    return { place, velocity: scale(velocity, 1 + (share - 1) * grip) };
  }
  const axis = s.about === 'axis' ? unit(s.axis) : [0, 0, 0];
  const away = subtract(place, at);
  const across = subtract(away, scale(axis, dot(away, axis)));
  const far = length(across);
  const out = scale(across, 1 / far);
  const held = add(place, scale(across, (s.distance / far - 1) * grip));
  let kept = subtract(velocity, scale(out, dot(velocity, out) * grip));
  if (s.about === 'axis' && s.speed !== 0) {
    const round = cross(axis, out);
    kept = add(kept, scale(round, (s.speed - dot(kept, round)) * grip));
  } else {
    const turned = (length(kept) * DT) / far;
    const lost = 1 - Math.min(0.5, turned * turned);
    kept = scale(kept, 1 + (1 / Math.sqrt(lost) - 1) * grip);
  }
  return { place: held, velocity: kept };
}

/**
 * A particle after a step under one force, whose settings are those of docs/fields.md as they are for it. `place`, `velocity`
 * and `key` are its own; `id` that of the force, `seed` that of the effect, `step` the one that is computed.
 */
export function stepUnder({ kind, settings, at }, particle, about) {
  let { place, velocity } = particle;
  if (kind === 'velocity') place = add(place, scale([settings.x, settings.y, settings.z], DT));
  const [push, drag] = pushOf(kind, settings, at, { ...particle, place }, about);
  const kept = Math.exp(-drag * DT);
  const first = drag > 0 ? (1 - kept) / drag : DT;
  const second = drag > 0 ? (DT - first) / drag : DT ** 2 / 2;
  place = add(place, add(scale(velocity, first), scale(push, second)));
  velocity = add(scale(velocity, kept), scale(push, first));
  const isConstraint = kind === 'orbit' || kind === 'limit';
  return {
    ...particle,
    ...(isConstraint ? constrained(kind, settings, at, { place, velocity }) : { place, velocity }),
  };
}
