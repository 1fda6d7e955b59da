import { defineForce } from '../force.ts';
import { axis, SPOT, strength } from '../settings.ts';

/** Metres about its place at which its arrows are drawn, unless its reach is less. */
const DRAWN = 0.4;

/** Turns particles round an axis, pulls them to it, lifts them along it. */
export const vortex = defineForce({
  name: 'Vortex',
  otherWords: ['swirl', 'tornado', 'whirl', 'spiral', 'rotate around axis'],
  settings: {
    strength: strength('spin', 'Acceleration round the axis.', 4),
    pull: strength('pull', 'Acceleration toward the axis.', 0),
    lift: strength('lift', 'Acceleration along the axis.', 0),
    axis: axis('The axis that is turned round.', [0, 1, 0]),
    ...SPOT,
  },
  phase: 'acceleration',
  sentence: 'Turned round {@} on the axis {axis} by {strength}, pulled in by {pull}, lifted by {lift}',
  place: 'always',
  strengths: ['strength', 'pull', 'lift'],
  isMover: true,
  mirrored: ['axis', 'strength'],
  guide: (of) => {
    const radius = Math.min(DRAWN, of.number('reach') || DRAWN);
    return [{ draws: 'cross' }, { draws: 'spin', axis: of.axis('axis'), radius, isBack: of.number('strength') < 0 }];
  },
  bind(binding) {
    const spin = binding.number('strength');
    const pull = binding.number('pull');
    const lift = binding.number('lift');
    const round = binding.vector('axis');
    const softness = binding.number('softness');
    return {
      each: [spin, pull, lift],
      write(writer) {
        const inverse = writer.ownFade();
        const spins = writer.value(spin);
        const pulls = writer.value(pull);
        writer.calls.vortex(
          spins,
          pulls,
          writer.value(lift),
          writer.at,
          writer.direction(round),
          writer.squared(softness),
          inverse,
        );
      },
    };
  },
});
