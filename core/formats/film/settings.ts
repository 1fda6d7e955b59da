import * as z from 'zod';
import { cameraSchema, tierName, type Effect } from '../../document/index.ts';

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
export function wholeLength({ stretches: { opening, hold, closing } }: Pick<Effect, 'stretches'>): number {
  return Math.max(0.1, opening + (hold.kind === 'none' ? 0 : hold.seconds) + closing);
}

/** What is taken of an effect so that it goes round: its hold, from the second turn on, where that has no seam. */
export function loopOf({ stretches: { opening, hold } }: Pick<Effect, 'stretches'>): Partial<FilmSettings> {
  return hold.kind === 'seamless'
    ? { loops: true, from: opening + hold.seconds, length: hold.seconds, letGoAt: null }
    : { loops: true };
}

/** Settings to begin with for one kind: all of the effect, or, to go round, its hold. */
export function newFilmSettings(kind: FilmKind, effect: Pick<Effect, 'stretches'>): FilmSettings {
  const { opening, hold } = effect.stretches;
  const isSheet = kind === 'flipbook';
  const loops = isSheet && hold.kind === 'seamless';
  const held = hold.kind === 'none' ? 0 : hold.seconds;
  return {
    as: kind,
    width: isSheet ? 256 : kind === 'webp' ? 480 : 1280,
    height: isSheet ? 256 : kind === 'webp' ? 300 : 800,
    supersampling: 1,
    rate: isSheet ? 30 : kind === 'webp' ? 20 : 60,
    from: 0,
    length: wholeLength(effect),
    letGoAt: hold.kind === 'none' ? null : opening + held,
    camera: null,
    seed: null,
    dials: {},
    quality: 'high',
    figure: kind === 'film' || kind === 'webp' ? 'drawn' : 'hides',
    behind: kind === 'film' || kind === 'webp' ? 'surround' : 'nothing',
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

/** How many pictures are taken. */
export const pictureCount = ({ rate, length }: Pick<FilmSettings, 'rate' | 'length'>): number =>
  Math.max(1, Math.floor(rate * length + 0.5));

/** An instant of a run: the end of the step that it lies in, and how far into that it lies, above 0 to 1. */
export interface FilmInstant {
  readonly step: number;
  readonly share: number;
}

/** The instants of all pictures, `stepsPerSecond` steps a second. */
export function filmInstants(settings: FilmSettings, stepsPerSecond: number): FilmInstant[] {
  return Array.from({ length: pictureCount(settings) }, (_, n) => {
    const at = (settings.from + n / settings.rate) * stepsPerSecond;
    const step = Math.max(0, Math.ceil(at - 1e-6));
    return { step, share: step === 0 ? 1 : Math.min(1, Math.max(1e-6, at - (step - 1))) };
  });
}

/** What cannot be made of these settings: a sentence each, in the order of what is worst. */
export function filmProblems(settings: FilmSettings): string[] {
  const { as, width, height, supersampling, columns, padding } = settings;
  const pictures = pictureCount(settings);
  const problems: string[] = [];
  if (pictures > MOST_PICTURES)
    problems.push(
      `${pictures} pictures are too many: up to ${MOST_PICTURES} are taken. Lower the rate or the length.`,
    );
  if (Math.max(width, height) * supersampling > MOST_PICTURE_SIDE)
    problems.push(
      `Drawn ${supersampling} times as large a picture has ${width * supersampling} × ${height * supersampling} points; up to ${MOST_PICTURE_SIDE} a side can be drawn. Lower the size or the supersampling.`,
    );
  if (as === 'flipbook') {
    const sheet = sheetLayout({ pictures, width, height, columns, padding });
    if (Math.max(sheet.width, sheet.height) > MOST_PICTURE_SIDE)
      problems.push(
        `The sheet would have ${sheet.width} × ${sheet.height} points; up to ${MOST_PICTURE_SIDE} a side can be made. Take fewer or smaller pictures.`,
      );
  }
  if (as === 'film' && settings.codec === 'h264' && (width % 2 || height % 2))
    problems.push(`H.264 wants an even width and height, not ${width} × ${height}.`);
  return problems;
}

/** What to know of what is made, a sentence each. */
export function filmWarnings(effect: Effect, settings: FilmSettings): string[] {
  const { as, apart, passes, behind } = settings;
  const warnings: string[] = [];
  const layers = effect.layers.order.map((id) => effect.layers.byId[id]!).filter(({ hidden }) => !hidden);
  const names = (found: typeof layers) => found.map(({ name }) => name).join(', ');
  if (effect.dials.order.length > 0 || effect.signals.order.length > 0)
    warnings.push(
      `${as === 'flipbook' ? 'A flipbook' : 'A picture'} cannot answer a dial or a signal: they stay as they are now.`,
    );
  const bending = layers.filter(({ drawn }) => drawn.kind === 'haze');
  const multiplying = layers.filter(({ settings: set }) => set['appearance.blend'].base.value === 'multiply');
  if (behind === 'nothing') {
    if (bending.length > 0)
      warnings.push(
        `Bent air (${names(bending)}) does not recompose: ${as === 'exr' && passes ? 'how far it bends comes as a pass' : 'it is left out'}.`,
      );
    if (multiplying.length > 0)
      warnings.push(
        `What multiplies (${names(multiplying)}) does not recompose: ${as === 'exr' && passes ? 'its factor comes as a pass' : 'it darkens the effect alone'}.`,
      );
    const lights = layers.filter(({ drawn }) => drawn.kind === 'light');
    if (lights.length > 0) warnings.push(`Lights (${names(lights)}) fall on nothing that is not in the picture.`);
    if (as !== 'exr' && !apart)
      warnings.push(
        'What is added to the picture is bright without covering: lay premultiplied pictures over, or take it apart.',
      );
  }
  if (as === 'flipbook' && settings.loops && effect.stretches.hold.kind !== 'seamless')
    warnings.push('It goes round without a seam only where its hold has none: choose that for the hold first.');
  return warnings;
}

/** A sheet of cells. */
export interface SheetLayout {
  readonly columns: number;
  readonly rows: number;
  /** Points of a cell with its padding, and of the sheet. */
  readonly cellWidth: number;
  readonly cellHeight: number;
  readonly width: number;
  readonly height: number;
}

/** How the cells of a flipbook lie: as wanted, or so that the sheet is nearly square. */
export function sheetLayout(asked: {
  readonly pictures: number;
  readonly width: number;
  readonly height: number;
  readonly columns: number;
  readonly padding: number;
}): SheetLayout {
  const { pictures, width, height, padding } = asked;
  const [cellWidth, cellHeight] = [width + 2 * padding, height + 2 * padding];
  const rowsOf = (columns: number) => Math.ceil(pictures / columns);
  const longest = (columns: number) => Math.max(columns * cellWidth, rowsOf(columns) * cellHeight);
  const near = Math.max(1, Math.floor(Math.sqrt((pictures * cellHeight) / cellWidth)));
  const square = longest(near) <= longest(near + 1) ? near : near + 1;
  const columns = Math.min(pictures, asked.columns > 0 ? asked.columns : square);
  const rows = rowsOf(columns);
  return { columns, rows, cellWidth, cellHeight, width: columns * cellWidth, height: rows * cellHeight };
}

/** About how many bytes come out, and how many a game holds them in. */
export function filmSizes(settings: FilmSettings): { readonly file: number; readonly memory: number } {
  const { as, width, height, bits, apart, passes, bitrate, length, motion, normals } = settings;
  const pictures = pictureCount(settings);
  const points = width * height;
  switch (as) {
    case 'png':
      return {
        file: points * pictures * (bits / 8) * 1.2 * (apart ? 2 : 1),
        memory: points * pictures * 4 * (apart ? 2 : 1),
      };
    case 'exr':
      return { file: points * pictures * (8 + (passes ? 12 : 0)) * 0.35, memory: points * pictures * 8 };
    case 'flipbook': {
      const sheet = sheetLayout({ ...settings, pictures });
      const sheets = 1 + (motion ? 1 : 0) + (normals ? 1 : 0);
      // With its halved pictures a texture takes a third more.
      const memory = (sheet.width * sheet.height * 4 * sheets * 4) / 3;
      return { file: sheet.width * sheet.height * 1.2 * sheets, memory };
    }
    case 'film':
      return { file: (bitrate * 1000 * length) / 8, memory: points * 4 * 4 };
    case 'webp':
      return { file: points * pictures * 0.12, memory: points * 4 * pictures };
  }
}
