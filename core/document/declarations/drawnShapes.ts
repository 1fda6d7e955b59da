/** Each drawn shape of a look, with the numbers that it is made of beside its amount. */
const NUMBERS = {
  'soft dot': ['softness'],
  band: ['softness'],
  disc: ['softness'],
  ring: ['softness', 'width'],
  streak: ['softness', 'width'],
  flare: ['softness', 'width'],
  star: ['softness', 'width', 'points'],
  polygon: ['softness', 'width', 'points'],
  'star polygon': ['softness', 'width', 'points', 'skips'],
  spiral: ['softness', 'width', 'points', 'turns'],
  'ring of marks': ['softness', 'width', 'points', 'gap'],
  strokes: ['softness', 'width', 'points'],
  'gradient bar': ['softness', 'width'],
  bolt: ['softness', 'width', 'points', 'jags', 'struck'],
  crack: ['softness', 'width', 'points', 'jags'],
  cells: ['softness', 'grains', 'change'],
  clouds: ['softness', 'grains', 'change'],
} as const;

export type DrawnShape = keyof typeof NUMBERS;
export const DRAWN_SHAPES = Object.keys(NUMBERS) as DrawnShape[];
export const numbersOfShape = (shape: unknown): readonly string[] => NUMBERS[shape as DrawnShape];

/** Shapes of which each particle may have another. */
export const VARIED_SHAPES: readonly string[] = [
  'strokes',
  'bolt',
  'crack',
  'cells',
  'clouds',
] satisfies DrawnShape[];
/** Shapes that the same picture shows however it is turned. */
export const ROUND_SHAPES: readonly string[] = ['soft dot', 'disc', 'ring'] satisfies DrawnShape[];
