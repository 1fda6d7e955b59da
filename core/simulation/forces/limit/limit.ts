import { defineForce } from '../force.ts';
import { grip, positive, WHERE } from '../settings.ts';

/** Keeps speeds below a limit. */
export const limit = defineForce({
  name: 'Speed limit',
  otherWords: ['speed limit', 'max speed', 'terminal velocity', 'clamp velocity'],
  settings: {
    fastest: positive('fastest', 'No particle is faster than this.', 2, 'm/s', 10_000),
    grip: grip('How much of the excess is taken away each step.'),
    ...WHERE,
  },
  phase: 'constraint',
  sentence: 'Kept below {fastest}, with a grip of {grip}',
  place: 'reach',
  strengths: [],
  isMover: false,
  mirrored: [],
  bind(binding) {
    const fastest = binding.number('fastest');
    const grip = binding.number('grip', 0.01);
    return {
      each: [fastest, grip],
      write: (writer) => writer.calls.limit(writer.plain(fastest), writer.value(grip)),
    };
  },
});
