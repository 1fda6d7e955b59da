import {
  fromHalf,
  in16Bits,
  straighten,
  turnOver,
  writeExr,
  writeFilmPng,
  type ExrChannel,
  type FilmSettings,
} from '@jinx/core/formats';
import type { ShotLayer, ShotMarks } from '@jinx/stage';

/** A picture to be encoded, rows from the bottom. */
export type EncodeJob =
  | {
      readonly kind: 'png';
      readonly width: number;
      readonly height: number;
      readonly alpha: FilmSettings['alpha'];
      readonly layer: ShotLayer;
    }
  | {
      readonly kind: 'exr';
      readonly width: number;
      readonly height: number;
      readonly rate: number;
      readonly layer: ShotLayer;
      readonly marks: ShotMarks | null;
      readonly factor: ShotLayer | null;
    };

async function encodePng({
  width,
  height,
  alpha,
  layer,
}: Extract<EncodeJob, { kind: 'png' }>): Promise<Uint8Array<ArrayBuffer>> {
  const { picture } = layer;
  if (!picture) throw new Error('there is no picture to be encoded');
  const pixels = picture instanceof Float32Array ? in16Bits(picture) : picture;
  turnOver(pixels, height);
  if (alpha === 'straight') straighten(pixels, pixels instanceof Uint16Array ? 65535 : 255);
  return writeFilmPng(width, height, pixels);
}

/** One of the four numbers of every pixel. */
function plane<T extends Uint16Array | Uint32Array | Float32Array>(
  of: Uint16Array,
  n: number,
  into: T,
  as = (x: number) => x,
): T {
  for (let pixel = 0; pixel < into.length; pixel++) into[pixel] = as(of[pixel * 4 + n]!);
  return into;
}

function encodeExr({
  width,
  height,
  rate,
  layer,
  marks,
  factor,
}: Extract<EncodeJob, { kind: 'exr' }>): Promise<Uint8Array<ArrayBuffer>> {
  const pixels = width * height;
  const halves = (name: string, of: Uint16Array, n: number): ExrChannel => ({
    name,
    data: { type: 'half', values: plane(of, n, new Uint16Array(pixels)) },
  });
  const channels: ExrChannel[] = [];
  const add = (of: Uint16Array, names: readonly string[], put: (name: string, n: number) => ExrChannel) => {
    turnOver(of, height);
    names.forEach((name, n) => name && channels.push(put(name, n)));
  };
  const colours = (of: ShotLayer, before: string, names: readonly string[]) =>
    add(
      of.linear!,
      names.map((name) => before + name),
      (name, n) => halves(name, of.linear!, n),
    );
  colours(layer, '', ['R', 'G', 'B', 'A']);
  if (factor) colours(factor, 'factor.', ['R', 'G', 'B']);
  const { distance, identity, bend } = marks ?? {};
  if (distance)
    add(distance, ['Z'], (name) => ({
      name,
      data: {
        type: 'float',
        values: plane(distance, 0, new Float32Array(pixels), (bits) => fromHalf(bits) || Infinity),
      },
    }));
  if (identity) {
    turnOver(identity, height);
    const whole = (n: number) => plane(identity, n, new Uint32Array(pixels), fromHalf);
    // Half floats count to 2048: a lot of 24 bits lies in three of them.
    const [first, low, high] = [whole(0), whole(1), whole(2)];
    const lots = low.map((x, n) => x + high[n]! * 2048 + (first[n]! >> 8) * 4194304);
    channels.push({ name: 'id.layer', data: { type: 'uint', values: first.map((x) => x & 255) } });
    channels.push({ name: 'id.particle', data: { type: 'uint', values: lots } });
  }
  if (bend) add(bend, ['bend.X', 'bend.Y', 'bend.A'], (name, n) => halves(name, bend, n));
  return writeExr(width, height, channels, rate);
}

export const encode = (job: EncodeJob): Promise<Uint8Array<ArrayBuffer>> =>
  job.kind === 'png' ? encodePng(job) : encodeExr(job);
