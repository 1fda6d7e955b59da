import { add, type Vec3 } from '@jinx/core/maths';
import type { Skeleton } from './joints.ts';
import { turn, type Side, type Stance } from './pose.ts';
import { mixed, outward, rolledFoot, smooth, TAU, wave, type ClipMaker } from './stances.ts';

const STANCE_SHARE = 0.6;

/** How a figure walks. */
export interface Gait {
  readonly seconds: number;
  /** Metres a cycle. */
  readonly stride: number;
  /** How far each foot stands inward of its rest place, in metres. */
  readonly narrow: number;
  /** Height of the hips on the mean, in metres. */
  readonly hips: number;
  /** How far the body leans and rolls: 1 is a light walk. */
  readonly weight: number;
  /** Where arms and held things are; the legs and the trunk walk by themselves. */
  readonly upper: (reach: number, bob: number) => Pick<Stance, 'arms' | 'held'>;
}

/** Where a foot is through one cycle; on the ground it stays where it stands while the body passes over it. */
function walkingFoot(skeleton: Skeleton, { stride, narrow: inward }: Gait, side: Side, phase: number) {
  const narrow = -inward * outward(side);
  const yaw = 5 * outward(side);
  const touch = (stride * STANCE_SHARE) / 2;
  if (phase < STANCE_SHARE) {
    const z = touch - stride * phase;
    const landing = -16 * (1 - smooth(Math.min(1, phase / 0.1)));
    const leaving = 44 * smooth(Math.max(0, (phase - 0.36) / (STANCE_SHARE - 0.36)));
    return rolledFoot(skeleton, side, [narrow, 0, z], landing < 0 ? landing : leaving, yaw);
  }
  const s = (phase - STANCE_SHARE) / (1 - STANCE_SHARE);
  const from = rolledFoot(skeleton, side, [narrow, 0, -touch], 44, yaw);
  const to = rolledFoot(skeleton, side, [narrow, 0, touch], -16, yaw);
  const lift = Math.sin(Math.PI * s ** 0.6) * 0.05 * skeleton.legs;
  const ankle = add(mixed(from.ankle, to.ankle, smooth(s)), [0, lift, 0]);
  const pitch = 44 + (-16 - 44) * smooth(Math.min(1, s * 1.15));
  return { ankle, turn: turn(pitch, yaw), toes: pitch > 0 ? -pitch * 0.7 * (1 - s) : 0 };
}

/** A walk that carries the root forward by the gait's stride. */
export const walk = (skeleton: Skeleton, gait: Gait): ClipMaker => ({
  name: 'walk',
  seconds: gait.seconds,
  at: (t) => {
    const sway = Math.cos(TAU * (t - 0.3));
    const reach = Math.cos(TAU * t);
    const bob = Math.cos(2 * TAU * (t - 0.3));
    const { weight } = gait;
    return {
      forward: gait.stride * t,
      hips: [0.018 * sway * weight, gait.hips + 0.016 * bob * weight, 0.008 * wave(2 * t)] as Vec3,
      hipsTurn: turn(2 * weight, -6 * reach, 2.4 * sway * weight),
      spine: turn(3 * weight + 0.8 * bob, 5 * reach, -2 * sway * weight),
      chest: turn(weight, 6 * reach, -1.4 * sway),
      head: turn(1 - 0.8 * bob, 1.5 * reach, -0.6 * sway),
      ...gait.upper(reach, bob),
      feet: {
        left: walkingFoot(skeleton, gait, 'left', t % 1),
        right: walkingFoot(skeleton, gait, 'right', (t + 0.5) % 1),
      },
    };
  },
});
