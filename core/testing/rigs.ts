import type { Rig } from '../geometry/index.ts';
import { cos, sin } from '../maths/index.ts';

/** A tube 1 m tall, skinned smoothly to two bones; its clip bends the upper half to and fro and walks 1 m forward. */
export function bendingTube(rings = 12, around = 12): Rig {
  const positions: number[] = [];
  const normals: number[] = [];
  const uvs: number[] = [];
  const joints: number[] = [];
  const weights: number[] = [];
  const indices: number[] = [];
  for (let ring = 0; ring <= rings; ring++)
    for (let k = 0; k <= around; k++) {
      const angle = (k / around) * 2 * Math.PI;
      const y = ring / rings;
      positions.push(0.2 * cos(angle), y, -0.2 * sin(angle));
      normals.push(cos(angle), 0, -sin(angle));
      uvs.push(k / around, y);
      const upper = Math.min(1, Math.max(0, (y - 0.3) / 0.4));
      joints.push(0, 1, 0, 0);
      weights.push(1 - upper, upper, 0, 0);
      if (ring < rings && k < around) {
        const a = ring * (around + 1) + k;
        indices.push(a, a + 1, a + around + 2, a, a + around + 2, a + around + 1);
      }
    }
  const times = Array.from({ length: 31 }, (_, i) => i / 30);
  const bend = times.flatMap((t) => {
    const half = (0.9 * sin(2 * Math.PI * t)) / 2;
    return [0, 0, sin(half), cos(half)];
  });
  const identity = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  return {
    name: 'tube',
    bones: [
      { name: 'low', parent: -1, translation: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
      { name: 'high', parent: 0, translation: [0, 0.5, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
    ],
    inverseBind: Float32Array.from([...identity, ...identity.slice(0, 13), -0.5, 0, 1]),
    mesh: {
      positions: Float32Array.from(positions),
      normals: Float32Array.from(normals),
      uvs: Float32Array.from(uvs),
      colours: null,
      joints: Uint16Array.from(joints),
      weights: Float32Array.from(weights),
      indices: Uint32Array.from(indices),
    },
    texture: null,
    clips: [
      {
        name: 'sway',
        seconds: 1,
        tracks: [
          {
            bone: 1,
            property: 'rotation',
            stepped: false,
            times: Float32Array.from(times),
            values: Float32Array.from(bend),
          },
          {
            bone: 0,
            property: 'translation',
            stepped: false,
            times: Float32Array.from([0, 1]),
            values: Float32Array.from([0, 0, 0, 0, 0, 1]),
          },
        ],
      },
    ],
  };
}

/** A solid cube of a metre with a notch of `degrees` from the middle of its top down to `deep` metres, on one bone. */
export function notchedBox(degrees: number, deep = 0.8): Rig {
  const half = (deep * sin((degrees / 360) * Math.PI)) / cos((degrees / 360) * Math.PI);
  const outline = [
    [0, 0.5 - deep],
    [-half, 0.5],
    [-0.5, 0.5],
    [-0.5, -0.5],
    [0.5, -0.5],
    [0.5, 0.5],
    [half, 0.5],
  ] as const;
  const positions = [0.5, -0.5].flatMap((z) => outline.flatMap(([x, y]) => [x, y, z]));
  const indices: number[] = [];
  for (let i = 1; i + 1 < outline.length; i++) indices.push(0, i, i + 1, 7, 7 + i + 1, 7 + i);
  for (let i = 0; i < outline.length; i++) {
    const next = (i + 1) % outline.length;
    indices.push(i, 7 + i, 7 + next, i, 7 + next, next);
  }
  const plain = closedBox();
  const vertices = positions.length / 3;
  return {
    ...plain,
    name: 'notched box',
    mesh: {
      ...plain.mesh,
      positions: Float32Array.from(positions),
      normals: new Float32Array(vertices * 3).fill(0.577),
      uvs: new Float32Array(vertices * 2),
      joints: new Uint16Array(vertices * 4),
      weights: Float32Array.from({ length: vertices * 4 }, (_, i) => (i % 4 === 0 ? 1 : 0)),
      indices: Uint32Array.from(indices),
    },
  };
}

/** A cube of a metre about the origin, closed, on one bone; larger or elsewhere when told. */
export function closedBox(size = 1, middle: readonly [number, number, number] = [0, 0, 0]): Rig {
  const positions = Array.from({ length: 8 }, (_, i) => [i & 1, (i >> 1) & 1, i >> 2]).flatMap((corner) =>
    corner.map((c, axis) => middle[axis]! + (c - 0.5) * size),
  );
  // Two triangles a face, their fronts outward.
  const faces = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  const indices = faces.flatMap(([a, b, c, d]) => [a!, b!, c!, a!, c!, d!]);
  return {
    name: 'box',
    bones: [{ name: 'box', parent: -1, translation: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] }],
    inverseBind: Float32Array.from([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]),
    mesh: {
      positions: Float32Array.from(positions),
      normals: new Float32Array(24).fill(0.577),
      uvs: new Float32Array(16),
      colours: null,
      joints: new Uint16Array(32),
      weights: Float32Array.from({ length: 32 }, (_, i) => (i % 4 === 0 ? 1 : 0)),
      indices: Uint32Array.from(indices),
    },
    texture: null,
    clips: [],
  };
}

/** A rig with another shape, in which all that is above its middle is so many times as high. */
export function withTallerShape(rig: Rig, times: number): Rig {
  const { positions, normals } = rig.mesh;
  const taller = positions.map((x, i) => (i % 3 === 1 && x > 0 ? times * x : x));
  return { ...rig, mesh: { ...rig.mesh, otherShape: { positions: taller, normals } } };
}
