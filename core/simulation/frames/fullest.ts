import { MOTION_WORDS, moveDirection, movePoint, motionInto, type Axes, mapAxes, AXES } from '../../maths/index.ts';
import {
  HEADER,
  HEADER_JOINTS,
  HEADER_LAYERS,
  HEADER_PARTICLES,
  JOINT_ARRIVES,
  JOINT_BEND,
  JOINT_FROM,
  JOINT_OPACITY,
  JOINT_SIDE,
  JOINT_TANGENT,
  JOINT_TO,
  JOINT_WIDTH,
  JOINT_WORDS,
  LAYER_COUNT,
  LAYER_JOINT_COUNT,
  LAYER_JOINT_START,
  LAYER_SALT,
  LAYER_START,
  LAYER_WORDS,
  OWN_WORDS,
  RECORD_BIRTH,
  RECORD_FROM,
  RECORD_OPACITY,
  RECORD_SIZE,
  RECORD_TO,
  RECORD_TURNED,
  RECORD_WORDS,
  RECORDS,
  type Frame,
} from './frame.ts';

interface Kept {
  /** Packed rigid place that its layer stood on then. */
  readonly stood: Float64Array;
  /** What it covers, see `covered`. */
  readonly area: number;
  readonly records: Uint32Array;
  readonly joints: Uint32Array;
  /** Numbers of its look that differ: room for OWN_WORDS a record. */
  readonly own: Uint32Array;
}

/** What a layer stands on as a whole, by its salt: a packed rigid place, valid until the next call. */
export type StandOf = (salt: number) => Float64Array;

/** Places and directions within a record and a joint. */
const RECORD_PLACES = [RECORD_FROM, RECORD_TO];
const JOINT_PLACES = [JOINT_FROM, JOINT_TO];
const JOINT_WAYS = [JOINT_TANGENT, JOINT_SIDE, JOINT_BEND];

/** A layer is kept anew once it is this much fuller than before, so that a growing one is not copied at every step. */
const WORTH_KEEPING = 1.02;

/** Keeps of each layer what was seen of it when it covered most, and puts that into a frame in place of the present. */
export class Fullest {
  readonly #kept = new Map<number, Kept>();
  readonly #motion = new Float64Array(MOTION_WORDS);

  /** Notes a frame as it is published; `standOf` says by salt what a layer stands on as a whole, a packed rigid place. */
  note(frame: Frame, standOf: StandOf): void {
    for (const { salt, start, count, jointStart, jointCount } of frame.layers()) {
      const known = this.#kept.get(salt);
      const record = RECORDS + start * RECORD_WORDS;
      const joint = frame.joints + jointStart * JOINT_WORDS;
      const area =
        covered(frame.f32, record, count, RECORD_WORDS, RECORD_SIZE, RECORD_OPACITY) +
        covered(frame.f32, joint, jointCount, JOINT_WORDS, JOINT_WIDTH, JOINT_OPACITY);
      if (area <= (known?.area ?? 0) * WORTH_KEEPING) continue;
      const records = wordsOf(frame.u32, record, count * RECORD_WORDS);
      const joints = wordsOf(frame.u32, joint, jointCount * JOINT_WORDS);
      stand(records, RECORD_WORDS, RECORD_FROM, RECORD_TO, RECORD_BIRTH);
      for (let at = RECORD_TURNED; at < records.length; at += RECORD_WORDS) records[at] = 0;
      stand(joints, JOINT_WORDS, JOINT_FROM, JOINT_TO, JOINT_ARRIVES);
      const own = wordsOf(frame.u32, frame.own + start * OWN_WORDS, count * OWN_WORDS);
      this.#kept.set(salt, { area, records, joints, own, stood: standOf(salt).slice() });
    }
  }

  /** Forgets layers by salt, or with nothing given all of them: an edit has reached them. */
  forget(salts: Iterable<number> = [...this.#kept.keys()]): void {
    for (const salt of salts) this.#kept.delete(salt);
  }

  /**
   * Rewrites a frame: every layer but those of `shown` (salts) as at its fullest, taken along to where it stands now, as far
   * as there is room.
   */
  put(frame: Frame, shown: ReadonlySet<number>, standOf: StandOf): void {
    const { u32, mostRecords, mostJoints } = frame;
    const presentRecords = u32.slice(RECORDS, RECORDS + frame.particles * RECORD_WORDS);
    const presentOwn = u32.slice(frame.own, frame.own + frame.particles * OWN_WORDS);
    const presentJoints = u32.slice(frame.joints, frame.joints + frame.jointCount * JOINT_WORDS);
    let start = 0;
    let jointStart = 0;
    for (let n = 0; n < u32[HEADER_LAYERS]!; n++) {
      const at = HEADER + n * LAYER_WORDS;
      const salt = u32[at + LAYER_SALT]!;
      const kept = shown.has(salt) ? undefined : this.#kept.get(salt);
      const records =
        kept?.records ??
        wordsOf(presentRecords, u32[at + LAYER_START]! * RECORD_WORDS, u32[at + LAYER_COUNT]! * RECORD_WORDS);
      const joints =
        kept?.joints ??
        wordsOf(
          presentJoints,
          u32[at + LAYER_JOINT_START]! * JOINT_WORDS,
          u32[at + LAYER_JOINT_COUNT]! * JOINT_WORDS,
        );
      const own =
        kept?.own ?? wordsOf(presentOwn, u32[at + LAYER_START]! * OWN_WORDS, u32[at + LAYER_COUNT]! * OWN_WORDS);
      const count = Math.min(records.length / RECORD_WORDS, mostRecords - start);
      const jointCount = Math.min(joints.length / JOINT_WORDS, mostJoints - jointStart);
      u32.set(records.subarray(0, count * RECORD_WORDS), RECORDS + start * RECORD_WORDS);
      u32.set(own.subarray(0, count * OWN_WORDS), frame.own + start * OWN_WORDS);
      u32.set(joints.subarray(0, jointCount * JOINT_WORDS), frame.joints + jointStart * JOINT_WORDS);
      if (kept) {
        motionInto(this.#motion, kept.stood, standOf(salt), 1);
        carry(frame.f32, RECORDS + start * RECORD_WORDS, count, RECORD_WORDS, RECORD_PLACES, movePoint, this.#motion);
        const joint = frame.joints + jointStart * JOINT_WORDS;
        carry(frame.f32, joint, jointCount, JOINT_WORDS, JOINT_PLACES, movePoint, this.#motion);
        carry(frame.f32, joint, jointCount, JOINT_WORDS, JOINT_WAYS, moveDirection, this.#motion);
      }
      u32[at + LAYER_START] = start;
      u32[at + LAYER_COUNT] = count;
      u32[at + LAYER_JOINT_START] = jointStart;
      u32[at + LAYER_JOINT_COUNT] = jointCount;
      start += count;
      jointStart += jointCount;
    }
    u32[HEADER_PARTICLES] = start;
    u32[HEADER_JOINTS] = jointStart;
  }
}

/** How much `count` records from word `at` on are seen: sizes squared times opacity. The newborn may be many and unseen. */
function covered(
  words: Float32Array,
  at: number,
  count: number,
  width: number,
  size: number,
  opacity: number,
): number {
  let area = 0;
  for (const end = at + count * width; at < end; at += width)
    area += words[at + size]! * words[at + size]! * words[at + opacity]!;
  return area;
}

/** Moves vectors at `offsets` within each of `count` records from word `at` on. */
function carry(
  words: Float32Array,
  at: number,
  count: number,
  width: number,
  offsets: readonly number[],
  move: typeof movePoint,
  motion: Float64Array,
): void {
  for (const offset of offsets) {
    const axes: Axes = mapAxes(AXES, (axis) => words.subarray(at + offset + axis));
    for (let n = 0; n < count; n++) move(motion, axes, n * width);
  }
}

const wordsOf = (words: Uint32Array, from: number, length: number): Uint32Array => words.slice(from, from + length);

/** Lets records stand at the end of their step, born before it. */
function stand(words: Uint32Array, width: number, from: number, to: number, birth: number): void {
  for (let at = 0; at < words.length; at += width) {
    words.copyWithin(at + from, at + to, at + to + 3);
    words[at + birth] = 0;
  }
}
