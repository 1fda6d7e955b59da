import { expect, test } from './test.ts';
import { hashesOn, ROUTES, worldOf } from '../core/testing/bits.ts';
import { BrowserBits } from '../core/testing/browserBits.ts';
import { kernelBytes } from '../core/testing/kernelBytes.ts';

test('random effects are the same bits in Node and in Chromium, on any route and any number of threads', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const browser = await BrowserBits.open(page);
  for (let seed = 0; seed < 40; seed++) {
    const expected = hashesOn(worldOf(seed, { kernels: kernelBytes() }), 'played');
    // Route and threads go round, so that each meets each.
    const { hashes } = await browser.of(seed, ROUTES[seed % 3]!, 1 + (Math.floor(seed / 3) % 3));
    expect(hashes, `random effect ${seed}`).toEqual(expected);
  }
});
