import { MOST_SHARED, OWN_WORDS } from '../looks/plan.ts';

export { MOST_SHARED, OWN_WORDS };

/**
 * A frame: all that is needed to draw the time between two steps. 32-bit words:
 *
 * | from            | what                                                                                  |
 * | 0               | header: see HEADER_*                                                                  |
 * | HEADER          | 20 words a layer (MOST_LAYERS of them): see LAYER_*                                    |
 * | BONES           | skin matrices of all things at the start of the step, 16 f32 a bone, then at its end  |
 * | FRONTS          | 44 words a release front (MOST_FRONTS of them), by id: see FRONT_*                      |
 * | SHARED          | MOST_SHARED f32 a layer: numbers of its look that are the same for all its particles  |
 * | RECORDS         | 16 words a particle, layer after layer: see RECORD_*                                  |
 * | then            | OWN_WORDS f32 a particle, in the same order: numbers of looks that differ; a layer    |
 * |                 | uses the first LAYER_OWN of each, next to one another                                 |
 * | then            | 36 words a joint of a ribbon, layer after layer: see JOINT_*                          |
 */
export const HEADER = 16;
export const MOST_LAYERS = 128;
export const LAYER_WORDS = 20;
export const MOST_BONES = 512;
export const BONES = HEADER + MOST_LAYERS * LAYER_WORDS;
export const MOST_FRONTS = 16;
export const FRONT_WORDS = 44;
export const FRONTS = BONES + MOST_BONES * 32;
export const SHARED = FRONTS + MOST_FRONTS * FRONT_WORDS;
export const RECORDS = SHARED + MOST_LAYERS * MOST_SHARED;
export const RECORD_WORDS = 16;

export const HEADER_STEP = 0;
export const HEADER_LAYERS = 1;
export const HEADER_BONES = 2;
export const HEADER_PARTICLES = 3;
export const HEADER_EXACT = 4;
export const HEADER_RATE = 5;
export const HEADER_JOINTS = 6;
/** The number of the last edit that is in it, as whoever steps the world counts them. */
export const HEADER_EDIT = 7;

export const LAYER_SALT = 0;
export const LAYER_START = 1;
export const LAYER_COUNT = 2;
export const LAYER_BORN = 3;
export const LAYER_REFUSED = 4;
export const LAYER_DEAD = 5;
export const LAYER_MICROSECONDS = 6;
export const LAYER_JOINT_START = 7;
export const LAYER_JOINT_COUNT = 8;
/** Which plan its look's numbers are written by (looks/plan.ts), and how many words each particle has of its own. */
export const LAYER_PLAN = 9;
export const LAYER_OWN = 10;
/** How its source is turned at the start and at the end of the step: two quaternions, for what stands as it is turned. */
export const LAYER_TURNS = 12;

/** The furthest its border has come by the start and the end of the step; metres and size of its rags. */
export const FRONT_BORDERS = 0;
export const FRONT_NOISE = 2;
/** Width, height and depth of a box at a border of 0. */
export const FRONT_SIZE = 4;
/** 0 a sphere, 1 a box, 2 a plane; the seed of its rags, an integer. */
export const FRONT_KIND = 7;
export const FRONT_SEED = 8;
/** Where it stands at the start and the end of the step, 16 numbers each. */
export const FRONT_FROM = 9;
export const FRONT_TO = 25;

/** Words of a particle's record. From and to: drawn on the straight line between, from the instant of birth on. */
export const RECORD_FROM = 0;
export const RECORD_BIRTH = 3;
export const RECORD_TO = 4;
export const RECORD_ANGLE = 7;
/** Linear colour times intensity. */
export const RECORD_COLOUR = 8;
export const RECORD_OPACITY = 11;
export const RECORD_SIZE = 12;
export const RECORD_AGE = 13;
/** The upper 24 bits of the particle's key, as a number: what the stage draws its lots with. */
export const RECORD_LOT = 14;
export const RECORD_TURNED = 15;

/**
 * Words of a joint of a ribbon. From and to: it is drawn on the straight line between, and arrives at a share of the step.
 */
export const JOINT_FROM = 0;
export const JOINT_ARRIVES = 3;
export const JOINT_TO = 4;
/** Metres along the ribbon, anchored: the same for as long as the place is there. */
export const JOINT_METRES = 7;
/** Linear colour times intensity. */
export const JOINT_COLOUR = 8;
export const JOINT_OPACITY = 11;
/** Half the width, metres. */
export const JOINT_WIDTH = 12;
export const JOINT_AGE = 13;
/** Share of the way from the tail to the head. */
export const JOINT_ALONG = 14;
/** 1 where SIDE is how the ribbon lies, 0 where it turns to the camera. */
export const JOINT_IS_FIXED = 15;
/** Directions of length 1: TANGENT along the ribbon, SIDE across it as it is carried along without twisting. */
export const JOINT_TANGENT = 16;
/** 1 at the last joint of a ribbon, else 0: nothing is drawn from it to the next. */
export const JOINT_ENDS = 19;
export const JOINT_SIDE = 20;
/** The lot of its particle, as of RECORD_LOT. */
export const JOINT_LOT = 23;
/** Toward the inside of the curve; across s it may be no wider than 1 / (s · BEND). */
export const JOINT_BEND = 24;
/** Metres from end to end of its ribbon. */
export const JOINT_LENGTH = 27;
/** Numbers of the look that differ. */
export const JOINT_OWN = 28;
export const JOINT_WORDS = JOINT_OWN + OWN_WORDS;

/** What a frame tells of one layer. */
export interface FrameLayer {
  salt: number;
  start: number;
  count: number;
  born: number;
  refused: number;
  dead: number;
  microseconds: number;
  /** Joints of its ribbons: the first, and how many. */
  jointStart: number;
  jointCount: number;
  /** The plan of its look's numbers; words each particle has of its own; where those it shares begin. */
  plan: number;
  ownWords: number;
  shared: number;
  /** The word at which the turns of its source begin. */
  turns: number;
}

/** A layer of which a frame tells nothing. */
export const NO_LAYER: FrameLayer = {
  salt: 0,
  start: 0,
  count: 0,
  born: 0,
  refused: 0,
  dead: 0,
  microseconds: 0,
  jointStart: 0,
  jointCount: 0,
  plan: 0,
  ownWords: 0,
  shared: 0,
  turns: 0,
};

/** Views of one frame's memory. */
export class Frame {
  readonly f32: Float32Array;
  readonly u32: Uint32Array;

  /** The word at which joints begin, and how many there is room for. */
  readonly joints: number;
  readonly mostJoints: number;
  /** The word at which the particles' own numbers begin. */
  readonly own: number;
  /** How many particles there is room for. */
  readonly mostRecords: number;

  /** Bytes for so many particles, one record more that writing may use, and so many joints. */
  static bytes(particles: number, joints = 0): number {
    return (RECORDS + (particles + 1) * (RECORD_WORDS + OWN_WORDS) + joints * JOINT_WORDS) * 4;
  }

  constructor(buffer: ArrayBufferLike, address = 0, bytes = buffer.byteLength - address, mostJoints = 0) {
    this.f32 = new Float32Array(buffer, address, bytes / 4);
    this.u32 = new Uint32Array(buffer, address, bytes / 4);
    this.mostJoints = mostJoints;
    this.joints = bytes / 4 - mostJoints * JOINT_WORDS;
    this.mostRecords = (this.joints - RECORDS) / (RECORD_WORDS + OWN_WORDS) - 1;
    this.own = RECORDS + (this.mostRecords + 1) * RECORD_WORDS;
  }

  get step(): number {
    return this.u32[HEADER_STEP]!;
  }
  get particles(): number {
    return this.u32[HEADER_PARTICLES]!;
  }
  get jointCount(): number {
    return this.u32[HEADER_JOINTS]!;
  }
  get isExact(): boolean {
    return this.u32[HEADER_EXACT] === 1;
  }
  get bones(): number {
    return this.u32[HEADER_BONES]!;
  }

  layers(): FrameLayer[] {
    return this.layersInto([]);
  }

  /** Writes its layers over those there are, so that reading frame after frame allocates nothing. */
  layersInto(out: FrameLayer[]): FrameLayer[] {
    const { u32 } = this;
    const count = u32[HEADER_LAYERS]!;
    for (let index = 0; index < count; index++) {
      const at = HEADER + index * LAYER_WORDS;
      const layer = (out[index] ??= { ...NO_LAYER });
      layer.salt = u32[at + LAYER_SALT]!;
      layer.start = u32[at + LAYER_START]!;
      layer.count = u32[at + LAYER_COUNT]!;
      layer.born = u32[at + LAYER_BORN]!;
      layer.refused = u32[at + LAYER_REFUSED]!;
      layer.dead = u32[at + LAYER_DEAD]!;
      layer.microseconds = u32[at + LAYER_MICROSECONDS]!;
      layer.jointStart = u32[at + LAYER_JOINT_START]!;
      layer.jointCount = u32[at + LAYER_JOINT_COUNT]!;
      layer.plan = u32[at + LAYER_PLAN]!;
      layer.ownWords = u32[at + LAYER_OWN]!;
      layer.shared = SHARED + index * MOST_SHARED;
      layer.turns = at + LAYER_TURNS;
    }
    out.length = count;
    return out;
  }

  layer(salt: number): FrameLayer | undefined {
    return this.layers().find((layer) => layer.salt === salt);
  }

  /** Where a particle is drawn at `share` of the way through the step, or null before its birth. */
  drawn(particle: number, share: number): [number, number, number] | null {
    const at = RECORDS + particle * RECORD_WORDS;
    const birth = this.f32[at + RECORD_BIRTH]!;
    if (share < birth) return null;
    const t = (share - birth) / (1 - birth);
    const mix = (axis: number) => this.f32[at + RECORD_FROM + axis]! * (1 - t) + this.f32[at + RECORD_TO + axis]! * t;
    return [mix(0), mix(1), mix(2)];
  }

  /** Skin matrices as drawn at `share` of the step: blended linearly, entry by entry. */
  skin(share: number): Float32Array {
    const words = this.bones * 16;
    return Float32Array.from(
      { length: words },
      (_, i) => this.f32[BONES + i]! * (1 - share) + this.f32[BONES + words + i]! * share,
    );
  }
}

/** A frame outside of any world, with room for all that one can write. */
export const newFrame = ({ mostRecords, mostJoints }: { mostRecords: number; mostJoints: number }): Frame => {
  const bytes = Frame.bytes(mostRecords, mostJoints);
  return new Frame(new ArrayBuffer(bytes), 0, bytes, mostJoints);
};
