import * as z from '../../zod/index.ts';
import { cameraSchema, tierName, type Effect } from '../../document/index.ts';
import { EffectClock } from '../../simulation/index.ts';

/** What an effect is handed out as, of those that are made of pictures. */
export const FILM_KINDS = ['png', 'exr', 'flipbook', 'film', 'webp'] as const;
export type FilmKind = (typeof FILM_KINDS)[number];

/** Points of a picture along a side, at most. */
export const MOST_PICTURE_SIDE = 8192;
/** Pictures, at most. */
export const MOST_PICTURES = 10_000;

const side = z.number().int().min(1).max(MOST_PICTURE_SIDE);

/** How pictures of an effect are taken, and what is made of them. */
export const filmSettingsSchema = z.strictObject({
  as: z.enum(FILM_KINDS),
  width: side,
  height: side,
  /** How many times as large each is drawn, each way, before it is brought to its size. */
  supersampling: z.number().int().min(1).max(4),
  /** Pictures a second. */
  rate: z.number().min(1).max(120),
  /** Seconds of the effect's time before the first picture, and from the first to the end. */
  from: z.number().min(0).max(3600),
  length: z.number().min(0.001).max(3600),
  /** Seconds after its beginning at which it is let go; null: not at all. */
  letGoAt: z.number().min(0).max(3600).nullable(),
  /** Null: as it is seen first, or from the camera that it keeps. */
  camera: cameraSchema.omit({ name: true }).nullable(),
  /** Null: its own. */
  seed: z.number().int().min(0).max(4294967295).nullable(),
  /** Values of its dials, by their ids; the others are as they are. */
  dials: z.record(z.string(), z.union([z.number(), z.boolean()])),
  quality: tierName,
  /** Figures are drawn, only hide what is behind them, or are not there. */
  figure: z.enum(['drawn', 'hides', 'none']),
  /** What is behind: its surround, or nothing. */
  behind: z.enum(['surround', 'nothing']),
  /** Whether the ground hides what is below it where nothing is behind. */
  ground: z.boolean(),
  /** Whether light that shines over, and the rest of its lens, are in PNG, flipbook and film. */
  bloom: z.boolean(),
  /** Bits of a channel of PNG. */
  bits: z.union([z.literal(8), z.literal(16)]),
  /** Whether colours are times opacity. */
  alpha: z.enum(['premultiplied', 'straight']),
  /** Whether what is added comes apart from what covers. */
  apart: z.boolean(),
  /** Whether depth, identity, bent air and what multiplies come too: EXR. */
  passes: z.boolean(),
  /** A flipbook's cells side by side; 0: as many as make it nearly square. */
  columns: z.number().int().min(0).max(256),
  /** Empty points round each cell. */
  padding: z.number().int().min(0).max(64),
  /** Whether it goes round without a seam. */
  loops: z.boolean(),
  /** Whether sheets of how far each point moves, and of how what is seen lies, come too. */
  motion: z.boolean(),
  normals: z.boolean(),
  codec: z.enum(['vp9', 'h264']),
  /** Thousands of bits a second. */
  bitrate: z.number().int().min(100).max(200_000),
});
export type FilmSettings = z.infer<typeof filmSettingsSchema>;

/** Seconds that an effect takes where it is held for one turn and then let go. */
export const wholeLength = ({ stretches }: Pick<Effect, 'stretches'>): number =>
  Math.max(0.1, new EffectClock(stretches).length);

/** What is taken of an effect so that it goes round: its hold, from the second turn on, where that has no seam. */
export function loopOf({ stretches }: Pick<Effect, 'stretches'>): Partial<FilmSettings> {
  const { isSeamless, opening, hold } = new EffectClock(stretches);
  return isSeamless ? { loops: true, from: opening + hold, length: hold, letGoAt: null } : { loops: true };
}

/** Settings to begin with for one kind: all of the effect, or, to go round, its hold. */
export function newFilmSettings(kind: FilmKind, effect: Pick<Effect, 'stretches' | 'quality'>): FilmSettings {
  const { isSeamless, opening, hold } = new EffectClock(effect.stretches);
  const isSheet = kind === 'flipbook';
  const isShown = kind === 'film' || kind === 'webp';
  const loops = isSheet && isSeamless;
  const [width, height] = isSheet ? [256, 256] : kind === 'webp' ? [480, 300] : [1280, 800];
  return {
    as: kind,
    ...{ width, height },
    supersampling: 1,
    rate: isSheet ? 30 : kind === 'webp' ? 20 : 60,
    from: 0,
    length: wholeLength(effect),
    letGoAt: hold === 0 ? null : opening + hold,
    camera: null,
    seed: null,
    dials: {},
    quality: effect.quality.shown,
    figure: isShown ? 'drawn' : 'hides',
    behind: isShown ? 'surround' : 'nothing',
    ground: true,
    bloom: !isSheet,
    bits: 8,
    alpha: 'straight',
    apart: false,
    passes: kind === 'exr',
    columns: 0,
    padding: 2,
    loops,
    motion: false,
    normals: false,
    codec: 'vp9',
    bitrate: 8000,
    ...(loops ? loopOf(effect) : {}),
  };
}

/** Settings that are numbers, of those some may be none. */
export type FilmNumber = {
  [K in keyof FilmSettings]: number extends FilmSettings[K] ? K : never;
}[keyof FilmSettings];

/** Between what a number may lie, and whether it is a whole one. */
export function filmLimits(name: FilmNumber): {
  readonly least: number;
  readonly most: number;
  readonly whole: boolean;
} {
  const field = filmSettingsSchema.shape[name];
  const { minValue, maxValue, isInt } = field instanceof z.ZodNullable ? field.unwrap() : field;
  return { least: minValue!, most: maxValue!, whole: isInt };
}
