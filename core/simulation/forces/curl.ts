import type { Effect, Force } from '../../document/index.ts';
import { curlField } from '../../kernels/index.ts';
import { hash2, slotOf, type Vec3, mapAxes, AXES } from '../../maths/index.ts';
import { forceNumber, forceVector, forceWhere, type BoundForce, type ForceSurroundings } from './force.ts';

const seedOf = ({ seed }: Pick<Effect, 'seed'>, id: string): number => hash2(seed, slotOf(`force/${id}/field`));
/** From one field to the next one: smoothly. */
const eased = (t: number): number => t * t * (3 - 2 * t);

/** Stirs particles by swirls that neither gather nor thin them; the field becomes another `change` times a second. */
export function curl(force: Extract<Force, { kind: 'curl' }>, around: ForceSurroundings): BoundForce {
  const { effect, group, id } = around;
  const strength = forceNumber(force, 'strength', around);
  const size = forceNumber(force, 'size', around);
  const change = forceNumber(force, 'change', around);
  const drift = forceVector(force, 'drift');
  const seed = seedOf(effect, id);
  return {
    phase: 'acceleration',
    readers: [strength],
    where: forceWhere(force, around),
    write(writer) {
      const inverse = 1 / writer.shared(size);
      const { now, next, share: t } = writer.changes(writer.shared(change));
      const drifted = drift.map((metres) => metres * group.scale * writer.time * inverse);
      const seeds = [hash2(seed, now) | 0, hash2(seed, next) | 0];
      writer.call('curl', [...writer.value(strength), inverse, ...drifted, eased(t), ...seeds]);
    },
  };
}

/** What is known of a curl force at an instant: metres a swirl, changes of its field so far, metres that it has drifted. */
export interface Swirling {
  readonly size: number;
  readonly changes: number;
  readonly drifted: Vec3;
}

/** The way in which the curl force of that id pushes at places of the world, strength left out: for drawing it. */
export function swirlsOf(effect: Pick<Effect, 'seed'>, id: string, { size, changes, drifted }: Swirling) {
  const seed = seedOf(effect, id);
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
