import { describe, expect, it } from 'vitest';
import { importPicture } from '@jinx/core/formats';
import { imported } from './workers/imported.ts';
import { fromWebp } from './webp.ts';

/** Two by two pixels without loss: red, half-clear green, near black, clear white. */
const FOUR = Buffer.from(
  'UklGRjYAAABXRUJQVlA4TCoAAAAvAUAAEB8gEEiS2B91DSEBQfX/L4EAwYj/SwISIst5LswztEr8ACGi/xE=',
  'base64',
);
const PIXELS = [255, 0, 0, 255, 0, 255, 0, 128, 10, 20, 30, 255, 255, 255, 255, 0];

describe('WebP pictures', () => {
  it('are decoded pixel by pixel, clear ones too', async () => {
    const picture = await importPicture(FOUR, fromWebp);
    expect([picture.width, picture.height]).toEqual([2, 2]);
    expect([...picture.rgba]).toEqual(PIXELS);
  });

  it('become assets named by their file, and damaged ones are refused with a sentence', async () => {
    const asset = await imported(FOUR, 'reeds at dusk.webp');
    expect([asset.kind, asset.name]).toEqual(['picture', 'reeds at dusk']);
    await expect(imported(FOUR.subarray(0, 20), 'reeds.webp')).rejects.toThrow(/damaged/);
    await expect(imported(new Uint8Array(0), 'reeds.webp')).rejects.toThrow(/empty/);
  });
});
