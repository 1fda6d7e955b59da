import { defineForce } from '../force.ts';
import { guideOfWay, writeShift } from '../ways.ts';
import { strength, WHERE } from '../settings.ts';

/** Moves particles at a speed per axis, beside their own and without momentum. */
export const velocity = defineForce({
  name: 'Velocity',
  otherWords: ['velocity over life', 'speed over life'],
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
    const ways = [binding.number('x'), binding.number('y'), binding.number('z')] as const;
    return { each: ways, write: (writer) => writeShift(writer, ways, false) };
  },
});
