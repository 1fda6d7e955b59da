import { NONE, number, SPREAD, type Declaration } from '../../settings/index.ts';

/** What a link sets off, and what it passes on. */
export const LINK_SETTINGS = {
  count: number('links', 'birth', 'how many', 'How many are born each time.', {
    unit: 'count',
    least: 0,
    most: 10_000,
    byDefault: 5,
    bases: SPREAD,
    whole: true,
  }),
  chance: number('links', 'birth', 'chance', 'How likely it is each time.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 100,
  }),
  delay: number('links', 'birth', 'delay', 'How long after it they are born.', {
    unit: 's',
    least: 0,
    most: 60,
    byDefault: 0,
    bases: SPREAD,
  }),
  every: number('links', 'birth', 'every', 'How often along the way, by a clock of each particle’s own.', {
    unit: 's',
    least: 0.005,
    most: 60,
    byDefault: 0.1,
    bases: SPREAD,
  }),
  times: number('links', 'birth', 'times', 'How often at most along the way.', {
    unit: 'count',
    least: 0,
    most: 10_000,
    byDefault: 0,
    whole: true,
    zero: 'as long as it lives',
  }),
  once: {
    value: 'switch',
    chapter: 'links',
    acts: 'birth',
    name: 'only its first',
    help: 'Whether only the first hit of each particle counts.',
    reads: NONE,
    byDefault: false,
  },
  velocity: number('links', 'birth', 'passed speed', 'Share of its velocity that is passed on.', {
    unit: '%',
    least: -200,
    most: 200,
    byDefault: 0,
    bases: SPREAD,
  }),
  colour: number('links', 'birth', 'passed colour', 'How far they begin with its colour rather than their own.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 0,
  }),
  channels: number(
    'links',
    'birth',
    'passed channels',
    'Share of its channels that is passed on to those of the same name.',
    {
      unit: '%',
      least: 0,
      most: 100,
      byDefault: 0,
    },
  ),
  size: number('links', 'birth', 'passed size', 'How far they begin with its size rather than their own.', {
    unit: '%',
    least: 0,
    most: 100,
    byDefault: 0,
  }),
} as const satisfies Record<string, Declaration>;
