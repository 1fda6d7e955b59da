// How a layer's particles lie in memory, read by the kernels (AssemblyScript) and their twins alike.
//
// A layer is a block of FIELDS arrays of `capacity` 32-bit words, one array a field: structure of arrays.
// Field f of particle i is the word at   base + f * stride + 4 * i   (bytes; stride = 4 * capacity).
// Capacity is a multiple of 4, so a group of four lanes never leaves its array.
//
// | field              | type | unit  | what                                                        |
// | PX PY PZ           | f32  | m     | position at the end of the step                             |
// | VX VY VZ           | f32  | m/s   | velocity                                                    |
// | FX FY FZ           | f32  | m     | where it is drawn from at the start of the step             |
// | BIRTH_FRACTION     | f32  |       | share of its first step that had passed at birth            |
// | LIFE               | f32  | s     | lifetime; 0 for standing particles                          |
// | BIRTH_STEP         | i32  |       | step in which it was born                                   |
// | DEATH_STEP         | i32  |       | step at whose start it is dead; the highest for standing    |
// | KEY                | u32  |       | counter-based key: all its random draws                     |
// | NUMBER             | u32  |       | birth number within its layer                               |
// | FLAGS              | u32  |       | the bits below; from STUCK_SHIFT the surface it sticks to          |
// | SPOT               | u32  |       | triangle or bone it was born on; of what it sticks to       |
// | SPOT_1 SPOT_2      | f32  |       | weights of that triangle's second and third corner          |
// | TINT_R G B         | f32  |       | colour taken at birth, linear                               |
// | SCALE              | f32  |       | how many times its size a link has made it                  |
// | TRAVELLED          | f32  | m     | how far it has come since birth, where that is asked for    |
// | FACING             | u32  |       | normal of what it was born on, packed (maths/directions.ts)     |
export const PX = 0;
export const PY = 1;
export const PZ = 2;
export const VX = 3;
export const VY = 4;
export const VZ = 5;
export const FX = 6;
export const FY = 7;
export const FZ = 8;
export const BIRTH_FRACTION = 9;
export const LIFE = 10;
export const BIRTH_STEP = 11;
export const DEATH_STEP = 12;
export const KEY = 13;
export const NUMBER = 14;
export const FLAGS = 15;
export const SPOT = 16;
export const SPOT_1 = 17;
export const SPOT_2 = 18;
export const TINT_R = 19;
export const TINT_G = 20;
export const TINT_B = 21;
export const SCALE = 22;
export const TRAVELLED = 23;
export const FACING = 24;
export const FIELDS = 25;

/** The dead keep their place until a layer is compacted; kernels move them along, frames leave them out. */
export const IS_DEAD = 1;
/** Rides on nothing: it was not born on what its layer rides on. */
export const IS_LOOSE = 2;
/** Held where it was born until a front passes it. */
export const IS_HELD = 8;
/** Was held before: it was seen already when it came to life. */
export const WAS_HELD = 16;
/** Has hit a surface before. */
export const HAS_HIT = 4;

/** From this bit on, flags say to which surface a particle sticks, counted from 1. */
export const STUCK_SHIFT = 8;

// A program runs over BLOCK particles at a time. Each thread has SCRATCH_SLOTS pieces of scratch memory of one word a
// particle of a block: the first four are the sums of the step (acceleration x, y, z in m/s², drag in 1/s).
export const BLOCK = 512;
export const SCRATCH_SLOTS = 16;
export const SCRATCH_BYTES = 32768;
