import { deflate } from './deflate.ts';

/** A channel of an OpenEXR picture: a number a pixel, rows from the top. */
export interface ExrChannel {
  /** As in "R", or of a layer "depth.Z". */
  readonly name: string;
  /** Half floats as they lie in memory, whole numbers, or floats. */
  readonly data:
    | { readonly type: 'half'; readonly values: Uint16Array }
    | { readonly type: 'uint'; readonly values: Uint32Array }
    | { readonly type: 'float'; readonly values: Float32Array };
}

const TYPES = { uint: 0, half: 1, float: 2 } as const;
const BYTES = { uint: 4, half: 2, float: 4 } as const;
const ZIP = 3;
const ROWS_OF_BLOCK = 16;

/** Writes a header as OpenEXR has it: numbers from the least significant byte on, texts that end with 0. */
class Header {
  readonly #bytes: number[] = [];

  u8(...values: readonly number[]): this {
    this.#bytes.push(...values);
    return this;
  }
  u32(...values: readonly number[]): this {
    for (const value of values) for (let n = 0; n < 4; n++) this.#bytes.push((value >>> (8 * n)) & 255);
    return this;
  }
  f32(...values: readonly number[]): this {
    return this.u32(...values.map((value) => new Uint32Array(Float32Array.of(value).buffer)[0]!));
  }
  text(text: string): this {
    return this.u8(...new TextEncoder().encode(text), 0);
  }
  attribute(name: string, type: string, value: Header): this {
    return this.text(name)
      .text(type)
      .u32(value.#bytes.length)
      .u8(...value.#bytes);
  }
  get bytes(): Uint8Array {
    return Uint8Array.from(this.#bytes);
  }
}

/** Bytes in two halves, each as the difference from the byte before: what OpenEXR's ZIP compression begins with. */
function predicted(raw: Uint8Array): Uint8Array<ArrayBuffer> {
  const mixed = new Uint8Array(raw.length);
  const half = (raw.length + 1) >> 1;
  for (let n = 0; n < raw.length; n++) mixed[(n & 1 ? half : 0) + (n >> 1)] = raw[n]!;
  for (let n = raw.length - 1; n > 0; n--) mixed[n] = mixed[n]! - mixed[n - 1]! + 128;
  return mixed;
}

/**
 * An OpenEXR picture (openexr.com, file layout 2): scan lines in blocks of sixteen, compressed by ZIP. `rate` are pictures a
 * second of the sequence that it is of.
 */
export async function writeExr(
  width: number,
  height: number,
  channels: readonly ExrChannel[],
  rate: number | null = null,
): Promise<Uint8Array<ArrayBuffer>> {
  const sorted = [...channels].sort((a, b) => (a.name < b.name ? -1 : 1));
  const list = new Header();
  for (const { name, data } of sorted) list.text(name).u32(TYPES[data.type]).u8(0, 0, 0, 0).u32(1, 1);
  list.u8(0);
  const whole = () => new Header().u32(0, 0, width - 1, height - 1);
  const header = new Header()
    .u32(20000630, 2)
    .attribute('channels', 'chlist', list)
    .attribute('compression', 'compression', new Header().u8(ZIP))
    .attribute('dataWindow', 'box2i', whole())
    .attribute('displayWindow', 'box2i', whole())
    .attribute('lineOrder', 'lineOrder', new Header().u8(0))
    .attribute('pixelAspectRatio', 'float', new Header().f32(1))
    .attribute('screenWindowCenter', 'v2f', new Header().f32(0, 0))
    .attribute('screenWindowWidth', 'float', new Header().f32(1));
  if (rate !== null)
    header.attribute('framesPerSecond', 'rational', new Header().u32(Math.floor(rate * 1000 + 0.5), 1000));
  header.u8(0);
  const rowBytes = sorted.reduce((sum, { data }) => sum + width * BYTES[data.type], 0);
  const blocks: Uint8Array[] = [];
  for (let first = 0; first < height; first += ROWS_OF_BLOCK) {
    const rows = Math.min(ROWS_OF_BLOCK, height - first);
    const raw = new Uint8Array(rowBytes * rows);
    let at = 0;
    for (let row = first; row < first + rows; row++)
      for (const { data } of sorted) {
        const { buffer, byteOffset } = data.values;
        const bytes = width * BYTES[data.type];
        raw.set(new Uint8Array(buffer, byteOffset + row * bytes, bytes), at);
        at += bytes;
      }
    const packed = await deflate(predicted(raw));
    // What does not become smaller is kept as it is.
    blocks.push(packed.length < raw.length ? packed : raw);
  }
  const start = header.bytes;
  const table = start.length + 8 * blocks.length;
  const out = new Uint8Array(table + blocks.reduce((sum, block) => sum + 8 + block.length, 0));
  const view = new DataView(out.buffer);
  out.set(start);
  let at = table;
  blocks.forEach((block, n) => {
    view.setBigUint64(start.length + 8 * n, BigInt(at), true);
    view.setInt32(at, n * ROWS_OF_BLOCK, true);
    view.setInt32(at + 4, block.length, true);
    out.set(block, at + 8);
    at += 8 + block.length;
  });
  return out;
}
