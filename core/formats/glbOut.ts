import {
  Document,
  WebIO,
  type Accessor,
  type Buffer,
  type Material,
  type Mesh,
  type Node,
  type Scene,
} from '@gltf-transform/core';
import { encode } from 'fast-png';
import { partsOf, type Clip, type MeshPart, type Rig, type RigMesh, type Track } from '../geometry/index.ts';
import { IDENTITY } from '../maths/index.ts';

type Numbers = Float32Array | Uint16Array | Uint32Array;
type Kind = 'SCALAR' | 'VEC2' | 'VEC3' | 'VEC4' | 'MAT4';

/** How far from 1 the length of a normal or a rotation may be in glTF. */
const UNIT_TOLERANCE = 1e-4;

/** Writes what a rig holds into one glTF document. */
class GlbWriter {
  readonly document = new Document();
  readonly #buffer: Buffer = this.document.createBuffer();

  accessor(type: Kind, array: Numbers): Accessor {
    return this.document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(this.#buffer);
  }

  /** A material a part, all with the texture. */
  materials({ mesh, texture, name }: Rig): Material[] {
    const image =
      texture &&
      this.document
        .createTexture(name)
        .setImage(
          encode({
            width: texture.width,
            height: texture.height,
            channels: 4,
            data: texture.rgba,
          }) as Uint8Array<ArrayBuffer>,
        )
        .setMimeType('image/png');
    return partsOf(mesh).map((part) =>
      this.document
        .createMaterial(part.name || name)
        .setBaseColorTexture(image)
        .setRoughnessFactor(1)
        .setMetallicFactor(0),
    );
  }

  /** @param slots of bones in the skin; null where the mesh hangs stiffly. */
  mesh(rig: Rig, slots: Int32Array | null): Mesh {
    const made = this.document.createMesh(rig.name);
    const materials = this.materials(rig);
    partsOf(rig.mesh).forEach((part, n) => {
      const own = verticesOf(rig.mesh, part);
      const pick = (from: Float32Array, size: number) => picked(from, own.from, size);
      const { positions, normals, uvs, colours, otherShape } = rig.mesh;
      const primitive = this.document
        .createPrimitive()
        .setMaterial(materials[n]!)
        .setIndices(this.accessor('SCALAR', own.indices))
        .setAttribute('POSITION', this.accessor('VEC3', pick(positions, 3)))
        .setAttribute('NORMAL', this.accessor('VEC3', units(pick(normals, 3), 3)))
        .setAttribute('TEXCOORD_0', this.accessor('VEC2', pick(uvs, 2)));
      if (colours)
        primitive.setAttribute(
          'COLOR_0',
          this.accessor(
            'VEC3',
            pick(colours, 3).map((x) => Math.min(1, Math.max(0, x))),
          ),
        );
      if (slots) {
        const { joints, weights } = jointsOf(rig.mesh, own.from, slots);
        primitive.setAttribute('JOINTS_0', this.accessor('VEC4', joints));
        primitive.setAttribute('WEIGHTS_0', this.accessor('VEC4', weights));
      }
      if (otherShape) {
        const shift = (to: Float32Array, from: Float32Array) =>
          pick(
            to.map((x, i) => x - from[i]!),
            3,
          );
        primitive.addTarget(
          this.document
            .createPrimitiveTarget('other shape')
            .setAttribute('POSITION', this.accessor('VEC3', shift(otherShape.positions, positions)))
            .setAttribute('NORMAL', this.accessor('VEC3', shift(otherShape.normals, normals))),
        );
      }
      made.addPrimitive(primitive);
    });
    if (rig.mesh.otherShape) made.setWeights([0]);
    return made;
  }

  clip(clip: Clip, nodes: readonly Node[]): void {
    const tracks = clip.tracks.filter(isPlayable);
    if (tracks.length === 0) return;
    const animation = this.document.createAnimation(clip.name);
    for (const { bone, property, stepped, times, values } of tracks) {
      const isTurn = property === 'rotation';
      const sampler = this.document
        .createAnimationSampler()
        .setInterpolation(stepped ? 'STEP' : 'LINEAR')
        .setInput(this.accessor('SCALAR', times))
        .setOutput(this.accessor(isTurn ? 'VEC4' : 'VEC3', isTurn ? units(values, 4) : values));
      const channel = this.document.createAnimationChannel();
      animation
        .addSampler(sampler)
        .addChannel(channel.setTargetNode(nodes[bone]!).setTargetPath(property).setSampler(sampler));
    }
  }
}

/** The vertices of a part, in order, and its indices among them; a mesh of one part keeps all. */
function verticesOf(mesh: RigMesh, { start, count }: MeshPart): { from: Uint32Array; indices: Uint32Array } {
  const indices = mesh.indices.subarray(start, start + count);
  if (!mesh.parts) return { from: Uint32Array.from({ length: mesh.positions.length / 3 }, (_, n) => n), indices };
  const from = Uint32Array.from(new Set(indices)).sort();
  const at = new Map([...from].map((vertex, n) => [vertex, n]));
  return { from, indices: indices.map((vertex) => at.get(vertex)!) };
}

function picked(from: Float32Array, vertices: Uint32Array, size: number): Float32Array {
  const out = new Float32Array(vertices.length * size);
  vertices.forEach((vertex, n) => out.set(from.subarray(vertex * size, (vertex + 1) * size), n * size));
  return out;
}

/** Vectors of length 1, as glTF wants them; one without any length stands up. */
function units(vectors: Float32Array, size: 3 | 4): Float32Array {
  const out = vectors.slice();
  for (let at = 0; at < out.length; at += size) {
    let square = 0;
    for (let axis = 0; axis < size; axis++) square += out[at + axis]! * out[at + axis]!;
    const length = Math.sqrt(square);
    if (Math.abs(length - 1) <= UNIT_TOLERANCE) continue;
    for (let axis = 0; axis < size; axis++)
      out[at + axis] = length > 1e-12 ? out[at + axis]! / length : axis === (size === 3 ? 1 : 3) ? 1 : 0;
  }
  return out;
}

/** Slots of bones and weights of vertices: glTF wants no bone twice, and slot 0 where there is no weight. */
function jointsOf({ joints, weights }: RigMesh, vertices: Uint32Array, slots: Int32Array) {
  const out = { joints: new Uint16Array(vertices.length * 4), weights: new Float32Array(vertices.length * 4) };
  vertices.forEach((vertex, n) => {
    const four = new Map<number, number>();
    for (let at = vertex * 4; at < vertex * 4 + 4; at++)
      if (weights[at]! > 0) four.set(joints[at]!, (four.get(joints[at]!) ?? 0) + weights[at]!);
    [...four].forEach(([joint, weight], slot) => {
      out.joints[n * 4 + slot] = slots[joint]!;
      out.weights[n * 4 + slot] = weight;
    });
  });
  return out;
}

/** Whether glTF may have a track: its times rise from 0 or later. */
const isPlayable = ({ times }: Track): boolean =>
  times[0]! >= 0 && times.every((time, n) => n === 0 || time > times[n - 1]!);

/** The one bone that carries the whole mesh as it stands; −1 where it is skinned. */
function stiffBone({ mesh, inverseBind }: Rig): number {
  const bone = mesh.joints[0] ?? 0;
  const isStiff = mesh.weights.every((weight, at) =>
    at % 4 === 0 ? weight === 1 && mesh.joints[at] === bone : weight === 0,
  );
  return isStiff && IDENTITY.every((x, n) => inverseBind[bone * 16 + n] === x) ? bone : -1;
}

/** The root that each bone hangs on, or is. */
function rootsOf({ bones }: Rig): number[] {
  const roots: number[] = [];
  bones.forEach(({ parent }, bone) => roots.push(parent === -1 ? bone : roots[parent]!));
  return roots;
}

/** What a skin is made of: its bones, and the root that is only there to carry the mesh; −1 where there is none. */
function skinOf(rig: Rig): { joints: number[]; carrier: number; hasOneRoot: boolean } {
  const roots = rootsOf(rig);
  const moving = new Set(rig.mesh.joints.filter((_, at) => rig.mesh.weights[at]! > 0).map((bone) => roots[bone]!));
  const joints = rig.bones.flatMap((_, bone) => (moving.has(roots[bone]!) ? [bone] : []));
  const carrier = rig.bones.findIndex(
    ({ parent }, bone) => parent === -1 && !moving.has(bone) && !rig.bones.some((other) => other.parent === bone),
  );
  return { joints, carrier, hasOneRoot: moving.size === 1 };
}

function addSkinned(writer: GlbWriter, rig: Rig, nodes: readonly Node[], scene: Scene): void {
  const { document } = writer;
  const { joints, carrier, hasOneRoot } = skinOf(rig);
  const slots = Int32Array.from(rig.bones, (_, bone) => Math.max(0, joints.indexOf(bone)));
  const binds = picked(rig.inverseBind, Uint32Array.from(joints), 16);
  const skin = document.createSkin(rig.name).setInverseBindMatrices(writer.accessor('MAT4', binds));
  for (const bone of joints) skin.addJoint(nodes[bone]!);
  // glTF wants the bones of a skin under one node.
  if (!hasOneRoot) {
    const common = document.createNode(rig.name);
    for (const node of scene.listChildren()) common.addChild(node);
    scene.addChild(common);
  }
  const holder = nodes[carrier] ?? document.createNode(`${rig.name} mesh`);
  if (carrier === -1) scene.addChild(holder);
  holder.setMesh(writer.mesh(rig, slots)).setSkin(skin);
}

/**
 * Writes a rig as binary glTF 2.0: each bone a node, the mesh skinned to them (or hung on its one bone), a material and a
 * primitive for each part, the other shape as a morph target, clips as animations. A clip of which nothing moves, and a
 * track whose times do not rise, cannot stand in glTF and are left out.
 */
export async function writeGlb(rig: Rig): Promise<Uint8Array> {
  const writer = new GlbWriter();
  const { document } = writer;
  const scene = document.createScene(rig.name);
  document.getRoot().setDefaultScene(scene);
  const nodes = rig.bones.map(({ name, translation, rotation, scale }) =>
    document
      .createNode(name)
      .setTranslation([...translation])
      .setRotation([...units(Float32Array.from(rotation), 4)] as [number, number, number, number])
      .setScale([...scale]),
  );
  rig.bones.forEach(({ parent }, n) => (parent === -1 ? scene : nodes[parent]!).addChild(nodes[n]!));
  const stiff = stiffBone(rig);
  if (stiff === -1) addSkinned(writer, rig, nodes, scene);
  else nodes[stiff]!.setMesh(writer.mesh(rig, null));
  for (const clip of rig.clips) writer.clip(clip, nodes);
  return new WebIO().writeBinary(document);
}
