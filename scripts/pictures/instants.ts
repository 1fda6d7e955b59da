import type { Page } from '@playwright/test';
import type {} from '../../e2e/bench.ts';

/** What is taken of an effect. */
export interface Instants {
  /** Where the bench shows it. */
  readonly address: string;
  /** Steps of the simulation, which come to stand side by side. */
  readonly steps: readonly number[];
  /** Points of each. */
  readonly size: readonly [wide: number, tall: number];
  /** From 0 to 1. */
  readonly quality: number;
}
/** How many more points each way they are drawn with. */
const FINER = 2;

/** Opens an effect and takes instants of it, without guides, as one WebP. */
export async function takeInstants(page: Page, { address, steps, size, quality }: Instants): Promise<Buffer> {
  await page.goto(address);
  await page.waitForFunction(() => (window.jinx?.state().step ?? 0) > 5, undefined, { timeout: 120_000 });
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.keyboard.press('c');
  const coded = await page.evaluate(
    async ({ steps, wide, tall, finer, quality }) => {
      const strip = new OffscreenCanvas(wide * steps.length, tall);
      const drawn = strip.getContext('2d')!;
      drawn.imageSmoothingQuality = 'high';
      const [x, y] = [wide * finer, tall * finer];
      for (const [n, step] of steps.entries()) {
        window.jinx.seek(step);
        await window.jinx.hash();
        const bytes = Uint8ClampedArray.from(atob(await window.jinx.pixels(x, y)), (letter) => letter.charCodeAt(0));
        drawn.drawImage(await createImageBitmap(new ImageData(bytes, x, y)), n * wide, 0, wide, tall);
      }
      const blob = await strip.convertToBlob({ type: 'image/webp', quality });
      return btoa(Array.from(new Uint8Array(await blob.arrayBuffer()), (b) => String.fromCharCode(b)).join(''));
    },
    { steps, wide: size[0], tall: size[1], finer: FINER, quality },
  );
  return Buffer.from(coded, 'base64');
}
