import { actingValue, LAYER_SETTINGS, type Layer, type Place } from '../../document/index.ts';
import { acrossInto, cos, draw, radians, sin, slotOf } from '../../maths/index.ts';
import type { GroupFrame } from '../scene/groups.ts';
import type { Scene } from '../scene/scene.ts';
import type { Reading } from '../values/reading.ts';
import type { VectorReader } from '../values/vectorReader.ts';
import { ALONG, AT, CARRIER, NORMAL, OUT } from './source.ts';

const SLOT_CONE_TURN = slotOf('launch/turn');
const SLOT_CONE_OPEN = slotOf('launch/open');
const SLOT_ANY_TURN = slotOf('launch/anyTurn');
const SLOT_ANY_RISE = slotOf('launch/anyRise');

const length = (v: ArrayLike<number>, o = 0): number =>
  Math.sqrt(v[o]! * v[o]! + v[o + 1]! * v[o + 1]! + v[o + 2]! * v[o + 2]!);

/** Makes `v` a metre long; leaves it as it is when it has no length. */
function unitInto(v: Float64Array): void {
  const size = length(v);
  if (size > 1e-12) for (let axis = 0; axis < 3; axis++) v[axis]! /= size;
}

/** A direction as likely as any other (Archimedes' hat-box theorem). */
export function anyDirectionInto(out: Float64Array, key: number): void {
  const y = 1 - 2 * draw(key, SLOT_ANY_RISE);
  const flat = Math.sqrt(Math.max(0, 1 - y * y));
  const turn = 2 * Math.PI * draw(key, SLOT_ANY_TURN);
  out[0] = flat * cos(turn);
  out[1] = y;
  out[2] = flat * sin(turn);
}

/** Room for two directions. */
const SIDE_U = new Float64Array(3);
const SIDE_V = new Float64Array(3);

/** Turns `out` to a direction within `degrees` of where it points, as likely as any other there. */
export function openInto(out: Float64Array, degrees: number, key: number): void {
  if (degrees <= 0 || length(out) === 0) return;
  const along = 1 - draw(key, SLOT_CONE_OPEN) * (1 - cos(radians(degrees)));
  const aside = Math.sqrt(Math.max(0, 1 - along * along));
  const turn = 2 * Math.PI * draw(key, SLOT_CONE_TURN);
  const c = aside * cos(turn);
  const s = aside * sin(turn);
  acrossInto(SIDE_U, SIDE_V, out);
  for (let axis = 0; axis < 3; axis++) out[axis] = out[axis]! * along + c * SIDE_U[axis]! + s * SIDE_V[axis]!;
  unitInto(out);
}

/** How a layer's particles leave. */
export class Launch {
  readonly #mode: string;
  readonly #axis: VectorReader;
  readonly #way = new Float64Array(3);
  readonly #aim: Place;
  readonly #scene: Scene;
  readonly #group: GroupFrame;
  readonly #matrix = new Float64Array(16);

  constructor(layer: Layer, axis: VectorReader, scene: Scene, group: GroupFrame) {
    this.#mode = actingValue(layer.settings['motion.launch'], LAYER_SETTINGS['motion.launch']);
    this.#axis = axis;
    this.#aim = layer.aim;
    this.#scene = scene;
    this.#group = group;
  }

  /** Writes the direction in which a particle leaves from a birth's words; nothing where there is none. */
  directionInto(out: Float64Array, birth: Float64Array, reading: Reading, angleDegrees: number): void {
    const { key } = reading;
    switch (this.#mode) {
      case 'normal':
        return copy(out, birth, NORMAL);
      case 'tangent':
        return this.#within(out, birth, radians(angleDegrees));
      case 'within':
        return this.#within(out, birth, 2 * Math.PI * draw(key, SLOT_ANY_TURN));
      case 'axis':
        this.#axisInto(out, birth, reading);
        return;
      case 'toward':
      case 'round':
        return this.#aimed(out, birth, reading);
      case 'any':
        return anyDirectionInto(out, key);
      default:
        return copy(out, birth, OUT);
    }
  }

  /** The axis is one of the carrier's, so that it turns with what particles are born on. */
  #axisInto(out: Float64Array, birth: Float64Array, reading: Reading): void {
    this.#axis.readInto(this.#way, reading);
    turnedInto(out, birth, CARRIER, this.#way);
    unitInto(out);
  }

  /** A direction in the surface, turned by an angle from the direction along it. */
  #within(out: Float64Array, birth: Float64Array, angle: number): void {
    const nx = birth[NORMAL]!;
    const ny = birth[NORMAL + 1]!;
    const nz = birth[NORMAL + 2]!;
    const x = birth[ALONG]!;
    const y = birth[ALONG + 1]!;
    const z = birth[ALONG + 2]!;
    const c = cos(angle);
    const s = sin(angle);
    out[0] = x * c + (ny * z - nz * y) * s;
    out[1] = y * c + (nz * x - nx * z) * s;
    out[2] = z * c + (nx * y - ny * x) * s;
    unitInto(out);
  }

  /** Toward the aim, or round the axis through it. */
  #aimed(out: Float64Array, birth: Float64Array, reading: Reading): void {
    const m = this.#matrix;
    this.#scene.placeInto(m, this.#aim, reading.time, this.#group.matrix);
    const x = m[12]! - birth[AT]!;
    const y = m[13]! - birth[AT + 1]!;
    const z = m[14]! - birth[AT + 2]!;
    if (this.#mode === 'toward') {
      out[0] = x;
      out[1] = y;
      out[2] = z;
    } else {
      this.#axis.readInto(this.#way, reading);
      const [ax, ay, az] = [this.#way[0]!, this.#way[1]!, this.#way[2]!];
      const nx = m[0]! * ax + m[4]! * ay + m[8]! * az;
      const ny = m[1]! * ax + m[5]! * ay + m[9]! * az;
      const nz = m[2]! * ax + m[6]! * ay + m[10]! * az;
      out[0] = -(ny * z - nz * y);
      out[1] = -(nz * x - nx * z);
      out[2] = -(nx * y - ny * x);
    }
    unitInto(out);
  }
}

function copy(out: Float64Array, from: Float64Array, o: number): void {
  for (let axis = 0; axis < 3; axis++) out[axis] = from[o + axis]!;
}

/** Writes a vector turned by the packed rigid place at `q` of `place`. */
export function turnedInto(out: Float64Array, place: Float64Array, q: number, v: ArrayLike<number>): void {
  const x = place[q]!;
  const y = place[q + 1]!;
  const z = place[q + 2]!;
  const w = place[q + 3]!;
  const vx = v[0]!;
  const vy = v[1]!;
  const vz = v[2]!;
  const tx = 2 * (y * vz - z * vy);
  const ty = 2 * (z * vx - x * vz);
  const tz = 2 * (x * vy - y * vx);
  out[0] = vx + w * tx + (y * tz - z * ty);
  out[1] = vy + w * ty + (z * tx - x * tz);
  out[2] = vz + w * tz + (x * ty - y * tx);
}
