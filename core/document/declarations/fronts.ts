import { choice, number, STILL, TIMED, vector, type Declaration } from '../../settings/index.ts';

/** A border that frees held particles as it passes them. */
export const FRONT_SETTINGS = {
  frees: choice(
    'front',
    'step',
    'frees',
    'What it frees: all within its border, all beyond it, or what lies in a band along it. What is free stays free.',
    ['within', 'beyond', 'band'],
    'within',
    {
      otherWords: ['release inside', 'release outside', 'scan line', 'invert front', 'erase band'],
      words: {
        within: 'what is within its border',
        beyond: 'what is beyond its border',
        band: 'what is in a band along its border',
      },
    },
  ),
  band: number('front', 'step', 'band', 'How wide the band along the border is that frees.', {
    otherWords: ['band width', 'scan width'],
    unit: 'm',
    least: 0.001,
    most: 100,
    byDefault: 0.1,
    reads: TIMED,
    refuses: 'field',
  }),
  border: number('front', 'step', 'border', 'How far the border has come from its place.', {
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
