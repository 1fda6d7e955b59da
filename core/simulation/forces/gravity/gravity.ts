import { defineForce } from '../force.ts';
import { PUSH, strength } from '../settings.ts';

const DOWN = [0, -1, 0];

/** Pulls straight down. */
export const gravity = defineForce({
  name: 'Gravity',
  otherWords: ['fall', 'weight', 'drop', 'rise', 'float up', 'buoyancy'],
  settings: { strength: strength('strength', 'Acceleration downward.', 9.81), ...PUSH },
  phase: 'acceleration',
  sentence: 'Pulled down by {strength}',
  place: 'reach',
  strengths: ['strength'],
  isMover: true,
  mirrored: [],
  isDrawnAside: true,
  guide: (of) => [{ draws: 'arrow', way: [0, -0.05 * of.number('strength'), 0] }],
  bind(binding) {
    const strength = binding.number('strength');
    return { each: [strength], write: (writer) => writer.push(strength, DOWN) };
  },
});
