import { defineForce } from '../force.ts';
import { guideOfWay, writeShift } from '../ways.ts';
import { strength, WHERE } from '../settings.ts';

/** Moves particles by a way per axis that changes with age: each step by what it has changed. */
export const displacement = defineForce({
  name: 'Displacement',
  otherWords: ['position over life', 'offset over life'],
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
    const ways = [binding.number('x'), binding.number('y'), binding.number('z')] as const;
    return {
      each: ways,
      write(writer) {
        writeShift(writer, ways, true, 'end', 1);
        writeShift(writer, ways, true, 'start', -1);
      },
    };
  },
});
