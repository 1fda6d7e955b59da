import { WebIO, type Document, type Node, type Primitive } from '@gltf-transform/core';
import type { Bone, Clip, MeshPart, MeshShape, Rig, RigMesh, Texture, Track } from '../geometry/index.ts';
import {
  cross,
  IDENTITY,
  invertAffine,
  subtract,
  transformDirection,
  transformPoint,
  unit,
  type Vec3,
  vec3At,
} from '../maths/index.ts';
import { FormatError } from './errors.ts';
import { mustNotBoast } from './glbGate.ts';
import { readPicture } from './pictures.ts';

/** What one import may hold: beyond it a game would not draw it either, and the stage would stall. */
const MOST_BONES = 256;
const MOST_VERTICES = 400_000;
const SPLINE_KEYS_PER_SECOND = 60;

async function open(bytes: Uint8Array): Promise<Document> {
  const isBinary = new TextDecoder().decode(bytes.subarray(0, 4)) === 'glTF';
  if (!isBinary) throw new FormatError('glb.none', 'this is not a GLB file: export the figure as binary glTF (.glb)');
  mustNotBoast(bytes);
  try {
    return await new WebIO().readBinary(bytes as Uint8Array<ArrayBuffer>);
  } catch (error) {
    const message = (error as Error).message;
    const extension = /extension[^"]*"([^"]+)"/i.exec(message)?.[1];
    if (extension)
      throw new FormatError(
        'glb.extension',
        `this file needs ${extension}, which is not read yet: export it without`,
      );
    throw new FormatError('glb.damaged', `this GLB file is damaged or incomplete: ${message}`);
  }
}

/** Nodes with parents before children. */
function nodesInOrder(document: Document): { node: Node; parent: number }[] {
  const scene = document.getRoot().getDefaultScene() ?? document.getRoot().listScenes()[0];
  if (!scene) throw new FormatError('glb.scene', 'this GLB file has no scene');
  const found: { node: Node; parent: number }[] = [];
  const visit = (node: Node, parent: number) => {
    const index = found.push({ node, parent }) - 1;
    for (const child of node.listChildren()) visit(child, index);
  };
  for (const node of scene.listChildren()) visit(node, -1);
  if (found.length > MOST_BONES)
    throw new FormatError('glb.nodes', `this file has ${found.length} nodes; up to ${MOST_BONES} are read`);
  return found;
}

interface Growing {
  positions: number[];
  normals: number[];
  uvs: number[];
  colours: number[];
  joints: number[];
  weights: number[];
  indices: number[];
  parts: { name: string; start: number; count: number }[];
  /** How far each vertex goes, and its normal turns, toward the other shape. */
  shifts: number[];
  turns: number[];
}

const [TRIANGLES, STRIP, FAN] = [4, 5, 6];

/** The corners of a primitive's triangles, three after one another; null where it has none, as lines and points. */
function cornersOf(primitive: Primitive): ((count: number) => number[]) | null {
  const mode = primitive.getMode();
  const triangles = (count: number) => Array.from({ length: Math.max(0, count - 2) }, (_, n) => n);
  if (mode === TRIANGLES) return (count) => Array.from({ length: count - (count % 3) }, (_, n) => n);
  // Every second triangle of a strip goes round the other way (glTF 2.0, 3.7.2.1).
  if (mode === STRIP) return (count) => triangles(count).flatMap((n) => [n, n + 1 + (n % 2), n + 2 - (n % 2)]);
  if (mode === FAN) return (count) => triangles(count).flatMap((n) => [n + 1, n + 2, 0]);
  return null;
}

function addPrimitive(
  into: Growing,
  primitive: Primitive,
  jointOf: (slot: number) => number,
  place: Float64Array,
): void {
  const corners = cornersOf(primitive);
  if (!corners) return;
  const position = primitive.getAttribute('POSITION');
  if (!position) return;
  const normal = primitive.getAttribute('NORMAL');
  const uv = primitive.getAttribute('TEXCOORD_0');
  const colour = primitive.getAttribute('COLOR_0');
  const joints = primitive.getAttribute('JOINTS_0');
  const weights = primitive.getAttribute('WEIGHTS_0');
  const [target] = primitive.listTargets();
  const shift = target?.getAttribute('POSITION');
  const turn = target?.getAttribute('NORMAL');
  const start = into.positions.length / 3;
  if (start + position.getCount() > MOST_VERTICES)
    throw new FormatError('glb.vertices', `this file has more than ${MOST_VERTICES} vertices: thin it out first`);
  const element: number[] = [];
  for (let i = 0; i < position.getCount(); i++) {
    into.positions.push(...transformPoint(place, 0, vec3At(position.getElement(i, element))));
    into.normals.push(
      ...(normal ? unit(transformDirection(place, 0, vec3At(normal.getElement(i, element)))) : [0, 0, 0]),
    );
    for (const [all, given] of [
      [into.shifts, shift],
      [into.turns, turn],
    ] as const)
      all.push(...(given ? transformDirection(place, 0, vec3At(given.getElement(i, element))) : [0, 0, 0]));
    into.uvs.push(...(uv ? uv.getElement(i, element).slice(0, 2) : [0, 0]));
    into.colours.push(...(colour ? colour.getElement(i, element).slice(0, 3) : [1, 1, 1]));
    if (joints && weights) {
      into.joints.push(...joints.getElement(i, element).slice(0, 4).map(jointOf));
      const four = weights.getElement(i, element).slice(0, 4);
      const sum = four.reduce((a, b) => a + b, 0);
      into.weights.push(...(sum > 0 ? four.map((weight) => weight / sum) : [1, 0, 0, 0]));
    } else {
      into.joints.push(jointOf(0), 0, 0, 0);
      into.weights.push(1, 0, 0, 0);
    }
  }
  const indices = primitive.getIndices();
  const count = indices ? indices.getCount() : position.getCount();
  for (const corner of corners(count)) into.indices.push(start + (indices ? indices.getScalar(corner) : corner));
  addPart(into, primitive.getMaterial()?.getName() ?? '');
}

/** Triangles of one material after another are one part. */
function addPart({ parts, indices }: Growing, name: string): void {
  const last = parts[parts.length - 1];
  const start = last ? last.start + last.count : 0;
  if (last?.name === name) last.count = indices.length - last.start;
  else if (indices.length > start) parts.push({ name, start, count: indices.length - start });
}

/** Normals where a file gives none (three zeros): the mean of a vertex's triangles, each by its area. */
function completeNormals(
  positions: Float32Array,
  given: readonly number[],
  indices: readonly number[],
): Float32Array {
  const normals = Float32Array.from(given);
  const isMissing = (v: number) => normals[v] === 0 && normals[v + 1] === 0 && normals[v + 2] === 0;
  const missing = Array.from({ length: normals.length / 3 }, (_, vertex) => vertex * 3).filter(isMissing);
  if (missing.length === 0) return normals;
  const at = (index: number): Vec3 => [positions[index * 3]!, positions[index * 3 + 1]!, positions[index * 3 + 2]!];
  const sums = new Float64Array(positions.length);
  for (let i = 0; i < indices.length; i += 3) {
    const corners = [indices[i]!, indices[i + 1]!, indices[i + 2]!] as const;
    const [a, b, c] = [at(corners[0]), at(corners[1]), at(corners[2])];
    const doubleArea = cross(subtract(b, a), subtract(c, a));
    for (const corner of corners) for (let axis = 0; axis < 3; axis++) sums[corner * 3 + axis]! += doubleArea[axis]!;
  }
  for (const v of missing) normals.set(unit([sums[v]!, sums[v + 1]!, sums[v + 2]!]), v);
  return normals;
}

function readMesh(nodes: { node: Node; parent: number }[], inverseBind: Float32Array): RigMesh {
  const mesh: Growing = {
    positions: [],
    normals: [],
    uvs: [],
    colours: [],
    joints: [],
    weights: [],
    indices: [],
    parts: [],
    shifts: [],
    turns: [],
  };
  const indexOf = new Map(nodes.map(({ node }, index) => [node, index]));
  nodes.forEach(({ node }) => {
    const skin = node.getSkin();
    const binds = skin?.getInverseBindMatrices();
    skin?.listJoints().forEach((joint, slot) => {
      const bone = indexOf.get(joint);
      if (bone !== undefined && binds) inverseBind.set(binds.getElement(slot, []), bone * 16);
    });
  });
  nodes.forEach(({ node }, index) => {
    const joints = node
      .getSkin()
      ?.listJoints()
      .map((joint) => indexOf.get(joint) ?? 0);
    // A mesh without a skin hangs stiffly on its node, whose bind matrix may belong to a skin.
    const place = joints ? Float64Array.from(IDENTITY) : invertAffine(inverseBind, index * 16);
    for (const primitive of node.getMesh()?.listPrimitives() ?? [])
      addPrimitive(mesh, primitive, (slot) => (joints ? (joints[slot] ?? 0) : index), place);
  });
  if (mesh.indices.length === 0) throw new FormatError('glb.triangles', 'this GLB file has no triangles');
  const positions = Float32Array.from(mesh.positions);
  if (positions.some((value) => !(value - value === 0)))
    throw new FormatError('glb.number', 'this GLB file has a vertex that is nowhere (not a number)');
  if (mesh.indices.some((index) => index >= positions.length / 3))
    throw new FormatError('glb.index', 'this GLB file has a triangle that leads to no vertex');
  const normals = completeNormals(positions, mesh.normals, mesh.indices);
  return {
    positions,
    normals,
    uvs: Float32Array.from(mesh.uvs),
    colours: mesh.colours.some((value) => value !== 1) ? Float32Array.from(mesh.colours) : null,
    joints: Uint16Array.from(mesh.joints),
    weights: Float32Array.from(mesh.weights),
    indices: Uint32Array.from(mesh.indices),
    ...(mesh.parts.length > 1 ? { parts: namedParts(mesh.parts) } : {}),
    ...otherShape(mesh, positions, normals),
  };
}

/** The first morph target of a file, as a shape of its own. */
function otherShape(
  { shifts, turns, indices }: Growing,
  positions: Float32Array,
  normals: Float32Array,
): { otherShape?: MeshShape } {
  if (shifts.every((x) => x === 0)) return {};
  if (shifts.some((value) => !(value - value === 0)))
    throw new FormatError(
      'glb.morph',
      'this GLB file has a morph target with a vertex that is nowhere (not a number)',
    );
  const shifted = positions.map((x, i) => x + shifts[i]!);
  const turned = turns.some((x) => x !== 0)
    ? normals.map((x, i) => x + turns[i]!)
    : completeNormals(shifted, Array(normals.length).fill(0), indices);
  return { otherShape: { positions: shifted, normals: turned } };
}

/** Parts with names that tell them apart. */
const namedParts = (parts: Growing['parts']): MeshPart[] =>
  parts.map((part, n) => ({ ...part, name: name80(part.name, `part ${n + 1}`) }));

function readClips(document: Document, nodes: { node: Node }[]): Clip[] {
  const indexOf = new Map(nodes.map(({ node }, index) => [node, index]));
  return document
    .getRoot()
    .listAnimations()
    .map((animation, number): Clip => {
      let seconds = 0;
      const tracks = animation.listChannels().flatMap((channel): Track[] => {
        const bone = indexOf.get(channel.getTargetNode()!);
        const property = channel.getTargetPath();
        const sampler = channel.getSampler();
        const input = sampler?.getInput()?.getArray();
        const output = sampler?.getOutput();
        if (
          bone === undefined ||
          !sampler ||
          !input?.length ||
          !output ||
          (property !== 'translation' && property !== 'rotation' && property !== 'scale')
        )
          return [];
        const size = property === 'rotation' ? 4 : 3;
        const times = Float32Array.from(input);
        seconds = Math.max(seconds, times[times.length - 1]!);
        const element: number[] = [];
        const values = Array.from({ length: output.getCount() }, (_, i) =>
          output.getElement(i, element).slice(0, size),
        );
        const shared = { bone, property } as const;
        if (sampler.getInterpolation() === 'CUBICSPLINE')
          return [{ ...shared, stepped: false, ...resampledSpline(times, values) }];
        return [
          {
            ...shared,
            stepped: sampler.getInterpolation() === 'STEP',
            times,
            values: Float32Array.from(values.flat()),
          },
        ];
      });
      return { name: animation.getName() || `clip ${number + 1}`, seconds, tracks };
    });
}

/** A cubic spline (in-tangent, value, out-tangent a key) as close linear keys. */
function resampledSpline(times: Float32Array, triples: number[][]): { times: Float32Array; values: Float32Array } {
  const start = times[0]!;
  const end = times[times.length - 1]!;
  const steps = Math.max(1, Math.ceil((end - start) * SPLINE_KEYS_PER_SECOND));
  const keyTimes = Array.from({ length: steps + 1 }, (_, i) => start + ((end - start) * i) / steps);
  const values = keyTimes.map((time) => {
    let i = 0;
    while (i < times.length - 2 && time >= times[i + 1]!) i++;
    if (times.length === 1) return triples[1]!;
    const width = times[i + 1]! - times[i]!;
    const t = (time - times[i]!) / width;
    const [a, out, into, b] = [triples[i * 3 + 1]!, triples[i * 3 + 2]!, triples[i * 3 + 3]!, triples[i * 3 + 4]!];
    return a.map(
      (value, c) =>
        (2 * t * t * t - 3 * t * t + 1) * value +
        (t * t * t - 2 * t * t + t) * width * out[c]! +
        (3 * t * t - 2 * t * t * t) * b[c]! +
        (t * t * t - t * t) * width * into[c]!,
    );
  });
  return { times: Float32Array.from(keyTimes), values: Float32Array.from(values.flat()) };
}

function baseColour(document: Document): Texture | null {
  for (const material of document.getRoot().listMaterials()) {
    const picture = material.getBaseColorTexture()?.getImage();
    if (picture) return readPicture(picture);
  }
  return null;
}

const name80 = (name: string, otherwise: string) => (name || otherwise).slice(0, 80);

/**
 * Imports a figure or a prop from binary glTF 2.0: every node becomes a bone, all triangles one skinned mesh.
 * @throws FormatError with what is wrong and what to do.
 */
export async function importGlb(bytes: Uint8Array, name: string): Promise<Rig> {
  const document = await open(bytes);
  const nodes = nodesInOrder(document);
  const bones = nodes.map(({ node, parent }, index): Bone => {
    const rotation = node.getRotation();
    return {
      name: name80(node.getName(), `bone ${index + 1}`),
      parent,
      translation: node.getTranslation(),
      rotation: rotation,
      scale: node.getScale(),
    };
  });
  const inverseBind = new Float32Array(nodes.length * 16);
  nodes.forEach((_, index) => inverseBind.set(IDENTITY, index * 16));
  return {
    name: name.slice(0, 200),
    bones,
    mesh: readMesh(nodes, inverseBind),
    inverseBind,
    texture: baseColour(document),
    clips: readClips(document, nodes),
  };
}
