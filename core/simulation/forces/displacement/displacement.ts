import { defineForce, type ForceWriter } from '../force.ts';
import { guideOfWay } from '../ways.ts';
import { strength, WHERE } from '../settings.ts';

/** Moves particles by a way per axis that changes with age: each step by what it has changed. */
export const displacement = defineForce({
  name: 'Displacement',
  settings: {
    x: strength('along x', 'How far they are moved along x; shape it over age.', 0, 'm'),
    y: strength('along y', 'How far they are moved along y; shape it over age.', 0, 'm'),
    z: strength('along z', 'How far they are moved along z; shape it over age.', 0, 'm'),
    share: WHERE.share,
  },
  phase: 'velocity',
  sentence: 'Moved over age by {x} along x, {y} along y, {z} along z',
  place: 'directions',
  strengths: ['x', 'y', 'z'],
  isMover: true,
  mirrored: ['x'],
  guide: (of) => guideOfWay(of.number('x'), of.number('y'), of.number('z')),
  bind(binding) {
    const [x, y, z] = [binding.number('x'), binding.number('y'), binding.number('z')] as const;
    const move = (writer: ForceWriter, when: 'start' | 'end', sign: 1 | -1) => {
      const [alongX, alongY, alongZ] = writer.axes();
      const first = writer.value(x, when, sign);
      const second = writer.value(y, when, sign);
      const third = writer.value(z, when, sign);
      const seconds = Math.fround(writer.seconds);
      writer.calls.shift(first, second, third, alongX, alongY, alongZ, 1, writer.step, seconds);
    };
    return {
      each: [x, y, z],
      write(writer) {
        move(writer, 'end', 1);
        move(writer, 'start', -1);
      },
    };
  },
});
