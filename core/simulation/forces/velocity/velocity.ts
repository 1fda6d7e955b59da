import { defineForce } from '../force.ts';
import { guideOfWay } from '../ways.ts';
import { strength, WHERE } from '../settings.ts';

/** Moves particles at a speed per axis, beside their own and without momentum. */
export const velocity = defineForce({
  name: 'Velocity',
  settings: {
    x: strength('along x', 'Speed along x, beside their own.', 0, 'm/s'),
    y: strength('along y', 'Speed along y, beside their own.', 1, 'm/s'),
    z: strength('along z', 'Speed along z, beside their own.', 0, 'm/s'),
    ...WHERE,
  },
  phase: 'velocity',
  sentence: 'Moved beside their own speed by {x} along x, {y} along y, {z} along z',
  place: 'directions',
  strengths: ['x', 'y', 'z'],
  isMover: true,
  mirrored: ['x'],
  guide: (of) => guideOfWay(of.number('x'), of.number('y'), of.number('z')),
  bind(binding) {
    const [x, y, z] = [binding.number('x'), binding.number('y'), binding.number('z')] as const;
    return {
      each: [x, y, z],
      write(writer) {
        const [alongX, alongY, alongZ] = writer.axes();
        const first = writer.value(x);
        const second = writer.value(y);
        const third = writer.value(z);
        const seconds = Math.fround(writer.seconds);
        writer.calls.shift(first, second, third, alongX, alongY, alongZ, 0, writer.step, seconds);
      },
    };
  },
});
