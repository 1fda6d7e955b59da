import { OWN_WORDS } from '../looks/plan.ts';

export { MOST_SHARED, OWN_WORDS } from '../looks/plan.ts';

/**
 * A frame: all that is needed to draw the time between two steps, of all instances of a world. 32-bit words; the header says
 * where each part begins, for their sizes follow from what there is:
 *
 * | from          | what                                                                                      |
 * | 0             | header: see HEADER_*                                                                      |
 * | LAYERS_AT     | 32 words a layer: see LAYER_*                                                             |
 * | BONES_AT      | matrices of every instance's scene at the start of the step, 16 f32 each, then at its end |
 * | FRONTS_AT     | 44 words a release front, instance by instance, by id: see FRONT_*                        |
 * | SHARED_AT     | f32, layer after layer: numbers of its look that are the same for all its particles       |
 * | RECORDS_AT    | 16 words a particle, layer after layer: see RECORD_*                                      |
 * | OWN_AT        | f32, in the same order: numbers of looks that differ, LAYER_OWN of each particle          |
 * | JOINTS_AT     | 36 words a joint of a ribbon, layer after layer: see JOINT_*                              |
 */
export const HEADER = 24;
export const LAYER_WORDS = 32;
export const FRONT_WORDS = 44;
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
export const HEADER_FRONTS = 8;
export const LAYERS_AT = 9;
export const BONES_AT = 10;
export const FRONTS_AT = 11;
export const SHARED_AT = 12;
export const RECORDS_AT = 13;
export const OWN_AT = 14;
export const JOINTS_AT = 15;

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
/** Words of the frame at which the numbers begin that all its particles share, and that each has; how many of the former. */
export const LAYER_SHARED = 20;
export const LAYER_SHARED_COUNT = 21;
export const LAYER_OWN_START = 22;
/** Its instance, by a number that no other of the world has had; and which looks it is drawn with (see Instance.looks). */
export const LAYER_INSTANCE = 23;
export const LAYER_LOOKS = 24;
/** The first of its instance's matrices and fronts among all. */
export const LAYER_FIRST_BONE = 25;
export const LAYER_FIRST_FRONT = 26;
/** The step that its instance stands at. */
export const LAYER_STEP = 27;

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
/** Borders at both times between which and the furthest all is free. */
export const FRONT_LOWS = 41;

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
  instance: number;
  looks: number;
  start: number;
  count: number;
  born: number;
  refused: number;
  dead: number;
  microseconds: number;
  /** Joints of its ribbons: the first, and how many. */
  jointStart: number;
  jointCount: number;
  /** The plan of its look's numbers; words each particle has of its own; the words at which both kinds begin. */
  plan: number;
  ownWords: number;
  own: number;
  shared: number;
  sharedCount: number;
  /** The word at which the turns of its source begin. */
  turns: number;
  firstBone: number;
  firstFront: number;
  step: number;
}

/** A layer of which a frame tells nothing. */
export const NO_LAYER: FrameLayer = {
  salt: 0,
  instance: 0,
  looks: 0,
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
  own: 0,
  shared: 0,
  sharedCount: 0,
  turns: 0,
  firstBone: 0,
  firstFront: 0,
  step: 0,
};

/** How much of each thing a frame has, or has room for. */
export interface FrameSizes {
  readonly layers: number;
  readonly bones: number;
  readonly fronts: number;
  /** Words of numbers that layers share, and of those that particles have. */
  readonly shared: number;
  readonly own: number;
  readonly records: number;
  readonly joints: number;
}

export const NO_SIZES: FrameSizes = { layers: 0, bones: 0, fronts: 0, shared: 0, own: 0, records: 0, joints: 0 };
export const FRAME_PARTS = Object.keys(NO_SIZES) as (keyof FrameSizes)[];

/** Words of a frame. */
export const frameWords = ({ layers, bones, fronts, shared, own, records, joints }: FrameSizes): number =>
  HEADER +
  layers * LAYER_WORDS +
  bones * 32 +
  fronts * FRONT_WORDS +
  shared +
  records * RECORD_WORDS +
  own +
  joints * JOINT_WORDS;

/** Rounded up to whole groups of four words, so that whoever reads vectors of four finds them where they begin. */
const aligned = (word: number): number => Math.ceil(word / 4) * 4;
/** Words that rounding up the parts of a frame may take. */
const ROUNDING = 8 * 4;
/** A record that writing may use beside those that are seen. */
const SPARE_RECORD = RECORD_WORDS;

/** Bytes of a frame with room for so much. */
export const frameBytes = (sizes: FrameSizes): number => (frameWords(sizes) + ROUNDING + SPARE_RECORD) * 4;

/** Views of one frame's memory. */
export class Frame {
  readonly f32: Float32Array;
  readonly u32: Uint32Array;

  constructor(buffer: ArrayBufferLike, address = 0, bytes = buffer.byteLength - address) {
    this.f32 = new Float32Array(buffer, address, Math.floor(bytes / 4));
    this.u32 = new Uint32Array(buffer, address, Math.floor(bytes / 4));
  }

  /**
   * Lays out the parts of a frame that is about to be written. Joints come last and may take what is left. Returns false, and
   * changes nothing, where there is not room for it.
   */
  layOut({ layers, bones, fronts, shared, own, records, joints }: FrameSizes): boolean {
    const { u32 } = this;
    const bonesAt = aligned(HEADER + layers * LAYER_WORDS);
    const frontsAt = aligned(bonesAt + bones * 32);
    const sharedAt = aligned(frontsAt + fronts * FRONT_WORDS);
    const recordsAt = aligned(sharedAt + shared);
    const ownAt = aligned(recordsAt + records * RECORD_WORDS + SPARE_RECORD);
    const jointsAt = aligned(ownAt + own);
    if (jointsAt + joints * JOINT_WORDS > u32.length) return false;
    u32[HEADER_LAYERS] = layers;
    u32[HEADER_BONES] = bones;
    u32[HEADER_FRONTS] = fronts;
    u32[HEADER_PARTICLES] = records;
    u32[HEADER_JOINTS] = joints;
    u32[LAYERS_AT] = HEADER;
    u32[BONES_AT] = bonesAt;
    u32[FRONTS_AT] = frontsAt;
    u32[SHARED_AT] = sharedAt;
    u32[RECORDS_AT] = recordsAt;
    u32[OWN_AT] = ownAt;
    u32[JOINTS_AT] = jointsAt;
    return true;
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
  /** Steps a second of the world that wrote it; 0 before one has. */
  get rate(): number {
    return this.u32[HEADER_RATE]!;
  }
  get bones(): number {
    return this.u32[HEADER_BONES]!;
  }
  /** The word at which a layer's row begins. */
  layerAt(index: number): number {
    return this.u32[LAYERS_AT]! + index * LAYER_WORDS;
  }
  /** The word at which a matrix begins, at the step's end or its start. */
  boneAt(bone: number, isEnd: boolean): number {
    return this.u32[BONES_AT]! + ((isEnd ? this.bones : 0) + bone) * 16;
  }
  /** The word at which the numbers begin that layers share. */
  get shared(): number {
    return this.u32[SHARED_AT]!;
  }
  frontAt(front: number): number {
    return this.u32[FRONTS_AT]! + front * FRONT_WORDS;
  }
  recordAt(record: number): number {
    return this.u32[RECORDS_AT]! + record * RECORD_WORDS;
  }
  /** The word at which the particles' own numbers begin. */
  get own(): number {
    return this.u32[OWN_AT]!;
  }
  jointAt(joint: number): number {
    return this.u32[JOINTS_AT]! + joint * JOINT_WORDS;
  }
  /** Joints there is room for behind all else. */
  get jointRoom(): number {
    return Math.floor((this.u32.length - this.u32[JOINTS_AT]!) / JOINT_WORDS);
  }

  /** Bytes up to the end of its last joint: a copy of so many is the whole frame. */
  get usedBytes(): number {
    return this.jointAt(this.jointCount) * 4;
  }

  layers(): FrameLayer[] {
    return this.layersInto([]);
  }

  /** Writes its layers over those there are, so that reading frame after frame allocates nothing. */
  layersInto(out: FrameLayer[]): FrameLayer[] {
    const { u32 } = this;
    const count = u32[HEADER_LAYERS]!;
    for (let index = 0; index < count; index++) {
      const at = this.layerAt(index);
      const layer = (out[index] ??= { ...NO_LAYER });
      layer.salt = u32[at + LAYER_SALT]!;
      layer.instance = u32[at + LAYER_INSTANCE]!;
      layer.looks = u32[at + LAYER_LOOKS]!;
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
      layer.own = u32[at + LAYER_OWN_START]!;
      layer.shared = u32[at + LAYER_SHARED]!;
      layer.sharedCount = u32[at + LAYER_SHARED_COUNT]!;
      layer.turns = at + LAYER_TURNS;
      layer.firstBone = u32[at + LAYER_FIRST_BONE]!;
      layer.firstFront = u32[at + LAYER_FIRST_FRONT]!;
      layer.step = u32[at + LAYER_STEP]!;
    }
    out.length = count;
    return out;
  }

  layer(salt: number): FrameLayer | undefined {
    return this.layers().find((layer) => layer.salt === salt);
  }

  /** Where a particle is drawn at `share` of the way through the step, or null before its birth. */
  drawn(particle: number, share: number): [number, number, number] | null {
    const at = this.recordAt(particle);
    const birth = this.f32[at + RECORD_BIRTH]!;
    if (share < birth) return null;
    const t = (share - birth) / (1 - birth);
    const mix = (axis: number) => this.f32[at + RECORD_FROM + axis]! * (1 - t) + this.f32[at + RECORD_TO + axis]! * t;
    return [mix(0), mix(1), mix(2)];
  }

  /** Matrices as drawn at `share` of the step: blended linearly, entry by entry. */
  skin(share: number): Float32Array {
    const [from, to] = [this.boneAt(0, false), this.boneAt(0, true)];
    return Float32Array.from(
      { length: this.bones * 16 },
      (_, i) => this.f32[from + i]! * (1 - share) + this.f32[to + i]! * share,
    );
  }
}

/** A frame outside of any world, with room for all that one of `frameSizes` can write. */
export const newFrame = ({ frameSizes }: { readonly frameSizes: FrameSizes }): Frame =>
  new Frame(new ArrayBuffer(frameBytes(frameSizes)));
