import { defineForce } from '../force.ts';
import { halving, positive, WHERE } from '../settings.ts';

/** Keeps speeds below a limit. */
export const limit = defineForce({
  name: 'Speed limit',
  otherWords: ['speed limit', 'max speed', 'terminal velocity', 'clamp velocity'],
  settings: {
    fastest: positive('fastest', 'No particle is faster than this.', 2, 'm/s', 10_000),
    halves: halving('The time in which the excess over the limit halves; in no time at 0.'),
    ...WHERE,
  },
  phase: 'constraint',
  sentence: 'Kept below {fastest}, the excess halving in {halves}',
  place: 'reach',
  strengths: [],
  isMover: false,
  mirrored: [],
  bind(binding) {
    const fastest = binding.number('fastest');
    const halves = binding.number('halves');
    return {
      each: [fastest, halves],
      halving: [halves],
      write: (writer) => writer.calls.limit(writer.plain(fastest), writer.halving(halves)),
    };
  },
});
