import { add, rotate, subtract, type Vec3 } from '@jinx/core/maths';
import { SIDES, turn, type Side, type Stance, type Turn } from './pose.ts';
import { joint } from './skeleton.ts';

export interface ClipMaker {
  readonly name: string;
  readonly seconds: number;
  /** The stance at `t`, a share of the clip; the same at 0 and at 1 but for the way walked. */
  readonly at: (t: number) => Stance;
}

const TAU = 2 * Math.PI;
const wave = (t: number) => Math.sin(TAU * t);
const smooth = (t: number) => t * t * (3 - 2 * t);
const mixed = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
const outward = (side: Side) => (side === 'left' ? 1 : -1);

/** The heel's and the ball's places relative to the ankle: what a foot rolls on. */
const HEEL: Vec3 = [0, -0.08, -0.06];
const BALL: Vec3 = [0.01, -0.08, 0.125];

/** How far the sole hangs below the ground at rest. */
const SOLE: Vec3 = [0, 0.008, 0];

const ankleAtRest = (side: Side): Vec3 => joint(`foot.${side}`).at;

/** A foot that stands with its ankle's rest place shifted, rolled by `pitch` degrees over heel (below 0) or ball. */
function rolledFoot(side: Side, shift: Vec3, pitch: number, yaw = 0, toes = 0) {
  const q = turn(pitch, yaw);
  const pivot = pitch < 0 ? HEEL : BALL;
  const place = add(add(ankleAtRest(side), SOLE), shift);
  const onGround = add(place, rotate(turn(0, yaw), pivot));
  return { ankle: subtract(onGround, rotate(q, pivot)), turn: q, toes: pitch > 0 ? -pitch * 0.7 : toes };
}

/** Standing at ease, the blade low at the right side. */
function atEase(breath: number, sway: number): Stance {
  return {
    forward: 0,
    hips: [0.012 * sway, 0.932 + 0.003 * breath, 0],
    hipsTurn: turn(0, -4, 1.2 * sway),
    spine: turn(2 + 0.6 * breath, 2, -0.8 * sway),
    chest: turn(1 - 1.6 * breath, 3, -0.8 * sway),
    head: turn(3 + 0.8 * breath, 3 + 2 * sway, 0),
    arms: {
      left: {
        upper: [0.24, -0.95, 0.02 + 0.02 * breath],
        fore: [0.12, -0.95, 0.3],
        hint: [0, 0, -1],
        shoulder: 1 + 1.5 * breath,
      },
      right: {
        upper: [-0.26, -0.95, -0.06 + 0.02 * breath],
        fore: [-0.16, -0.92, 0.36],
        hint: [0, 0, -1],
        shoulder: 1 + 1.5 * breath,
      },
    },
    feet: { left: rolledFoot('left', [0.02, 0, 0.04], 0, 10), right: rolledFoot('right', [-0.03, 0, -0.06], 0, -16) },
    blade: [-0.18, -0.34, 0.92],
  };
}

const idle: ClipMaker = { name: 'idle', seconds: 4, at: (t) => atEase(wave(t * 2), wave(t)) };

const WALK_SECONDS = 32 / 30;
const STRIDE = 1.02;
const STANCE_SHARE = 0.6;

/** Where a foot is through one cycle; on the ground it stays where it stands while the body passes over it. */
function walkingFoot(side: Side, phase: number) {
  const narrow = -0.03 * outward(side);
  const yaw = 5 * outward(side);
  const touch = (STRIDE * STANCE_SHARE) / 2;
  if (phase < STANCE_SHARE) {
    const z = touch - STRIDE * phase;
    const landing = -16 * (1 - smooth(Math.min(1, phase / 0.1)));
    const leaving = 44 * smooth(Math.max(0, (phase - 0.36) / (STANCE_SHARE - 0.36)));
    return rolledFoot(side, [narrow, 0, z], landing < 0 ? landing : leaving, yaw);
  }
  const s = (phase - STANCE_SHARE) / (1 - STANCE_SHARE);
  const from = rolledFoot(side, [narrow, 0, -touch], 44, yaw);
  const to = rolledFoot(side, [narrow, 0, touch], -16, yaw);
  const along = smooth(s);
  const lift = Math.sin(Math.PI * s ** 0.6) * 0.05;
  const ankle = add(mixed(from.ankle, to.ankle, along), [0, lift, 0]);
  const pitch = 44 + (-16 - 44) * smooth(Math.min(1, s * 1.15));
  return { ankle, turn: turn(pitch, yaw), toes: pitch > 0 ? -pitch * 0.7 * (1 - s) : 0 };
}

const walk: ClipMaker = {
  name: 'walk',
  seconds: WALK_SECONDS,
  at: (t) => {
    const sway = Math.cos(TAU * (t - 0.3));
    const reach = Math.cos(TAU * t);
    const bob = Math.cos(2 * TAU * (t - 0.3));
    const arm = (side: Side, share: number) => {
      const swing = -reach * outward(side) * share;
      return {
        upper: [0.2 * outward(side), -1, 0.42 * swing - 0.05] as Vec3,
        fore: [0.05 * outward(side), -0.9, 0.34 + 0.5 * swing * (swing > 0 ? 1 : 0.5)] as Vec3,
        hint: [0, 0, -1] as Vec3,
        shoulder: 1,
      };
    };
    return {
      forward: STRIDE * t,
      hips: [0.018 * sway, 0.9 + 0.016 * bob, 0.008 * wave(2 * t)],
      hipsTurn: turn(2, -6 * reach, 2.4 * sway),
      spine: turn(3 + 0.8 * bob, 5 * reach, -2 * sway),
      chest: turn(1, 6 * reach, -1.4 * sway),
      head: turn(1 - 0.8 * bob, 1.5 * reach, -0.6 * sway),
      arms: { left: arm('left', 1), right: arm('right', 0.7) },
      feet: { left: walkingFoot('left', t % 1), right: walkingFoot('right', (t + 0.5) % 1) },
      blade: [-0.16, -0.22 + 0.06 * reach, 0.95],
    };
  },
};

function mixedTurn(a: Turn, b: Turn, t: number): Turn {
  const sign = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3] < 0 ? -1 : 1;
  const q = a.map((value, i) => value + (sign * b[i]! - value) * t);
  const size = Math.hypot(...q);
  return q.map((value) => value / size) as unknown as Turn;
}

function between(a: Stance, b: Stance, t: number): Stance {
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
    blade: mixed(a.blade, b.blade, s),
  };
}

/** Passes through stances at given shares of the clip, breathing throughout. */
function throughStances(name: string, seconds: number, keys: readonly (readonly [number, Stance])[]): ClipMaker {
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

const rest = atEase(0, 0);
const drop = (stance: Stance, by: number): Vec3 => subtract(stance.hips, [0, by, 0]);

const gather: Stance = {
  ...rest,
  hips: [0.01, 0.89, -0.04],
  hipsTurn: turn(-2, -14, 0),
  spine: turn(6, -8, 0),
  chest: turn(8, -10, 0),
  head: turn(14, 4, 0),
  arms: {
    left: { upper: [0.42, -0.75, 0.3], fore: [-0.55, 0.15, 0.8], hint: [0, -0.6, -0.8], shoulder: 4 },
    right: { upper: [-0.5, -0.8, -0.2], fore: [-0.2, -0.5, 0.6], hint: [0, 0, -1], shoulder: 3 },
  },
};
const release: Stance = {
  ...rest,
  hips: [0.02, 0.915, 0.05],
  hipsTurn: turn(2, -22, 0),
  spine: turn(-4, -12, 0),
  chest: turn(-9, -16, 0),
  head: turn(-16, 2, 0),
  arms: {
    left: { upper: [0.3, 0.72, 0.62], fore: [0.12, 0.9, 0.42], hint: [0.2, 0.4, -1], shoulder: 16 },
    right: { upper: [-0.62, -0.72, -0.28], fore: [-0.5, -0.6, 0.2], hint: [0, 0, -1], shoulder: 6 },
  },
  blade: [-0.55, -0.1, 0.7],
};
const cast = throughStances('cast', 2, [
  [0, rest],
  [0.3, gather],
  [0.45, release],
  [0.72, { ...release, hips: drop(release, 0.005), chest: turn(-7, -14, 0) }],
  [1, rest],
]);

const wound: Stance = {
  ...rest,
  hips: [-0.03, 0.87, -0.03],
  hipsTurn: turn(2, -38, 0),
  spine: turn(4, -16, 0),
  chest: turn(4, -24, 0),
  head: turn(4, -10, 0),
  arms: {
    left: { upper: [0.1, -0.62, 0.7], fore: [-0.6, -0.1, 0.7], hint: [0, -0.4, -1], shoulder: 4 },
    right: { upper: [-0.85, -0.05, -0.6], fore: [-0.75, 0.4, -0.5], hint: [0, -1, 0], shoulder: 8 },
  },
  blade: [-0.5, 0.6, -0.8],
};
const struck: Stance = {
  ...rest,
  hips: [0.02, 0.85, 0.06],
  hipsTurn: turn(3, 4, 0),
  spine: turn(6, 8, 0),
  chest: turn(4, 10, 0),
  head: turn(6, 4, 0),
  arms: {
    left: { upper: [0.6, -0.7, -0.3], fore: [0.5, -0.6, 0.3], hint: [0, 0, -1], shoulder: 3 },
    right: { upper: [-0.35, -0.18, 0.95], fore: [-0.05, -0.12, 1], hint: [-0.3, -1, 0], shoulder: 6 },
  },
  blade: [0.12, 0.05, 1],
};
const followed: Stance = {
  ...struck,
  hips: [0.03, 0.86, 0.05],
  hipsTurn: turn(3, 30, 0),
  spine: turn(6, 18, 0),
  chest: turn(4, 24, 0),
  head: turn(5, 16, 0),
  arms: {
    left: { upper: [0.7, -0.6, -0.45], fore: [0.6, -0.5, -0.1], hint: [0, 0, -1], shoulder: 3 },
    right: { upper: [0.35, -0.3, 0.9], fore: [0.9, -0.25, 0.45], hint: [0, -1, 0], shoulder: 6 },
  },
  blade: [0.95, -0.2, 0.1],
};
const sweep = throughStances('sweep', 1.6, [
  [0, rest],
  [0.32, wound],
  [0.42, struck],
  [0.5, followed],
  [0.66, { ...followed, hips: drop(followed, 0.01) }],
  [1, rest],
]);

export const CLIPS: readonly ClipMaker[] = [idle, walk, cast, sweep];
export { SIDES };
