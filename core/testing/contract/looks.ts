import {
  collectionOf,
  newStep,
  setStep,
  STEP_SETTINGS,
  type Layer,
  type Step,
  type StepKind,
} from '../../document/index.ts';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import { lookAt as readLook } from '../../../docs/reading/look.mjs';

/** A step of a look with its numbers as they are, as docs/reading/look.mjs takes it. */
export type PlainStep = { readonly kind: StepKind } & Readonly<Record<string, unknown>>;
export interface LookedAt {
  readonly seconds?: number;
  readonly clock?: number;
  readonly age?: number;
  readonly lot?: number;
  readonly fine?: number;
  readonly pixel?: number;
  readonly cosine?: number;
  readonly before?: number;
}
export interface Spot {
  readonly rgb: readonly number[];
  readonly a: number;
  readonly emit: readonly number[];
}
export const lookAt = readLook as (steps: readonly PlainStep[], p: readonly [number, number], at?: LookedAt) => Spot;

const COLOURS = [
  [255, 0, 0, 255],
  [0, 255, 0, 255],
  [0, 0, 255, 255],
  [255, 255, 255, 128],
];
const SQUARE = 8;
/** The picture that steps of the contract show: squares of red and green above, of blue and half clear white below. */
export const FOUR = {
  width: 2 * SQUARE,
  height: 2 * SQUARE,
  rgba: Array.from(
    { length: 4 * SQUARE * SQUARE },
    (_, n) => COLOURS[(n < 2 * SQUARE * SQUARE ? 0 : 2) + (n % (2 * SQUARE) < SQUARE ? 0 : 1)]!,
  ).flat(),
};

/** A step with what it has by default, and some of its values. */
export function plainStep(kind: StepKind, values: Record<string, unknown> = {}): PlainStep {
  const declared = Object.entries(STEP_SETTINGS[kind]).map(([name, { byDefault }]) => [name, byDefault] as const);
  const rest =
    kind === 'picture' || values['by'] === 'a picture'
      ? { picture: FOUR }
      : kind === 'gradient'
        ? {
            stops: [
              { at: 0.1, colour: '#ff2000' },
              { at: 0.5, colour: '#e0c040', opacity: 0.4 },
              { at: 1, colour: '#1030ff' },
            ],
          }
        : {};
  return { kind, ...Object.fromEntries(declared), ...rest, ...values };
}

/** The same as a step of a document; `asset` is the picture that it shows. */
export function stepOf({ kind, picture, stops, ...values }: PlainStep, asset: string): Step {
  const step = newStep(kind);
  for (const [name, value] of Object.entries(values)) {
    const isColour = (STEP_SETTINGS[kind] as Record<string, { value: string }>)[name]!.value === 'colour';
    setStep(step, name, (isColour ? { hex: value } : value) as string);
  }
  if (picture && (step.kind === 'picture' || step.kind === 'dissolve')) step.picture = { asset, name: 'four' };
  if (stops && step.kind === 'gradient')
    step.stops = collectionOf(
      (stops as { at: number; colour: string; opacity?: number }[]).map(({ at, colour, ...rest }, n) => [
        `s${n}`,
        { at: { anchor: 'share', value: at }, colour: { hex: colour }, ...rest },
      ]),
    );
  return step;
}
export const lookOf = (steps: readonly PlainStep[], asset: string): Layer['look'] => ({
  kind: 'own',
  steps: collectionOf(steps.map((step, n) => [`s${n}`, stepOf(step, asset)])),
});

const disc = plainStep('drawn', { shape: 'disc', softness: 60 });
/** Looks that go through every kind of step, and every choice that it has. */
export const LOOKS: readonly (readonly PlainStep[])[] = [
  ...STEP_SETTINGS.drawn.shape.choices.map((shape) => [
    plainStep('drawn', { shape, softness: 40, width: 30, change: 2 }),
  ]),
  [plainStep('drawn', { shape: 'polygon', points: 6, softness: 20, width: 100, colour: '#ffb060' })],
  [plainStep('drawn', { shape: 'star polygon', points: 7, skips: 3, softness: 10, width: 8 })],
  [plainStep('drawn', { shape: 'spiral', points: 3, turns: -1, softness: 50, width: 60 })],
  [plainStep('drawn', { shape: 'bolt', points: 3, jags: 5, softness: 70, width: 20, varied: false, struck: 0 })],
  ...(['multiply', 'add', 'over', 'greater'] as const).flatMap((combines) =>
    (['opacity', 'colour'] as const).map((onto) => [
      plainStep('drawn', { shape: 'soft dot', softness: 30, amount: 60, colour: '#80a0ff' }),
      plainStep('drawn', { shape: 'ring', width: 80, softness: 60, colour: '#ffc040', amount: 60, combines, onto }),
      plainStep('picture', { combines, part: 'red', opacity: 'its brightness', reading: 'crisp', amount: 40 }),
    ]),
  ),
  [disc, plainStep('contrast', { factor: 2.5, middle: 40 })],
  [plainStep('gradient', { along: 'along' }), plainStep('contrast', { onto: 'colour', factor: 0.6, middle: 30 })],
  [plainStep('drawn', { shape: 'star', points: 8, softness: 20, width: 45, amount: 70 })],
  [plainStep('drawn', { shape: 'soft dot', onto: 'colour', amount: 80 })],
  [plainStep('drawn', { shape: 'cells', varied: false, grains: 7, softness: 80 })],
  [disc, plainStep('levels', { black: 20, white: 70, gamma: 2 })],
  [
    plainStep('gradient', { along: 'along' }),
    plainStep('levels', { onto: 'colour', black: 10, white: 80, gamma: 0.7 }),
  ],
  [
    plainStep('scroll', { repeatAcross: 2, repeatAlong: 1.5, turn: 30, offsetAcross: 20, offsetAlong: -35 }),
    plainStep('drawn', { shape: 'soft dot' }),
  ],
  [plainStep('scroll', { across: 0.4, along: -1.3 }), plainStep('drawn', { shape: 'streak', width: 50 })],
  [plainStep('warp', { strength: 40 }), disc],
  [
    plainStep('warp', { strength: 25, varied: false, grains: 6, change: 0 }),
    plainStep('drawn', { shape: 'soft dot' }),
  ],
  [plainStep('dissolve', { amount: 45, softness: 30 })],
  [plainStep('dissolve', { by: 'cells', amount: 40, softness: 25, varied: false, colour: '#40a0ff' })],
  [plainStep('dissolve', { by: 'a picture', amount: 30, softness: 40, edge: 0 })],
  ...(['brightens the rim', 'shows the rim only', 'hides the rim'] as const).map((does) => [
    plainStep('rim', { does, sharpness: 1.5, colour: '#ffb060' }),
  ]),
  ...STEP_SETTINGS.gradient.along.choices.map((along) => [
    plainStep('drawn', { shape: 'soft dot', onto: 'colour' }),
    plainStep('gradient', { along, amount: 85 }),
  ]),
  [plainStep('tint', { colour: '#4080ff', amount: 60 }), plainStep('intensity', { factor: 1.7 })],
  [plainStep('soft', { distance: 0.2 })],
  [plainStep('picture')],
  ...(['brightness', 'red', 'green', 'blue', 'alpha'] as const).map((part) => [
    plainStep('picture', {
      part,
      reading: 'crisp',
      opacity: part === 'red' ? 'nothing' : 'its brightness',
      amount: 75,
    }),
  ]),
  ...STEP_SETTINGS.picture.edges.choices.map((edges) => [
    plainStep('scroll', { repeatAcross: 1.8, repeatAlong: 2.2, offsetAcross: 15 }),
    plainStep('picture', { edges, reading: 'crisp' }),
  ]),
  [plainStep('picture', { columns: 2, rows: 2, plays: 'over its life', times: 2, first: 30 })],
  [plainStep('picture', { columns: 2, rows: 2, frames: 3, plays: 'by the clock', rate: 7.3 })],
  [plainStep('picture', { columns: 2, rows: 2, plays: 'by its number', frame: 2.4, blended: false })],
  [
    plainStep('warp', { strength: 15, change: 0 }),
    plainStep('drawn', { shape: 'flare', softness: 20 }),
    plainStep('gradient', { along: 'out from the middle' }),
    plainStep('dissolve', { amount: 20 }),
    plainStep('intensity', { factor: 1.3 }),
  ],
];

const PLACES: readonly (readonly [number, number])[] = [
  [0.5, 0.5],
  [0.3, 0.62],
  [0.85, 0.41],
  [0.12, 0.93],
];
const AT = { seconds: 0.5, clock: 0.75, age: 0.4, lot: 4242, cosine: 0.6, before: 0.05 };
/** Six digits after the point: graphics cards compute in single precision. */
const rounded = (numbers: readonly number[]) => numbers.map((x) => Number(x.toFixed(6)));

/** What each look makes of four spots; the picture that some show is told once. */
export const lookVectors = () => ({
  at: AT,
  picture: FOUR,
  looks: LOOKS.map((steps) => ({
    steps: steps.map((step) => (step['picture'] ? { ...step, picture: 'as above' } : step)),
    spots: PLACES.map((p) => {
      const { rgb, a, emit } = lookAt(steps, p, AT);
      return { p, rgb: rounded(rgb), a: rounded([a])[0]!, emit: rounded(emit) };
    }),
  })),
});
