import { listed, type Effect } from '../../document/index.ts';
import { Digest } from '../../simulation/world/digest.ts';
import * as layout from '../../simulation/frames/frame.ts';
import {
  lookPlan,
  newFrame,
  type Frame,
  type FrameLayer,
  type LookPlan,
  type Instance,
} from '../../simulation/index.ts';

/**
 * What a world says at its step, as two hashes: of the state of its particles, and of what is drawn. Quantities are taken by
 * what they mean, one after another, and not by where they are packed: another layout of memory or frames has the same hashes.
 */
export interface Meaning {
  readonly state: string;
  readonly drawn: string;
}

export function meaningOf(world: Instance): Meaning {
  return { state: stateOf(world), drawn: drawnBy(world) };
}

/** Said in place of the salt of a layer by populations that are points of trails. */
const OF_TRAILS = 0xffffffff;

/** Every particle that lives and every laid point of trails, population by population, oldest first. */
function stateOf(world: Instance): string {
  const digest = new Digest();
  digest.word(world.step);
  for (const { id, population: all } of world.states()) {
    digest.word(world.effect.layers.byId[id]?.salt ?? OF_TRAILS);
    digest.word(all.living);
    for (let i = 0; i < all.count; i++) {
      if (all.isDead(i)) continue;
      for (const whole of [all.key, all.number, all.birthStep]) digest.word(whole[i]!);
      for (const single of [all.birthFraction, all.life, all.scale]) digest.number(single[i]!);
      for (const axes of [all.position, all.velocity, all.tint, all.begun])
        for (const axis of axes) digest.number(axis[i]!);
    }
  }
  return digest.text;
}

/** Words of a record, of a joint and of a front, by what they say: where each begins and how many follow. */
const RECORD: readonly (readonly [at: number, words: number])[] = [
  [layout.RECORD_FROM, 3],
  [layout.RECORD_BIRTH, 1],
  [layout.RECORD_TO, 3],
  [layout.RECORD_ANGLE, 1],
  [layout.RECORD_COLOUR, 3],
  [layout.RECORD_OPACITY, 1],
  [layout.RECORD_SIZE, 1],
  [layout.RECORD_AGE, 1],
  [layout.RECORD_LOT, 1],
  [layout.RECORD_TURNED, 1],
];
const JOINT: typeof RECORD = [
  [layout.JOINT_FROM, 3],
  [layout.JOINT_ARRIVES, 1],
  [layout.JOINT_TO, 3],
  [layout.JOINT_METRES, 1],
  [layout.JOINT_COLOUR, 3],
  [layout.JOINT_OPACITY, 1],
  [layout.JOINT_WIDTH, 1],
  [layout.JOINT_AGE, 1],
  [layout.JOINT_ALONG, 1],
  [layout.JOINT_IS_FIXED, 1],
  [layout.JOINT_TANGENT, 3],
  [layout.JOINT_ENDS, 1],
  [layout.JOINT_SIDE, 3],
  [layout.JOINT_LOT, 1],
  [layout.JOINT_BEND, 3],
  [layout.JOINT_LENGTH, 1],
];
const FRONT: typeof RECORD = [
  [layout.FRONT_BORDERS, 2],
  [layout.FRONT_NOISE, 2],
  [layout.FRONT_SIZE, 3],
  [layout.FRONT_KIND, 1],
  [layout.FRONT_FROM, 16],
  [layout.FRONT_TO, 16],
];

/** Takes parts of something that begins at a word of a frame. */
function take(digest: Digest, { f32 }: Frame, start: number, parts: typeof RECORD): void {
  for (const [at, words] of parts) for (let n = 0; n < words; n++) digest.number(f32[start + at + n]!);
}

function takeName(digest: Digest, name: string): void {
  for (let n = 0; n < name.length; n++) digest.word(name.charCodeAt(n));
}

/** The numbers of looks, by name: of each of so many, whose own begin at `own`, `stride` words from one to the next. */
function takeNumbers(
  digest: Digest,
  { f32 }: Frame,
  { numbers, secondsAt }: LookPlan,
  layer: FrameLayer,
  { count, own, stride }: { count: number; own: number; stride: number },
): void {
  for (const { name, kind, at } of numbers) {
    takeName(digest, name);
    for (let n = 0; n < count; n++) digest.number(f32[kind === 'own' ? own + n * stride + at : layer.shared + at]!);
  }
  if (secondsAt !== null) for (let n = 0; n < count; n++) digest.number(f32[own + n * stride + secondsAt]!);
}

/** The layers that a frame shows, in its order. */
function shownLayers(effect: Effect, frame: Frame) {
  const layers = listed(effect.layers).sort((a, b) => a.item.salt - b.item.salt || (a.id < b.id ? -1 : 1));
  return frame.layers().map((shown) => {
    const at = layers.findIndex(({ item }) => item.salt === shown.salt);
    if (at < 0) throw new Error(`a frame has a layer of salt ${shown.salt}, the effect has none`);
    return { shown, layer: layers.splice(at, 1)[0]!.item };
  });
}

function drawnBy(world: Instance): string {
  const { effect } = world;
  const frame = newFrame(world);
  world.writeFrame(frame);
  const digest = new Digest();
  for (const whole of [frame.step, frame.bones, frame.u32[layout.HEADER_RATE]!]) digest.word(whole);
  take(digest, frame, frame.boneAt(0, false), [[0, frame.bones * 32]]);
  effect.fronts.order.forEach((_, n) => {
    const start = frame.frontAt(n);
    take(digest, frame, start, FRONT);
    digest.word(frame.u32[start + layout.FRONT_SEED]!);
  });
  for (const { shown, layer } of shownLayers(effect, frame)) {
    for (const whole of [shown.salt, shown.count, shown.born, shown.refused, shown.dead, shown.jointCount])
      digest.word(whole);
    take(digest, frame, shown.turns, [[0, 8]]);
    for (let n = 0; n < shown.count; n++) take(digest, frame, frame.recordAt(shown.start + n), RECORD);
    const joints = frame.jointAt(shown.jointStart);
    for (let n = 0; n < shown.jointCount; n++) take(digest, frame, joints + n * layout.JOINT_WORDS, JOINT);
    const plan = lookPlan(effect, layer);
    if (plan.id !== shown.plan) throw new Error(`layer ${layer.name} is drawn by another plan than its own`);
    takeNumbers(digest, frame, plan, shown, { count: shown.count, own: shown.own, stride: shown.ownWords });
    takeNumbers(digest, frame, plan, shown, {
      count: shown.jointCount,
      own: joints + layout.JOINT_OWN,
      stride: layout.JOINT_WORDS,
    });
  }
  return digest.text;
}
