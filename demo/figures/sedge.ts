import type { Vec3 } from '@jinx/core/maths';
import { both, type Limb } from './body.ts';
import type { FigurePlan } from './glb.ts';
import { reedBlade } from './held.ts';
import { Skeleton } from './joints.ts';
import { mix, step } from './paint.ts';
import { turn, type Side, type Stance } from './pose.ts';
import { outward, rolledFoot, throughStances, wave, type ClipMaker } from './stances.ts';
import { subtract } from '@jinx/core/maths';
import { walk } from './walk.ts';

const SKELETON = new Skeleton({
  hips: 0.95,
  spine: 1.06,
  chest: 1.23,
  neck: [
    [0, 1.46, -0.015],
    [0, 1.56, 0],
  ],
  head: [
    [0, 1.56, 0],
    [0, 1.76, 0.01],
  ],
  arm: [
    [0.04, 1.41, -0.01],
    [0.17, 1.41, -0.01],
    [0.38, 1.22, -0.015],
    [0.565, 1.055, 0.01],
    [0.64, 0.975, 0.02],
  ],
  leg: [
    [0.093, 0.93, 0],
    [0.1, 0.5, 0.012],
    [0.105, 0.08, -0.02],
    [0.115, 0.025, 0.1],
    [0.12, 0.02, 0.165],
  ],
  holds: [{ name: 'blade', parent: 'hand.right', at: [-0.605, 1.015, 0.03], end: [-0.605, 1.015, 0.9] }],
});

const LIMBS: readonly Limb[] = [
  // trunk
  { a: [-0.055, 0.95, 0], b: [0.055, 0.95, 0], ra: 0.115, rb: 0.115, flat: 0.85 },
  { a: [0, 1.0, 0.005], b: [0, 1.16, 0.01], ra: 0.118, rb: 0.112, flat: 0.8 },
  { a: [-0.05, 1.28, 0.005], b: [0.05, 1.28, 0.005], ra: 0.125, rb: 0.125, flat: 0.78 },
  { a: [-0.13, 1.4, -0.012], b: [0.13, 1.4, -0.012], ra: 0.066, rb: 0.066 },
  { a: [0, 1.4, -0.03], b: [0, 1.56, 0], ra: 0.06, rb: 0.046 },
  // head, jaw, nose, and hair drawn back into a knot
  { a: [0, 1.635, 0.005], b: [0, 1.69, 0], ra: 0.084, rb: 0.092 },
  { a: [0, 1.575, 0.035], b: [0, 1.6, 0.03], ra: 0.043, rb: 0.06 },
  { a: [0, 1.625, 0.095], b: [0, 1.65, 0.088], ra: 0.012, rb: 0.009 },
  { a: [0, 1.71, -0.03], b: [0, 1.7, -0.05], ra: 0.09, rb: 0.075 },
  { a: [0, 1.735, -0.125], b: [0, 1.7, -0.15], ra: 0.044, rb: 0.032 },
  // a tunic's short skirt
  { a: [-0.035, 0.95, 0], b: [-0.05, 0.76, 0.005], ra: 0.125, rb: 0.135, flat: 0.92 },
  { a: [0.035, 0.95, 0], b: [0.05, 0.76, 0.005], ra: 0.125, rb: 0.135, flat: 0.92 },
  ...(
    [
      { a: [0.155, 1.405, -0.012], b: [0.21, 1.375, -0.012], ra: 0.066, rb: 0.058 },
      { a: [0.18, 1.4, -0.012], b: [0.38, 1.22, -0.015], ra: 0.056, rb: 0.042 },
      { a: [0.38, 1.22, -0.015], b: [0.45, 1.16, -0.008], ra: 0.043, rb: 0.046 },
      { a: [0.44, 1.165, -0.008], b: [0.56, 1.06, 0.01], ra: 0.046, rb: 0.031 },
      { a: [0.575, 1.045, 0.012], b: [0.615, 1.0, 0.02], ra: 0.034, rb: 0.034, flat: 0.8 },
      { a: [0.62, 0.995, 0.02], b: [0.655, 0.955, 0.035], ra: 0.028, rb: 0.02 },
      { a: [0.585, 1.02, 0.04], b: [0.615, 0.985, 0.062], ra: 0.016, rb: 0.012 },
      { a: [0.093, 0.9, 0], b: [0.1, 0.52, 0.012], ra: 0.092, rb: 0.06 },
      { a: [0.1, 0.5, 0.014], b: [0.1, 0.38, -0.014], ra: 0.06, rb: 0.062 },
      { a: [0.1, 0.38, -0.012], b: [0.105, 0.1, -0.018], ra: 0.06, rb: 0.044 },
      { a: [0.1, 0.4, -0.002], b: [0.1, 0.36, -0.004], ra: 0.068, rb: 0.068 },
      { a: [0.105, 0.05, -0.05], b: [0.112, 0.045, 0.06], ra: 0.046, rb: 0.044 },
      { a: [0.113, 0.036, 0.07], b: [0.12, 0.03, 0.15], ra: 0.042, rb: 0.03 },
    ] satisfies Limb[]
  ).flatMap(both),
];

const SKIN: Vec3 = [172, 128, 104];
const HAIR: Vec3 = [52, 40, 34];
const CLOTH: Vec3 = [88, 98, 84];
const WRAP: Vec3 = [128, 118, 92];
const LEATHER: Vec3 = [70, 54, 42];
const TROUSERS: Vec3 = [66, 68, 70];

/** 1 inside an ellipse about (x, y), 0 outside, soft at its rim: a texel is nearly 3 mm wide. */
const spot = (side: number, y: number, at: readonly [number, number], radii: readonly [number, number]) =>
  1 - step(0.6, 1.4, Math.hypot((side - at[0]) / radii[0], (y - at[1]) / radii[1]));

/** Head: hair drawn back from brow and temples, brows, eyes, lips, a little warmth on the cheeks. */
function headColour([x, y, z]: Vec3): Vec3 {
  const side = Math.abs(x);
  const hairAt = Math.min(1.738 - 1.6 * side * side - y, z - (y > 1.62 ? 0.028 : -0.005));
  let face: Vec3 = mix(SKIN, [184, 118, 96], 0.5 * spot(side, y, [0.045, 1.625], [0.02, 0.016]));
  face = mix(face, [62, 46, 38], 0.85 * spot(side, y, [0.033, 1.677], [0.018, 0.0045]));
  face = mix(face, [206, 196, 186], 0.9 * spot(side, y, [0.032, 1.658], [0.0135, 0.0065]));
  face = mix(face, [40, 44, 36], spot(side, y, [0.031, 1.658], [0.0058, 0.0066]));
  face = mix(face, [150, 84, 76], 0.8 * spot(side, y, [0, 1.594], [0.02, 0.0045]));
  return mix(mix(HAIR, [74, 60, 50], 0.5 + 0.5 * Math.sin(x * 320)), face, step(-0.006, 0.006, hairAt));
}

/** Colour of Sedge's body at a rest position: skin, hair, a tunic of woven reed, wraps, belt and boots. */
export function bodyColour(p: Vec3): Vec3 {
  const [x, y, z] = p;
  const side = Math.abs(x);
  const weave = 0.5 + 0.5 * Math.sin(y * 260 + Math.sin(x * 90) * 0.6) * Math.sin(x * 210 + z * 180);
  const cloth = mix(CLOTH, [116, 122, 98], weave * 0.5);
  let colour = y < 0.76 ? TROUSERS : cloth;
  if (y > 0.74 && y < 0.78 && side < 0.2) colour = mix(TROUSERS, LEATHER, 0.7);
  if (y < 0.44) colour = mix(LEATHER, [92, 74, 56], step(0.4, 0.44, y));
  if (y > 0.985 && y < 1.03 && side < 0.2) colour = LEATHER;
  if (y > 1.4 && side < 0.09) colour = SKIN;
  const sash = Math.abs(x * 0.9 - (y - 1.22) * 0.55);
  if (y > 1.02 && y < 1.42 && sash < 0.022 && side < 0.2) colour = WRAP;
  if (y > 1.52) colour = headColour(p);
  if (side > 0.4) {
    const along = (side - 0.4) / 0.2;
    colour = along < 0.75 ? mix(WRAP, LEATHER, 0.35 * step(-0.2, 0.2, Math.sin(along * 70))) : SKIN;
  } else if (side > 0.3 && y > 1.1) colour = SKIN;
  return colour;
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
    feet: {
      left: rolledFoot(SKELETON, 'left', [0.02, 0, 0.04], 0, 10),
      right: rolledFoot(SKELETON, 'right', [-0.03, 0, -0.06], 0, -16),
    },
    held: { blade: [-0.18, -0.34, 0.92] },
  };
}

const idle: ClipMaker = { name: 'idle', seconds: 4, at: (t) => atEase(wave(t * 2), wave(t)) };

const walking = walk(SKELETON, {
  seconds: 32 / 30,
  stride: 1.02,
  narrow: 0.03,
  hips: 0.9,
  weight: 1,
  upper: (reach) => {
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
      arms: { left: arm('left', 1), right: arm('right', 0.7) },
      held: { blade: [-0.16, -0.22 + 0.06 * reach, 0.95] },
    };
  },
});

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
  held: { blade: [-0.55, -0.1, 0.7] },
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
  held: { blade: [-0.5, 0.6, -0.8] },
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
  held: { blade: [0.12, 0.05, 1] },
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
  held: { blade: [0.95, -0.2, 0.1] },
};
const sweep = throughStances('sweep', 1.6, [
  [0, rest],
  [0.32, wound],
  [0.42, struck],
  [0.5, followed],
  [0.66, { ...followed, hips: drop(followed, 0.01) }],
  [1, rest],
]);

/** Sedge: a lean fighter with a reed blade. */
export const SEDGE: FigurePlan = {
  name: 'Sedge',
  skeleton: SKELETON,
  limbs: LIMBS,
  blend: 0.028,
  cell: 0.0165,
  halfWidth: 0.725,
  height: 1.84,
  colour: bodyColour,
  held: [reedBlade(SKELETON.joint('blade').at)],
  heldColour: (along) => mix([92, 96, 58], [206, 214, 150], along),
  clips: [idle, walking, cast, sweep],
};
