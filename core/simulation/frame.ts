/**
 * A frame: all that is needed to draw the time between two steps. 32-bit words:
 *
 * | from            | what                                                                                  |
 * | 0               | header: step, layers, bones, particles, exact (1 or 0), rate, living, budget refusals |
 * | HEADER          | 8 words a layer (MOST_LAYERS of them): see LAYER_*                                    |
 * | BONES           | skin matrices of all things at the start of the step, 16 f32 a bone, then at its end  |
 * | RECORDS         | 16 words a particle, layer after layer: see RECORD_*                                  |
 */
export const HEADER = 16;
export const MOST_LAYERS = 128;
export const LAYER_WORDS = 8;
export const MOST_BONES = 512;
export const BONES = HEADER + MOST_LAYERS * LAYER_WORDS;
export const RECORDS = BONES + MOST_BONES * 32;
export const RECORD_WORDS = 16;

export const HEADER_STEP = 0;
export const HEADER_LAYERS = 1;
export const HEADER_BONES = 2;
export const HEADER_PARTICLES = 3;
export const HEADER_EXACT = 4;
export const HEADER_RATE = 5;

export const LAYER_SALT = 0;
export const LAYER_START = 1;
export const LAYER_COUNT = 2;
export const LAYER_BORN = 3;
export const LAYER_REFUSED = 4;
export const LAYER_DEAD = 5;
export const LAYER_MICROSECONDS = 6;

/** Words of a particle's record. From and to: drawn on the straight line between, from the instant of birth on. */
export const RECORD_FROM = 0;
export const RECORD_BIRTH = 3;
export const RECORD_TO = 4;
export const RECORD_ANGLE = 7;
/** Linear colour times intensity. */
export const RECORD_COLOUR = 8;
export const RECORD_OPACITY = 11;
export const RECORD_SIZE = 12;
export const RECORD_AGE = 13;
export const RECORD_NUMBER = 14;
export const RECORD_TURNED = 15;

/** Views of one frame's memory. */
export class Frame {
  readonly f32: Float32Array;
  readonly u32: Uint32Array;

  /** Bytes for so many particles, and one record more that writing may use. */
  static bytes(particles: number): number {
    return (RECORDS + (particles + 1) * RECORD_WORDS) * 4;
  }

  constructor(buffer: ArrayBufferLike, address = 0, bytes = buffer.byteLength - address) {
    this.f32 = new Float32Array(buffer, address, bytes / 4);
    this.u32 = new Uint32Array(buffer, address, bytes / 4);
  }

  get step(): number {
    return this.u32[HEADER_STEP]!;
  }
  get particles(): number {
    return this.u32[HEADER_PARTICLES]!;
  }
  get isExact(): boolean {
    return this.u32[HEADER_EXACT] === 1;
  }
  get bones(): number {
    return this.u32[HEADER_BONES]!;
  }

  layers(): {
    salt: number;
    start: number;
    count: number;
    born: number;
    refused: number;
    dead: number;
    microseconds: number;
  }[] {
    return Array.from({ length: this.u32[HEADER_LAYERS]! }, (_, index) => {
      const at = HEADER + index * LAYER_WORDS;
      const word = (offset: number) => this.u32[at + offset]!;
      return {
        salt: word(LAYER_SALT),
        start: word(LAYER_START),
        count: word(LAYER_COUNT),
        born: word(LAYER_BORN),
        refused: word(LAYER_REFUSED),
        dead: word(LAYER_DEAD),
        microseconds: word(LAYER_MICROSECONDS),
      };
    });
  }

  layer(salt: number): ReturnType<Frame['layers']>[number] | undefined {
    return this.layers().find((layer) => layer.salt === salt);
  }

  /** Where a particle is drawn at `share` of the way through the step, or null before its birth. */
  drawn(particle: number, share: number): [number, number, number] | null {
    const at = RECORDS + particle * RECORD_WORDS;
    const birth = this.f32[at + RECORD_BIRTH]!;
    if (share < birth) return null;
    const t = (share - birth) / (1 - birth);
    const mix = (axis: number) => this.f32[at + RECORD_FROM + axis]! * (1 - t) + this.f32[at + RECORD_TO + axis]! * t;
    return [mix(0), mix(1), mix(2)];
  }

  /** Skin matrices as drawn at `share` of the step: blended linearly, entry by entry. */
  skin(share: number): Float32Array {
    const words = this.bones * 16;
    return Float32Array.from(
      { length: words },
      (_, i) => this.f32[BONES + i]! * (1 - share) + this.f32[BONES + words + i]! * share,
    );
  }
}
