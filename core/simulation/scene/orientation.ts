import { LAYER_SETTINGS, type Effect, type Layer, type Vector, type VectorSetting } from '../../document/index.ts';
import { cos, draw, sin, slotOf, type Quaternion, mapAxes } from '../../maths/index.ts';
import { VectorReader } from '../values/vectorReader.ts';
import { turnOf } from './groups.ts';

/** A vector drawn for each particle between two ends, axis by axis. */
export interface DrawnVector {
  readonly low: Vector;
  readonly high: Vector;
  /** The slots of its three draws. */
  readonly slots: readonly [number, number, number];
}

/** How a layer's sprites stand in frames of their own: degrees at birth, and the axis that turning goes about. */
export interface OwnFrames {
  readonly tilt: DrawnVector;
  readonly axle: DrawnVector;
}

function drawnVector(setting: VectorSetting, byDefault: Vector, name: string): DrawnVector {
  const { base, muted } = setting;
  const slots = mapAxes(['x', 'y', 'z'], (axis) => slotOf(`${name}/${axis}`));
  if (muted) return { low: byDefault, high: byDefault, slots };
  return base.kind === 'spread'
    ? { low: base.low, high: base.high, slots }
    : { low: base.value, high: base.value, slots };
}

export const ownFrames = ({ settings }: Layer): OwnFrames => ({
  tilt: drawnVector(settings['life.tilt'], [...LAYER_SETTINGS['life.tilt'].byDefault], 'life.tilt'),
  axle: drawnVector(settings['life.axle'], [...LAYER_SETTINGS['life.axle'].byDefault], 'life.axle'),
});

/** A tilt and an axle as they are for one particle. */
export const framesOf = (tilt: Vector, axle: Vector): OwnFrames => {
  const still = (value: Vector): DrawnVector => ({ low: value, high: value, slots: [0, 0, 0] });
  return { tilt: still(tilt), axle: still(axle) };
};

/** The two vectors that own frames hang on, ready to be read; drawn by lots, as the stage draws them. */
export const frameReaders = (layer: Layer, effect: Pick<Effect, 'measures'>) =>
  (['life.tilt', 'life.axle'] as const).map((name) => ({
    name,
    reader: new VectorReader(layer.settings[name], LAYER_SETTINGS[name], name, effect, { byLot: true }),
  }));

const drawn = ({ low, high, slots }: DrawnVector, lot: number): Vector =>
  slots.map((slot, axis) => low[axis]! + (high[axis]! - low[axis]!) * draw(lot, slot)) as Vector;

/** Nothing is turned. */
export const UNTURNED: Quaternion = [0, 0, 0, 1];

const multiplied = (
  [ax, ay, az, aw]: Quaternion | readonly [number, number, number, number],
  [bx, by, bz, bw]: Quaternion | readonly [number, number, number, number],
): Quaternion => [
  aw * bx + ax * bw + ay * bz - az * by,
  aw * by - ax * bz + ay * bw + az * bx,
  aw * bz + ax * by - ay * bx + az * bw,
  aw * bw - ax * bx - ay * by - az * bz,
];

/**
 * The orientation of a particle: its tilt, turned as its source is, then its turn about its axle. `lot` and `angle` (radians)
 * are those of its record. The stage's shader does the same sums.
 */
export function orientationOf(
  { tilt, axle }: OwnFrames,
  lot: number,
  angle: number,
  source: Quaternion = UNTURNED,
): Quaternion {
  const [x, y, z] = drawn(axle, lot);
  const size = Math.sqrt(x * x + y * y + z * z);
  const [ax, ay, az] = size > 1e-6 ? [x / size, y / size, z / size] : [0, 0, 1];
  const [s, w] = [sin(angle / 2), cos(angle / 2)];
  const stood = multiplied(source, turnOf(drawn(tilt, lot)));
  return multiplied([ax * s, ay * s, az * s, w], stood);
}
