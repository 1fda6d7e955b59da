import { defineForce } from '../force.ts';
import { positive, WHERE } from '../settings.ts';

/** Slows what moves; several drags add up, and the integrator solves their sum exactly. */
export const drag = defineForce({
  name: 'Drag',
  otherWords: ['damping', 'air resistance', 'slow down', 'friction in air'],
  settings: {
    strength: positive('strength', 'Share of the speed lost each second, continuously.', 1, '/s'),
    air: positive(
      'air drag',
      'Drag that grows with speed: share of the speed lost for each metre travelled.',
      0,
      '/m',
    ),
    ...WHERE,
  },
  phase: 'acceleration',
  sentence: 'Slowed by {strength}, and by {air} of air',
  place: 'reach',
  strengths: ['strength', 'air'],
  isMover: false,
  mirrored: [],
  bind(binding) {
    const strength = binding.number('strength');
    const air = binding.number('air');
    return {
      each: [strength, air],
      write(writer) {
        writer.drag(strength);
        if (air.isConstant && air.low === 0) return;
        const seconds = Math.fround(writer.seconds);
        writer.slowsEach();
        writer.calls.airDrag(writer.value(air), seconds, 1 / seconds);
      },
    };
  },
});
