import { alsoCalled, choice, NONE, number, type Declaration } from '../../settings/index.ts';

const AT_HEAD = number('ribbon', 'dress', 'width at the head', 'Width at the newest end, as a share of the size.', {
  otherWords: ['start width', 'head width'],
  unit: '%',
  least: 0,
  most: 1000,
  byDefault: 100,
});
const AT_TAIL = number('ribbon', 'dress', 'width at the tail', 'Width at the oldest end, as a share of the size.', {
  otherWords: ['end width', 'tail width', 'taper', 'width over length'],
  unit: '%',
  least: 0,
  most: 1000,
  byDefault: 0,
});

/** How every kind of ribbon lies, and how its look is laid along it. */
const LAID = {
  bulge: number('ribbon', 'dress', 'bulge', 'Width in the middle, as a share of what the ends make of it.', {
    unit: '%',
    least: 0,
    most: 1000,
    byDefault: 100,
  }),
  form: choice(
    'ribbon',
    'dress',
    'form',
    'A flat band that turns to the camera, two bands crossed, or a round tube.',
    ['flat', 'crossed', 'tube'],
    'flat',
  ),
  laid: choice(
    'ribbon',
    'dress',
    'laid',
    'Whether its look lies along it once, or again and again.',
    ['once', 'by the metre'],
    'once',
    {
      otherWords: ['texture mode', 'stretch or tile', 'tiling along the trail', 'texture along the trail'],
      words: { once: 'over its whole length', 'by the metre': 'by the metre' },
      choiceOtherWords: { once: ['stretched', 'laid once'], 'by the metre': ['tiled', 'repeated'] },
    },
  ),
  tile: number('ribbon', 'dress', 'every', 'After how many metres its look begins anew.', {
    unit: 'm',
    least: 0.01,
    most: 1000,
    byDefault: 1,
  }),
} as const;

/** Ribbons: what is laid behind, strung through or drawn between. Their width is the layer's size. */
export const RIBBON_SETTINGS = {
  /** Behind each particle, on the way it has come. */
  trail: alsoCalled(
    {
      every: number('ribbon', 'step', 'point every', 'Metres between the points that a particle lays behind it.', {
        otherWords: ['vertex spacing', 'segment length', 'segments', 'minimum vertex distance'],
        unit: 'm',
        least: 0.002,
        most: 100,
        byDefault: 0.06,
      }),
      seconds: number('ribbon', 'step', 'or every', 'Seconds between two points at most; none by time at 0.', {
        unit: 's',
        least: 0,
        most: 10,
        byDefault: 0,
        zero: 'not at all',
      }),
      lasts: number('ribbon', 'step', 'lasts', 'How long a laid point stays.', {
        unit: 's',
        least: 0.02,
        most: 60,
        byDefault: 0.6,
      }),
      drift: number(
        'ribbon',
        'step',
        'drift',
        'Share of its particle’s velocity that a point keeps when it is laid.',
        {
          unit: '%',
          least: -100,
          most: 100,
          byDefault: 0,
        },
      ),
      feels: {
        value: 'switch',
        chapter: 'ribbon',
        acts: 'step',
        name: 'feels forces',
        help: 'Whether laid points feel the forces that their particles feel.',
        reads: NONE,
        byDefault: false,
      },
      ends: choice(
        'ribbon',
        'step',
        'when its particle dies',
        'Whether a trail stays until it has faded, or goes with its particle.',
        ['stays', 'goes too'],
        'stays',
      ),
      most: number('ribbon', 'step', 'most points', 'Most points that may lie at once; more are refused.', {
        unit: 'count',
        least: 16,
        most: 200_000,
        byDefault: 20_000,
      }),
      atHead: AT_HEAD,
      atTail: AT_TAIL,
      ...LAID,
    },
    {
      every: ['segment length', 'minimum vertex distance', 'sample distance'],
      seconds: ['sample interval'],
      lasts: ['trail length', 'trail lifetime', 'trail time'],
      drift: ['trail inertia'],
      ends: ['die with particle'],
      most: ['max trail points'],
    },
  ),
  /** Through the particles, in the order of their births. */
  strand: alsoCalled(
    {
      strands: number('ribbon', 'dress', 'strands', 'Particles are strung on so many, each in turn.', {
        unit: 'count',
        least: 1,
        most: 1000,
        byDefault: 1,
      }),
      longest: number(
        'ribbon',
        'dress',
        'longest gap',
        'A strand is cut where two neighbours are further apart; never at 0.',
        {
          unit: 'm',
          least: 0,
          most: 1000,
          byDefault: 0,
          zero: 'never cut',
        },
      ),
      atHead: AT_HEAD,
      atTail: { ...AT_TAIL, byDefault: 100 },
      ...LAID,
    },
    { strands: ['ribbon count', 'number of ribbons'], longest: ['break distance'] },
  ),
  /** Between two points of a weapon as it swings, while a particle lives. */
  blade: alsoCalled(
    {
      lasts: number('ribbon', 'dress', 'lasts', 'How long what it has passed over stays.', {
        unit: 's',
        least: 0.01,
        most: 10,
        byDefault: 0.25,
      }),
      atHead: AT_HEAD,
      atTail: { ...AT_TAIL, byDefault: 100 },
      ...LAID,
    },
    { lasts: ['swing length', 'trail time'] },
  ),
  /** From one place to another, while a particle lives. */
  beam: alsoCalled(
    {
      sag: number('ribbon', 'dress', 'sag', 'How far its middle hangs down; below 0 it rises.', {
        unit: 'm',
        least: -100,
        most: 100,
        byDefault: 0,
      }),
      jag: number('ribbon', 'dress', 'jaggedness', 'How far it is thrown aside on its way.', {
        unit: 'm',
        least: 0,
        most: 10,
        byDefault: 0.12,
      }),
      jagSize: number('ribbon', 'dress', 'size of the jags', 'How far apart the jags are.', {
        unit: 'm',
        least: 0.02,
        most: 10,
        byDefault: 0.25,
      }),
      strikes: number('ribbon', 'dress', 'strikes anew', 'How often it takes another way; never at 0.', {
        unit: '/s',
        least: 0,
        most: 60,
        byDefault: 0,
        zero: 'never',
      }),
      branches: number('ribbon', 'dress', 'branches', 'How many leave it on the way.', {
        unit: 'count',
        least: 0,
        most: 32,
        byDefault: 0,
        zero: 'no branches',
      }),
      branchLength: number('ribbon', 'dress', 'length of branches', 'How long a branch is at most.', {
        unit: 'm',
        least: 0,
        most: 100,
        byDefault: 0.5,
      }),
      speed: number('ribbon', 'birth', 'speed', 'How fast it reaches out from its birth; at once at 0.', {
        unit: 'm/s',
        least: 0,
        most: 10_000,
        byDefault: 0,
        zero: 'once, all the way',
      }),
      atHead: AT_HEAD,
      atTail: { ...AT_TAIL, byDefault: 100 },
      ...LAID,
    },
    {
      sag: ['droop', 'catenary'],
      jag: ['jaggedness', 'lightning noise', 'jitter of the beam'],
      jagSize: ['lightning frequency', 'segment size'],
      strikes: ['re-strike', 'flicker rate', 'restrike'],
      branches: ['forks', 'lightning branches'],
      speed: ['travel speed', 'beam speed'],
    },
  ),
} as const satisfies Record<string, Record<string, Declaration>>;
