import * as z from '../zod/index.ts';
import type { Rig } from '../geometry/index.ts';
import { readContainer, writeContainer, type NamedArrays } from './container.ts';
import { FormatError } from './errors.ts';

const triple = z.tuple([z.number(), z.number(), z.number()]);
const dataSchema = z.strictObject({
  name: z.string().max(200),
  bones: z
    .array(
      z.strictObject({
        name: z.string().max(80),
        parent: z.number().int().min(-1),
        translation: triple,
        rotation: z.tuple([z.number(), z.number(), z.number(), z.number()]),
        scale: triple,
      }),
    )
    .min(1)
    .max(256),
  parts: z
    .array(
      z.strictObject({ name: z.string().max(80), start: z.number().int().min(0), count: z.number().int().min(3) }),
    )
    .max(64)
    .optional(),
  texture: z
    .strictObject({ width: z.number().int().min(1).max(8192), height: z.number().int().min(1).max(8192) })
    .nullable(),
  clips: z
    .array(
      z.strictObject({
        name: z.string().max(80),
        seconds: z.number().min(0).max(3600),
        tracks: z
          .array(
            z.strictObject({
              bone: z.number().int().min(0),
              property: z.enum(['translation', 'rotation', 'scale']),
              stepped: z.boolean(),
            }),
          )
          .max(1024),
      }),
    )
    .max(256),
});

/** Canonical bytes of a rig: equal rigs give equal bytes, so that their hash names them. */
export function writeRig(rig: Rig): Uint8Array<ArrayBuffer> {
  const { colours, parts, otherShape, ...mesh } = rig.mesh;
  const arrays: NamedArrays = { inverseBind: rig.inverseBind, ...mesh };
  if (colours) arrays['colours'] = colours;
  if (otherShape) {
    arrays['otherPositions'] = otherShape.positions;
    arrays['otherNormals'] = otherShape.normals;
  }
  if (rig.texture) arrays['texture'] = rig.texture.rgba;
  rig.clips.forEach((clip, c) =>
    clip.tracks.forEach((track, t) => {
      arrays[`clip${c}.${t}.times`] = track.times;
      arrays[`clip${c}.${t}.values`] = track.values;
    }),
  );
  const data = {
    ...(parts ? { parts } : {}),
    name: rig.name,
    bones: rig.bones,
    texture: rig.texture && { width: rig.texture.width, height: rig.texture.height },
    clips: rig.clips.map(({ name, seconds, tracks }) => ({
      name,
      seconds,
      tracks: tracks.map(({ bone, property, stepped }) => ({ bone, property, stepped })),
    })),
  };
  return writeContainer('rig', data, arrays);
}

/** Reads canonical bytes back, checking every index. @throws FormatError when they do not hold a whole rig. */
export function readRig(bytes: Uint8Array): Rig {
  const { kind, data, arrays } = readContainer(bytes);
  const parsed = dataSchema.safeParse(data);
  if (kind !== 'rig' || !parsed.success) throw new FormatError('rig.none', 'this asset is not a rig');
  const damaged = (code: string, what: string) => new FormatError(`rig.${code}`, `this rig is damaged: ${what}`);
  const f32 = (name: string, length?: number): Float32Array => {
    const array = arrays[name];
    if (!(array instanceof Float32Array) || (length !== undefined && array.length !== length))
      throw damaged('array', `${name} is missing or of the wrong length`);
    if (array.some((value) => !(value - value === 0)))
      throw damaged('number', `${name} holds something that is not a number`);
    return array;
  };
  const { bones, texture, clips, name, parts } = parsed.data;
  bones.forEach((bone, index) => {
    if (bone.parent >= index) throw damaged('parent', `bone "${bone.name}" stands before its parent`);
  });
  const positions = f32('positions');
  const vertices = positions.length / 3;
  const { indices, joints } = arrays;
  if (vertices !== Math.floor(vertices)) throw damaged('vertex', 'a vertex has three numbers');
  if (!(indices instanceof Uint32Array) || indices.length % 3 !== 0 || indices.some((index) => index >= vertices))
    throw damaged('triangle', 'a triangle leads to no vertex');
  if (
    !(joints instanceof Uint16Array) ||
    joints.length !== vertices * 4 ||
    joints.some((joint) => joint >= bones.length)
  )
    throw damaged('bone', 'a vertex leads to no bone');
  if (parts?.some(({ start, count }) => start % 3 !== 0 || count % 3 !== 0 || start + count > indices.length))
    throw damaged('part', 'a part has triangles that are not there');
  const rgba = arrays['texture'];
  if (texture && (!(rgba instanceof Uint8Array) || rgba.length !== texture.width * texture.height * 4))
    throw damaged('texture', 'its texture is incomplete');
  return {
    name,
    bones,
    inverseBind: f32('inverseBind', bones.length * 16),
    mesh: {
      positions,
      normals: f32('normals', vertices * 3),
      uvs: f32('uvs', vertices * 2),
      colours: arrays['colours'] ? f32('colours', vertices * 3) : null,
      joints,
      weights: f32('weights', vertices * 4),
      indices,
      ...(parts ? { parts } : {}),
      ...(arrays['otherPositions']
        ? {
            otherShape: {
              positions: f32('otherPositions', vertices * 3),
              normals: f32('otherNormals', vertices * 3),
            },
          }
        : {}),
    },
    texture: texture && { ...texture, rgba: rgba as Uint8Array },
    clips: clips.map((clip, c) => ({
      name: clip.name,
      seconds: clip.seconds,
      tracks: clip.tracks.map((track, t) => {
        if (track.bone >= bones.length) throw damaged('clipBone', `clip "${clip.name}" moves no bone`);
        const times = f32(`clip${c}.${t}.times`);
        if (times.length === 0) throw damaged('clipTrack', `clip "${clip.name}" has an empty track`);
        return {
          ...track,
          times,
          values: f32(`clip${c}.${t}.values`, times.length * (track.property === 'rotation' ? 4 : 3)),
        };
      }),
    })),
  };
}
