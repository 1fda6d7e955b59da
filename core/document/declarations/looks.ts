import {
  alsoCalled,
  choice,
  LIFE,
  NONE,
  number,
  SPREAD,
  type Declaration,
  type NumberDeclaration,
} from '../../settings/index.ts';
import { DRAWN_SHAPES } from './drawnShapes.ts';

/** A number of a step of a look: drawn for each particle, shaped by whatever may shape it. */
const step = (
  name: string,
  help: string,
  unit: NumberDeclaration['unit'],
  [least, most, byDefault]: readonly [least: number, most: number, byDefault: number],
  rest: { whole?: boolean; zero?: string } = {},
) => number('look', 'dress', name, help, { unit, least, most, byDefault, bases: SPREAD, reads: LIFE, ...rest });
const among = (name: string, help: string, choices: readonly string[]) =>
  choice('look', 'dress', name, help, choices, choices[0]!);
const isIt = (name: string, help: string, byDefault: boolean) =>
  ({ value: 'switch', chapter: 'look', acts: 'dress', name, help, reads: NONE, byDefault }) as const;
const colour = (name: string, help: string, byDefault: string) =>
  ({ value: 'colour', chapter: 'look', acts: 'dress', name, help, reads: LIFE, byDefault }) as const;

const ONTO = among('onto', 'Whether it changes how opaque the particle is, or its colour.', ['opacity', 'colour']);
const VARIED = isIt('each its own', 'Whether each particle has another piece of the pattern.', true);
const SIZE = (byDefault: number) =>
  step('grains', 'How many grains of the pattern lie across the particle.', 'count', [0.1, 200, byDefault]);
const COMBINES = choice(
  'look',
  'dress',
  'combines',
  'How it goes together with what the steps before it have drawn: what they left of it, added light, in front, or where it is stronger. The first that draws begins.',
  ['multiply', 'add', 'over', 'greater'],
  'multiply',
  {
    otherWords: ['blend mode of the step', 'layer blending', 'mask', 'screen', 'maximum', 'lighten'],
    words: { multiply: 'multiplied', add: 'added', over: 'laid over', greater: 'where it is greater' },
  },
);
const CHANGE = step('change', 'How fast the pattern becomes another.', '/s', [0, 60, 0]);

/**
 * What each kind of step of a look can be set to. Steps act in order, each on what those before it have made: `scroll` and
 * `warp` move where the steps after them look, the others change colour and opacity.
 */
export const STEP_SETTINGS = {
  picture: alsoCalled(
    {
      part: among('part', 'Which part of the picture is taken.', [
        'colour',
        'brightness',
        'red',
        'green',
        'blue',
        'alpha',
      ]),
      opacity: among('opacity from', 'What of the picture makes the particle opaque.', [
        'its alpha',
        'its brightness',
        'nothing',
      ]),
      reading: among('read', 'Whether its pixels are blended or kept apart.', ['smooth', 'crisp']),
      edges: among('beyond its edges', 'What lies beyond the edges of the picture.', [
        'nothing',
        'its border',
        'repeated',
        'mirrored',
      ]),
      combines: COMBINES,
      amount: step('amount', 'How far the picture acts.', '%', [0, 100, 100]),
      columns: step('columns', 'Frames that lie side by side in the picture.', 'count', [1, 64, 1], { whole: true }),
      rows: step('rows', 'Rows of frames in the picture.', 'count', [1, 64, 1], { whole: true }),
      frames: step('frames', 'How many frames of the grid are used.', 'count', [0, 4096, 0], {
        whole: true,
        zero: 'all frames',
      }),
      plays: among('plays', 'What turns its frames over.', ['over its life', 'by the clock', 'by its number']),
      times: step('times through', 'How many times all frames are gone through in a life.', '×', [-100, 100, 1]),
      rate: step('frames a second', 'How fast frames follow each other.', '/s', [-240, 240, 12]),
      frame: step(
        'frame',
        'Which frame is shown, counted from 0; between two of them both are blended.',
        'count',
        [0, 4096, 0],
      ),
      first: step('first frame', 'At which share of its frames it begins.', '%', [0, 100, 0]),
      blended: isIt('blended', 'Whether neighbouring frames are blended.', true),
    },
    {
      part: ['channel mask'],
      opacity: ['alpha from luminance', 'opacity from brightness'],
      reading: ['filtering', 'nearest', 'linear filter'],
      edges: ['texture wrap', 'clamp', 'repeat mode'],
      columns: ['columns and rows', 'flipbook grid', 'sub-images'],
      rows: ['grid rows'],
      frames: ['frame count'],
      plays: ['playback mode'],
      times: ['cycles', 'loops of the flipbook'],
      rate: ['frame rate', 'fps', 'frames per second', 'flapping'],
      first: ['start frame', 'random frame'],
      blended: ['frame blending', 'interpolate frames'],
    },
  ),
  drawn: alsoCalled(
    {
      shape: among('shape', 'What is drawn.', DRAWN_SHAPES),
      onto: ONTO,
      combines: COMBINES,
      colour: colour('shape colour', 'What the shape brings along as its colour.', '#ffffff'),
      amount: step('amount', 'How far the shape acts.', '%', [0, 100, 100]),
      softness: step('softness', 'How softly its edge runs out.', '%', [0, 100, 30]),
      width: step(
        'width',
        'Width of the ring, the streak, the rays or the lines, as a share of the whole.',
        '%',
        [0.5, 100, 12],
      ),
      points: step(
        'points',
        'How many rays, corners, arms, marks, strokes or branches it has.',
        'count',
        [2, 32, 5],
        {
          whole: true,
        },
      ),
      skips: step('skips', 'How many corners further each line of the star polygon goes.', 'count', [1, 15, 2], {
        whole: true,
      }),
      turns: step('turns', 'How often the arms of the spiral go round; below 0 the other way.', '×', [-20, 20, 1.5]),
      gap: step('gap', 'Share of the ring between its marks.', '%', [0, 95, 50]),
      jags: step('jags', 'How many jags the line has from end to end.', 'count', [1, 64, 7]),
      struck: step('struck again', 'How often in its life it takes another way.', '×', [0, 100, 4]),
      grains: SIZE(4),
      change: CHANGE,
      varied: VARIED,
    },
    {
      softness: ['soft edge', 'feather', 'falloff of the dot'],
      width: ['ring width', 'line width'],
      points: ['star points', 'spikes', 'sides', 'corners', 'branches'],
      skips: ['star step', 'pentagram'],
      turns: ['twist of the spiral', 'windings'],
      gap: ['dash gap'],
      jags: ['segments of the bolt', 'roughness of the bolt'],
      struck: ['restrike', 'flicker of the bolt'],
      colour: ['shape color'],
      grains: ['noise scale', 'frequency'],
      change: ['noise speed', 'animate noise'],
    },
  ),
  levels: alsoCalled(
    {
      onto: ONTO,
      black: step('black', 'What becomes nothing.', '%', [-100, 200, 0]),
      white: step('white', 'What becomes full.', '%', [-100, 200, 100]),
      gamma: step('gamma', 'Above 1 lifts what is between, below 1 sinks it.', '×', [0.05, 20, 1]),
    },
    {
      black: ['black point', 'low clip'],
      white: ['white point', 'high clip'],
      gamma: ['midtones', 'contrast curve'],
    },
  ),
  contrast: alsoCalled(
    {
      onto: ONTO,
      factor: step('factor', 'How many times harder it is: below 1 softer, 0 even.', '×', [0, 50, 2]),
      middle: step('middle', 'What stays as it is.', '%', [0, 100, 50]),
    },
    { factor: ['contrast amount', 'sharpen edge', 'harden'], middle: ['contrast pivot'] },
  ),
  scroll: alsoCalled(
    {
      across: step('across', 'How often it goes across the particle in a second.', '/s', [-60, 60, 0]),
      along: step('along', 'How often it goes along the particle in a second.', '/s', [-60, 60, 0]),
      offsetAcross: step('shifted across', 'How far it is shifted across.', '%', [-10_000, 10_000, 0]),
      offsetAlong: step('shifted along', 'How far it is shifted along.', '%', [-10_000, 10_000, 0]),
      repeatAcross: step('repeats across', 'How often it is repeated across.', '×', [0.01, 100, 1]),
      repeatAlong: step('repeats along', 'How often it is repeated along.', '×', [0.01, 100, 1]),
      turn: step('turned', 'How far it is turned about its middle.', '°', [-3600, 3600, 0]),
    },
    {
      across: ['UV panning', 'scroll speed u'],
      along: ['scroll speed v'],
      offsetAcross: ['UV offset', 'offset u'],
      offsetAlong: ['offset v'],
      repeatAcross: ['tiling', 'tile u'],
      repeatAlong: ['tile v'],
      turn: ['UV rotation'],
    },
  ),
  warp: alsoCalled(
    {
      strength: step('strength', 'How far it pushes what comes after it to and fro.', '%', [0, 200, 12]),
      grains: SIZE(3),
      change: { ...CHANGE, byDefault: 0.5 },
      varied: VARIED,
    },
    { strength: ['distortion amount'], grains: ['noise scale'], change: ['noise speed'] },
  ),
  dissolve: alsoCalled(
    {
      by: among('by', 'What decides which parts go first.', ['clouds', 'cells', 'a picture']),
      amount: step('amount', 'How much of it is gone.', '%', [0, 100, 0]),
      softness: step('softness', 'How softly the border runs out.', '%', [0, 100, 8]),
      grains: SIZE(4),
      edge: step('glowing edge', 'How wide the border glows.', '%', [0, 100, 12]),
      glow: step('glow', 'How bright the border glows.', '×', [0, 100, 4]),
      colour: colour('edge colour', 'Colour of the glowing border.', '#ff9a3c'),
      varied: VARIED,
    },
    {
      amount: ['erosion amount', 'erode'],
      softness: ['erosion softness'],
      edge: ['edge width', 'burn edge'],
      glow: ['edge emissive'],
      by: ['dissolve texture', 'erosion mask', 'eaten by', 'dissolve noise'],
    },
  ),
  rim: alsoCalled(
    {
      does: among('does', 'What it makes of the rim, where the surface turns from the eye.', [
        'brightens the rim',
        'shows the rim only',
        'hides the rim',
      ]),
      sharpness: step('sharpness', 'How narrow the rim is.', '×', [0.1, 20, 2.5]),
      intensity: step('intensity', 'How bright the rim is.', '×', [0, 100, 1.5]),
      colour: colour('rim colour', 'Colour of the rim.', '#ffffff'),
    },
    { sharpness: ['fresnel power', 'fresnel exponent'], intensity: ['fresnel intensity'], colour: ['fresnel color'] },
  ),
  gradient: alsoCalled(
    {
      along: among('along', 'What the gradient runs over.', ['across', 'along', 'out from the middle', 'brightness']),
      amount: step('amount', 'How far the gradient acts.', '%', [0, 100, 100]),
    },
    { along: ['gradient along U', 'gradient along V', 'fade along the length', 'opacity along the length'] },
  ),
  tint: {
    colour: colour('colour', 'What the colour is multiplied by.', '#ffffff'),
    amount: step('amount', 'How far the tint acts.', '%', [0, 100, 100]),
  },
  intensity: {
    factor: step('factor', 'How many times brighter.', '×', [0, 100, 2]),
  },
  soft: alsoCalled(
    {
      distance: step('distance', 'How far before solid things it begins to fade.', 'm', [0.001, 10, 0.2]),
    },
    { distance: ['depth fade distance', 'soft particle distance'] },
  ),
} as const satisfies Record<string, Record<string, Declaration>>;

export type StepKind = keyof typeof STEP_SETTINGS;
export const STEP_KINDS = Object.keys(STEP_SETTINGS) as StepKind[];

/** What each kind of step is called. */
export const STEP_NAMES: Record<StepKind, string> = {
  picture: 'Picture',
  drawn: 'Drawn shape',
  levels: 'Levels',
  contrast: 'Contrast',
  scroll: 'Scroll',
  warp: 'Warp',
  dissolve: 'Dissolve',
  rim: 'Rim',
  gradient: 'Gradient',
  tint: 'Tint',
  intensity: 'Intensity',
  soft: 'Soft meeting',
};

/** What people of the trade also call each kind of step. */
export const STEP_OTHER_WORDS: Record<StepKind, readonly string[]> = {
  picture: ['texture', 'image', 'flipbook', 'sprite sheet', 'texture sheet', 'atlas'],
  drawn: [
    'procedural texture',
    'shape',
    'generated texture',
    'electric arc',
    'hexagon',
    'triangle',
    'dashes',
    'scratches',
  ],
  levels: ['remap', 'threshold'],
  contrast: ['harden', 'sharpen', 'crisp edge'],
  scroll: ['UV', 'UV scroll', 'panning', 'pan texture', 'tiling', 'texture offset'],
  warp: ['distort UV', 'noise distortion', 'flow map'],
  dissolve: ['erosion', 'burn away', 'alpha erosion', 'disintegrate', 'eaten away'],
  rim: ['fresnel', 'edge glow', 'rim light'],
  gradient: ['color ramp', 'gradient map', 'ramp', 'color along the trail', 'opacity along the trail', 'fade tail'],
  tint: ['multiply color', 'color multiply'],
  intensity: ['emissive boost', 'brighten'],
  soft: ['soft particles', 'depth fade', 'soft intersection'],
};
