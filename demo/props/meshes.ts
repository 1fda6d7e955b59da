import type { Vec3 } from '@jinx/core/maths';
import { faces, sheet, sheetOfTwo, type PropMesh } from './sheet.ts';

const TURN = 2 * Math.PI;

/** A flat six-sided crystal of salt, a little uneven, its faces bevelled. It stands on its edge, facing +Z. */
function salt(): PropMesh {
  const rim = Array.from({ length: 6 }, (_, n): [number, number] => {
    const size = 0.5 * (1 - 0.12 * ((n * 7) % 5) * 0.4);
    return [Math.sin((n / 6) * TURN) * size, Math.cos((n / 6) * TURN) * size * 1.15];
  });
  const at = (scale: number, z: number) => rim.map(([x, y]): Vec3 => [x * scale, y * scale, z]);
  const [front, edgeFront, edgeBack, back] = [at(0.74, 0.075), at(1, 0.03), at(1, -0.03), at(0.74, -0.075)];
  const band = (a: Vec3[], b: Vec3[]) => a.map((_, n) => [a[n]!, b[n]!, b[(n + 1) % 6]!, a[(n + 1) % 6]!]);
  return faces([
    [...front].reverse(),
    ...band(front, edgeFront),
    ...band(edgeFront, edgeBack),
    ...band(edgeBack, back),
    back,
  ]);
}

/** A reed leaf: it grows along +Y from its root, bends over toward +Z and runs out into a point. */
const reed = (): PropMesh =>
  sheet(4, 14, (u, v) => {
    const wide = 0.045 * Math.pow(1 - v, 0.7) * (0.5 + Math.min(0.5, v * 3));
    const x = (u - 0.5) * 2;
    return [x * wide, v * (1 - 0.16 * v * v), 0.3 * v * v * v - 0.018 * (1 - x * x)];
  });

/** The sweep of a blade: a crescent about +Y, thin at both ends. Along it runs v, from its outer edge inward u. */
const crescent = (): PropMesh =>
  sheet(8, 48, (u, v) => {
    const angle = (v - 0.5) * 0.72 * TURN;
    const thick = 0.34 * Math.pow(Math.sin(Math.PI * v), 0.75);
    const far = 0.5 - u * thick;
    return [Math.sin(angle) * far, 0.02 * Math.sin(Math.PI * u), Math.cos(angle) * far];
  });

/** A cluster of soft lobes: a ball pushed out here and there, as a puff of smoke is. */
function puff(): PropMesh {
  const lobes = Array.from({ length: 11 }, (_, n): Vec3 => {
    const y = 1 - (2 * (n + 0.5)) / 11;
    const r = Math.sqrt(1 - y * y);
    const a = n * 2.39996;
    return [Math.cos(a) * r, y, Math.sin(a) * r];
  });
  return sheet(40, 26, (u, v) => {
    const [polar, round] = [Math.PI * (0.002 + 0.996 * v), TURN * u];
    const way: Vec3 = [Math.sin(polar) * Math.cos(-round), -Math.cos(polar), Math.sin(polar) * Math.sin(-round)];
    const bulge = lobes.reduce((most, lobe, n) => {
      const near = way[0] * lobe[0] + way[1] * lobe[1] + way[2] * lobe[2];
      return Math.max(most, (0.1 + 0.05 * ((n * 5) % 3)) * Math.max(0, (near - 0.55) / 0.45) ** 0.6);
    }, 0);
    const far = 0.34 + bulge;
    return [way[0] * far, way[1] * far, way[2] * far];
  });
}

/**
 * A funnel in the ground, a metre wide and as deep: level at its rim, steep toward its throat. In its other shape it chokes:
 * its throat heaves up to a heap.
 */
const funnel = (): PropMesh => {
  const at =
    (high: (v: number) => number) =>
    (u: number, v: number): Vec3 => {
      const far = 0.5 * (1 - 0.97 * v);
      return [Math.cos(TURN * u) * far, high(v), Math.sin(TURN * u) * far];
    };
  const deep = (v: number) => -Math.pow(v, 1.5) * (0.85 + 0.15 * v);
  const heaped = (v: number) => 0.3 * deep(v) + 0.42 * Math.exp(-(((1 - v) / 0.3) ** 2));
  return sheetOfTwo(40, 18, at(deep), at(heaped));
};

/** A dome of a metre, open below: a shell about its middle. */
const dome = (): PropMesh =>
  sheet(36, 14, (u, v) => {
    const polar = (Math.PI / 2) * v;
    const round = TURN * u;
    return [0.5 * Math.cos(polar) * Math.cos(round), 0.5 * Math.sin(polar), -0.5 * Math.cos(polar) * Math.sin(round)];
  });

/** A root: a bent tube that thins toward its end, along +Y. */
const root = (): PropMesh =>
  sheet(7, 14, (u, v) => {
    const thick = 0.05 * (1 - 0.85 * v) * (1 + 0.25 * Math.sin(v * 17));
    const round = TURN * u;
    const [x, z] = [0.16 * Math.sin(v * 4.2), 0.12 * Math.sin(v * 6.1 + 1) - 0.1];
    return [x - Math.cos(round) * thick, v - 0.5, z + Math.sin(round) * thick];
  });

/** A ball of a metre. */
const ball = (): PropMesh =>
  sheet(32, 20, (u, v) => {
    const [polar, round] = [Math.PI * (0.0005 + 0.999 * v), TURN * u];
    const level = 0.5 * Math.sin(polar);
    return [level * Math.cos(round), -0.5 * Math.cos(polar), -level * Math.sin(round)];
  });

/** A box with flat faces, its middle in the middle; a picture lies whole on each face. */
function box(wide: number, tall: number, deep: number): PropMesh {
  const at = (x: number, y: number, z: number): Vec3 => [(x * wide) / 2, (y * tall) / 2, (z * deep) / 2];
  const made = faces([
    [at(-1, -1, 1), at(1, -1, 1), at(1, 1, 1), at(-1, 1, 1)],
    [at(1, -1, -1), at(-1, -1, -1), at(-1, 1, -1), at(1, 1, -1)],
    [at(1, -1, 1), at(1, -1, -1), at(1, 1, -1), at(1, 1, 1)],
    [at(-1, -1, -1), at(-1, -1, 1), at(-1, 1, 1), at(-1, 1, -1)],
    [at(-1, 1, 1), at(1, 1, 1), at(1, 1, -1), at(-1, 1, -1)],
    [at(-1, -1, -1), at(1, -1, -1), at(1, -1, 1), at(-1, -1, 1)],
  ]);
  return { ...made, uvs: Array.from({ length: 6 }, () => [0, 1, 1, 1, 1, 0, 0, 0]).flat() };
}
/** A level square of a metre, seen from above. */
const plane = (): PropMesh => sheet(8, 8, (u, v) => [u - 0.5, 0, 0.5 - v]);

/** The kit's meshes by name: lengths in metres, the longest side about one. */
export const PROPS: Readonly<Record<string, () => PropMesh>> = {
  salt,
  reed,
  crescent,
  puff,
  funnel,
  dome,
  root,
  ball,
  block: () => box(1, 1, 1),
  slab: () => box(1, 0.12, 0.6),
  post: () => box(0.14, 1, 0.14),
  plane,
};
