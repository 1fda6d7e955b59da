/** A figure or prop in canonical form: decoded once at import, read by everything after. */
export interface Rig {
  readonly name: string;
  /** Joints and sockets, parents before children. */
  readonly bones: readonly Bone[];
  /** 16 numbers a bone, column by column: rest mesh space to bone space. */
  readonly inverseBind: Float32Array;
  readonly mesh: RigMesh;
  readonly texture: Texture | null;
  readonly clips: readonly Clip[];
}

export interface Bone {
  readonly name: string;
  /** Index of the parent, −1 for a root. */
  readonly parent: number;
  readonly translation: readonly [number, number, number];
  /** Unit quaternion x, y, z, w. */
  readonly rotation: readonly [number, number, number, number];
  readonly scale: readonly [number, number, number];
}

export interface RigMesh {
  /** x, y, z in metres, per vertex. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly uvs: Float32Array;
  /** Linear red, green and blue per vertex; null where the mesh has none. */
  readonly colours: Float32Array | null;
  /** Four bones a vertex, and their weights, which sum to 1. */
  readonly joints: Uint16Array;
  readonly weights: Float32Array;
  /** Three vertices a triangle. */
  readonly indices: Uint32Array;
  /** Its parts, one after another along the indices; a mesh of one part names none. */
  readonly parts?: readonly MeshPart[];
  /** Another shape of the same triangles, that the mesh may be drawn and met in, wholly or in part. */
  readonly otherShape?: MeshShape;
}

/** Where the vertices of a mesh lie and how they are turned in another shape of it. */
export interface MeshShape {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
}

/** A part of a mesh that may have a look of its own. */
export interface MeshPart {
  readonly name: string;
  /** The first index, and how many. */
  readonly start: number;
  readonly count: number;
}

/** The parts of a mesh; one without any is a single part without a name. */
export const partsOf = ({ parts, indices }: Pick<RigMesh, 'parts' | 'indices'>): readonly MeshPart[] =>
  parts ?? [{ name: '', start: 0, count: indices.length }];

export interface Texture {
  readonly width: number;
  readonly height: number;
  /** sRGB with straight alpha, four bytes a pixel, top row first. */
  readonly rgba: Uint8Array;
}

export interface Clip {
  readonly name: string;
  readonly seconds: number;
  readonly tracks: readonly Track[];
}

export interface Track {
  readonly bone: number;
  readonly property: 'translation' | 'rotation' | 'scale';
  readonly stepped: boolean;
  /** Seconds, rising. */
  readonly times: Float32Array;
  /** Three or four numbers a key. */
  readonly values: Float32Array;
}

export const boneNamed = (rig: Rig, name: string): number => rig.bones.findIndex((bone) => bone.name === name);
export const clipNamed = (rig: Rig, name: string): Clip | undefined => rig.clips.find((clip) => clip.name === name);
