import { scale } from '../../../maths/index.ts';
import { defineForce } from '../force.ts';
import { axis, positive, shared, WHERE } from '../settings.ts';

/** Carries particles along: they take up a share of the difference to the wind each second. */
export const wind = defineForce({
  name: 'Wind',
  otherWords: ['breeze', 'directional force', 'constant force'],
  settings: {
    strength: positive('strength', 'Share of the difference to the wind taken up each second.', 0.5, '/s'),
    speed: shared('wind speed', 'How fast the wind blows.', 3, 'm/s', -200, 200),
    axis: axis('Where the wind blows to.', [1, 0, 0]),
    ...WHERE,
  },
  phase: 'acceleration',
  sentence: 'Carried by a wind of {speed} toward {axis}, taking up {strength} of the difference',
  place: 'directions',
  strengths: ['strength'],
  isMover: true,
  mirrored: ['axis'],
  guide: (of) => {
    const way = scale(of.axis('axis'), 0.25 * of.number('speed'));
    return [-0.5, 0, 0.5].map((aside) => ({ draws: 'arrow', way, aside }));
  },
  bind(binding) {
    const strength = binding.number('strength');
    const speed = binding.number('speed');
    const way = binding.vector('axis');
    const blown = new Float64Array(3);
    return {
      each: [strength],
      write(writer) {
        const metres = writer.shared(speed);
        const along = writer.direction(way);
        for (let axis = 0; axis < 3; axis++) blown[axis] = along[axis]! * metres;
        writer.push(strength, blown);
        writer.drag(strength);
      },
    };
  },
});
