import type { Vec3 } from '../../../maths/index.ts';
import { LIFE, number, SPREAD } from '../../../settings/index.ts';
import { defineForce } from '../force.ts';
import { axis, halving, oneOf, positive, WHERE } from '../settings.ts';

const NO_AXIS: Vec3 = [0, 0, 0];

/** Holds particles at a distance from an axis or a point, going round at a speed or at their own. */
export const orbit = defineForce({
  name: 'Orbit',
  otherWords: ['revolve', 'circle around', 'keep distance'],
  settings: {
    distance: positive('distance', 'Distance at which particles are held.', 1, 'm'),
    speed: number('force', 'step', 'speed round', 'Speed round the axis; 0 leaves each its own.', {
      unit: 'm/s',
      least: -200,
      most: 200,
      byDefault: 2,
      bases: SPREAD,
      reads: LIFE,
      zero: 'its own',
    }),
    halves: halving(
      'The time in which the way to the distance, and what is lacking of the speed, halves; none at 0.',
    ),
    about: oneOf('about', 'Whether the distance is held from an axis or from a point.', ['axis', 'point'], 'axis'),
    axis: axis('The axis that is turned round.', [0, 1, 0]),
    ...WHERE,
  },
  phase: 'constraint',
  sentence: (chosen) =>
    chosen('about') === 'point'
      ? 'Held {distance} from a {about} at {@}, halving the way in {halves}'
      : 'Held {distance} from an {about} at {@}, {axis}, going round at {speed}, halving the way in {halves}',
  place: 'always',
  strengths: [],
  isMover: true,
  mirrored: ['axis', 'speed'],
  guide: (of) => {
    const axis = of.axis('axis');
    const radius = of.number('distance');
    return [
      { draws: of.choice('about') === 'axis' ? 'circle' : 'ball', axis, radius },
      { draws: 'spin', axis, radius, isBack: of.number('speed') < 0 },
    ];
  },
  handles: [{ number: 'distance', way: 'across' }],
  bind(binding) {
    const distance = binding.number('distance');
    const speed = binding.number('speed');
    const halves = binding.number('halves');
    const hasAxis = binding.choice('about') === 'axis';
    const axis = binding.vector('axis');
    const keepsItsOwn = !hasAxis || (speed.isConstant && speed.low === 0);
    return {
      each: [distance, speed, halves],
      halving: [halves],
      write(writer) {
        const away = writer.plain(distance);
        const round = writer.plain(speed);
        const about = hasAxis ? writer.direction(axis) : NO_AXIS;
        const seconds = Math.fround(writer.seconds);
        writer.calls.orbit(away, round, keepsItsOwn ? 0 : 1, writer.at, about, writer.halving(halves), seconds);
      },
    };
  },
});
