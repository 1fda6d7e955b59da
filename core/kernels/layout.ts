// How a layer's particles lie in memory, read by the kernels (AssemblyScript) and their twins alike.
//
// A layer is a block of FIELDS arrays of `capacity` 32-bit words, one array a field: structure of arrays.
// Field f of particle i is the word at   base + f * stride + 4 * i   (bytes; stride = 4 * capacity).
// Capacity is a multiple of 4, so a group of four lanes never leaves its array.
//
// | field              | type | unit  | what                                                        |
// | PX PY PZ           | f32  | m     | position at the end of the step                             |
// | VX VY VZ           | f32  | m/s   | velocity                                                    |
// | AX AY AZ           | f32  | m/s²  | sum of accelerations, made anew each step                   |
// | DRAG               | f32  | 1/s   | sum of drags, made anew each step                           |
// | FX FY FZ           | f32  | m     | where it is drawn from at the start of the step             |
// | BIRTH_FRACTION     | f32  |       | share of its first step that had passed at birth            |
// | LIFE               | f32  | s     | lifetime; 0 for standing particles                          |
// | BIRTH_STEP         | u32  |       | step in which it was born                                   |
// | KEY                | u32  |       | counter-based key: all its random draws                     |
// | NUMBER             | u32  |       | birth number within its layer                               |
// | SPOT               | u32  |       | triangle it was born on, for skin sources                   |
// | SPOT_1 SPOT_2      | f32  |       | weights of that triangle's second and third corner          |
export const PX = 0;
export const PY = 1;
export const PZ = 2;
export const VX = 3;
export const VY = 4;
export const VZ = 5;
export const AX = 6;
export const AY = 7;
export const AZ = 8;
export const DRAG = 9;
export const FX = 10;
export const FY = 11;
export const FZ = 12;
export const BIRTH_FRACTION = 13;
export const LIFE = 14;
export const BIRTH_STEP = 15;
export const KEY = 16;
export const NUMBER = 17;
export const SPOT = 18;
export const SPOT_1 = 19;
export const SPOT_2 = 20;
export const FIELDS = 21;
