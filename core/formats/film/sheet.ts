import { fromHalf } from './pixels.ts';
import type { SheetLayout } from './amounts.ts';
import type { FilmSettings } from './settings.ts';

/** A sheet of cells, four bytes a point, rows from the top. */
export class Sheet {
  readonly layout: SheetLayout;
  readonly pixels: Uint8Array<ArrayBuffer>;
  readonly #width: number;
  readonly #height: number;
  readonly #padding: number;

  constructor(layout: SheetLayout, { width, height, padding }: Pick<FilmSettings, 'width' | 'height' | 'padding'>) {
    this.layout = layout;
    [this.#width, this.#height, this.#padding] = [width, height, padding];
    this.pixels = new Uint8Array(layout.width * layout.height * 4);
  }

  /** Puts a picture into a cell; the points round it repeat its border, so that no neighbour is mixed in. */
  put(cell: number, picture: Uint8Array): void {
    const { columns, cellWidth, cellHeight, width } = this.layout;
    const [left, top] = [(cell % columns) * cellWidth, Math.floor(cell / columns) * cellHeight];
    const from = new Uint32Array(picture.buffer, picture.byteOffset, this.#width * this.#height);
    const into = new Uint32Array(this.pixels.buffer);
    const within = (at: number, most: number) => Math.min(most - 1, Math.max(0, at - this.#padding));
    for (let y = 0; y < cellHeight; y++)
      for (let x = 0; x < cellWidth; x++)
        into[(top + y) * width + left + x] = from[within(y, this.#height) * this.#width + within(x, this.#width)]!;
  }

  /**
   * Gives points that cover nothing the colours of those near to them, in every cell for itself, so that colours do not go
   * dark at borders where the sheet is drawn smaller. Of straight colours only: what is times opacity is black there.
   */
  fillColours(): void {
    const { columns, rows, cellWidth, cellHeight } = this.layout;
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++)
        this.#fillCell(column * cellWidth, row * cellHeight, cellWidth, cellHeight);
  }

  #fillCell(left: number, top: number, width: number, height: number): void {
    const at = (x: number, y: number) => ((top + y) * this.layout.width + left + x) * 4;
    // Means of ever larger squares, each by how much its points cover; then what covers nothing takes that of the smallest that does.
    const levels: { width: number; height: number; sums: Float32Array }[] = [];
    let sums = new Float32Array(width * height * 4);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [from, to] = [at(x, y), (y * width + x) * 4];
        const opacity = this.pixels[from + 3]!;
        for (let k = 0; k < 3; k++) sums[to + k] = this.pixels[from + k]! * opacity;
        sums[to + 3] = opacity;
      }
    for (let [w, h] = [width, height]; ;) {
      levels.push({ width: w, height: h, sums });
      if (w === 1 && h === 1) break;
      const [halfWidth, halfHeight] = [Math.ceil(w / 2), Math.ceil(h / 2)];
      const next = new Float32Array(halfWidth * halfHeight * 4);
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++)
          for (let k = 0; k < 4; k++) {
            const to = ((y >> 1) * halfWidth + (x >> 1)) * 4 + k;
            next[to] = next[to]! + sums[(y * w + x) * 4 + k]!;
          }
      [sums, w, h] = [next, halfWidth, halfHeight];
    }
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const to = at(x, y);
        if (this.pixels[to + 3] !== 0) continue;
        for (let level = 1; level < levels.length; level++) {
          const { width: w, sums: mean } = levels[level]!;
          const from = ((y >> level) * w + (x >> level)) * 4;
          const weight = mean[from + 3]!;
          if (weight === 0) continue;
          for (let k = 0; k < 3; k++) this.pixels[to + k] = Math.floor(mean[from + k]! / weight + 0.5);
          break;
        }
      }
  }
}

/**
 * How far each point moves until the next picture, as bytes: red right, green up, 128 for standing still; `most` is the share
 * of the picture's width or height that 255 stands for. `pictures` are half floats times how much they cover, rows from the top.
 */
export function motionSheet(sheet: Sheet, pictures: readonly Uint16Array[]): { readonly most: number } {
  let most = 1 / 1024;
  const motions = pictures.map((halves) => {
    const motion = new Float32Array(halves.length / 2);
    for (let n = 0; n < motion.length; n += 2) {
      const covers = fromHalf(halves[n * 2 + 3]!);
      if (covers < LEAST_COVERED) continue;
      for (let axis = 0; axis < 2; axis++) {
        motion[n + axis] = fromHalf(halves[n * 2 + axis]!) / covers;
        most = Math.max(most, Math.abs(motion[n + axis]!));
      }
    }
    return motion;
  });
  motions.forEach((motion, cell) => {
    const bytes = new Uint8Array(motion.length * 2);
    for (let n = 0; n < motion.length; n += 2) {
      for (let axis = 0; axis < 2; axis++)
        bytes[n * 2 + axis] = 128 + Math.floor((motion[n + axis]! / most) * 127 + 0.5);
      // Where nothing covers, it moves as what is near does.
      bytes[n * 2 + 3] = fromHalf(pictures[cell]![n * 2 + 3]!) < LEAST_COVERED ? 0 : 255;
    }
    sheet.put(cell, bytes);
  });
  sheet.fillColours();
  for (let at = 3; at < sheet.pixels.length; at += 4) sheet.pixels[at] = 255;
  return { most };
}

/** Which way each point faces, as bytes of −1 to 1: red right, green up, blue to the eye. `halves` as for motion. */
export function normalPicture(halves: Uint16Array): Uint8Array {
  const bytes = new Uint8Array(halves.length);
  for (let n = 0; n < halves.length; n += 4) {
    const normal = [0, 1, 2].map((axis) => fromHalf(halves[n + axis]!));
    const length = Math.sqrt(normal[0]! * normal[0]! + normal[1]! * normal[1]! + normal[2]! * normal[2]!);
    const isThere = fromHalf(halves[n + 3]!) >= LEAST_COVERED && length > 0;
    for (let axis = 0; axis < 3; axis++) {
      const x = isThere ? normal[axis]! / length : axis === 2 ? 1 : 0;
      bytes[n + axis] = Math.floor((x * 0.5 + 0.5) * 255 + 0.5);
    }
    bytes[n + 3] = 255;
  }
  return bytes;
}

/** What covers less has no motion and faces nowhere: what is divided by it would be noise. */
const LEAST_COVERED = 1 / 4096;

/** What a program must know of a sheet to play it. `motion`: what 255 in the sheet of motion stands for. */
export function sheetText(
  layout: SheetLayout,
  settings: FilmSettings,
  pictures: number,
  sheets: { readonly colour: string; readonly motion?: string; readonly normal?: string },
  motion: number | null,
): string {
  const { width, height, padding, rate, loops, alpha } = settings;
  const about = {
    flipbook: 1,
    sheets,
    cells: pictures,
    ...{ columns: layout.columns, rows: layout.rows },
    sheet: [layout.width, layout.height],
    cell: [width, height],
    padding,
    order: 'left to right, then down',
    rate,
    seconds: pictures / rate,
    loops,
    alpha,
    ...(motion === null
      ? {}
      : {
          motion: { most: motion, unit: 'shares of a cell until the next, red right and green up, 128 stands still' },
        }),
  };
  return `${JSON.stringify(about, null, 1)}\n`;
}
