import type { Effect } from '../../document/index.ts';
import type { Trail } from '../run/6-lay.ts';
import type { Running } from '../run/running.ts';
import type { Drawn } from './drawn.ts';
import { HEADER_EXACT, HEADER_JOINTS, HEADER_RATE, HEADER_STEP, type Frame } from './frame.ts';
import type { FrameMoment, FramePlace, Framer } from './framing.ts';

/** What an instance gives to a frame. */
export interface FramePart {
  readonly instance: number;
  /** Instances of the same number are drawn alike: layers of one salt have the same look. */
  readonly looks: number;
  readonly framer: Framer;
  readonly effect: Effect;
  readonly running: readonly Running[];
  readonly trails: readonly Trail[];
  readonly moment: FrameMoment;
  /** Joints it may take at most. */
  readonly mostJoints: number;
}

interface Row {
  readonly part: number;
  /** Its number among its instance's layers. */
  readonly index: number;
  readonly drawn: Drawn;
}

const NONE: ReadonlySet<number> = new Set();

/** Writes whole frames: the layers of all instances, those that are drawn alike next to each other. */
export class Composer {
  #rows: readonly Row[] | null = null;
  readonly #cursor = { record: 0, joint: 0, shared: 0, own: 0 };
  readonly #sizes = { layers: 0, bones: 0, fronts: 0, records: 0, shared: 0, own: 0, joints: 0 };
  /** Where each part stands, the same from frame to frame. */
  readonly #places: { -readonly [K in keyof FramePlace]: FramePlace[K] }[] = [];
  #jointsLeft = new Float64Array(1);

  /** Instances have come, gone or changed. */
  forget(): void {
    this.#rows = null;
  }

  /** Layers of one salt and one look stand next to each other, then by instance: no order of adding reaches a row's content. */
  #rowsOf(parts: readonly FramePart[], unseen: ReadonlySet<number>): readonly Row[] {
    return (this.#rows ??= parts
      .flatMap(({ instance, framer, effect, running }, part) =>
        unseen.has(instance) ? [] : framer.drawn(effect, running).map((drawn, index) => ({ part, index, drawn })),
      )
      .sort(
        (a, b) =>
          parts[a.part]!.looks - parts[b.part]!.looks ||
          a.drawn.layer.salt - b.drawn.layer.salt ||
          (a.drawn.id < b.drawn.id ? -1 : a.drawn.id > b.drawn.id ? 1 : a.part - b.part),
      ));
  }

  /**
   * `unseen`: numbers of instances of which only the figures are there.
   * @throws RangeError when the frame has not room for all.
   */
  write(frame: Frame, parts: readonly FramePart[], step: number, rate: number, unseen = NONE): void {
    const rows = this.#rowsOf(parts, unseen);
    const sizes = this.#sizes;
    sizes.layers = rows.length;
    sizes.bones = sizes.fronts = sizes.records = sizes.shared = sizes.own = 0;
    if (this.#jointsLeft.length < parts.length) this.#jointsLeft = new Float64Array(parts.length);
    for (let n = 0; n < parts.length; n++) {
      const { instance, looks, moment, mostJoints } = parts[n]!;
      const place = (this.#places[n] ??= { instance, looks, firstBone: 0, firstFront: 0 });
      place.instance = instance;
      place.looks = looks;
      place.firstBone = sizes.bones;
      place.firstFront = sizes.fronts;
      sizes.bones += moment.scene.bones;
      sizes.fronts += moment.fronts.length;
      this.#jointsLeft[n] = mostJoints;
    }
    for (const { part, drawn } of rows) parts[part]!.framer.measure(drawn, parts[part]!.effect, sizes);
    if (!frame.layOut(sizes)) throw new RangeError('a frame has not room for all that lives');
    const cursor = this.#cursor;
    cursor.record = cursor.joint = 0;
    cursor.shared = frame.shared;
    cursor.own = frame.own;
    for (let n = 0; n < rows.length; n++) {
      const { part, index, drawn } = rows[n]!;
      const { framer, effect, trails, moment } = parts[part]!;
      const room = Math.min(this.#jointsLeft[part]!, frame.jointRoom - cursor.joint);
      const before = cursor.joint;
      framer.write(frame, frame.layerAt(n), cursor, index, drawn, effect, trails, moment, this.#places[part]!, room);
      this.#jointsLeft[part]! -= cursor.joint - before;
    }
    let isExact = true;
    for (let n = 0; n < parts.length; n++) {
      const { framer, moment } = parts[n]!;
      framer.writeScene(frame, moment, this.#places[n]!);
      isExact &&= moment.isExact;
    }
    const { u32 } = frame;
    u32[HEADER_STEP] = step;
    u32[HEADER_RATE] = rate;
    u32[HEADER_JOINTS] = cursor.joint;
    u32[HEADER_EXACT] = isExact ? 1 : 0;
  }
}
