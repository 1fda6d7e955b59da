import { Document, WebIO } from '@gltf-transform/core';
import { encode } from 'fast-png';
import type { Vec3 } from '@jinx/core/maths';
import { bladeMesh } from './blade.ts';
import { bodyDistance, bodyNormal, surfaceNets } from './body.ts';
import { CLIPS } from './clips.ts';
import { paintTexture } from './paint.ts';
import { HIPS, solve, type Turn } from './pose.ts';
import { JOINTS, jointIndex } from './skeleton.ts';
import { skinWeights, strongestFour } from './weights.ts';

const CELL = 0.0165;
const KEYS_PER_SECOND = 60;

/** Front and back of the body lie side by side in the texture; the column between them is the blade's. */
const uvOf = ([x, y]: Vec3, isFront: boolean): [number, number] => [
  isFront ? 0.25 + x / 2.9 : 0.75 - x / 2.9,
  1 - (y + 0.03) / 1.87,
];

interface Vertices {
  positions: number[];
  normals: number[];
  uvs: number[];
  joints: number[];
  weights: number[];
  indices: number[];
}

function bodyVertices(out: Vertices): { p: Vec3; uv: [number, number] }[][] {
  const mesh = surfaceNets(bodyDistance, [-0.74, -0.04, -0.26], [0.74, 1.86, 0.26], CELL);
  const weights = skinWeights(mesh);
  const normals = mesh.positions.map(bodyNormal);
  const painted: { p: Vec3; uv: [number, number] }[][] = [];
  const made = new Map<string, number>();
  for (const triangle of mesh.triangles) {
    const isFront = triangle.reduce((sum, i) => sum + normals[i]![2], 0) >= 0;
    painted.push(triangle.map((i) => ({ p: mesh.positions[i]!, uv: uvOf(mesh.positions[i]!, isFront) })));
    for (const i of triangle) {
      const name = `${i}/${isFront}`;
      if (!made.has(name)) {
        made.set(name, out.positions.length / 3);
        out.positions.push(...mesh.positions[i]!);
        out.normals.push(...normals[i]!);
        out.uvs.push(...uvOf(mesh.positions[i]!, isFront));
        const strongest = strongestFour(weights[i]!);
        out.joints.push(...strongest.joints);
        out.weights.push(...strongest.weights);
      }
      out.indices.push(made.get(name)!);
    }
  }
  return painted;
}

function bladeVertices(out: Vertices): void {
  const { positions, triangles, along } = bladeMesh();
  const blade = jointIndex('blade');
  for (const triangle of triangles) {
    const [a, b, c] = triangle.map((i) => positions[i]!) as [Vec3, Vec3, Vec3];
    const [u, v] = [b.map((x, i) => x - a[i]!), c.map((x, i) => x - a[i]!)] as unknown as [Vec3, Vec3];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const size = Math.hypot(...n);
    if (size < 1e-12) continue;
    for (const i of triangle) {
      out.indices.push(out.positions.length / 3);
      out.positions.push(...positions[i]!);
      out.normals.push(...n.map((x) => x / size));
      out.uvs.push(0.5, 1 - along[i]!);
      out.joints.push(blade, 0, 0, 0);
      out.weights.push(1, 0, 0, 0);
    }
  }
}

/** Keys of one clip: hips and root move, every joint turns. The last key closes onto the first. */
function clipKeys(at: (typeof CLIPS)[number]['at'], seconds: number) {
  const count = Math.round(seconds * KEYS_PER_SECOND);
  const stances = Array.from({ length: count + 1 }, (_, i) => solve(at(i === count ? 0 : i / count)));
  const last = solve(at(1)).forward;
  const turns = JOINTS.map((_, bone) => {
    let before: Turn = stances[0]!.turns[bone]!;
    return stances.flatMap(({ turns: all }) => {
      const q = all[bone]!;
      const isFar = q[0] * before[0] + q[1] * before[1] + q[2] * before[2] + q[3] * before[3] < 0;
      before = isFar ? [-q[0], -q[1], -q[2], -q[3]] : q;
      return [...before];
    });
  });
  return {
    times: stances.map((_, i) => (i / count) * seconds),
    forward: stances.flatMap((stance, i) => [0, 0, i === count ? last : stance.forward]),
    hips: stances.flatMap(({ hips }) => [...hips]),
    turns,
  };
}

/** Makes Sedge: a lean fighter with a reed blade, as binary glTF 2.0. */
export async function makeSedge(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('Sedge');
  document.getRoot().setDefaultScene(scene);
  const accessor = (
    type: 'SCALAR' | 'VEC2' | 'VEC3' | 'VEC4' | 'MAT4',
    array: Float32Array | Uint16Array | Uint32Array,
  ) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);

  const nodes = JOINTS.map(({ name, at, parent }) => {
    const from = parent === null ? [0, 0, 0] : JOINTS[jointIndex(parent)]!.at;
    return document.createNode(name).setTranslation([at[0] - from[0]!, at[1] - from[1]!, at[2] - from[2]!]);
  });
  JOINTS.forEach(({ parent }, index) =>
    parent === null ? scene.addChild(nodes[index]!) : nodes[jointIndex(parent)]!.addChild(nodes[index]!),
  );

  const vertices: Vertices = { positions: [], normals: [], uvs: [], joints: [], weights: [], indices: [] };
  const painted = bodyVertices(vertices);
  bladeVertices(vertices);
  const texture = paintTexture(painted);
  const png = encode({ width: texture.width, height: texture.height, data: texture.rgba, channels: 4 });
  const material = document
    .createMaterial('Sedge')
    .setBaseColorTexture(
      document
        .createTexture('Sedge')
        .setImage(png as Uint8Array<ArrayBuffer>)
        .setMimeType('image/png'),
    )
    .setRoughnessFactor(0.85)
    .setMetallicFactor(0);
  const primitive = document
    .createPrimitive()
    .setMaterial(material)
    .setIndices(accessor('SCALAR', Uint32Array.from(vertices.indices)))
    .setAttribute('POSITION', accessor('VEC3', Float32Array.from(vertices.positions)))
    .setAttribute('NORMAL', accessor('VEC3', Float32Array.from(vertices.normals)))
    .setAttribute('TEXCOORD_0', accessor('VEC2', Float32Array.from(vertices.uvs)))
    .setAttribute('JOINTS_0', accessor('VEC4', Uint16Array.from(vertices.joints)))
    .setAttribute('WEIGHTS_0', accessor('VEC4', Float32Array.from(vertices.weights)));
  const binds = JOINTS.flatMap(({ at }) => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, -at[0], -at[1], -at[2], 1]);
  const skin = document
    .createSkin('Sedge')
    .setSkeleton(nodes[0]!)
    .setInverseBindMatrices(accessor('MAT4', Float32Array.from(binds)));
  nodes.forEach((node) => skin.addJoint(node));
  scene.addChild(
    document.createNode('Sedge body').setMesh(document.createMesh('Sedge').addPrimitive(primitive)).setSkin(skin),
  );

  for (const { name, seconds, at } of CLIPS) {
    const keys = clipKeys(at, seconds);
    const input = accessor('SCALAR', Float32Array.from(keys.times));
    const animation = document.createAnimation(name);
    const channel = (bone: number, path: 'translation' | 'rotation', values: number[]) => {
      const sampler = document
        .createAnimationSampler()
        .setInput(input)
        .setOutput(accessor(path === 'rotation' ? 'VEC4' : 'VEC3', Float32Array.from(values)));
      animation
        .addSampler(sampler)
        .addChannel(
          document.createAnimationChannel().setTargetNode(nodes[bone]!).setTargetPath(path).setSampler(sampler),
        );
    };
    if (name === 'walk') channel(0, 'translation', keys.forward);
    channel(HIPS, 'translation', keys.hips);
    keys.turns.forEach((values, bone) => bone > 0 && channel(bone, 'rotation', values));
  }
  return new WebIO().writeBinary(document);
}
