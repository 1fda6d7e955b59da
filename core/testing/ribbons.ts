import {
  burst,
  collectionOf,
  inWorld,
  setNumber,
  type Effect,
  type Layer,
  type NumberSetting,
  type Ribbon,
} from '../document/index.ts';
import { effectOf, TUBE } from './effects.ts';
import { frameOf } from './riders.ts';
import { bendingTube } from './rigs.ts';
import {
  JOINT_AGE,
  JOINT_ALONG,
  JOINT_ENDS,
  JOINT_METRES,
  JOINT_OPACITY,
  JOINT_SIDE,
  JOINT_TO,
  JOINT_WIDTH,
  JOINT_WORDS,
} from '../simulation/frames/frame.ts';
import { Instance } from '../simulation/index.ts';
import { playAlone } from '../simulation/world/world.ts';

export interface Joint {
  readonly at: number[];
  readonly metres: number;
  readonly width: number;
  readonly age: number;
  /** Its share of the ribbon's length, from the tail. */
  readonly along: number;
  readonly opacity: number;
  readonly side: number[];
}

/** The ribbons of a layer at the end of the step, joint by joint from the tail to the head. */
export function ribbonsOf(world: Instance, salt = 1234): Joint[][] {
  const frame = frameOf(world);
  const layer = frame.layer(salt)!;
  const ribbons: Joint[][] = [];
  let open: Joint[] = [];
  for (let n = 0; n < layer.jointCount; n++) {
    const o = frame.jointAt(layer.jointStart + n);
    const words = frame.f32.subarray(o, o + JOINT_WORDS);
    open.push({
      at: [...words.subarray(JOINT_TO, JOINT_TO + 3)],
      metres: words[JOINT_METRES]!,
      width: words[JOINT_WIDTH]! * 2,
      age: words[JOINT_AGE]!,
      along: words[JOINT_ALONG]!,
      opacity: words[JOINT_OPACITY]!,
      side: [...words.subarray(JOINT_SIDE, JOINT_SIDE + 3)],
    });
    if (words[JOINT_ENDS] === 0) continue;
    ribbons.push(open);
    open = [];
  }
  if (open.length > 0) throw new Error('the last ribbon of a layer does not end');
  return ribbons;
}
export const apart = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((x, axis) => x - b[axis]!));
export const lengthOf = (joints: readonly Joint[]) =>
  joints.slice(1).reduce((sum, joint, n) => sum + apart(joint.at, joints[n]!.at), 0);

export function setRibbon(ribbon: Ribbon, numbers: Record<string, number>): Ribbon {
  const settings = ribbon.settings as unknown as Record<string, NumberSetting>;
  for (const [name, value] of Object.entries(numbers)) settings[name]!.base = { kind: 'fixed', value };
  return ribbon;
}

/** Three particles leave a point at once and fly straight along X at 2 m/s for a second. */
export function flown(drawn: Ribbon, shape: (layer: Layer, effect: Effect) => void = () => undefined): Effect {
  return effectOf((layer, effect) => {
    effect.stretches = { opening: 3, hold: { kind: 'none' }, closing: 0, preRoll: 0 };
    layer.drawn = drawn;
    layer.source = { kind: 'point', place: inWorld([0, 1, 0]) };
    setNumber(layer, 'births.rate', 0);
    setNumber(layer, 'births.life', 1);
    setNumber(layer, 'life.size', 0.1);
    setNumber(layer, 'motion.speed', 2);
    layer.settings['motion.launch'].base = { kind: 'fixed', value: 'axis' };
    layer.settings['motion.axis'].base = { kind: 'fixed', value: [1, 0, 0] };
    layer.bursts = collectionOf([['b', burst('opening', 0.1, 3)]]);
    shape(layer, effect);
  });
}
export function at(effect: Effect, step: number, options = {}): Instance {
  const world = playAlone(effect, new Map([[TUBE, bendingTube()]]), {}, options);
  world.advance(step);
  return world;
}
