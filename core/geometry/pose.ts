import { composeInto, multiplyInto } from '../maths/index.ts';
import type { Clip, Rig, Track } from './rig.ts';

/** Index of the last key at or before `time`. */
function keyBefore(times: Float32Array, time: number): number {
  let low = 0;
  let high = times.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle]! <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Value of a track at `time` seconds: linear between keys, quaternions the short way and made unit again. */
export function trackInto(track: Track, time: number, out: Float64Array, o: number): void {
  const { times, values, property, stepped } = track;
  const size = property === 'rotation' ? 4 : 3;
  const i = keyBefore(times, time);
  const j = i + 1 < times.length && time > times[i]! && !stepped ? i + 1 : i;
  const t = j === i ? 0 : (time - times[i]!) / (times[j]! - times[i]!);
  let sign = 1;
  if (size === 4) {
    let dot = 0;
    for (let c = 0; c < 4; c++) dot += values[i * 4 + c]! * values[j * 4 + c]!;
    if (dot < 0) sign = -1;
  }
  let squared = 0;
  for (let c = 0; c < size; c++) {
    const a = values[i * size + c]!;
    const value = a + (sign * values[j * size + c]! - a) * t;
    out[o + c] = value;
    squared += value * value;
  }
  if (size === 4) {
    const inverse = 1 / Math.sqrt(squared);
    for (let c = 0; c < 4; c++) out[o + c]! *= inverse;
  }
}

/** Samples a rig's clip into world matrices; keeps its own room, so that sampling allocates nothing. */
export class Poser {
  readonly rig: Rig;
  readonly #rest: Float64Array;
  readonly #local: Float64Array;
  readonly #matrix = new Float64Array(16);

  constructor(rig: Rig) {
    this.rig = rig;
    this.#rest = Float64Array.from(
      rig.bones.flatMap((bone) => [...bone.translation, ...bone.rotation, ...bone.scale]),
    );
    this.#local = new Float64Array(this.#rest.length);
  }

  /**
   * Writes the world matrix of every bone, 16 numbers each, with `placement` before the roots.
   * `adjust` may change the local translations first (three, four and three numbers a bone).
   */
  sample(
    clip: Clip | undefined,
    time: number,
    placement: Float64Array,
    out: Float64Array,
    adjust?: (local: Float64Array) => void,
  ): void {
    const local = this.#local;
    local.set(this.#rest);
    for (const track of clip?.tracks ?? [])
      trackInto(
        track,
        time,
        local,
        track.bone * 10 + (track.property === 'translation' ? 0 : track.property === 'rotation' ? 3 : 7),
      );
    adjust?.(local);
    this.rig.bones.forEach((bone, index) => {
      const at = index * 10;
      composeInto(this.#matrix, 0, local, at, local, at + 3, local, at + 7);
      if (bone.parent < 0) multiplyInto(out, index * 16, placement, 0, this.#matrix, 0);
      else multiplyInto(out, index * 16, out, bone.parent * 16, this.#matrix, 0);
    });
  }
}

/** Writes the matrices that take rest vertices to the pose, in single precision as the stage draws them. */
export function skinMatricesInto(rig: Rig, world: Float64Array, out: Float32Array, o = 0): void {
  for (let bone = 0; bone < rig.bones.length; bone++)
    multiplyInto(out, o + bone * 16, world, bone * 16, rig.inverseBind, bone * 16);
}
