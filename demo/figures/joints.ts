import type { Vec3 } from '@jinx/core/maths';

/** A joint at rest, in metres, the figure facing +Z; `end` is where its bone ends. Rest turns are all none. */
export interface Joint {
  readonly name: string;
  readonly parent: string | null;
  readonly at: Vec3;
  readonly end: Vec3;
}

/** Where the joints of a figure's left side and middle are; the right side mirrors the left. */
export interface Build {
  readonly hips: number;
  readonly spine: number;
  readonly chest: number;
  readonly neck: readonly [Vec3, Vec3];
  readonly head: readonly [Vec3, Vec3];
  /** Collar, shoulder, elbow, wrist, fingertips. */
  readonly arm: readonly [Vec3, Vec3, Vec3, Vec3, Vec3];
  /** Hip, knee, ankle, ball, toe tips. */
  readonly leg: readonly [Vec3, Vec3, Vec3, Vec3, Vec3];
  /** Joints that hold things: they move no skin. */
  readonly holds: readonly Joint[];
}

const flipped = ([x, y, z]: Vec3): Vec3 => [-x, y, z];

/** The joints of a two-legged figure, parents before children. */
export class Skeleton {
  readonly joints: readonly Joint[];
  readonly #holds: ReadonlySet<string>;

  constructor(build: Build) {
    const middle: Joint[] = [
      { name: 'root', parent: null, at: [0, 0, 0], end: [0, 0.1, 0] },
      { name: 'hips', parent: 'root', at: [0, build.hips, 0], end: [0, build.spine, 0] },
      { name: 'spine', parent: 'hips', at: [0, build.spine, 0], end: [0, build.chest, 0] },
      { name: 'chest', parent: 'spine', at: [0, build.chest, 0], end: build.neck[0] },
      { name: 'neck', parent: 'chest', at: build.neck[0], end: build.neck[1] },
      { name: 'head', parent: 'neck', at: build.head[0], end: build.head[1] },
    ];
    const chain = (names: readonly string[], first: string, points: readonly Vec3[], side: 'left' | 'right') =>
      names.map((name, i): Joint => {
        const place = side === 'left' ? (p: Vec3) => p : flipped;
        const parent = i === 0 ? first : `${names[i - 1]}.${side}`;
        return { name: `${name}.${side}`, parent, at: place(points[i]!), end: place(points[i + 1]!) };
      });
    const sides = (['left', 'right'] as const).flatMap((side) => [
      ...chain(['shoulder', 'upper arm', 'forearm', 'hand'], 'chest', build.arm, side),
      ...chain(['thigh', 'shin', 'foot', 'toes'], 'hips', build.leg, side),
    ]);
    this.joints = [...middle, ...sides, ...build.holds];
    this.#holds = new Set(build.holds.map(({ name }) => name));
  }

  index(name: string): number {
    return this.joints.findIndex((joint) => joint.name === name);
  }

  joint(name: string): Joint {
    const found = this.joints.find((candidate) => candidate.name === name);
    if (!found) throw new Error(`there is no joint "${name}"`);
    return found;
  }

  /** Whether a joint may move skin at a place at all: never the root, nor what is held, nor the other side's limbs. */
  mayMove(bone: number, p: Vec3): boolean {
    const { name } = this.joints[bone]!;
    if (name === 'root' || this.#holds.has(name)) return false;
    if (name.endsWith('.left')) return p[0] > -0.01;
    if (name.endsWith('.right')) return p[0] < 0.01;
    return true;
  }

  /** How much longer its legs are than those that stances are written for. */
  get legs(): number {
    return this.joint('hips').at[1] / 0.95;
  }
}
