import { draw, type Vec3 } from '@jinx/core/maths';
import { both, type Limb } from './body.ts';
import type { FigurePlan } from './glb.ts';
import { lantern } from './held.ts';
import { Skeleton } from './joints.ts';
import { mix, step } from './paint.ts';
import { turn, type Side, type Stance } from './pose.ts';
import { outward, rolledFoot, throughStances, wave, type ClipMaker } from './stances.ts';
import { walk } from './walk.ts';

const SKELETON = new Skeleton({
  hips: 0.5,
  spine: 0.6,
  chest: 0.76,
  neck: [
    [0, 1.04, 0.05],
    [0, 1.1, 0.1],
  ],
  head: [
    [0, 1.1, 0.1],
    [0, 1.28, 0.14],
  ],
  arm: [
    [0.06, 1.0, 0],
    [0.25, 0.98, 0],
    [0.44, 0.72, -0.01],
    [0.58, 0.45, 0.05],
    [0.64, 0.3, 0.08],
  ],
  leg: [
    [0.15, 0.47, 0],
    [0.17, 0.26, 0.03],
    [0.18, 0.075, -0.015],
    [0.19, 0.03, 0.1],
    [0.195, 0.025, 0.16],
  ],
  holds: [{ name: 'lamp', parent: 'chest', at: [0, 0.97, 0.13], end: [0, 0.75, 0.13] }],
});

const LIMBS: readonly Limb[] = [
  // a heap of peat for a trunk, hollowed where the lamp sits
  { a: [-0.08, 0.54, 0], b: [0.08, 0.54, 0], ra: 0.19, rb: 0.19, flat: 0.95 },
  { a: [-0.14, 0.78, -0.03], b: [0.14, 0.78, -0.03], ra: 0.19, rb: 0.19, flat: 0.85 },
  { a: [-0.17, 0.96, -0.02], b: [0.17, 0.96, -0.02], ra: 0.16, rb: 0.16 },
  { a: [0, 0.98, -0.12], b: [0, 1.06, -0.02], ra: 0.17, rb: 0.13 },
  { a: [-0.09, 0.72, 0.11], b: [-0.12, 0.9, 0.12], ra: 0.055, rb: 0.06 },
  { a: [0.09, 0.72, 0.11], b: [0.12, 0.9, 0.12], ra: 0.055, rb: 0.06 },
  { a: [-0.09, 0.69, 0.12], b: [0.09, 0.69, 0.12], ra: 0.06, rb: 0.06 },
  // head: a brow, a muzzle, two sprouting roots
  { a: [0, 1.14, 0.1], b: [0, 1.19, 0.11], ra: 0.115, rb: 0.1 },
  { a: [-0.05, 1.08, 0.19], b: [0.05, 1.08, 0.19], ra: 0.062, rb: 0.062 },
  { a: [-0.06, 1.2, 0.18], b: [0.06, 1.2, 0.18], ra: 0.04, rb: 0.04 },
  ...(
    [
      { a: [0.06, 1.24, 0.08], b: [0.14, 1.4, 0.02], ra: 0.035, rb: 0.012 },
      { a: [0.1, 1.32, 0.05], b: [0.19, 1.36, 0.08], ra: 0.016, rb: 0.008 },
      { a: [0.22, 1.0, 0], b: [0.3, 0.92, 0], ra: 0.12, rb: 0.105 },
      { a: [0.27, 0.96, 0], b: [0.44, 0.72, -0.01], ra: 0.09, rb: 0.075 },
      { a: [0.44, 0.72, -0.01], b: [0.57, 0.47, 0.045], ra: 0.08, rb: 0.09 },
      { a: [0.575, 0.45, 0.05], b: [0.62, 0.36, 0.07], ra: 0.085, rb: 0.075 },
      { a: [0.62, 0.36, 0.09], b: [0.65, 0.28, 0.12], ra: 0.036, rb: 0.02 },
      { a: [0.6, 0.35, 0.04], b: [0.62, 0.27, 0.04], ra: 0.036, rb: 0.02 },
      { a: [0.15, 0.46, 0], b: [0.17, 0.27, 0.03], ra: 0.12, rb: 0.1 },
      { a: [0.17, 0.26, 0.02], b: [0.18, 0.1, -0.01], ra: 0.1, rb: 0.085 },
      { a: [0.18, 0.06, -0.04], b: [0.19, 0.05, 0.09], ra: 0.07, rb: 0.066 },
      { a: [0.16, 0.04, 0.1], b: [0.15, 0.036, 0.17], ra: 0.038, rb: 0.026 },
      { a: [0.22, 0.04, 0.1], b: [0.24, 0.036, 0.16], ra: 0.038, rb: 0.026 },
    ] satisfies Limb[]
  ).flatMap(both),
];

const PEAT: Vec3 = [58, 46, 38];
const WET: Vec3 = [36, 32, 30];
const MOSS: Vec3 = [84, 94, 52];
const ROOT: Vec3 = [104, 84, 60];
const GLOW: Vec3 = [196, 186, 96];

/** Colour at a rest position: wet peat, mossed above, with roots and a glow about the hollow of the chest. */
function colour([x, y, z]: Vec3): Vec3 {
  const side = Math.abs(x);
  const clod = 0.5 + 0.5 * Math.sin(x * 46 + Math.sin(y * 38) * 2) * Math.sin(y * 44 + z * 40 + Math.sin(x * 30));
  let made = mix(PEAT, WET, clod);
  made = mix(made, MOSS, step(0.55, 0.95, clod) * step(0.75, 1.1, y) * 0.9);
  if (Math.abs(Math.sin(y * 30 + side * 22)) < 0.12) made = mix(made, ROOT, 0.55);
  if (y > 1.26) made = ROOT;
  if (z > 0.04 && side < 0.16 && y > 0.66 && y < 0.98)
    made = mix(made, GLOW, 0.7 * (1 - step(0.05, 0.16, Math.hypot(x, y - 0.84))));
  if (z > 0.1 && Math.hypot((side - 0.045) / 0.02, (y - 1.165) / 0.012) < 1) made = [214, 200, 110];
  if (draw(Math.floor(x * 900) * 8191 + Math.floor(y * 900), 3) > 0.97) made = mix(made, ROOT, 0.6);
  return made;
}

/** Hunched, its knuckles near the ground. */
function atEase(breath: number, sway: number): Stance {
  return {
    forward: 0,
    hips: [0.012 * sway, 0.47 + 0.008 * breath, -0.02],
    hipsTurn: turn(6, 2 * sway, 2 * sway),
    spine: turn(8 + breath, 0, -1.5 * sway),
    chest: turn(8 - 2 * breath, 2 * sway, -1.5 * sway),
    head: turn(4 + 2 * breath, 5 * sway, 2 * sway),
    arms: {
      left: { upper: [0.5, -0.85, 0.12], fore: [0.1, -0.9, 0.36], hint: [0, 0, -1], shoulder: -2 },
      right: { upper: [-0.5, -0.85, 0.12], fore: [-0.1, -0.9, 0.36], hint: [0, 0, -1], shoulder: -2 },
    },
    feet: {
      left: rolledFoot(SKELETON, 'left', [0.02, 0, 0.02], 0, 14),
      right: rolledFoot(SKELETON, 'right', [-0.02, 0, -0.03], 0, -14),
    },
    held: { lamp: [0.05 * sway, -1, 0.04 * breath] },
  };
}

const idle: ClipMaker = { name: 'idle', seconds: 3, at: (t) => atEase(wave(t * 2), wave(t)) };

const walking = walk(SKELETON, {
  seconds: 0.9,
  stride: 0.5,
  narrow: 0.02,
  hips: 0.455,
  weight: 2.6,
  upper: (reach, bob) => {
    const arm = (side: Side) => ({
      upper: [0.5 * outward(side), -0.85, 0.1 - 0.4 * reach * outward(side)] as Vec3,
      fore: [0.1 * outward(side), -0.9, 0.34 - 0.3 * reach * outward(side)] as Vec3,
      hint: [0, 0, -1] as Vec3,
      shoulder: -2,
    });
    return { arms: { left: arm('left'), right: arm('right') }, held: { lamp: [0.12 * reach, -1, 0.08 * bob] } };
  },
});

const rest = atEase(0, 0);
const knocked: Stance = {
  ...rest,
  hips: [0.03, 0.43, -0.12],
  hipsTurn: turn(-14, 14, 4),
  spine: turn(-10, 8, 2),
  chest: turn(-14, 12, 4),
  head: turn(-24, -10, 6),
  arms: {
    left: { upper: [0.8, 0.1, 0.5], fore: [0.5, 0.3, 0.8], hint: [0, -1, 0], shoulder: 8 },
    right: { upper: [-0.8, -0.2, 0.4], fore: [-0.5, -0.1, 0.8], hint: [0, -1, 0], shoulder: 6 },
  },
  held: { lamp: [0.1, -0.9, 0.4] },
};
/** Struck: thrown back, and up again. */
const struck = throughStances('struck', 1.4, [
  [0, rest],
  [0.1, knocked],
  [0.36, { ...knocked, hips: [0.02, 0.4, -0.1], head: turn(6, -6, 4), held: { lamp: [-0.1, -1, -0.3] } }],
  [1, rest],
]);

const raised: Stance = {
  ...rest,
  hips: [0, 0.48, -0.05],
  spine: turn(-8, -16, 0),
  chest: turn(-10, -20, 0),
  head: turn(-6, -6, 0),
  arms: {
    left: { upper: [0.6, -0.7, 0.3], fore: [0.2, -0.8, 0.5], hint: [0, 0, -1], shoulder: 0 },
    right: { upper: [-0.55, 0.75, -0.1], fore: [-0.1, 0.9, 0.4], hint: [-0.4, -0.2, -1], shoulder: 16 },
  },
};
const slammed: Stance = {
  ...rest,
  hips: [0, 0.42, 0.06],
  spine: turn(20, 12, 0),
  chest: turn(22, 16, 0),
  head: turn(16, 6, 0),
  arms: {
    left: { upper: [0.6, -0.75, -0.2], fore: [0.3, -0.8, 0.3], hint: [0, 0, -1], shoulder: 0 },
    right: { upper: [-0.15, -0.5, 0.9], fore: [0.1, -0.75, 0.75], hint: [-0.3, -1, 0], shoulder: -4 },
  },
};
/** A blow brought down from above. */
const pound = throughStances('pound', 1.6, [
  [0, rest],
  [0.36, raised],
  [0.48, slammed],
  [0.62, { ...slammed, hips: [0, 0.415, 0.06] }],
  [1, rest],
]);

/** The Bogling: a squat peat figure with a stolen lamp in its chest. */
export const BOGLING: FigurePlan = {
  name: 'Bogling',
  skeleton: SKELETON,
  limbs: LIMBS,
  blend: 0.045,
  cell: 0.0165,
  halfWidth: 0.75,
  height: 1.43,
  colour,
  held: [lantern('lamp', SKELETON.joint('lamp').at, 0.68)],
  heldColour: (along) => (along > 0.9 ? [240, 226, 140] : [74, 66, 54]),
  clips: [idle, walking, struck, pound],
};
