import { hash2 } from '../../../maths/index.ts';
import { TIMED, vector } from '../../../settings/index.ts';
import { defineForce } from '../force.ts';
import { PUSH, shared, strength } from '../settings.ts';
import { eased, fieldSeed } from './field.ts';

/** Stirs particles by swirls that neither gather nor thin them; the field becomes another `change` times a second. */
export const curl = defineForce({
  name: 'Curl noise',
  otherWords: ['turbulence', 'noise field', 'noise force', 'curl', 'wander', 'flow noise'],
  settings: {
    strength: strength('strength', 'How hard the swirls push.', 2),
    size: shared('swirl size', 'Width of one swirl.', 0.5, 'm', 0.01, 100),
    change: shared('change', 'How many times a second the field becomes another.', 0.5, '/s', 0, 100),
    drift: vector('force', 'step', 'drift', 'How the whole field moves.', {
      unit: 'm/s',
      least: -100,
      most: 100,
      byDefault: [0, 0, 0],
      reads: TIMED,
      refuses: 'field',
    }),
    ...PUSH,
  },
  phase: 'acceleration',
  sentence: 'Stirred by swirls of {size}, {strength} strong, changing {change}, drifting by {drift}',
  place: 'reach',
  strengths: ['strength'],
  isMover: true,
  mirrored: ['drift'],
  isDrawnOverTime: true,
  guide: (of) => [
    { draws: 'swirls', size: of.number('size'), change: of.number('change'), drift: of.vector('drift') },
  ],
  bind(binding) {
    const strength = binding.number('strength');
    const size = binding.number('size');
    const change = binding.number('change');
    const drift = binding.vector('drift');
    const seed = fieldSeed(binding.seed, binding.id);
    const moved = new Float64Array(3);
    return {
      each: [strength],
      write(writer) {
        const inverse = 1 / writer.shared(size);
        const { now, next, share: t } = writer.changes(change);
        const drifted = writer.drifted(drift);
        for (let axis = 0; axis < 3; axis++) moved[axis] = drifted[axis]! * inverse;
        const seeded = hash2(seed, now) | 0;
        writer.calls.curl(writer.value(strength), inverse, moved, eased(t), seeded, hash2(seed, next) | 0);
      },
    };
  },
});
