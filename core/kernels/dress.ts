import { BIRTH_FRACTION, BIRTH_STEP, FLAGS, FX, IS_DEAD, KEY, LIFE, PX, SCALE, TINT_R, WAS_HELD } from './layout.ts';
import { rowAt, secondsLived } from './shape.ts';
import { at, draw, f, least, most, type Block, type TwinMemory } from './twin.ts';

// The words of a layer's dress:
//
// | 0       | address of the table: 513 rows of 20 floats, see below                                         |
// | 1 2 3   | address of the base colours (4 floats each), how many (0: each its own), the slot that chooses |
// | 4 5     | step the frame stands at, and seconds a step                                                   |
// | 6 7     | age and lifetime of standing particles                                                         |
// | 8 9 10  | whether any number has a spread, any is read from an array, anything turns                     |
// | 11..13  | starting angle: low, width, slot                                                               |
// | 14..17  | slots of size, opacity, intensity, turning                                                     |
// | 18..21  | whether each has a spread                                                                      |
// | 24..31  | lowest of size, opacity, intensity and the turn since birth; highest of the same               |
// | 32 33   | turning at the age at which standing particles wait while the effect is held: low, width       |
// | 34      | whether particles have scales of their own                                                     |
// | 35      | whether turning is counted in lives rather than seconds                                         |
// | 36..38  | addresses of arrays with final sizes, opacities, intensities where no table serves; else 0      |
// | 39 40   | of turning now (radians a second) and turn since birth (radians)                               |
// | 41 42 43| of red, green and blue                                                                         |
//
// A row holds five quads for one age. Of size, opacity, intensity and the turn since birth in lives: what the low end of
// the spread becomes, and what its width becomes. Red, green and blue where all begin alike, with the low end of the
// turning beside them. What shapers make of any base colour, base × M + A: M (with the width of the turning), and A.
export const DRESS_TABLE = 0;
export const DRESS_COLOURS = 1;
export const DRESS_STEP = 4;
export const DRESS_STANDING = 6;
export const DRESS_HAS_SPREAD = 8;
export const DRESS_HAS_ARRAYS = 9;
export const DRESS_HAS_TURNING = 10;
export const DRESS_ANGLE = 11;
export const DRESS_SLOTS = 14;
export const DRESS_SPREADS = 18;
export const DRESS_LOWEST = 24;
export const DRESS_HIGHEST = 28;
export const DRESS_WAITING = 32;
export const DRESS_HAS_SCALES = 34;
export const DRESS_IN_LIVES = 35;
export const DRESS_ARRAYS = 36;
export const DRESS_WORDS = 44;
export const DRESS_ROW = 20;

const RECORD_WORDS = 16;

/**
 * Writes the records (simulation/frame.ts) of the living among `from` to `to`, one after another; returns how many. One
 * record behind the last may hold anything afterwards.
 */
export const dress =
  (memory: TwinMemory) =>
  (base: number, stride: number, from: number, to: number, words: number, _scratch: number, out: number): number => {
    const { f32, i32 } = memory;
    const block: Block = { ...memory, base, stride, from, to, sums: 0 };
    const int = (n: number) => i32[words / 4 + n]!;
    const num = (n: number) => f32[words / 4 + n]!;
    const array = (n: number, i: number, otherwise: number) =>
      int(DRESS_HAS_ARRAYS) && int(n) ? f32[int(n) / 4 + i]! : otherwise;
    let written = 0;
    for (let i = from; i < to; i++) {
      if (i32[at(block, FLAGS, i)]! & IS_DEAD) continue;
      const life = f32[at(block, LIFE, i)]!;
      const lived = secondsLived(block, i, int(DRESS_STEP), num(DRESS_STEP + 1));
      const age = life === 0 ? num(DRESS_STANDING) : least(f(lived / life), 1);
      const { row, t } = rowAt(age);
      const place = int(DRESS_TABLE) / 4 + row * DRESS_ROW;
      const between = (column: number) =>
        f(f32[place + column]! + f(f(f32[place + DRESS_ROW + column]! - f32[place + column]!) * t));
      const shareOf = (n: number) => (int(DRESS_SPREADS + n) ? draw(block, i, int(DRESS_SLOTS + n)) : 0);
      const numberOf = (n: number) => {
        const value = int(DRESS_HAS_SPREAD) ? f(between(n) + f(shareOf(n) * between(4 + n))) : between(n);
        return most(least(value, num(DRESS_HIGHEST + n)), num(DRESS_LOWEST + n));
      };
      const colours = int(DRESS_COLOURS + 1);
      const chosen = colours > 1 ? Math.floor(f(draw(block, i, int(DRESS_COLOURS + 2)) * colours)) : 0;
      const colourOf = (c: number) => {
        const own = colours === 0 ? f32[at(block, TINT_R + c, i)]! : f32[int(DRESS_COLOURS) / 4 + chosen * 4 + c]!;
        return array(
          DRESS_ARRAYS + 5 + c,
          i,
          colours === 1 ? between(8 + c) : f(f(own * between(12 + c)) + between(16 + c)),
        );
      };
      let swung = 0;
      let rate = 0;
      if (int(DRESS_HAS_TURNING)) {
        const share = int(DRESS_HAS_SPREAD) ? shareOf(3) : 0;
        const lifeSeconds = life === 0 ? num(DRESS_STANDING + 1) : life;
        const waited = life === 0 ? f(lived - f(age * lifeSeconds)) : 0;
        const turning = f(between(11) + f(share * between(15)));
        const waiting = f(f(num(DRESS_WAITING) + f(share * num(DRESS_WAITING + 1))) * waited);
        const isInLives = int(DRESS_IN_LIVES) !== 0;
        const [turned, held] = isInLives
          ? [numberOf(3), f(waiting / lifeSeconds)]
          : [f(numberOf(3) * lifeSeconds), waiting];
        rate = array(DRESS_ARRAYS + 3, i, isInLives ? f(turning / lifeSeconds) : turning);
        swung = array(DRESS_ARRAYS + 4, i, f(turned + held));
      }
      const glow = array(DRESS_ARRAYS + 2, i, numberOf(2));
      const wasSeen = (i32[at(block, FLAGS, i)]! & WAS_HELD) !== 0;
      const isNewborn = int(DRESS_STEP) - i32[at(block, BIRTH_STEP, i)]! === 1 && !wasSeen;
      const width = num(DRESS_ANGLE + 1);
      const start = num(DRESS_ANGLE);
      const angle = width === 0 ? start : f(start + f(draw(block, i, int(DRESS_ANGLE + 2)) * width));

      const o = out / 4 + written++ * RECORD_WORDS;
      for (let axis = 0; axis < 3; axis++) {
        f32[o + axis] = f32[at(block, FX + axis, i)]!;
        f32[o + 4 + axis] = f32[at(block, PX + axis, i)]!;
        f32[o + 8 + axis] = f(colourOf(axis) * glow);
      }
      f32[o + 3] = isNewborn ? f32[at(block, BIRTH_FRACTION, i)]! : 0;
      f32[o + 7] = int(DRESS_HAS_TURNING) ? f(angle + swung) : angle;
      f32[o + 11] = array(DRESS_ARRAYS + 1, i, numberOf(1));
      const size = array(DRESS_ARRAYS, i, numberOf(0));
      f32[o + 12] = int(DRESS_HAS_SCALES) ? f(size * f32[at(block, SCALE, i)]!) : size;
      f32[o + 13] = age;
      f32[o + 14] = i32[at(block, KEY, i)]! >>> 8;
      f32[o + 15] = f(rate * num(DRESS_STEP + 1));
    }
    return written;
  };
