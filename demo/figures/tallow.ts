import type { Vec3 } from '@jinx/core/maths';
import { both, type Limb } from './body.ts';
import type { FigurePlan } from './glb.ts';
import { lantern, roundShield } from './held.ts';
import { Skeleton } from './joints.ts';
import { mix, step } from './paint.ts';
import { turn, type Side, type Stance } from './pose.ts';
import { outward, rolledFoot, throughStances, wave, type ClipMaker } from './stances.ts';
import { walk } from './walk.ts';

const SKELETON = new Skeleton({
  hips: 0.93,
  spine: 1.05,
  chest: 1.26,
  neck: [
    [0, 1.55, -0.02],
    [0, 1.63, 0.01],
  ],
  head: [
    [0, 1.63, 0.01],
    [0, 1.86, 0.02],
  ],
  arm: [
    [0.05, 1.5, -0.01],
    [0.25, 1.5, -0.01],
    [0.47, 1.26, -0.02],
    [0.66, 1.05, 0.015],
    [0.74, 0.95, 0.03],
  ],
  leg: [
    [0.13, 0.9, 0],
    [0.145, 0.49, 0.015],
    [0.15, 0.09, -0.025],
    [0.16, 0.03, 0.12],
    [0.165, 0.025, 0.195],
  ],
  holds: [
    { name: 'lamp', parent: 'hand.right', at: [-0.71, 0.98, 0.03], end: [-0.71, 0.65, 0.03] },
    { name: 'shield', parent: 'forearm.left', at: [0.58, 1.14, 0.17], end: [0.58, 1.14, 0.4] },
  ],
});

const LIMBS: readonly Limb[] = [
  // a barrel of a trunk under a long coat
  { a: [-0.07, 0.95, 0], b: [0.07, 0.95, 0], ra: 0.17, rb: 0.17, flat: 0.85 },
  { a: [0, 1.04, 0.03], b: [0, 1.2, 0.03], ra: 0.2, rb: 0.195, flat: 0.9 },
  { a: [-0.08, 1.36, 0.01], b: [0.08, 1.36, 0.01], ra: 0.185, rb: 0.185, flat: 0.82 },
  { a: [-0.2, 1.5, -0.015], b: [0.2, 1.5, -0.015], ra: 0.1, rb: 0.1 },
  { a: [0, 1.5, -0.03], b: [0, 1.64, 0.005], ra: 0.085, rb: 0.075 },
  // head with a heavy jaw and a hood
  { a: [0, 1.72, 0.01], b: [0, 1.77, 0.0], ra: 0.1, rb: 0.105 },
  { a: [-0.02, 1.655, 0.05], b: [0.02, 1.655, 0.05], ra: 0.06, rb: 0.06 },
  { a: [0, 1.71, 0.115], b: [0, 1.735, 0.1], ra: 0.018, rb: 0.014 },
  { a: [0, 1.8, -0.04], b: [0, 1.62, -0.1], ra: 0.115, rb: 0.12 },
  { a: [-0.06, 0.93, 0], b: [-0.09, 0.62, 0.01], ra: 0.17, rb: 0.18, flat: 0.92 },
  { a: [0.06, 0.93, 0], b: [0.09, 0.62, 0.01], ra: 0.17, rb: 0.18, flat: 0.92 },
  ...(
    [
      { a: [0.22, 1.52, -0.012], b: [0.3, 1.46, -0.012], ra: 0.105, rb: 0.095 },
      { a: [0.26, 1.48, -0.012], b: [0.47, 1.26, -0.02], ra: 0.085, rb: 0.068 },
      { a: [0.47, 1.26, -0.02], b: [0.56, 1.165, -0.005], ra: 0.07, rb: 0.074 },
      { a: [0.55, 1.17, -0.005], b: [0.65, 1.065, 0.012], ra: 0.072, rb: 0.05 },
      { a: [0.67, 1.04, 0.016], b: [0.71, 0.99, 0.025], ra: 0.05, rb: 0.052, flat: 0.85 },
      { a: [0.715, 0.985, 0.03], b: [0.745, 0.95, 0.045], ra: 0.042, rb: 0.032 },
      { a: [0.675, 1.01, 0.055], b: [0.705, 0.97, 0.08], ra: 0.023, rb: 0.018 },
      { a: [0.13, 0.88, 0], b: [0.145, 0.5, 0.015], ra: 0.125, rb: 0.085 },
      { a: [0.145, 0.48, 0.012], b: [0.148, 0.34, -0.02], ra: 0.085, rb: 0.088 },
      { a: [0.148, 0.36, -0.014], b: [0.15, 0.12, -0.02], ra: 0.088, rb: 0.07 },
      { a: [0.15, 0.065, -0.06], b: [0.158, 0.055, 0.08], ra: 0.062, rb: 0.058 },
      { a: [0.16, 0.048, 0.09], b: [0.168, 0.042, 0.18], ra: 0.056, rb: 0.04 },
    ] satisfies Limb[]
  ).flatMap(both),
];

const SKIN: Vec3 = [150, 108, 84];
const COAT: Vec3 = [92, 78, 62];
const LINING: Vec3 = [128, 104, 66];
const LEATHER: Vec3 = [58, 46, 38];
const BEARD: Vec3 = [92, 84, 76];

/** Colour at a rest position: a waxed coat with pale seams, a leather apron and gloves, a grey beard under a hood. */
function colour([x, y, z]: Vec3): Vec3 {
  const side = Math.abs(x);
  const wax = 0.5 + 0.5 * Math.sin(x * 40 + Math.sin(y * 34) * 2.2) * Math.sin(y * 26 + z * 20);
  let made = mix(COAT, [70, 60, 50], wax * 0.7);
  if (side < 0.012 && z > 0 && y > 0.62 && y < 1.5) made = LINING;
  if (z > 0.08 && side < 0.14 && y > 0.68 && y < 1.28) made = mix(LEATHER, [80, 62, 48], wax * 0.5);
  if (y > 1.0 && y < 1.06 && side < 0.3) made = LINING;
  if (y < 0.6) made = mix([62, 58, 54], [74, 68, 60], wax);
  if (y < 0.4) made = LEATHER;
  if (side > 0.5) made = mix(LEATHER, LINING, step(0.52, 0.56, side) * (1 - step(0.58, 0.62, side)));
  if (side > 0.62) made = LEATHER;
  if (y > 1.6 && z > -0.01 && side < 0.105) {
    made = SKIN;
    const beard = step(0.02, -0.02, y - 1.7 + side * 0.35);
    made = mix(made, BEARD, beard);
    if (Math.hypot((side - 0.036) / 0.012, (y - 1.765) / 0.007) < 1) made = [40, 38, 34];
    if (Math.abs(y - 1.79 + side * 0.12) < 0.006 && side > 0.012 && side < 0.062) made = BEARD;
  }
  return made;
}

/** Standing with the shield before him and the lamp low. */
function atEase(breath: number, sway: number): Stance {
  return {
    forward: 0,
    hips: [0.014 * sway, 0.905 + 0.004 * breath, 0],
    hipsTurn: turn(1, -3, 1 * sway),
    spine: turn(3 + 0.6 * breath, 2, -0.6 * sway),
    chest: turn(2 - 1.6 * breath, 2, -0.6 * sway),
    head: turn(4 + 0.8 * breath, 2 + 2 * sway, 0),
    arms: {
      left: { upper: [0.3, -0.88, 0.34], fore: [-0.86, 0.1, 0.42], hint: [0.2, -0.5, -0.9], shoulder: 2 + breath },
      right: { upper: [-0.34, -0.94, 0], fore: [-0.2, -0.9, 0.34], hint: [0, 0, -1], shoulder: 1 + breath },
    },
    feet: {
      left: rolledFoot(SKELETON, 'left', [0.03, 0, 0.08], 0, 8),
      right: rolledFoot(SKELETON, 'right', [-0.03, 0, -0.08], 0, -18),
    },
    held: { lamp: [0.04 * sway, -1, 0.05 * breath], shield: [0.12, 0.05, 1] },
  };
}

const idle: ClipMaker = { name: 'idle', seconds: 4, at: (t) => atEase(wave(t * 2), wave(t)) };

const walking = walk(SKELETON, {
  seconds: 1.3,
  stride: 0.98,
  narrow: 0.03,
  hips: 0.875,
  weight: 1.5,
  upper: (reach, bob) => {
    const swing = (side: Side) => -reach * outward(side);
    return {
      arms: {
        left: {
          upper: [0.3, -0.9, 0.28 + 0.08 * reach],
          fore: [-0.86, 0.06, 0.42],
          hint: [0.3, -0.6, -0.8],
          shoulder: 2,
        },
        right: {
          upper: [-0.3, -0.95, 0.28 * swing('right')],
          fore: [-0.14, -0.92, 0.34 + 0.2 * swing('right')],
          hint: [0, 0, -1],
          shoulder: 1,
        },
      },
      held: { lamp: [0.05 * bob, -1, -0.28 * swing('right')], shield: [0.1, 0.04, 1] },
    };
  },
});

const rest = atEase(0, 0);
const braced: Stance = {
  ...rest,
  hips: [0.02, 0.82, 0.06],
  hipsTurn: turn(6, -18, 0),
  spine: turn(8, -6, 0),
  chest: turn(6, -6, 0),
  head: turn(8, 8, 0),
  arms: {
    left: { upper: [0.22, -0.42, 0.88], fore: [-0.8, 0.55, 0.28], hint: [0.2, -0.7, -0.7], shoulder: 8 },
    right: { upper: [-0.62, -0.7, -0.4], fore: [-0.3, -0.75, 0.3], hint: [0, 0, -1], shoulder: 3 },
  },
  held: { lamp: [0, -1, 0.1], shield: [-0.1, 0.12, 1] },
};
/** The shield thrown up to take a blow; held; lowered again. */
const guard = throughStances('guard', 2, [
  [0, rest],
  [0.14, braced],
  [0.32, { ...braced, hips: [0.02, 0.815, 0.02], chest: turn(3, -6, 0) }],
  [0.7, braced],
  [1, rest],
]);

const lifted: Stance = {
  ...rest,
  hips: [-0.02, 0.915, 0.03],
  hipsTurn: turn(0, 10, 0),
  spine: turn(-3, 8, 0),
  chest: turn(-8, 10, 0),
  head: turn(-14, 6, 0),
  arms: {
    left: { upper: [0.5, -0.85, 0.15], fore: [-0.8, -0.1, 0.5], hint: [0.2, -0.5, -0.9], shoulder: 2 },
    right: { upper: [-0.42, 0.5, 0.72], fore: [-0.16, 0.86, 0.46], hint: [-0.4, -0.5, -0.8], shoulder: 14 },
  },
};
/** The lamp raised high, to call and to bless. */
const raise = throughStances('raise', 2.4, [
  [0, rest],
  [0.16, { ...rest, hips: [0, 0.88, -0.02], chest: turn(7, 0, 0) }],
  [0.38, lifted],
  [0.72, { ...lifted, chest: turn(-6, 10, 0) }],
  [1, rest],
]);

/** Tallow: a heavy lamp bearer with a broad shield. */
export const TALLOW: FigurePlan = {
  name: 'Tallow',
  skeleton: SKELETON,
  limbs: LIMBS,
  blend: 0.035,
  cell: 0.0195,
  halfWidth: 0.82,
  height: 1.96,
  colour,
  held: [lantern('lamp', SKELETON.joint('lamp').at, 1), roundShield('shield', SKELETON.joint('shield').at, 0.4)],
  heldColour: (along) =>
    along > 0.9
      ? [236, 226, 150]
      : along > 0.58
        ? [84, 80, 74]
        : mix([96, 74, 50], [134, 104, 66], 0.5 + 0.5 * Math.sin(along * 60)),
  clips: [idle, walking, guard, raise],
};
