import { Document, WebIO } from '@gltf-transform/core';
import type { PropMesh } from './sheet.ts';

/** A prop as binary glTF 2.0: one mesh on one node, without a material of its own. */
export async function makeProp(
  name: string,
  { positions, normals, uvs, indices, otherShape }: PropMesh,
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'SCALAR' | 'VEC2' | 'VEC3', array: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setIndices(accessor('SCALAR', Uint32Array.from(indices)))
    .setAttribute('POSITION', accessor('VEC3', Float32Array.from(positions)))
    .setAttribute('NORMAL', accessor('VEC3', Float32Array.from(normals)))
    .setAttribute('TEXCOORD_0', accessor('VEC2', Float32Array.from(uvs)));
  if (otherShape) {
    const shifts = Float32Array.from(otherShape, (x, i) => x - positions[i]!);
    primitive.addTarget(document.createPrimitiveTarget('other').setAttribute('POSITION', accessor('VEC3', shifts)));
  }
  const node = document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
  const scene = document.createScene(name).addChild(node);
  document.getRoot().setDefaultScene(scene);
  return new WebIO().writeBinary(document);
}
