import type { Vec3 } from '@jinx/core/maths';

/** A joint of Sedge at rest, in metres, facing +Z; `end` is where its bone ends. Rest turns are all none. */
export interface Joint {
  readonly name: string;
  readonly parent: string | null;
  readonly at: Vec3;
  readonly end: Vec3;
}

const mirrored = (joints: readonly Joint[]): Joint[] =>
  joints.flatMap((joint) => [
    { ...joint, name: `${joint.name}.left`, parent: sided(joint.parent, 'left') },
    {
      ...joint,
      name: `${joint.name}.right`,
      parent: sided(joint.parent, 'right'),
      at: flipped(joint.at),
      end: flipped(joint.end),
    },
  ]);

const SIDED = new Set(['shoulder', 'upper arm', 'forearm', 'hand', 'thigh', 'shin', 'foot']);
const sided = (name: string | null, side: string) => (name && SIDED.has(name) ? `${name}.${side}` : name);
const flipped = ([x, y, z]: Vec3): Vec3 => [-x, y, z];

export const JOINTS: readonly Joint[] = [
  { name: 'root', parent: null, at: [0, 0, 0], end: [0, 0.1, 0] },
  { name: 'hips', parent: 'root', at: [0, 0.95, 0], end: [0, 1.06, 0] },
  { name: 'spine', parent: 'hips', at: [0, 1.06, 0], end: [0, 1.23, 0] },
  { name: 'chest', parent: 'spine', at: [0, 1.23, 0], end: [0, 1.45, -0.01] },
  { name: 'neck', parent: 'chest', at: [0, 1.46, -0.015], end: [0, 1.56, 0] },
  { name: 'head', parent: 'neck', at: [0, 1.56, 0], end: [0, 1.76, 0.01] },
  ...mirrored([
    { name: 'shoulder', parent: 'chest', at: [0.04, 1.41, -0.01], end: [0.17, 1.41, -0.01] },
    { name: 'upper arm', parent: 'shoulder', at: [0.17, 1.41, -0.01], end: [0.38, 1.22, -0.015] },
    { name: 'forearm', parent: 'upper arm', at: [0.38, 1.22, -0.015], end: [0.565, 1.055, 0.01] },
    { name: 'hand', parent: 'forearm', at: [0.565, 1.055, 0.01], end: [0.64, 0.975, 0.02] },
    { name: 'thigh', parent: 'hips', at: [0.093, 0.93, 0], end: [0.1, 0.5, 0.012] },
    { name: 'shin', parent: 'thigh', at: [0.1, 0.5, 0.012], end: [0.105, 0.08, -0.02] },
    { name: 'foot', parent: 'shin', at: [0.105, 0.08, -0.02], end: [0.115, 0.025, 0.1] },
    { name: 'toes', parent: 'foot', at: [0.115, 0.025, 0.1], end: [0.12, 0.02, 0.165] },
  ]),
  { name: 'blade', parent: 'hand.right', at: [-0.605, 1.015, 0.03], end: [-0.605, 1.015, 0.9] },
];

export const jointIndex = (name: string): number => JOINTS.findIndex((joint) => joint.name === name);
export function joint(name: string): Joint {
  const found = JOINTS.find((candidate) => candidate.name === name);
  if (!found) throw new Error(`Sedge has no joint "${name}"`);
  return found;
}
