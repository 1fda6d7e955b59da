import {
  add,
  cross,
  dot,
  length,
  quaternionOf,
  rotate,
  scale,
  subtract,
  unit,
  type Rigid,
  type Vec3,
} from '@jinx/core/maths';
import type { Skeleton } from './joints.ts';

export type Turn = Rigid['turn'];
export type Side = 'left' | 'right';
export const SIDES: readonly Side[] = ['left', 'right'];

const NONE: Turn = [0, 0, 0, 1];

export const times = (a: Turn, b: Turn): Turn => [
  a[3] * b[0] + a[0] * b[3] + a[1] * b[2] - a[2] * b[1],
  a[3] * b[1] - a[0] * b[2] + a[1] * b[3] + a[2] * b[0],
  a[3] * b[2] + a[0] * b[1] - a[1] * b[0] + a[2] * b[3],
  a[3] * b[3] - a[0] * b[0] - a[1] * b[1] - a[2] * b[2],
];
export const back = (q: Turn): Turn => [-q[0], -q[1], -q[2], q[3]];

/** A turn of degrees round X (pitch: forward), then Y (yaw: to the left), then Z (roll). */
export function turn(pitch: number, yaw = 0, roll = 0): Turn {
  const about = (axis: 0 | 1 | 2, degrees: number): Turn => {
    const half = (degrees * Math.PI) / 360;
    const q: [number, number, number, number] = [0, 0, 0, Math.cos(half)];
    q[axis] = Math.sin(half);
    return q;
  };
  return times(about(2, roll), times(about(1, yaw), about(0, pitch)));
}

/** The turn that takes the frame (direction, hint) at rest to another direction and hint. */
function aimed(restDirection: Vec3, restHint: Vec3, direction: Vec3, hint: Vec3): Turn {
  const frame = (d: Vec3, h: Vec3): Turn => {
    const y = unit(d);
    const x = unit(cross(y, h), [1, 0, 0]);
    return quaternionOf(x, y, cross(x, y));
  };
  return times(frame(direction, hint), back(frame(restDirection, restHint)));
}

/** One instant of a figure, in the space of its feet. Directions need not be unit. */
export interface Stance {
  forward: number;
  hips: Vec3;
  hipsTurn: Turn;
  spine: Turn;
  chest: Turn;
  head: Turn;
  arms: Record<Side, { upper: Vec3; fore: Vec3; hint: Vec3; shoulder: number }>;
  feet: Record<Side, { ankle: Vec3; turn: Turn; toes: number }>;
  /** Where each thing that is held points, by the name of its joint; without an entry it stays as its parent holds it. */
  held: Readonly<Record<string, Vec3>>;
}

/** Local translations and turns of every joint for a stance: legs by two-bone inverse kinematics. */
export function solve(stance: Stance, skeleton: Skeleton): { forward: number; hips: Vec3; turns: Turn[] } {
  const world = new Map<string, Turn>([['root', NONE]]);
  const joint = (name: string) => skeleton.joint(name);
  const rest = (name: string): Vec3 => subtract(joint(name).end, joint(name).at);
  const hips = stance.hipsTurn;
  const spine = times(hips, stance.spine);
  const chest = times(spine, stance.chest);
  world.set('hips', hips);
  world.set('spine', spine);
  world.set('chest', chest);
  // The neck takes half of what the head turns, and both look ahead rather than with the chest.
  world.set('neck', times(chest, turn(4)));
  world.set('head', stance.head);
  for (const side of SIDES) {
    const { upper, fore, hint, shoulder } = stance.arms[side];
    world.set(`shoulder.${side}`, times(chest, turn(0, 0, side === 'left' ? shoulder : -shoulder)));
    const restHint: Vec3 = [0, 0, -1];
    world.set(`upper arm.${side}`, aimed(rest(`upper arm.${side}`), restHint, upper, hint));
    world.set(`forearm.${side}`, aimed(rest(`forearm.${side}`), restHint, fore, hint));
    world.set(`hand.${side}`, world.get(`forearm.${side}`)!);

    const foot = stance.feet[side];
    const hipJoint = add(stance.hips, rotate(hips, subtract(joint(`thigh.${side}`).at, joint('hips').at)));
    const [thigh, shin] = [rest(`thigh.${side}`), rest(`shin.${side}`)];
    const toAnkle = subtract(foot.ankle, hipJoint);
    const [a, b] = [length(thigh), length(shin)];
    const reach = Math.min(length(toAnkle), (a + b) * 0.9995);
    const along = unit(toAnkle);
    const knee: Vec3 = rotate(foot.turn, [side === 'left' ? 0.08 : -0.08, 0, 1]);
    const bend = unit(subtract(knee, scale(along, dot(knee, along))));
    const cosine = (a * a + reach * reach - b * b) / (2 * a * reach);
    const thighDirection = add(scale(along, cosine), scale(bend, Math.sqrt(Math.max(0, 1 - cosine * cosine))));
    const kneePoint = add(hipJoint, scale(thighDirection, a));
    const shinDirection = subtract(add(hipJoint, scale(along, reach)), kneePoint);
    const front: Vec3 = [0, 0, 1];
    world.set(`thigh.${side}`, aimed(thigh, front, thighDirection, bend));
    world.set(`shin.${side}`, aimed(shin, front, shinDirection, bend));
    world.set(`foot.${side}`, foot.turn);
    world.set(`toes.${side}`, times(foot.turn, turn(foot.toes)));
  }
  for (const [name, direction] of Object.entries(stance.held))
    world.set(name, aimed(rest(name), [0, 1, 0], direction, [0, 1, 0.3]));
  const turns = skeleton.joints.map(({ name, parent }) =>
    parent === null || !world.has(name) ? NONE : times(back(world.get(parent)!), world.get(name)!),
  );
  return { forward: stance.forward, hips: stance.hips, turns };
}
