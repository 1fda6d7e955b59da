import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { decode } from 'fast-png';
import { unzipSync } from 'fflate';
import { collectionOf, newEffect, newLayer, setNumber, type Effect, type Layer } from '@jinx/core/document';
import { parcelOf, writeParcel, type FilmKind, type FilmSettings } from '@jinx/core/formats';
import type { StageTone } from '@jinx/stage';
import { serveFilmPage } from '../server/parcels/film.ts';
import { addEffect } from './bench.ts';
import { expect, test, type Page } from './test.ts';

/** A layer of large dots that stand, or go to the right, above the ground. */
function dots(name: string, salt: number, count: number, change: (layer: Layer) => void): Layer {
  const layer = newLayer(name, salt);
  const { settings } = layer;
  settings['life.opacity'].shapers = collectionOf([]);
  setNumber(layer, 'births.rate', 0);
  setNumber(layer, 'births.standing', count);
  setNumber(layer, 'motion.speed', 0);
  setNumber(layer, 'life.size', 0.5);
  settings['source.radius'].base = { kind: 'fixed', value: 0.5 };
  change(layer);
  return layer;
}

/** What is added, and what covers, one over the other. */
function lit(): Effect {
  const effect = newEffect('Lit', 3);
  const colour = (hex: string) => ({ kind: 'fixed' as const, value: { hex } });
  effect.layers = collectionOf([
    [
      'added',
      dots('Added', 1, 8, ({ settings }) => {
        settings['life.colour'].base = colour('#ff9040');
        settings['life.intensity'].base = { kind: 'fixed', value: 2 };
      }),
    ],
    [
      'covering',
      dots('Covering', 2, 8, ({ settings }) => {
        settings['appearance.blend'].base = { kind: 'fixed', value: 'normal' };
        settings['life.colour'].base = colour('#3070c0');
        settings['life.opacity'].base = { kind: 'fixed', value: 70 };
      }),
    ],
  ]);
  return effect;
}

/** One dot that goes to the right. */
function moving(): Effect {
  const effect = newEffect('Moving', 5);
  const layer = dots('Dot', 1, 1, (made) => {
    made.source = { ...made.source, kind: 'point' } as Layer['source'];
    made.settings['motion.velocity'].base = { kind: 'fixed', value: [1.5, 0, 0] };
    made.settings['appearance.blend'].base = { kind: 'fixed', value: 'normal' };
    setNumber(made, 'births.standing', 0);
    setNumber(made, 'births.life', 4);
    made.bursts = collectionOf([
      ['one', { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1, muted: false }],
    ]);
  });
  effect.layers = collectionOf([['dot', layer]]);
  return effect;
}

const CAMERA = {
  position: [0, 1.2, 4] as [number, number, number],
  target: [0, 1, 0] as [number, number, number],
  fieldOfView: 40,
  follows: false,
};
const SMALL: Partial<FilmSettings> = { width: 96, height: 64, rate: 20, from: 0.5, length: 0.05, camera: CAMERA };

let folder = '';
test.beforeAll(() => (folder = mkdtempSync(path.join(tmpdir(), 'jinx-film-'))));
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

let effect: Effect = lit();
let served: Awaited<ReturnType<typeof serveFilmPage>>;
test.beforeAll(async () => {
  served = await serveFilmPage(() => writeParcel(parcelOf(effect, [])));
});
test.afterAll(() => served.close());

/** The page that takes pictures without a window. */
class FilmPage {
  readonly #page: Page;
  constructor(page: Page) {
    this.#page = page;
  }
  async open(): Promise<this> {
    await this.#page.goto(served.address);
    return this;
  }
  /** The file that is made; or the sentence that says why there is none. */
  async take(
    of: Effect,
    kind: FilmKind,
    settings: Partial<FilmSettings>,
    tone?: StageTone,
  ): Promise<string | { file: string }> {
    effect = of;
    const downloaded = this.#page.waitForEvent('download', { timeout: 30_000 }).catch(() => null);
    const answer = await this.#page.evaluate<{ sentence?: string }>(
      `window.takeFilm(${JSON.stringify({ kind, tone, settings: { ...SMALL, ...settings } })})`,
    );
    if (answer.sentence !== undefined) return answer.sentence;
    const download = (await downloaded)!;
    const file = path.join(mkdtempSync(path.join(folder, 'x-')), download.suggestedFilename());
    await download.saveAs(file);
    return { file };
  }
  /** What is in the zip that is made, by name. */
  async zip(...asked: Parameters<FilmPage['take']>): Promise<Record<string, Uint8Array>> {
    const made = await this.take(...asked);
    if (typeof made === 'string') throw new Error(made);
    return unzipSync(new Uint8Array(readFileSync(made.file)));
  }
}

const write = (name: string, bytes: Uint8Array): string => {
  const file = path.join(mkdtempSync(path.join(folder, 'y-')), name);
  writeFileSync(file, bytes);
  return file;
};
const run = (program: string, ...words: string[]) =>
  execFileSync(program, words, { maxBuffer: 1 << 28, stdio: ['ignore', 'pipe', 'pipe'] });
/** The pixels of a file as ffmpeg reads it. */
const byFfmpeg = (file: string, format: string, ...more: string[]): Buffer =>
  run('ffmpeg', '-v', 'error', '-i', file, ...more, '-f', 'rawvideo', '-pix_fmt', format, '-');

/** Red, green, blue and opacity of every pixel of an EXR, linear; rewritten by OpenEXR, then read by ffmpeg. */
function linearOf(bytes: Uint8Array): Float32Array[] {
  const [from, tiled] = [write('a.exr', bytes), path.join(folder, 'tiled.exr')];
  run('exrmaketiled', from, tiled);
  const planes = byFfmpeg(tiled, 'gbrapf32le');
  const floats = new Float32Array(planes.buffer.slice(planes.byteOffset, planes.byteOffset + planes.length));
  const size = floats.length / 4;
  const [g, b, r, a] = [0, 1, 2, 3].map((n) => floats.subarray(n * size, (n + 1) * size));
  return [r!, g!, b!, a!];
}
const named = (files: Record<string, Uint8Array>, ending: string): Uint8Array[] =>
  Object.keys(files)
    .sort()
    .filter((name) => name.endsWith(ending))
    .map((name) => files[name]!);
const one = (files: Record<string, Uint8Array>, ending: string): Uint8Array => named(files, ending)[0]!;

/** Linear light as sRGB, 0 to 1. */
const encoded = (light: number): number => {
  const c = Math.min(1, Math.max(0, light));
  return c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055;
};
/** Tone curves of a project, and what each makes of linear light: 0 to 1. The table turns bright and dark round. */
const TONES: readonly { tone: StageTone; shown: (light: number) => number }[] = [
  { tone: { kind: 'filmic' }, shown: (c) => encoded((c * (2.51 * c + 0.03)) / (c * (2.43 * c + 0.59) + 0.14)) },
  { tone: { kind: 'none' }, shown: encoded },
  { tone: { kind: 'table', text: 'LUT_1D_SIZE 2\n1 1 1\n0 0 0\n' }, shown: (c) => 1 - encoded(c) },
];

test('a linear EXR over a surround is what the stage shows there by each tone curve, for what is added and what covers', async ({
  page,
}) => {
  const films = await new FilmPage(page).open();
  const [r, g, b, a] = linearOf(one(await films.zip(lit(), 'exr', { behind: 'nothing' }), '.exr'));
  expect(Math.max(...a!)).toBeGreaterThan(0.8);
  for (const [at, surround] of (['dusk', 'noon', 'busy'] as const).entries()) {
    const { tone, shown } = TONES[at]!;
    const [over, empty] = [lit(), newEffect('Empty', 1)];
    over.stage.surround = empty.stage.surround = surround;
    const behind = linearOf(one(await films.zip(empty, 'exr', { behind: 'surround', passes: false }), '.exr'));
    const png = one(await films.zip(over, 'png', { behind: 'surround', bloom: false }, tone), '.png');
    const stage = decode(png).data;
    let worst = 0;
    [r!, g!, b!].forEach((plane, k) =>
      plane.forEach((own, n) => {
        const recomposed = 255 * shown(own + (1 - a![n]!) * behind[k]![n]!);
        worst = Math.max(worst, Math.abs(recomposed - stage[n * 4 + k]!));
      }),
    );
    expect(worst, surround).toBeLessThanOrEqual(2);
  }
});

test('pictures and films are read by other programs, and hold the same pictures', async ({ page }) => {
  const films = await new FilmPage(page).open();
  const asked: Partial<FilmSettings> = { length: 0.6, behind: 'nothing', bloom: false };
  const pngs = named(await films.zip(lit(), 'png', { ...asked, alpha: 'premultiplied' }), '.png');
  expect(pngs).toHaveLength(12);
  const first = decode(pngs[0]!).data;
  expect([...byFfmpeg(write('p.png', pngs[0]!), 'rgba')]).toEqual([...first]);
  // Straight colours times their opacity are the others again; sixteen bits hold them more finely.
  const straight = decode(
    one(await films.zip(lit(), 'png', { ...asked, length: 0.05, alpha: 'straight' }), '.png'),
  ).data;
  const deep = decode(
    one(await films.zip(lit(), 'png', { ...asked, length: 0.05, alpha: 'premultiplied', bits: 16 }), '.png'),
  );
  expect(deep.depth).toBe(16);
  let [offStraight, offDeep] = [0, 0];
  for (let n = 0; n < first.length; n++) {
    const opacity = straight[n - (n % 4) + 3]! / 255;
    if (n % 4 < 3) offStraight = Math.max(offStraight, Math.abs(straight[n]! * opacity - first[n]!));
    offDeep = Math.max(offDeep, Math.abs(deep.data[n]! / 257 - first[n]!));
  }
  expect(offStraight).toBeLessThanOrEqual(1);
  expect(offDeep).toBeLessThanOrEqual(1);
  // What covers and what is added are all of it together.
  const apart = await films.zip(lit(), 'exr', { ...asked, length: 0.1, apart: true, passes: true });
  // Of the second picture: what the first one left out for its passes is there again.
  const second = (part: string) => linearOf(apart[Object.keys(apart).filter((name) => name.startsWith(part))[1]!]!);
  const [covering, added, whole] = ['covering/', 'added/', 'whole/'].map(second);
  expect(Math.max(...whole![3]!)).toBeGreaterThan(0.8);
  const off = whole!
    .slice(0, 3)
    .map((plane, k) =>
      plane.reduce((most, sum, n) => Math.max(most, Math.abs(covering![k]![n]! + added![k]![n]! - sum)), 0),
    );
  expect(Math.max(...off)).toBeLessThan(0.01);
  expect(Math.max(...added![3]!)).toBe(0);

  const film = await films.take(lit(), 'film', { ...asked, behind: 'surround', bitrate: 4000 });
  if (typeof film === 'string') throw new Error(film);
  const frames = byFfmpeg(film.file, 'rgba');
  expect(frames.length / (96 * 64 * 4)).toBe(12);
  const seen = named(await films.zip(lit(), 'png', { ...asked, behind: 'surround' }), '.png').map(
    (png) => decode(png).data,
  );
  for (const n of [0, 11]) {
    let off = 0;
    for (let at = 0; at < 96 * 64 * 4; at++) off += Math.abs(frames[n * 96 * 64 * 4 + at]! - seen[n]![at]!);
    expect(off / (96 * 64 * 3)).toBeLessThan(4);
  }
  const other = await films.take(lit(), 'film', { ...asked, behind: 'surround', codec: 'h264' });
  if (typeof other === 'string') expect(other).toMatch(/cannot encode H.264.*Choose VP9/);
  else expect(byFfmpeg(other.file, 'rgba').length / (96 * 64 * 4)).toBe(12);
  const webp = await films.take(lit(), 'webp', { ...asked, behind: 'surround' });
  if (typeof webp === 'string') throw new Error(webp);
  const chat = await page.evaluate(
    async (bytes) => {
      const decoder = new ImageDecoder({ data: Uint8Array.from(bytes), type: 'image/webp' });
      await decoder.tracks.ready;
      const { image } = await decoder.decode({ frameIndex: 11 });
      return [decoder.tracks.selectedTrack!.frameCount, image.displayWidth, image.duration];
    },
    [...readFileSync(webp.file)],
  );
  expect(chat).toEqual([12, 96, 50_000]);
});

test('a flipbook holds the pictures in cells whose borders go on, and its motion takes one to the next', async ({
  page,
}) => {
  const films = await new FilmPage(page).open();
  const asked: Partial<FilmSettings> = { length: 0.3, behind: 'nothing', bloom: false, width: 64, height: 48 };
  const pictures = named(await films.zip(moving(), 'png', { ...asked, alpha: 'straight' }), '.png').map(
    (png) => decode(png).data,
  );
  const files = await films.zip(moving(), 'flipbook', {
    ...asked,
    motion: true,
    normals: true,
    padding: 3,
    columns: 4,
  });
  const told = JSON.parse(new TextDecoder().decode(one(files, '.json'))) as {
    sheets: Record<'colour' | 'motion' | 'normal', string>;
    cells: number;
    motion: { most: number };
  };
  expect(told).toMatchObject({ cells: 6, columns: 4, rows: 2, sheet: [4 * 70, 2 * 54], cell: [64, 48], padding: 3 });
  const sheets = Object.fromEntries(
    Object.entries(told.sheets).map(([name, file]) => [name, decode(files[file]!)]),
  ) as Record<'colour' | 'motion' | 'normal', ReturnType<typeof decode>>;
  const at = (sheet: keyof typeof sheets, cell: number, x: number, y: number) => {
    const { data, width } = sheets[sheet];
    const o = (((cell >> 2) * 54 + 3 + y) * width + (cell % 4) * 70 + 3 + x) * 4;
    return [data[o]!, data[o + 1]!, data[o + 2]!, data[o + 3]!];
  };
  let unlike = 0;
  for (let y = 0; y < 48; y++)
    for (let x = 0; x < 64; x++) {
      const own = pictures[5]!.subarray((y * 64 + x) * 4, (y * 64 + x) * 4 + 4);
      const cell = at('colour', 5, x, y);
      if (cell[3] !== own[3] || (own[3]! > 0 && cell.some((value, k) => value !== own[k]))) unlike++;
    }
  expect(unlike).toBe(0);
  expect(at('colour', 1, -3, 20)).toEqual(at('colour', 1, 0, 20));
  // Where nothing covers, colours are those of what is near, so that a smaller sheet has no dark borders.
  expect(Math.max(...at('colour', 0, 1, 1).slice(0, 3))).toBeGreaterThan(100);

  let [still, moved] = [0, 0];
  for (let y = 0; y < 48; y++)
    for (let x = 0; x < 64; x++) {
      const [red] = at('motion', 3, x, y) as [number];
      const from = Math.min(62, Math.max(0, x - ((red - 128) / 127) * told.motion.most * 64));
      const [whole, part] = [Math.floor(from), from % 1];
      const taken = at('colour', 2, whole, y)[3]! * (1 - part) + at('colour', 2, whole + 1, y)[3]! * part;
      const next = at('colour', 3, x, y)[3]!;
      still += Math.abs(at('colour', 2, x, y)[3]! - next);
      moved += Math.abs(taken - next);
    }
  expect(still).toBeGreaterThan(2000);
  expect(moved).toBeLessThan(still * 0.15);
  // The dot faces as a ball does: right on its right side, to the eye in its middle.
  const covered = Array.from({ length: 64 }, (_, x) => x).filter((x) => at('colour', 2, x, 24)[3]! > 60);
  const [left, right] = [covered[0]!, covered.at(-1)!];
  expect(at('normal', 2, right, 24)[0]).toBeGreaterThan(160);
  expect(at('normal', 2, left, 24)[0]).toBeLessThan(96);
  expect(at('normal', 2, Math.round((left + right) / 2), 24)[2]).toBeGreaterThan(220);
});

test('what cannot be done is said in a sentence, and nothing is left of it', async ({ page }) => {
  const films = await new FilmPage(page).open();
  const left = () =>
    page.evaluate(async () => {
      const names: string[] = [];
      const root = await navigator.storage.getDirectory();
      const folder = await root.getDirectoryHandle('jinx-film', { create: true });
      for await (const [name] of folder as never as AsyncIterable<[string]>) names.push(name);
      return names;
    });
  const before = await left();
  expect(await films.take(lit(), 'png', { width: 8192, supersampling: 2 })).toMatch(/up to 8192 a side can be drawn/);
  expect(await films.take(lit(), 'flipbook', { width: 2048, height: 2048, length: 2 })).toMatch(
    /The sheet would have/,
  );
  const gone = lit();
  gone.stage.air.surroundings.picture = { asset: 'a'.repeat(64), name: 'gone.png' };
  expect(await films.take(gone, 'png', {})).toMatch(/uses a figure or a picture that is not in it/);
  expect((await left()).filter((name) => !before.includes(name))).toEqual([]);
});

test('pictures are taken from the list of effects: previewed, by a preset of the project, and given up midway', async ({
  page,
}) => {
  const made = await page.request.post('/api/projects', { data: { name: `Film ${Date.now().toString(36)}` } });
  const { id: project } = (await made.json()) as { id: string };
  await addEffect(page, project, lit());
  await page.goto(`/projects/${project}`);
  await page.getByRole('button', { name: 'Hand over Lit' }).click();
  await page.getByRole('button', { name: 'Pictures and film…' }).click();
  const tones = () =>
    page.getByRole('img', { name: 'One of the pictures' }).evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      return new Set(new Uint32Array(data.buffer)).size;
    });
  await expect.poll(tones).toBeGreaterThan(50);
  await page.getByText('Flipbook', { exact: true }).click();
  await page.getByRole('spinbutton', { name: 'Width, points' }).fill('64');
  await page.getByRole('spinbutton', { name: 'For, seconds' }).fill('0.2');
  await page.getByRole('button', { name: 'Keep…' }).click();
  await page.getByRole('textbox', { name: 'Name of the preset' }).fill('Small sheet');
  await page.getByRole('textbox', { name: 'Name of the preset' }).press('Enter');
  await expect(page.getByText('“Small sheet” is kept in the project.')).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).last().click();

  await page.getByRole('button', { name: 'Hand over Lit' }).click();
  await page.getByRole('button', { name: 'Pictures and film…' }).click();
  await page.getByLabel(/^Preset/).click();
  await page.getByText('Small sheet (Flipbook)').click();
  await expect(page.getByText('6 of 64 × 256')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take the pictures' }).click();
  const files = unzipSync(new Uint8Array(readFileSync(await (await download).path())));
  expect(Object.keys(files)).toEqual(['lit.png', 'lit.json']);

  const going = page.getByRole('dialog').getByRole('status');
  await page.getByText('PNG sequence', { exact: true }).click();
  await page.getByRole('button', { name: 'Take the pictures' }).click();
  await expect(going).toContainText(/[1-9]\d* of 300/);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(going).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Take the pictures' })).toBeEnabled();
  await page.request.delete(`/api/projects/${project}`);
});
