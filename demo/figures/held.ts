import type { Vec3 } from '@jinx/core/maths';

/** A mesh that is held, stiff on a joint, at rest. */
export interface HeldMesh {
  readonly joint: string;
  readonly positions: readonly Vec3[];
  readonly triangles: readonly (readonly [number, number, number])[];
  /** Place of each vertex along the texture's middle column, 0 to 1. */
  readonly along: readonly number[];
}

/** Rings of points about an axis, one after another, joined to a skin; each has a radius, a height and a colour. */
function turnedOnAxis(
  joint: string,
  at: Vec3,
  around: number,
  rings: readonly { radius: number; height: number; along: number }[],
  place: (angle: number, radius: number, height: number) => Vec3,
): HeldMesh {
  const positions: Vec3[] = [];
  const along: number[] = [];
  const triangles: [number, number, number][] = [];
  rings.forEach((ring, i) => {
    for (let k = 0; k < around; k++) {
      const [x, y, z] = place((k / around) * 2 * Math.PI, ring.radius, ring.height);
      positions.push([at[0] + x, at[1] + y, at[2] + z]);
      along.push(ring.along);
      if (i === 0) continue;
      const [a, b] = [(i - 1) * around + k, (i - 1) * around + ((k + 1) % around)];
      triangles.push([a, b, b + around], [a, b + around, a + around]);
    }
  });
  return { joint, positions, triangles, along };
}

/** A lantern that hangs from the hand: an iron cap, six panes of light, an iron foot. */
export const lantern = (joint: string, at: Vec3, size: number): HeldMesh =>
  turnedOnAxis(
    joint,
    at,
    6,
    [
      { radius: 0.002, height: 0, along: 0.7 },
      { radius: 0.012, height: -0.05, along: 0.7 },
      { radius: 0.09, height: -0.1, along: 0.72 },
      { radius: 0.085, height: -0.12, along: 0.99 },
      { radius: 0.095, height: -0.27, along: 0.99 },
      { radius: 0.1, height: -0.28, along: 0.72 },
      { radius: 0.06, height: -0.32, along: 0.7 },
      { radius: 0.002, height: -0.33, along: 0.7 },
    ],
    (angle, radius, height) => [Math.sin(angle) * radius * size, height * size, Math.cos(angle) * radius * size],
  );

/** A broad round shield, bossed, facing +Z. */
export const roundShield = (joint: string, at: Vec3, size: number): HeldMesh =>
  turnedOnAxis(
    joint,
    at,
    20,
    [
      { radius: 0.002, height: -0.03, along: 0.2 },
      { radius: size * 0.97, height: -0.075, along: 0.3 },
      { radius: size, height: -0.06, along: 0.62 },
      { radius: size * 0.98, height: -0.045, along: 0.62 },
      { radius: size * 0.86, height: -0.02, along: 0.05 },
      { radius: size * 0.5, height: 0.02, along: 0.4 },
      { radius: size * 0.26, height: 0.035, along: 0.15 },
      { radius: size * 0.24, height: 0.05, along: 0.65 },
      { radius: size * 0.12, height: 0.09, along: 0.68 },
      { radius: 0.002, height: 0.1, along: 0.68 },
    ],
    (angle, radius, height) => [Math.cos(angle) * radius, Math.sin(angle) * radius, height],
  );

/** A reed blade: a long leaf of diamond section from the grip along +Z, slightly bowed. */
export function reedBlade(at: Vec3): HeldMesh {
  const positions: Vec3[] = [];
  const along: number[] = [];
  const triangles: [number, number, number][] = [];
  const sections = 16;
  for (let i = 0; i <= sections; i++) {
    const t = i / sections;
    const width =
      t < 0.16 ? 0.012 : 0.032 * Math.sqrt(Math.max(0, Math.sin(Math.PI * Math.min(1, 0.2 + 0.8 * t)))) + 0.001;
    const bow = 0.05 * t * t;
    for (const [across, thick] of [
      [-width, 0],
      [0, 0.008 * (1 - t)],
      [width, 0],
      [0, -0.008 * (1 - t)],
    ] as const) {
      positions.push([at[0] + thick, at[1] + across + bow, at[2] - 0.1 + t * 0.95]);
      along.push(t);
    }
    if (i === sections) continue;
    for (let k = 0; k < 4; k++) {
      const [a, b, c, d] = [i * 4 + k, i * 4 + ((k + 1) % 4), i * 4 + 4 + ((k + 1) % 4), i * 4 + 4 + k];
      triangles.push([a, c, b], [a, d, c]);
    }
  }
  return { joint: 'blade', positions, triangles, along };
}
