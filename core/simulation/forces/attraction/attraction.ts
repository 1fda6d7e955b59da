import { defineForce, TARGET_ARRAYS } from '../force.ts';
import { axis, oneOf, shared, SPOT, strength } from '../settings.ts';

const SENTENCES: Record<string, string> = {
  line: 'Drawn to {toward} of {length} along {axis} at {@} by {strength}',
  skin: 'Drawn to {toward} what {@} stands on by {strength}',
  'own spot': 'Drawn to {toward} by {strength}',
};

/** Draws particles to a point, to the nearest point of a line or of a thing's skin, or each to the spot it was born on. */
export const attraction = defineForce({
  name: 'Attraction',
  otherWords: ['attractor', 'point force', 'magnet', 'pull', 'repulsion', 'repel', 'attract', 'radial force'],
  settings: {
    strength: strength('strength', 'Acceleration toward the place; negative pushes away.', 4),
    toward: oneOf(
      'toward',
      'What particles are drawn to: a point, a line, the nearest spot of a thing’s skin, or the spot each was born on.',
      ['point', 'line', 'skin', 'own spot'],
      'point',
    ),
    length: shared('line length', 'Length of the line, half of it to either side of its place.', 2, 'm', 0, 100),
    axis: axis('Direction of the line.', [0, 1, 0]),
    ...SPOT,
  },
  phase: 'acceleration',
  sentence: (chosen) => SENTENCES[chosen('toward')] ?? 'Drawn to {toward} at {@} by {strength}',
  choiceWords: {
    toward: {
      point: 'a point',
      line: 'a line',
      skin: 'the nearest skin of',
      'own spot': 'the spot each was born on',
    },
  },
  place: 'always',
  strengths: ['strength'],
  isMover: true,
  mirrored: ['axis'],
  guide: (of) =>
    of.choice('toward') === 'line'
      ? [{ draws: 'cross' }, { draws: 'line', axis: of.axis('axis'), length: of.number('length') }]
      : [{ draws: 'cross' }],
  handles: [{ number: 'length', way: 'along', metres: 0.5, when: ['toward', 'line'] }],
  bind(binding) {
    const strength = binding.number('strength');
    const length = binding.number('length');
    const softness = binding.number('softness');
    const way = binding.vector('axis');
    const toward = binding.choice('toward');
    const toLine = toward === 'line';
    const along = new Float64Array(3);
    const start = new Float64Array(3);
    const kind = toward === 'skin' || toward === 'own spot' ? toward : null;
    return {
      each: [strength],
      // A target of each particle's own: its reach is measured from there.
      fadesSoftly: kind !== null,
      arrays: kind ? TARGET_ARRAYS : 0,
      write(writer) {
        const inverse = writer.ownFade();
        const value = writer.value(strength);
        if (kind) return writer.calls.attractionEach(value, writer.targets(kind), writer.squared(softness), inverse);
        const metres = toLine ? writer.shared(length) : 0;
        if (metres === 0) return writer.calls.attraction(value, writer.at, writer.squared(softness), inverse);
        const direction = writer.direction(way);
        for (let axis = 0; axis < 3; axis++) {
          along[axis] = direction[axis]! * metres;
          start[axis] = writer.at[axis]! + along[axis]! * -0.5;
        }
        writer.calls.attractionLine(value, start, along, 1 / (metres * metres), writer.squared(softness), inverse);
      },
    };
  },
});
