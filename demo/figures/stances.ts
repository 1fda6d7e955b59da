import { add, rotate, scale, subtract, type Vec3 } from '@jinx/core/maths';
import type { Skeleton } from './joints.ts';
import { turn, type Side, type Stance, type Turn } from './pose.ts';

export interface ClipMaker {
  readonly name: string;
  readonly seconds: number;
  /** The stance at `t`, a share of the clip; the same at 0 and at 1 but for the way walked. */
  readonly at: (t: number) => Stance;
}

export const TAU = 2 * Math.PI;
export const wave = (t: number) => Math.sin(TAU * t);
export const smooth = (t: number) => t * t * (3 - 2 * t);
export const mixed = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
export const outward = (side: Side) => (side === 'left' ? 1 : -1);

/** The heel's and the ball's places relative to the ankle: what a foot rolls on. */
const HEEL: Vec3 = [0, -0.08, -0.06];
const BALL: Vec3 = [0.01, -0.08, 0.125];

/** How far the sole hangs below the ground at rest. */
const SOLE: Vec3 = [0, 0.008, 0];

/** A foot that stands with its ankle's rest place shifted, rolled by `pitch` degrees over heel (below 0) or ball. */
export function rolledFoot(skeleton: Skeleton, side: Side, shift: Vec3, pitch: number, yaw = 0, toes = 0) {
  const q = turn(pitch, yaw);
  const pivot = scale(pitch < 0 ? HEEL : BALL, skeleton.legs);
  const place = add(add(skeleton.joint(`foot.${side}`).at, SOLE), shift);
  const onGround = add(place, rotate(turn(0, yaw), pivot));
  return { ankle: subtract(onGround, rotate(q, pivot)), turn: q, toes: pitch > 0 ? -pitch * 0.7 : toes };
}

function mixedTurn(a: Turn, b: Turn, t: number): Turn {
  const sign = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3] < 0 ? -1 : 1;
  const q = a.map((value, i) => value + (sign * b[i]! - value) * t);
  const size = Math.hypot(...q);
  return q.map((value) => value / size) as unknown as Turn;
}

export function between(a: Stance, b: Stance, t: number): Stance {
  const s = smooth(t);
  const both = <T>(make: (side: Side) => T) => ({ left: make('left'), right: make('right') });
  return {
    forward: 0,
    hips: mixed(a.hips, b.hips, s),
    hipsTurn: mixedTurn(a.hipsTurn, b.hipsTurn, s),
    spine: mixedTurn(a.spine, b.spine, s),
    chest: mixedTurn(a.chest, b.chest, s),
    head: mixedTurn(a.head, b.head, s),
    arms: both((side) => ({
      upper: mixed(a.arms[side].upper, b.arms[side].upper, s),
      fore: mixed(a.arms[side].fore, b.arms[side].fore, s),
      hint: mixed(a.arms[side].hint, b.arms[side].hint, s),
      shoulder: a.arms[side].shoulder + (b.arms[side].shoulder - a.arms[side].shoulder) * s,
    })),
    feet: both((side) => ({
      ankle: mixed(a.feet[side].ankle, b.feet[side].ankle, s),
      turn: mixedTurn(a.feet[side].turn, b.feet[side].turn, s),
      toes: a.feet[side].toes + (b.feet[side].toes - a.feet[side].toes) * s,
    })),
    held: Object.fromEntries(
      Object.keys(a.held).map((name) => [name, mixed(a.held[name]!, b.held[name] ?? a.held[name]!, s)]),
    ),
  };
}

/** Passes through stances at given shares of the clip, breathing throughout. */
export function throughStances(
  name: string,
  seconds: number,
  keys: readonly (readonly [number, Stance])[],
): ClipMaker {
  return {
    name,
    seconds,
    at: (t) => {
      const next = Math.max(
        1,
        keys.findIndex(([when]) => when >= t),
      );
      const [from, a] = keys[next - 1]!;
      const [to, b] = keys[next]!;
      return between(a, b, (t - from) / (to - from));
    },
  };
}
