import { Document, WebIO } from '@gltf-transform/core';
import { encode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { newThing } from '../document/index.ts';
import { clipNamed, FigureTrack, skinMatricesInto, skinnedVertex } from '../geometry/index.ts';
import { importGlb, readRig, writeRig } from './index.ts';

/** A triangle of 1 m on its own node, with whatever else a test adds. */
async function glb(
  shape: (document: Document, made: ReturnType<typeof parts>) => void = () => undefined,
): Promise<Uint8Array> {
  const document = new Document();
  shape(document, parts(document));
  return new WebIO().writeBinary(document);
}

function parts(document: Document) {
  const buffer = document.createBuffer();
  const accessor = (type: 'SCALAR' | 'VEC3' | 'VEC4' | 'VEC2' | 'MAT4', array: number[]) =>
    document.createAccessor().setType(type).setArray(Float32Array.from(array)).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', [0, 0, 0, 1, 0, 0, 0, 1, 0]))
    .setAttribute('NORMAL', accessor('VEC3', [0, 0, 1, 0, 0, 1, 0, 0, 1]));
  const node = document
    .createNode('leaf')
    .setTranslation([0, 2, 0])
    .setMesh(document.createMesh().addPrimitive(primitive));
  const root = document.createNode('stem').setTranslation([1, 0, 0]).addChild(node);
  const scene = document.createScene().addChild(root);
  document.getRoot().setDefaultScene(scene);
  const animate = (
    path: 'translation' | 'rotation',
    interpolation: 'LINEAR' | 'STEP' | 'CUBICSPLINE',
    times: number[],
    values: number[],
    target = node,
  ) => {
    const sampler = document
      .createAnimationSampler()
      .setInterpolation(interpolation)
      .setInput(accessor('SCALAR', times))
      .setOutput(accessor(path === 'rotation' ? 'VEC4' : 'VEC3', values));
    document
      .createAnimation('wave')
      .addSampler(sampler)
      .addChannel(document.createAnimationChannel().setTargetNode(target).setTargetPath(path).setSampler(sampler));
  };
  return { accessor, primitive, node, root, scene, animate };
}

/** Where the first vertex stands in the world at a time of a clip. */
function firstVertex(rig: Awaited<ReturnType<typeof importGlb>>, clip: string, time: number) {
  const world = new Float64Array(rig.bones.length * 16);
  new FigureTrack(rig, { ...newThing('Thing', ''), clip }).worldInto(time, world);
  const skin = new Float32Array(rig.bones.length * 16);
  skinMatricesInto(rig, world, skin);
  return skinnedVertex(rig, skin, 0).map((x) => Number(x.toFixed(4)));
}

describe('triangles of a GLB', () => {
  const SQUARE = [0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0];
  const read = async (mode: number, positions: number[], indices: number[] | null) => {
    const bytes = await glb((document, { accessor, primitive }) => {
      primitive
        .setMode(mode as 4)
        .setAttribute('POSITION', accessor('VEC3', positions))
        .setAttribute('NORMAL', null);
      if (indices)
        primitive.setIndices(
          document
            .createAccessor()
            .setType('SCALAR')
            .setArray(Uint16Array.from(indices))
            .setBuffer(document.getRoot().listBuffers()[0]!),
        );
    });
    const { mesh } = await importGlb(bytes, 'square.glb');
    return { indices: [...mesh.indices], normals: [...mesh.normals] };
  };

  it.each([
    ['a strip', 5, SQUARE, null, [0, 1, 2, 1, 3, 2]],
    ['an indexed strip', 5, SQUARE, [1, 3, 0, 2], [1, 3, 0, 3, 2, 0]],
    ['a fan', 6, [0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], null, [1, 2, 0, 2, 3, 0]],
    ['triangles', 4, SQUARE.slice(0, 9), null, [0, 1, 2]],
  ])('of %s are read, all facing one way', async (_, mode, positions, indices, expected) => {
    const found = await read(mode, positions, indices);
    expect(found.indices).toEqual(expected);
    // Made of the triangles: turned the other way they would cancel out.
    for (let n = 2; n < found.normals.length; n += 3) expect(Math.abs(found.normals[n]!)).toBeCloseTo(1, 5);
    expect(new Set(found.normals.filter((_, n) => n % 3 === 2).map(Math.sign)).size).toBe(1);
  });
});

describe('a GLB', () => {
  it('makes a bone of every node, and hangs a stiff mesh on its own', async () => {
    const rig = await importGlb(await glb(), 'leaf');
    expect(rig.bones.map(({ name, parent }) => [name, parent])).toEqual([
      ['stem', -1],
      ['leaf', 0],
    ]);
    expect(firstVertex(rig, '', 0)).toEqual([1, 2, 0]);
    expect(readRig(writeRig(rig))).toEqual(rig);
  });

  it('brings its first morph target along as another shape', async () => {
    const rig = await importGlb(
      await glb((document, { primitive, accessor }) => {
        const target = document.createPrimitiveTarget('other');
        target.setAttribute('POSITION', accessor('VEC3', [0, 0, 0, 1, 0, 0, 0, 0, 0.5]));
        primitive.addTarget(target);
      }),
      'leaf',
    );
    const { positions, otherShape } = rig.mesh;
    expect([...otherShape!.positions]).toEqual([0, 0, 0, 2, 0, 0, 0, 1, 0.5]);
    expect([...positions]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
    // Its normals are its own: the triangle leans.
    expect(otherShape!.normals[1]).toBeLessThan(-0.3);
    expect(readRig(writeRig(rig))).toEqual(rig);
    expect('otherShape' in (await importGlb(await glb(), 'leaf')).mesh).toBe(false);
  });

  it('refuses a morph target that is nowhere', async () => {
    const broken = await glb((document, { primitive, accessor }) => {
      const target = document.createPrimitiveTarget('other');
      primitive.addTarget(target.setAttribute('POSITION', accessor('VEC3', [0, 0, 0, NaN, 0, 0, 0, 0, 0])));
    });
    await expect(importGlb(broken, 'leaf')).rejects.toThrow(/morph target with a vertex that is nowhere/);
  });

  it('is given normals where it has none, each vertex the mean of its triangles by area', async () => {
    const rig = await importGlb(
      await glb((document, { primitive, accessor }) => {
        // A fold along the first edge: one triangle in the plane z = 0, one of twice its area in y = 0.
        primitive
          .setAttribute('POSITION', accessor('VEC3', [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 2]))
          .setAttribute('NORMAL', null)
          .setIndices(
            document
              .createAccessor()
              .setType('SCALAR')
              .setArray(Uint16Array.of(0, 1, 2, 0, 3, 1))
              .setBuffer(document.getRoot().listBuffers()[0]!),
          );
      }),
      'fold',
    );
    const normal = (vertex: number) => [...rig.mesh.normals.slice(vertex * 3, vertex * 3 + 3)];
    expect(normal(2)).toEqual([0, 0, 1]);
    expect(normal(3)).toEqual([0, 1, 0]);
    expect(normal(0)[1]! / normal(0)[2]!).toBeCloseTo(2, 5);
    expect(Math.hypot(...normal(0))).toBeCloseTo(1, 5);
  });

  it('keeps a skin’s weights, made to sum to one', async () => {
    const rig = await importGlb(
      await glb((document, { primitive, accessor, node, root }) => {
        primitive.setAttribute(
          'JOINTS_0',
          document
            .createAccessor()
            .setType('VEC4')
            .setArray(Uint16Array.from([0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0]))
            .setBuffer(document.getRoot().listBuffers()[0]!),
        );
        primitive.setAttribute('WEIGHTS_0', accessor('VEC4', [3, 1, 0, 0, 1, 1, 0, 0, 0, 0, 0, 0]));
        const tip = document.createNode('tip');
        root.addChild(tip);
        node.setSkin(
          document
            .createSkin()
            .addJoint(root)
            .addJoint(tip)
            .setInverseBindMatrices(
              accessor(
                'MAT4',
                [...Array(2)].flatMap(() => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, -1, 0, 0, 1]),
              ),
            ),
        );
      }),
      'skin',
    );
    expect([...rig.mesh.weights]).toEqual([0.75, 0.25, 0, 0, 0.5, 0.5, 0, 0, 1, 0, 0, 0]);
    expect([...rig.mesh.joints.slice(0, 2)]).toEqual([0, 2]);
    expect(rig.inverseBind[12]).toBe(-1);
  });

  it('plays linear, stepped and spline keys', async () => {
    const values = [0, 0, 0, 4, 0, 0];
    const linear = await importGlb(
      await glb((_document, { animate }) => animate('translation', 'LINEAR', [0, 1], values)),
      'x',
    );
    expect(clipNamed(linear, 'wave')!.seconds).toBe(1);
    expect(firstVertex(linear, 'wave', 0.5)).toEqual([3, 0, 0]);
    const stepped = await importGlb(
      await glb((_document, { animate }) => animate('translation', 'STEP', [0, 1], values)),
      'x',
    );
    expect(firstVertex(stepped, 'wave', 0.5)).toEqual([1, 0, 0]);
    const flat = [0, 0, 0];
    const spline = await importGlb(
      await glb((_document, { animate }) =>
        animate('translation', 'CUBICSPLINE', [0, 1], [...flat, 0, 0, 0, ...flat, ...flat, 4, 0, 0, ...flat]),
      ),
      'x',
    );
    expect(firstVertex(spline, 'wave', 0.5)[0]).toBeCloseTo(3, 3);
    expect(firstVertex(spline, 'wave', 0.25)[0]).toBeCloseTo(1 + 4 * (3 * 0.0625 - 2 * 0.015625), 2);
  });

  it('keeps its base colour, decoded', async () => {
    const rig = await importGlb(
      await glb((document, { primitive }) => {
        const image = encode({ width: 2, height: 1, channels: 3, data: Uint8Array.from([255, 0, 0, 0, 255, 0]) });
        primitive.setMaterial(
          document.createMaterial().setBaseColorTexture(
            document
              .createTexture()
              .setImage(image as Uint8Array<ArrayBuffer>)
              .setMimeType('image/png'),
          ),
        );
      }),
      'x',
    );
    expect([...rig.texture!.rgba]).toEqual([255, 0, 0, 255, 0, 255, 0, 255]);
  });

  it.each<[string, (document: Document, made: ReturnType<typeof parts>) => void, RegExp]>([
    ['no triangles', (_document, { node }) => node.setMesh(null), /no triangles/],
    [
      'a vertex that is nowhere',
      (_document, { primitive, accessor }) =>
        primitive.setAttribute('POSITION', accessor('VEC3', [0, 0, 0, NaN, 0, 0, 0, 1, 0])),
      /nowhere/,
    ],
    [
      'too many nodes',
      (document, { root }) => [...Array(300)].forEach((_, i) => root.addChild(document.createNode(`n${i}`))),
      /302 nodes; up to 256/,
    ],
    [
      'a picture of a kind that is not read',
      (document, { primitive }) =>
        primitive.setMaterial(
          document.createMaterial().setBaseColorTexture(
            document
              .createTexture()
              .setImage(new Uint8Array([1, 2, 3]))
              .setMimeType('image/webp'),
          ),
        ),
      /PNG and JPEG/,
    ],
  ])('with %s is refused with a sentence', async (_name, spoil, sentence) => {
    await expect(importGlb(await glb(spoil), 'x')).rejects.toThrow(sentence);
  });
});
