import { LAYER_SETTINGS, type Layer, type Vector, type VectorSetting } from '../document/index.ts';
import { cos, draw, sin, slotOf, type Quaternion } from '../maths/index.ts';
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
  const slots = ['x', 'y', 'z'].map((axis) => slotOf(`${name}/${axis}`)) as unknown as DrawnVector['slots'];
  if (muted) return { low: byDefault, high: byDefault, slots };
  return base.kind === 'spread'
    ? { low: base.low, high: base.high, slots }
    : { low: base.value, high: base.value, slots };
}

export const ownFrames = ({ settings }: Layer): OwnFrames => ({
  tilt: drawnVector(settings['life.tilt'], [...LAYER_SETTINGS['life.tilt'].byDefault], 'life.tilt'),
  axle: drawnVector(settings['life.axle'], [...LAYER_SETTINGS['life.axle'].byDefault], 'life.axle'),
});

const drawn = ({ low, high, slots }: DrawnVector, lot: number): Vector =>
  slots.map((slot, axis) => low[axis]! + (high[axis]! - low[axis]!) * draw(lot, slot)) as Vector;

/**
 * The orientation of a particle: its tilt, then its turn about its axle. `lot` and `angle` (radians) are those of its record.
 * The stage's shader does the same sums.
 */
export function orientationOf({ tilt, axle }: OwnFrames, lot: number, angle: number): Quaternion {
  const [x, y, z] = drawn(axle, lot);
  const size = Math.sqrt(x * x + y * y + z * z);
  const [ax, ay, az] = size > 1e-6 ? [x / size, y / size, z / size] : [0, 0, 1];
  const [s, w] = [sin(angle / 2), cos(angle / 2)];
  const [qx, qy, qz] = [ax * s, ay * s, az * s];
  const [tx, ty, tz, tw] = turnOf(drawn(tilt, lot));
  return [
    w * tx + qx * tw + qy * tz - qz * ty,
    w * ty - qx * tz + qy * tw + qz * tx,
    w * tz + qx * ty - qy * tx + qz * tw,
    w * tw - qx * tx - qy * ty - qz * tz,
  ];
}
