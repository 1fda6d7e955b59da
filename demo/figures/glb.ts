import { Document, WebIO } from '@gltf-transform/core';
import { encode } from 'fast-png';
import { subtract, type Vec3 } from '@jinx/core/maths';
import { bodyDistance, normalOf, surfaceNets, type Limb } from './body.ts';
import type { HeldMesh } from './held.ts';
import type { Skeleton } from './joints.ts';
import { paintTexture } from './paint.ts';
import { solve, type Turn } from './pose.ts';
import type { ClipMaker } from './stances.ts';
import { skinWeights, strongestFour } from './weights.ts';

/** All that a figure is made from. Lengths in metres. */
export interface FigurePlan {
  readonly name: string;
  readonly skeleton: Skeleton;
  readonly limbs: readonly Limb[];
  /** How softly limbs grow together. */
  readonly blend: number;
  /** Width of a cell of the mesh. */
  readonly cell: number;
  /** How far it reaches to either side, and how high, at rest. */
  readonly halfWidth: number;
  readonly height: number;
  readonly colour: (rest: Vec3) => Vec3;
  readonly held: readonly HeldMesh[];
  /** Colour of what is held, by its place along the texture's middle column. */
  readonly heldColour: (along: number) => Vec3;
  readonly clips: readonly ClipMaker[];
}

const KEYS_PER_SECOND = 60;

/** Front and back of the body lie side by side in the texture; the column between them is what is held. */
const uvOf = ({ halfWidth, height }: FigurePlan, [x, y]: Vec3, isFront: boolean): [number, number] => [
  isFront ? 0.25 + x / (4 * halfWidth) : 0.75 - x / (4 * halfWidth),
  1 - (y + 0.03) / (height + 0.03),
];

interface Vertices {
  positions: number[];
  normals: number[];
  uvs: number[];
  joints: number[];
  weights: number[];
  indices: number[];
}

function bodyVertices(plan: FigurePlan, out: Vertices): { p: Vec3; uv: [number, number] }[][] {
  const distance = (p: Vec3) => bodyDistance(plan.limbs, plan.blend, p);
  const wide = plan.halfWidth + 0.015;
  const mesh = surfaceNets(distance, [-wide, -0.04, -0.42], [wide, plan.height + 0.02, 0.42], plan.cell);
  const weights = skinWeights(mesh, plan.skeleton);
  const normals = mesh.positions.map((p) => normalOf(distance, p));
  const painted: { p: Vec3; uv: [number, number] }[][] = [];
  const made = new Map<string, number>();
  for (const triangle of mesh.triangles) {
    const isFront = triangle.reduce((sum, i) => sum + normals[i]![2], 0) >= 0;
    painted.push(triangle.map((i) => ({ p: mesh.positions[i]!, uv: uvOf(plan, mesh.positions[i]!, isFront) })));
    for (const i of triangle) {
      const name = `${i}/${isFront}`;
      if (!made.has(name)) {
        made.set(name, out.positions.length / 3);
        out.positions.push(...mesh.positions[i]!);
        out.normals.push(...normals[i]!);
        out.uvs.push(...uvOf(plan, mesh.positions[i]!, isFront));
        const strongest = strongestFour(weights[i]!);
        out.joints.push(...strongest.joints);
        out.weights.push(...strongest.weights);
      }
      out.indices.push(made.get(name)!);
    }
  }
  return painted;
}

/** Things that are held, each stiff on its joint and flatly shaded. */
function heldVertices({ skeleton, held }: FigurePlan, out: Vertices): void {
  for (const { joint, positions, triangles, along } of held)
    for (const triangle of triangles) {
      const [a, b, c] = triangle.map((i) => positions[i]!) as [Vec3, Vec3, Vec3];
      const [u, v] = [subtract(b, a), subtract(c, a)];
      const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
      const size = Math.hypot(...n);
      if (size < 1e-12) continue;
      for (const i of triangle) {
        out.indices.push(out.positions.length / 3);
        out.positions.push(...positions[i]!);
        out.normals.push(...n.map((x) => x / size));
        out.uvs.push(0.5, 1 - along[i]!);
        out.joints.push(skeleton.index(joint), 0, 0, 0);
        out.weights.push(1, 0, 0, 0);
      }
    }
}

/** Keys of one clip: hips and root move, every joint turns. The last key closes onto the first. */
function clipKeys({ at, seconds }: ClipMaker, skeleton: Skeleton) {
  const count = Math.round(seconds * KEYS_PER_SECOND);
  const stances = Array.from({ length: count + 1 }, (_, i) => solve(at(i === count ? 0 : i / count), skeleton));
  const last = solve(at(1), skeleton).forward;
  const turns = skeleton.joints.map((_, bone) => {
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

/** Makes a figure as binary glTF 2.0. */
export async function makeFigure(plan: FigurePlan): Promise<Uint8Array> {
  const { skeleton, name } = plan;
  const { joints } = skeleton;
  const hips = skeleton.index('hips');
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene(name);
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

  const nodes = joints.map((joint) => {
    const from = joint.parent === null ? ([0, 0, 0] as const) : skeleton.joint(joint.parent).at;
    return document.createNode(joint.name).setTranslation([...subtract(joint.at, from)] as [number, number, number]);
  });
  joints.forEach(({ parent }, index) =>
    parent === null ? scene.addChild(nodes[index]!) : nodes[skeleton.index(parent)]!.addChild(nodes[index]!),
  );

  const vertices: Vertices = { positions: [], normals: [], uvs: [], joints: [], weights: [], indices: [] };
  const painted = bodyVertices(plan, vertices);
  heldVertices(plan, vertices);
  const texture = paintTexture(painted, plan.colour, plan.heldColour);
  const png = encode({ width: texture.width, height: texture.height, data: texture.rgba, channels: 4 });
  const material = document
    .createMaterial(name)
    .setBaseColorTexture(
      document
        .createTexture(name)
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
  const binds = joints.flatMap(({ at }) => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, -at[0], -at[1], -at[2], 1]);
  const skin = document
    .createSkin(name)
    .setSkeleton(nodes[0]!)
    .setInverseBindMatrices(accessor('MAT4', Float32Array.from(binds)));
  nodes.forEach((node) => skin.addJoint(node));
  scene.addChild(
    document.createNode(`${name} body`).setMesh(document.createMesh(name).addPrimitive(primitive)).setSkin(skin),
  );

  for (const clip of plan.clips) {
    const keys = clipKeys(clip, skeleton);
    const input = accessor('SCALAR', Float32Array.from(keys.times));
    const animation = document.createAnimation(clip.name);
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
    if (clip.name === 'walk') channel(0, 'translation', keys.forward);
    channel(hips, 'translation', keys.hips);
    keys.turns.forEach((values, bone) => bone > 0 && channel(bone, 'rotation', values));
  }
  return new WebIO().writeBinary(document);
}
