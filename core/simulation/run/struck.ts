import { AT, CONTACT_WORDS, NORMAL, SHARE } from '../surfaces/body.ts';
import { subtract, unit, type Vec3 } from '../../maths/index.ts';
import type { Scene } from '../scene/scene.ts';
import type { Collider } from '../run/5-collide.ts';
import { bodyOfThing } from '../surfaces/skinBody.ts';

/** Where a blow from one place toward another falls at an instant, and which way leads out of what it hits. */
export function struck(
  collider: Collider,
  scene: Scene,
  time: number,
  from: Vec3,
  to: Vec3,
): { at: Vec3; normal: Vec3 } {
  const bodies = collider.posedAt(time).map(({ body }) => body);
  for (const thing of scene.things) {
    const body = bodyOfThing(thing);
    body.pose(time, time);
    bodies.push(body);
  }
  const out = new Float64Array(CONTACT_WORDS);
  let first = Infinity;
  let found = { at: nearestTo(scene.effectAt(time), from, to), normal: unit(subtract(from, to)) };
  for (const body of bodies) {
    if (!body.meet(out, 0, from[0], from[1], from[2], to[0], to[1], to[2], 'both') || out[SHARE]! >= first) continue;
    first = out[SHARE]!;
    found = { at: three(out, AT), normal: three(out, NORMAL) };
  }
  return found;
}

const three = (words: Float64Array, o: number): Vec3 => [words[o]!, words[o + 1]!, words[o + 2]!];

/** The point of a way that is nearest to a metre above the effect's middle. */
function nearestTo(effect: Float64Array, from: Vec3, to: Vec3): Vec3 {
  const middle = [effect[12]!, effect[13]! + 1, effect[14]!];
  let [dot, size] = [0, 0];
  for (let axis = 0; axis < 3; axis++) {
    const way = to[axis]! - from[axis]!;
    dot += way * (middle[axis]! - from[axis]!);
    size += way * way;
  }
  const t = size > 0 ? Math.max(0, Math.min(1, dot / size)) : 0;
  const at = (axis: number) => from[axis]! + (to[axis]! - from[axis]!) * t;
  return [at(0), at(1), at(2)];
}
