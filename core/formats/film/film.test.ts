import { describe, expect, it } from 'vitest';
import { collectionOf, newEffect, newLayer } from '../../document/index.ts';
import {
  filmInstants,
  filmProblems,
  filmSettingsSchema,
  filmWarnings,
  fromHalf,
  loopOf,
  newFilmSettings,
  pictureCount,
  Sheet,
  sheetLayout,
  straighten,
  turnOver,
  webpHead,
  FILM_KINDS,
} from './index.ts';

const effect = newEffect('Film', 1);

describe('how pictures are taken', () => {
  it.each(FILM_KINDS)('begins, for %s, with settings that can be kept and made', (kind) => {
    const settings = newFilmSettings(kind, effect);
    expect(filmSettingsSchema.parse(settings)).toEqual(settings);
    expect(filmProblems(settings)).toEqual([]);
    expect(pictureCount(settings)).toBe(Math.round(5 * settings.rate));
  });

  it('goes round by the second turn of a hold without a seam', () => {
    const seamless = newEffect('Round', 1);
    seamless.stretches = { opening: 0.5, hold: { kind: 'seamless', seconds: 2 }, closing: 1, preRoll: 0 };
    expect(newFilmSettings('flipbook', seamless)).toMatchObject({ loops: true, from: 2.5, length: 2, letGoAt: null });
    expect(loopOf(effect)).toEqual({ loops: true });
    const asked = { ...newFilmSettings('flipbook', effect), ...loopOf(effect) };
    expect(filmWarnings(effect, asked).join()).toMatch(/goes round without a seam only/);
  });

  it('says what a picture cannot do, and what does not recompose', () => {
    const layer = newLayer('Shade', 2);
    layer.settings['appearance.blend'].base = { kind: 'fixed', value: 'multiply' };
    const shaded = newEffect('Shaded', 1);
    shaded.layers = collectionOf([['a', layer]]);
    shaded.dials = collectionOf([['d', { kind: 'number', name: 'Charge', least: 0, most: 1, value: 0 }]]);
    const sheet = filmWarnings(shaded, newFilmSettings('flipbook', shaded)).join('\n');
    expect(sheet).toMatch(/A flipbook cannot answer a dial/);
    expect(sheet).toMatch(/What multiplies \(Shade\) does not recompose: it darkens the effect alone/);
    expect(filmWarnings(shaded, newFilmSettings('exr', shaded)).join('\n')).toMatch(/its factor comes as a pass/);
    expect(filmWarnings(shaded, newFilmSettings('film', shaded)).join('\n')).not.toMatch(/recompose/);
  });

  it('asks for instants between steps where the rate does not fit', () => {
    const at = (rate: number) =>
      filmInstants({ ...newFilmSettings('png', effect), rate, from: 0.5, length: 3 / rate }, 60);
    expect(at(60)).toEqual([30, 31, 32].map((step) => ({ step, share: 1 })));
    const [first, second] = at(25);
    expect(first).toEqual({ step: 30, share: 1 });
    expect(second!.step).toBe(33);
    expect(second!.share).toBeCloseTo(0.4, 9);
  });
});

describe('pixels', () => {
  it('are made straight so that over black they are the same, also where they are brighter than they cover', () => {
    const pixels = Uint8Array.of(60, 30, 0, 120, 200, 100, 50, 20, 0, 0, 0, 0);
    straighten(pixels, 255);
    expect([...pixels]).toEqual([128, 64, 0, 120, 255, 128, 64, 200, 0, 0, 0, 0]);
  });
  it('are turned over row by row', () => {
    const pixels = Uint16Array.from({ length: 2 * 3 * 4 }, (_, n) => n);
    turnOver(pixels, 3);
    expect([...pixels]).toEqual([
      16, 17, 18, 19, 20, 21, 22, 23, 8, 9, 10, 11, 12, 13, 14, 15, 0, 1, 2, 3, 4, 5, 6, 7,
    ]);
  });
  it.each([
    [0x3c00, 1],
    [0xc000, -2],
    [0x0001, 1 / 16777216],
    [0x7bff, 65504],
    [0x7c00, Infinity],
  ])('half float %d is %d', (bits, value) => expect(fromHalf(bits)).toBe(value));
});

describe('a sheet', () => {
  const asked = { pictures: 7, width: 10, height: 5, padding: 1, columns: 0 };
  it('is nearly square, or as wide as is wanted', () => {
    expect(sheetLayout(asked)).toMatchObject({ columns: 2, rows: 4, width: 24, height: 28 });
    expect(sheetLayout({ ...asked, columns: 7 })).toMatchObject({ columns: 7, rows: 1 });
    expect(sheetLayout({ ...asked, columns: 100 }).columns).toBe(7);
  });
  it('fills what covers nothing from its own cell alone', () => {
    const layout = sheetLayout({ pictures: 2, width: 4, height: 4, padding: 0, columns: 2 });
    const sheet = new Sheet(layout, { width: 4, height: 4, padding: 0 });
    const red = new Uint8Array(64);
    red.set([200, 10, 20, 255]);
    sheet.put(0, red);
    sheet.put(1, new Uint8Array(64));
    sheet.fillColours();
    const at = (x: number, y: number) => [...sheet.pixels.subarray((y * 8 + x) * 4, (y * 8 + x) * 4 + 4)];
    expect(at(3, 3)).toEqual([200, 10, 20, 0]);
    expect(at(4, 0)).toEqual([0, 0, 0, 0]);
  });
});

describe('an animated WebP', () => {
  it('says its size and that it goes round', () => {
    const head = webpHead(480, 300, true, 1000);
    const view = new DataView(head.buffer);
    expect(new TextDecoder().decode(head.subarray(0, 4)) + new TextDecoder().decode(head.subarray(8, 16))).toBe(
      'RIFFWEBPVP8X',
    );
    expect(view.getUint32(4, true)).toBe(head.length - 8 + 1000);
    expect([head[20], head[24]! | (head[25]! << 8), head[27]! | (head[28]! << 8)]).toEqual([0x12, 479, 299]);
  });
});
