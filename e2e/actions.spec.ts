import { expect, test } from './test.ts';
import { goTo } from './bench.ts';
import { keptReference, made, openEmpty, referenceOf } from '../benchmarks/actions/make.ts';
import { RUNS } from '../benchmarks/actions/runs.ts';

let project = '';
test.afterEach(async ({ page }) => {
  await page.request.delete(`/api/projects/${project}`);
});

/** Two of the seven: `./jinx bench actions` makes all of them. */
for (const run of RUNS.filter(({ id }) => id === 'flame' || id === 'ribbons'))
  test(`${run.what} is made by hand from an empty effect, in few events, and is what it was`, async ({ page }) => {
    project = await openEmpty(page, run.what);
    const { hand, document } = await made(page, run);
    expect(hand.actions, JSON.stringify(hand.done)).toBeLessThanOrEqual(run.target * 1.5);
    expect(referenceOf(document)).toBe(keptReference(run));
    // It is seen as it plays, on the screen itself: many tones, not one.
    await expect
      .poll(async () => (await page.screenshot({ clip: { x: 430, y: 130, width: 300, height: 250 } })).length)
      .toBeGreaterThan(6000);
    await goTo(page, 90);
    expect(await page.evaluate(() => window.jinx.state().living)).toBeGreaterThan(10);
  });
