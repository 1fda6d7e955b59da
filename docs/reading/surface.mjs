// A reading of the runtime contract (docs/runtime.md, "Surfaces"), apart from Jinx's own code: a particle that falls onto
// the ground, step by step, to about a hundred-thousandth of a metre: Jinx keeps places in single precision.
import { add, dot, length, scale, subtract } from './maths.mjs';

const DT = 1 / 60;
const GAP = 1e-4;
const UP = [0, 1, 0];

/** What is left of a velocity along the ground when so many metres a second of it are rubbed away. */
function rubbed(velocity, lost) {
  const along = subtract(velocity, scale(UP, dot(velocity, UP)));
  const speed = length(along);
  return scale(along, speed > lost ? 1 - lost / speed : 0);
}

/** Goes on from a contact with the ground for what is left of the step. */
function leaving({ act, bounce, friction }, velocity, push, left) {
  const toward = Math.max(0, -dot(velocity, UP));
  const pressed = -dot(push, UP);
  const rests = toward <= 1.5 * pressed * DT + 1e-9;
  const lift = toward * (act === 'slide' || rests ? 1 : 1 + bounce / 100);
  const away = add(rubbed(velocity, (friction / 100) * lift), scale(UP, lift - toward));
  if (!rests || pressed <= 0) return { velocity: away, push };
  // The ground takes up the push into it, and rubs by a share of that.
  const level = add(push, scale(UP, pressed));
  if (left <= 0) return { velocity: away, push: level };
  const after = add(away, scale(level, left));
  const kept = add(rubbed(after, (friction / 100) * pressed * left), scale(UP, dot(after, UP)));
  return { velocity: away, push: scale(subtract(kept, away), 1 / left) };
}

/**
 * A particle after a step above the ground, under a push of so many m/s² each way; null once it has died. `surface` has the
 * settings of docs/fields.md as they are for it; what sticks has `isStuck`.
 */
export function stepAbove(surface, particle, push) {
  if (particle.isStuck) return particle;
  let { place, velocity } = particle;
  let end = add(place, add(scale(velocity, DT), scale(push, DT ** 2 / 2)));
  let after = add(velocity, scale(push, DT));
  if (surface.act === 'keep')
    return { place: [end[0], surface.offset, end[2]], velocity: subtract(after, scale(UP, dot(after, UP))) };
  let at = 0;
  for (let contacts = 0; end[1] < 0 && contacts < 4; contacts++) {
    // The straight way from where it is to where it would be meets the ground.
    const share = place[1] / (place[1] - end[1]);
    at += (1 - at) * share;
    const left = (1 - at) * DT;
    place = add(place, scale(subtract(end, place), share));
    if (surface.act === 'die') return null;
    if (surface.act === 'stick') return { place: [place[0], GAP, place[2]], velocity: [0, 0, 0], isStuck: true };
    ({ velocity, push } = leaving(surface, subtract(after, scale(push, left)), push, left));
    end = add(place, add(scale(velocity, left), scale(push, left ** 2 / 2)));
    after = add(velocity, scale(push, left));
  }
  const isMet = at > 0;
  return { place: isMet && end[1] < GAP ? [end[0], GAP, end[2]] : end, velocity: after };
}
