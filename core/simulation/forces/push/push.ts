import { scale, type Vec3 } from '../../../maths/index.ts';
import { defineForce } from '../force.ts';
import { shared, SPOT, strength } from '../settings.ts';

const WAYS: readonly Vec3[] = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 0, 1],
  [0, 0, -1],
  [0, 1, 0],
];

/** Pushes particles outward as a growing shell passes them. */
export const push = defineForce({
  name: 'Spreading push',
  otherWords: ['shockwave', 'explosion', 'blast', 'push out', 'radial impulse'],
  settings: {
    strength: strength('strength', 'How hard the shell pushes outward as it passes; negative pulls in.', 30),
    start: shared('start', 'When the shell leaves its place, in seconds of the effect.', 0, 's', 0, 3600),
    speed: shared('spreading', 'How fast the shell spreads.', 6, 'm/s', 0, 500),
    width: shared('width', 'How far before and behind the shell is felt.', 0.5, 'm', 0.01, 100),
    ...SPOT,
  },
  phase: 'acceleration',
  sentence: 'Pushed from {@} by a shell of {strength}, leaving at {start}, spreading at {speed}, {width} thick',
  place: 'always',
  strengths: ['strength'],
  isMover: true,
  mirrored: [],
  guide: (of) =>
    WAYS.map((way) => ({
      draws: 'arrow',
      from: scale(way, 0.15),
      way: scale(way, 0.3 * Math.sign(of.number('strength'))),
    })),
  bind(binding) {
    const strength = binding.number('strength');
    const start = binding.number('start');
    const speed = binding.number('speed');
    const softness = binding.number('softness');
    const width = binding.number('width');
    return {
      each: [strength],
      write(writer) {
        const seconds = writer.time - writer.shared(start);
        if (seconds < 0) return;
        const inverse = writer.ownFade();
        const radius = seconds * writer.shared(speed);
        const thin = 1 / writer.shared(width);
        writer.calls.shell(writer.value(strength), writer.at, radius, thin, writer.squared(softness), inverse);
      },
    };
  },
});
