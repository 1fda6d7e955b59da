import { number, STILL, TIMED, vector, type Declaration } from '../../settings/index.ts';

/** A border that frees held particles as it passes them. */
export const FRONT_SETTINGS = {
  border: number('front', 'step', 'border', 'How far the border has come: all within it is free.', {
    otherWords: ['front radius', 'release radius', 'reveal amount'],
    unit: 'm',
    least: -100,
    most: 100,
    byDefault: 2,
    reads: TIMED,
    refuses: 'field',
  }),
  noise: number('front', 'step', 'raggedness', 'How far noise pushes the border to and fro.', {
    otherWords: ['ragged edge'],
    unit: 'm',
    least: 0,
    most: 10,
    byDefault: 0.05,
    reads: STILL,
    refuses: 'order',
  }),
  noiseSize: number('front', 'step', 'size of the rags', 'How wide one rag of the border is.', {
    otherWords: ['edge noise scale'],
    unit: 'm',
    least: 0.005,
    most: 10,
    byDefault: 0.15,
    reads: STILL,
    refuses: 'order',
  }),
  size: vector('front', 'step', 'size', 'Width, height and depth of the box at a border of 0.', {
    unit: 'm',
    least: 0,
    most: 100,
    byDefault: [0, 0, 0],
    reads: STILL,
    refuses: 'order',
  }),
} as const satisfies Record<string, Declaration>;
