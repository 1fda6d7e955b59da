import type { Effect } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import type { Vec3 } from '../../maths/index.ts';
import {
  JOINT_TO,
  JOINT_WIDTH,
  newFrame,
  RECORD_SIZE,
  RECORD_TO,
  type Frame,
  type FrameLayer,
} from '../frames/frame.ts';
import { DEFAULT_RATE, playAlone, type PlayOptions } from './world.ts';

/** Half the diagonal of a cube as a share of its side: as far as anything of a size reaches from its middle, however turned. */
const HALF_DIAGONAL = 0.8660254037844386;
/** Seconds after its end in which what still lives may die away. */
const MOST_AFTER = 30;

export interface Box {
  readonly least: Vec3;
  readonly most: Vec3;
}

/** What of an effect is there at one instant. */
export interface ReachedInstant {
  /** Seconds since it began. */
  readonly seconds: number;
  readonly living: number;
  /** What it reaches; null while there is nothing. */
  readonly box: Box | null;
}

/** When a layer is there, and how much of it. */
export interface ReachedLayer {
  readonly layer: string;
  /** Seconds since the effect began; null where nothing of it is ever born. */
  readonly first: number | null;
  readonly last: number | null;
  readonly mostLiving: number;
}

/** What an effect really reaches when it is held for one turn and then let go. */
export interface Reached {
  readonly rate: number;
  readonly seconds: number;
  readonly mostLiving: number;
  readonly mostJoints: number;
  readonly box: Box | null;
  readonly instants: readonly ReachedInstant[];
  readonly layers: readonly ReachedLayer[];
}

/** A box that grows with all that is put into it. */
class Growing {
  readonly #least = [Infinity, Infinity, Infinity];
  readonly #most = [-Infinity, -Infinity, -Infinity];

  add(f32: Float32Array, at: number, radius: number): void {
    for (let axis = 0; axis < 3; axis++) {
      const x = f32[at + axis]!;
      this.#least[axis] = Math.min(this.#least[axis]!, x - radius);
      this.#most[axis] = Math.max(this.#most[axis]!, x + radius);
    }
  }
  get box(): Box | null {
    const [a, b] = [this.#least, this.#most];
    return a[0] === Infinity ? null : { least: [a[0]!, a[1]!, a[2]!], most: [b[0]!, b[1]!, b[2]!] };
  }
}

function addLayer(
  frame: Frame,
  { start, count, jointStart, jointCount }: FrameLayer,
  boxes: readonly Growing[],
): void {
  const { f32 } = frame;
  // What is drawn as a ribbon is where its joints are.
  for (let n = 0; n < (jointCount > 0 ? 0 : count); n++) {
    const at = frame.recordAt(start + n);
    for (const box of boxes) box.add(f32, at + RECORD_TO, f32[at + RECORD_SIZE]! * HALF_DIAGONAL);
  }
  for (let n = 0; n < jointCount; n++) {
    const at = frame.jointAt(jointStart + n);
    for (const box of boxes) box.add(f32, at + JOINT_TO, f32[at + JOINT_WIDTH]!);
  }
}

/**
 * Plays an effect from its beginning, held for one turn and then let go, until nothing of it lives, and measures what it
 * reaches every `every` steps.
 */
export function measureReach(
  effect: Effect,
  rigs: ReadonlyMap<string, Rig>,
  options: PlayOptions,
  every = 6,
): Reached {
  const rate = options.rate ?? DEFAULT_RATE;
  const { opening, hold, closing } = effect.stretches;
  const held = opening + (hold.kind === 'none' ? 0 : hold.seconds);
  const letGoStep = Math.floor(held * rate + 0.5);
  const world = playAlone(effect, rigs, hold.kind === 'none' ? {} : { letGoStep }, options);
  const frame = newFrame(world);
  const whole = new Growing();
  const bySalt = new Map(effect.layers.order.map((id) => [effect.layers.byId[id]!.salt, id]));
  const layers = new Map(effect.layers.order.map((id) => [id, { first: -1, last: -1, most: 0 }]));
  const instants: ReachedInstant[] = [];
  let [mostLiving, mostJoints, step] = [0, 0, 0];
  const end = Math.floor((held + closing + MOST_AFTER) * rate + 0.5);
  for (; step <= end; step += every) {
    world.advance(step);
    world.writeFrame(frame);
    const box = new Growing();
    for (const found of frame.layers()) {
      const of = layers.get(bySalt.get(found.salt) ?? '');
      if (!of || found.count + found.jointCount === 0) continue;
      if (of.first < 0) of.first = step;
      of.last = step;
      of.most = Math.max(of.most, found.count);
      addLayer(frame, found, [box, whole]);
    }
    instants.push({ seconds: step / rate, living: world.living, box: box.box });
    mostLiving = Math.max(mostLiving, world.living);
    mostJoints = Math.max(mostJoints, frame.jointCount);
    if (world.isOver) break;
  }
  return {
    ...{ rate, seconds: Math.min(step, end) / rate, mostLiving, mostJoints, box: whole.box, instants },
    layers: [...layers].map(([layer, { first, last, most }]) => ({
      layer,
      first: first < 0 ? null : first / rate,
      last: last < 0 ? null : last / rate,
      mostLiving: most,
    })),
  };
}
