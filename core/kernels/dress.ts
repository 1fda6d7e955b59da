import { BIRTH_FRACTION, BIRTH_STEP, FLAGS, FX, IS_DEAD, LIFE, NUMBER, PX } from './layout.ts';
import { rowAt, secondsLived } from './shape.ts';
import { at, draw, f, least, most, type Block, type TwinMemory } from './twin.ts';

// The words of a layer's dress:
//
// | 0       | address of the table: 513 rows of 16 floats, see below                                        |
// | 1 2 3   | address of the base colours (4 floats each), how many, and the slot that chooses one          |
// | 4 5     | step the frame stands at, and seconds a step                                                  |
// | 6 7     | age and lifetime of standing particles                                                        |
// | 8       | starting angle: low, width, slot                                                              |
// | 11..22  | size, opacity, intensity, turning: low, width, slot of each                                   |
// | 24..35  | lowest, highest and scale of size, opacity, intensity and the turn since birth                |
// | 36..38  | addresses of arrays with final sizes, opacities, intensities where no table serves; else 0     |
// | 39 40   | of turning now (radians a second) and turn since birth (radians)                              |
// | 41 42 43| of red, green and blue                                                                        |
// | 44 45   | M and A of turning at the age at which standing particles wait while the effect is held         |
//
// A row holds what shapers make of a base at one age, base × M + A: M of size, opacity, intensity and of the turn since
// birth in lives; A of the same; M of red, green, blue and turning; A of the same.
export const DRESS_TABLE = 0;
export const DRESS_COLOURS = 1;
export const DRESS_STEP = 4;
export const DRESS_STANDING = 6;
export const DRESS_ANGLE = 8;
export const DRESS_SIZE = 11;
export const DRESS_OPACITY = 14;
export const DRESS_INTENSITY = 17;
export const DRESS_TURNING = 20;
export const DRESS_LOWEST = 24;
export const DRESS_HIGHEST = 28;
export const DRESS_SCALE = 32;
export const DRESS_ARRAYS = 36;
export const DRESS_WAITING = 44;
export const DRESS_WORDS = 46;
export const DRESS_ROW = 16;

const RECORD_WORDS = 16;

/** Writes the records (simulation/frame.ts) of the living among `from` to `to`, one after another; returns how many. */
export const dress =
  (memory: TwinMemory) =>
  (base: number, stride: number, from: number, to: number, words: number, _scratch: number, out: number): number => {
    const { f32, i32 } = memory;
    const block: Block = { ...memory, base, stride, from, to, sums: 0 };
    const int = (n: number) => i32[words / 4 + n]!;
    const num = (n: number) => f32[words / 4 + n]!;
    const own = (i: number, n: number) =>
      num(n + 1) === 0 ? num(n) : f(num(n) + f(draw(block, i, int(n + 2)) * num(n + 1)));
    const array = (n: number, i: number, otherwise: number) => (int(n) ? f32[int(n) / 4 + i]! : otherwise);
    let written = 0;
    for (let i = from; i < to; i++) {
      if (i32[at(block, FLAGS, i)]! & IS_DEAD) continue;
      const life = f32[at(block, LIFE, i)]!;
      const lived = secondsLived(block, i, int(DRESS_STEP), num(DRESS_STEP + 1));
      const age = life === 0 ? num(DRESS_STANDING) : least(f(lived / life), 1);
      const { row, t } = rowAt(age);
      const at16 = int(DRESS_TABLE) / 4 + row * DRESS_ROW;
      const between = (column: number) =>
        f(f32[at16 + column]! + f(f(f32[at16 + DRESS_ROW + column]! - f32[at16 + column]!) * t));
      const shaped = (value: number, column: number) => f(f(value * between(column)) + between(column + 4));
      const limited = (n: number, value: number) =>
        f(most(least(value, num(DRESS_HIGHEST + n)), num(DRESS_LOWEST + n)) * num(DRESS_SCALE + n));
      const [size, opacity, intensity, turned] = [DRESS_SIZE, DRESS_OPACITY, DRESS_INTENSITY, DRESS_TURNING].map(
        (n, column) => limited(column, shaped(own(i, n), column)),
      ) as [number, number, number, number];
      const colours = int(DRESS_COLOURS + 1);
      const chosen = colours > 1 ? Math.floor(f(draw(block, i, int(DRESS_COLOURS + 2)) * colours)) : 0;
      const colour = [0, 1, 2].map((c) => {
        const plain = shaped(f32[int(DRESS_COLOURS) / 4 + chosen * 4 + c]!, 8 + c);
        return array(DRESS_ARRAYS + 5 + c, i, plain);
      });
      const glow = array(DRESS_ARRAYS + 2, i, intensity);
      const rate = array(DRESS_ARRAYS + 3, i, shaped(own(i, DRESS_TURNING), 11));
      const lifeSeconds = life === 0 ? num(DRESS_STANDING + 1) : life;
      const waited = life === 0 ? f(lived - f(age * lifeSeconds)) : 0;
      const held = f(f(own(i, DRESS_TURNING) * num(DRESS_WAITING)) + num(DRESS_WAITING + 1));
      const swung = array(DRESS_ARRAYS + 4, i, f(f(turned * lifeSeconds) + f(held * waited)));

      const o = out / 4 + written++ * RECORD_WORDS;
      for (let axis = 0; axis < 3; axis++) {
        f32[o + axis] = f32[at(block, FX + axis, i)]!;
        f32[o + 4 + axis] = f32[at(block, PX + axis, i)]!;
        f32[o + 8 + axis] = f(colour[axis]! * glow);
      }
      const isNewborn = int(DRESS_STEP) - i32[at(block, BIRTH_STEP, i)]! === 1;
      f32[o + 3] = isNewborn ? f32[at(block, BIRTH_FRACTION, i)]! : 0;
      f32[o + 7] = f(own(i, DRESS_ANGLE) + swung);
      f32[o + 11] = array(DRESS_ARRAYS + 1, i, opacity);
      f32[o + 12] = array(DRESS_ARRAYS, i, size);
      f32[o + 13] = age;
      i32[o + 14] = i32[at(block, NUMBER, i)]!;
      f32[o + 15] = f(rate * num(DRESS_STEP + 1));
    }
    return written;
  };
