import type { FilmSettings, SheetLayout } from './settings.ts';

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

/** What a program must know of a sheet to play it. */
export const sheetText = (
  layout: SheetLayout,
  settings: FilmSettings,
  pictures: number,
  sheets: readonly string[],
): string => {
  const { width, height, padding, rate, loops, alpha } = settings;
  const about = {
    flipbook: 1,
    sheets,
    cells: pictures,
    ...{ columns: layout.columns, rows: layout.rows },
    sheet: [layout.width, layout.height],
    cell: [width, height],
    padding,
    rate,
    seconds: pictures / rate,
    loops,
    alpha,
    order: 'left to right, then down',
  };
  return `${JSON.stringify(about, null, 1)}\n`;
};
