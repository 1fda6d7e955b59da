import type { NumberSetting, Place, VectorSetting } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { boneNamed } from '@jinx/core/geometry';
import type { Point } from './lines';

export const fixed = (setting: NumberSetting) =>
  setting.base.kind === 'fixed' ? setting.base.value : setting.base.kind === 'spread' ? setting.base.high : 0;

export const vectorOf = (setting: VectorSetting): Point =>
  setting.base.kind === 'fixed' ? [...setting.base.value] : [1, 1, 1];

/** Numbers of a frame's matrices: each thing's bones, then its feet, by id; at last the effect's own frame. */
export class Matrices {
  readonly #starts = new Map<string, number>();
  readonly #rigs: StageRigs;
  readonly effect: number;

  constructor(rigs: StageRigs) {
    this.#rigs = rigs;
    let start = 0;
    for (const id of [...rigs.keys()].sort()) {
      this.#starts.set(id, start);
      start += rigs.get(id)!.bones.length + 1;
    }
    this.effect = start;
  }

  of(place: Place): number {
    if (place.kind === 'effect') return this.effect;
    if (place.kind === 'world') return -1;
    const rig = this.#rigs.get(place.thing);
    if (!rig) return -1;
    const start = this.#starts.get(place.thing)!;
    if (place.kind === 'thing') return start + rig.bones.length;
    return start + Math.max(0, boneNamed(rig, place.bone));
  }
}

/** Turns a point of a place's frame into one of what the place hangs on. */
export function hung({ offset, turn }: Place): (points: number[]) => Float32Array {
  const [x, y, z] = turn.map((degrees) => (degrees * Math.PI) / 180) as [number, number, number];
  const [cx, sx, cy, sy, cz, sz] = [Math.cos(x), Math.sin(x), Math.cos(y), Math.sin(y), Math.cos(z), Math.sin(z)];
  return (points) => {
    const out = new Float32Array(points.length);
    for (let i = 0; i < points.length; i += 3) {
      const [a, b, c] = [points[i]!, points[i + 1]!, points[i + 2]!];
      const [y1, z1] = [b * cx - c * sx, b * sx + c * cx];
      const [x2, z2] = [a * cy + z1 * sy, z1 * cy - a * sy];
      out[i] = offset[0] + x2 * cz - y1 * sz;
      out[i + 1] = offset[1] + x2 * sz + y1 * cz;
      out[i + 2] = offset[2] + z2;
    }
    return out;
  };
}
