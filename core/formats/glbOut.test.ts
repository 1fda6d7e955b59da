import validator from 'gltf-validator';
import { describe, expect, it } from 'vitest';
import type { Rig } from '../geometry/index.ts';
import { bendingTube } from '../testing/rigs.ts';
import { importGlb, readPicture, writeGlb, writePng, writeRig } from './index.ts';

/** What the Khronos validator finds that is an error. */
async function errorsIn(glb: Uint8Array): Promise<string[]> {
  const { issues } = await validator.validateBytes(glb, { maxIssues: 50 });
  return issues.messages.filter(({ severity }) => severity === 0).map(({ code, pointer }) => `${code} ${pointer}`);
}

const made = bendingTube();
/** Without negative zeros, which no imported mesh has. */
const plain = (numbers: Float32Array) => numbers.map((x) => x + 0);
const tube: Rig = {
  ...made,
  mesh: { ...made.mesh, positions: plain(made.mesh.positions), normals: plain(made.mesh.normals) },
};
const vertices = tube.mesh.positions.length / 3;
const texture = { width: 2, height: 2, rgba: Uint8Array.from({ length: 16 }, (_, n) => n * 15) };
const withMesh = (mesh: Partial<Rig['mesh']>): Rig => ({ ...tube, mesh: { ...tube.mesh, ...mesh } });
const stiff: Rig = {
  ...tube,
  bones: [{ ...tube.bones[0]!, translation: [0, 2, 0] }],
  inverseBind: tube.inverseBind.slice(0, 16),
  clips: [],
  mesh: {
    ...tube.mesh,
    joints: new Uint16Array(vertices * 4),
    weights: Float32Array.from({ length: vertices * 4 }, (_, n) => (n % 4 === 0 ? 1 : 0)),
  },
};

describe('a rig as GLB', () => {
  it('is read back as it was where its mesh has a node of its own, and no error is found in it', async () => {
    const own: Rig = { ...tube, bones: [...tube.bones, { ...tube.bones[0]!, name: 'skin' }], texture };
    const inverseBind = new Float32Array(48);
    inverseBind.set(tube.inverseBind);
    inverseBind.set(tube.inverseBind.subarray(0, 16), 32);
    const rig = { ...own, inverseBind };
    const glb = await writeGlb(rig);
    expect(await errorsIn(glb)).toEqual([]);
    const back = await importGlb(glb, 'tube');
    // What weighs nothing is on no bone of its own.
    const weights = ({ mesh }: Rig) =>
      Array.from({ length: vertices }, (_, v) =>
        [0, 1].map((bone) =>
          [0, 1, 2, 3].reduce((sum, n) => sum + (mesh.joints[v * 4 + n] === bone ? mesh.weights[v * 4 + n]! : 0), 0),
        ),
      );
    expect(weights(back)).toEqual(weights(rig));
    const { joints, weights: shares } = rig.mesh;
    expect({ ...back, mesh: { ...back.mesh, joints, weights: shares } }).toEqual(rig);
  });

  it('hangs stiffly on its bone where it is not bent, and so comes back', async () => {
    const glb = await writeGlb(stiff);
    expect(await errorsIn(glb)).toEqual([]);
    expect(writeRig(await importGlb(glb, 'tube'))).toEqual(writeRig(stiff));
  });

  it('has its bones under one node where it had several roots that move it', async () => {
    const rig: Rig = { ...tube, bones: tube.bones.map((bone) => ({ ...bone, parent: -1 })), clips: [] };
    const glb = await writeGlb(rig);
    expect(await errorsIn(glb)).toEqual([]);
    const { bones, mesh } = await importGlb(glb, 'tube');
    expect(bones.map(({ name, parent }) => [name, parent])).toEqual([
      ['tube', -1],
      ['low', 0],
      ['high', 0],
      ['tube mesh', -1],
    ]);
    expect(mesh.positions).toEqual(tube.mesh.positions);
  });

  it('keeps parts, vertex colours and the other shape', async () => {
    const { indices, positions, normals } = tube.mesh;
    const rig = withMesh({
      parts: [
        { name: 'low', start: 0, count: 60 },
        { name: 'high', start: 60, count: indices.length - 60 },
      ],
      colours: Float32Array.from(positions, (x) => Math.abs(x)),
      otherShape: { positions: positions.map((x) => x * 1.5), normals },
    });
    const glb = await writeGlb(rig);
    expect(await errorsIn(glb)).toEqual([]);
    const back = await importGlb(glb, 'tube');
    expect(back.mesh.parts).toEqual(rig.mesh.parts);
    const corners = (of: Float32Array, by: Uint32Array) => [...by].flatMap((v) => [...of.subarray(v * 3, v * 3 + 3)]);
    for (const what of ['positions', 'normals', 'colours'] as const)
      expect(corners(back.mesh[what]!, back.mesh.indices)).toEqual(corners(rig.mesh[what]!, indices));
    const shape = corners(back.mesh.otherShape!.positions, back.mesh.indices);
    corners(rig.mesh.otherShape!.positions, indices).forEach((x, n) => expect(shape[n]).toBeCloseTo(x, 6));
  });

  it('is mended where glTF is stricter: lengths, bones named twice, times that do not rise, clips of nothing', async () => {
    const rig: Rig = {
      ...withMesh({
        normals: tube.mesh.normals.map((x, n) => (n < 3 ? 0 : x * 3)),
        joints: tube.mesh.joints.map(() => 1),
      }),
      bones: tube.bones.map((bone) => ({ ...bone, rotation: [0, 0, 0, 2] as const })),
      clips: [
        { name: 'still', seconds: 0, tracks: [] },
        {
          name: 'back',
          seconds: 1,
          tracks: [
            {
              ...tube.clips[0]!.tracks[0]!,
              times: Float32Array.of(1, 0),
              values: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1),
            },
            { ...tube.clips[0]!.tracks[0]!, values: tube.clips[0]!.tracks[0]!.values.map((x) => x * 2) },
          ],
        },
      ],
    };
    const glb = await writeGlb(rig);
    expect(await errorsIn(glb)).toEqual([]);
    expect((await importGlb(glb, 'tube')).clips.map(({ name, tracks }) => [name, tracks.length])).toEqual([
      ['back', 1],
    ]);
  });
});

describe('a picture as PNG', () => {
  it('has the same pixels', () => {
    expect(readPicture(writePng(texture))).toEqual(texture);
  });
});
