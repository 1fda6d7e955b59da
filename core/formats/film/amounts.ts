import type { FilmSettings } from './settings.ts';

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
