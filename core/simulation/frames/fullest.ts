import { MOTION_WORDS, moveDirection, movePoint, motionInto, type Axes, mapAxes, AXES } from '../../maths/index.ts';
import {
  HEADER_FRONTS,
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
  LAYER_OWN_START,
  LAYER_START,
  RECORD_BIRTH,
  RECORD_FROM,
  RECORD_OPACITY,
  RECORD_SIZE,
  RECORD_TO,
  RECORD_TURNED,
  RECORD_WORDS,
  type Frame,
} from './frame.ts';

interface Kept {
  /** Packed rigid place that its layer stood on then. */
  readonly stood: Float64Array;
  /** What it covers, see `covered`. */
  readonly area: number;
  readonly records: Uint32Array;
  readonly joints: Uint32Array;
  /** Numbers of its look that differ, so many words a record. */
  readonly own: Uint32Array;
  readonly ownWords: number;
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
    for (const { salt, start, count, jointStart, jointCount, own: ownAt, ownWords } of frame.layers()) {
      const known = this.#kept.get(salt);
      const record = frame.recordAt(start);
      const joint = frame.jointAt(jointStart);
      const area =
        covered(frame.f32, record, count, RECORD_WORDS, RECORD_SIZE, RECORD_OPACITY) +
        covered(frame.f32, joint, jointCount, JOINT_WORDS, JOINT_WIDTH, JOINT_OPACITY);
      if (area <= (known?.area ?? 0) * WORTH_KEEPING) continue;
      const records = wordsOf(frame.u32, record, count * RECORD_WORDS);
      const joints = wordsOf(frame.u32, joint, jointCount * JOINT_WORDS);
      stand(records, RECORD_WORDS, RECORD_FROM, RECORD_TO, RECORD_BIRTH);
      for (let at = RECORD_TURNED; at < records.length; at += RECORD_WORDS) records[at] = 0;
      stand(joints, JOINT_WORDS, JOINT_FROM, JOINT_TO, JOINT_ARRIVES);
      const own = wordsOf(frame.u32, ownAt, count * ownWords);
      this.#kept.set(salt, { area, records, joints, own, ownWords, stood: standOf(salt).slice() });
    }
  }

  /** Forgets layers by salt, or with nothing given all of them: an edit has reached them. */
  forget(salts: Iterable<number> = [...this.#kept.keys()]): void {
    for (const salt of salts) this.#kept.delete(salt);
  }

  /**
   * Rewrites a frame: every layer but those of `shown` (salts) as at its fullest, taken along to where it stands now. Where
   * there is not room for that, it stays as it is.
   */
  put(frame: Frame, shown: ReadonlySet<number>, standOf: StandOf): void {
    const { u32 } = frame;
    const layers = frame.layers();
    const parts = layers.map((layer): Part => {
      const kept = shown.has(layer.salt) ? undefined : this.#kept.get(layer.salt);
      // Numbers that were kept for another look say nothing to this one.
      if (kept && kept.ownWords === layer.ownWords) return { ...kept, kept };
      const { ownWords } = layer;
      return {
        kept: null,
        records: wordsOf(u32, frame.recordAt(layer.start), layer.count * RECORD_WORDS),
        joints: wordsOf(u32, frame.jointAt(layer.jointStart), layer.jointCount * JOINT_WORDS),
        own: wordsOf(u32, layer.own, layer.count * ownWords),
        ownWords,
      };
    });
    const sizes = {
      layers: layers.length,
      bones: frame.bones,
      fronts: u32[HEADER_FRONTS]!,
      shared: layers.reduce((sum, { sharedCount }) => sum + sharedCount, 0),
      records: sumOf(parts, ({ records }) => records.length / RECORD_WORDS),
      own: sumOf(parts, ({ own }) => own.length),
      joints: sumOf(parts, ({ joints }) => joints.length / JOINT_WORDS),
    };
    if (!frame.layOut(sizes)) return;
    let [start, joint, own] = [0, 0, frame.own];
    parts.forEach((part, n) => {
      const at = frame.layerAt(n);
      const [count, jointCount] = [part.records.length / RECORD_WORDS, part.joints.length / JOINT_WORDS];
      const [record, firstJoint] = [frame.recordAt(start), frame.jointAt(joint)];
      u32.set(part.records, record);
      u32.set(part.own, own);
      u32.set(part.joints, firstJoint);
      if (part.kept) {
        motionInto(this.#motion, part.kept.stood, standOf(layers[n]!.salt), 1);
        carry(frame.f32, record, count, RECORD_WORDS, RECORD_PLACES, movePoint, this.#motion);
        carry(frame.f32, firstJoint, jointCount, JOINT_WORDS, JOINT_PLACES, movePoint, this.#motion);
        carry(frame.f32, firstJoint, jointCount, JOINT_WORDS, JOINT_WAYS, moveDirection, this.#motion);
      }
      u32[at + LAYER_START] = start;
      u32[at + LAYER_COUNT] = count;
      u32[at + LAYER_OWN_START] = own;
      u32[at + LAYER_JOINT_START] = joint;
      u32[at + LAYER_JOINT_COUNT] = jointCount;
      start += count;
      own += part.own.length;
      joint += jointCount;
    });
  }
}

/** What a layer is shown by: the present, or what was kept. */
interface Part {
  readonly kept: Kept | null;
  readonly records: Uint32Array;
  readonly joints: Uint32Array;
  readonly own: Uint32Array;
  readonly ownWords: number;
}

const sumOf = (parts: readonly Part[], of: (part: Part) => number): number =>
  parts.reduce((sum, part) => sum + of(part), 0);

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
