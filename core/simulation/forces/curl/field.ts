import { curlField } from '../../../kernels/index.ts';
import { AXES, hash2, mapAxes, slotOf, type Vec3 } from '../../../maths/index.ts';

/** Where the seeds of a curl force's fields begin. */
export const fieldSeed = (effectSeed: number, forceId: string): number =>
  hash2(effectSeed, slotOf(`force/${forceId}/field`));

/** From one field to the next one: smoothly. */
export const eased = (t: number): number => t * t * (3 - 2 * t);

/** What is known of a curl force at an instant: metres a swirl, changes of its field so far, metres that it has drifted. */
export interface Swirling {
  readonly size: number;
  readonly changes: number;
  readonly drifted: Vec3;
}

/** The way in which the curl force of that id pushes at places of the world, strength left out: for drawing it. */
export function swirlsOf(effect: { readonly seed: number }, id: string, { size, changes, drifted }: Swirling) {
  const seed = fieldSeed(effect.seed, id);
  const now = Math.floor(changes);
  const blend = eased(changes - now);
  const fields = [0, 1].map((n) => ({ seed: hash2(seed, now + n) | 0, out: new Float32Array(3) }));
  return (at: Vec3): Vec3 => {
    const [x, y, z] = mapAxes(at, (metres, axis) => Math.fround((metres - drifted[axis]!) / size));
    for (const field of fields) curlField(x, y, z, field.seed, field.out);
    const [one, two] = fields as [(typeof fields)[0], (typeof fields)[0]];
    return mapAxes(AXES, (axis) => one.out[axis]! * (1 - blend) + two.out[axis]! * blend);
  };
}
