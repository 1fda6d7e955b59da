import { hash2, slotOf } from '../../../maths/index.ts';
import { defineForce } from '../force.ts';
import { PUSH, shared, strength } from '../settings.ts';

/** Shakes each particle its own way, another way `change` times a second. */
export const jitter = defineForce({
  name: 'Jitter',
  otherWords: ['shake', 'random force', 'vibration'],
  settings: {
    strength: strength('strength', 'How hard each particle is shaken, its own way.', 4),
    change: shared('change', 'How many times a second each is pushed another way.', 8, '/s', 0.1, 120),
    ...PUSH,
  },
  phase: 'acceleration',
  sentence: 'Shaken by {strength}, another way {change}',
  place: 'reach',
  strengths: ['strength'],
  isMover: true,
  mirrored: [],
  bind(binding) {
    const strength = binding.number('strength');
    const change = binding.number('change');
    const seed = slotOf(`force/${binding.id}/jitter`);
    return {
      each: [strength],
      write(writer) {
        const { now, next, share } = writer.changes(change);
        writer.calls.jitter(writer.value(strength), share, hash2(seed, now) | 0, hash2(seed, next) | 0);
      },
    };
  },
});
