import { FormatError } from './errors.ts';

/** A table of colours as a game's tone curve: what is shown for what the picture has. */
export interface ToneTable {
  /** Whether each colour goes by itself, or all three together. */
  readonly kind: 'line' | 'cube';
  /** Entries along a line, or along each side of a cube. */
  readonly size: number;
  /** Lowest and highest value that the table is entered with, for red, green and blue. */
  readonly from: readonly [number, number, number];
  readonly to: readonly [number, number, number];
  /** Red, green and blue for each entry; in a cube red runs fastest. */
  readonly values: Float32Array<ArrayBuffer>;
}

const MOST = { line: 4096, cube: 65 } as const;
/** Letters of a table at most: a cube of 65 entries a side. */
export const MOST_TONE_LETTERS = 12_000_000;

const fail = (line: number, sentence: string): never => {
  throw new FormatError('tone.table', `line ${line} of the table: ${sentence}`);
};

/**
 * Reads a colour table written as lines of text (the .cube format): `LUT_1D_SIZE` or `LUT_3D_SIZE`, `DOMAIN_MIN` and
 * `DOMAIN_MAX`, then three numbers a line. It is entered with, and gives, colours encoded as sRGB.
 * @throws FormatError saying which line is wrong.
 */
export function readToneTable(text: string): ToneTable {
  if (text.length > MOST_TONE_LETTERS)
    throw new FormatError('tone.table', 'the table is too long: up to 65 entries a side are read');
  let kind: ToneTable['kind'] | null = null;
  let size = 0;
  let from: [number, number, number] = [0, 0, 0];
  let to: [number, number, number] = [1, 1, 1];
  let values = new Float32Array(0);
  let at = 0;
  const three = (words: readonly string[], line: number): [number, number, number] => {
    const numbers = words.map(Number);
    if (numbers.length !== 3 || !numbers.every((number) => Number.isFinite(number) && Math.abs(number) < 65_000))
      fail(line, 'three numbers are expected');
    return numbers as [number, number, number];
  };
  for (const [n, raw] of text.split(/\r?\n/).entries()) {
    const words = raw.replace(/#.*$/, '').trim().split(/\s+/);
    const [first = '', ...rest] = words;
    if (first === '' || first === 'TITLE') continue;
    if (first === 'LUT_1D_SIZE' || first === 'LUT_3D_SIZE') {
      if (kind) fail(n + 1, 'a second size; one table is read');
      kind = first === 'LUT_1D_SIZE' ? 'line' : 'cube';
      size = Number(rest[0]);
      if (!Number.isInteger(size) || size < 2 || size > MOST[kind])
        fail(n + 1, `the size is a whole number from 2 to ${MOST[kind]}`);
      values = new Float32Array(3 * (kind === 'line' ? size : size * size * size));
    } else if (first === 'DOMAIN_MIN') from = three(rest, n + 1);
    else if (first === 'DOMAIN_MAX') to = three(rest, n + 1);
    else if (/^[A-Z]/.test(first)) fail(n + 1, `“${first.slice(0, 40)}” is not known`);
    else {
      if (!kind) fail(n + 1, 'the size has to come before the colours');
      if (at + 3 > values.length) fail(n + 1, 'more colours than the size says');
      values.set(three(words, n + 1), at);
      at += 3;
    }
  }
  if (!kind) throw new FormatError('tone.table', 'the table has no size: LUT_1D_SIZE or LUT_3D_SIZE is missing');
  if (at < values.length)
    throw new FormatError('tone.table', `the table has ${at / 3} colours; its size asks for ${values.length / 3}`);
  if (from.some((low, n) => low >= to[n]!))
    throw new FormatError('tone.table', 'the table’s lowest values are not below its highest');
  return { kind, size, from, to, values };
}
