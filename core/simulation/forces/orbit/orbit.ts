import type { Vec3 } from '../../../maths/index.ts';
import { LIFE, number, SPREAD } from '../../../settings/index.ts';
import { defineForce } from '../force.ts';
import { axis, grip, oneOf, positive, WHERE } from '../settings.ts';

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
    grip: grip('How firmly they are held; 100 leaves no play.'),
    about: oneOf('about', 'Whether the distance is held from an axis or from a point.', ['axis', 'point'], 'axis'),
    axis: axis('The axis that is turned round.', [0, 1, 0]),
    ...WHERE,
  },
  phase: 'constraint',
  sentence: (chosen) =>
    chosen('about') === 'point'
      ? 'Held {distance} from a {about} at {@}, with a grip of {grip}'
      : 'Held {distance} from an {about} at {@}, {axis}, going round at {speed}, with a grip of {grip}',
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
    const grip = binding.number('grip', 0.01);
    const hasAxis = binding.choice('about') === 'axis';
    const axis = binding.vector('axis');
    const keepsItsOwn = !hasAxis || (speed.isConstant && speed.low === 0);
    return {
      each: [distance, speed, grip],
      write(writer) {
        const away = writer.plain(distance);
        const round = writer.plain(speed);
        const about = hasAxis ? writer.direction(axis) : NO_AXIS;
        const seconds = Math.fround(writer.seconds);
        writer.calls.orbit(away, round, keepsItsOwn ? 0 : 1, writer.at, about, writer.value(grip), seconds);
      },
    };
  },
});
