import { readFileSync } from 'node:fs';
import { expect, test } from './test.ts';
import { EFFECTS, KIT, KIT_FIGURES, KIT_PICTURES, KIT_PROPS, makeKit, RELEASED } from '@jinx/demo';
import { imported } from '../server/workers/imported.ts';
import { StageHarness, type Picture } from './stageHarness.ts';

/** Where a figure of 1.8 m is a sixth of the picture's height, seen a little from above. */
const GAME = { position: [5, 6.6, 15.6], target: [0, 0.9, 0], fieldOfView: 34, follows: true } as const;
const SURROUNDS = ['dusk', 'overcast', 'noon', 'busy'] as const;

const kit: Record<string, string> = {};
const stage = StageHarness.forFile(async () => {
  await makeKit();
  const assets: Record<string, Uint8Array> = {};
  for (const file of [...KIT_FIGURES, ...KIT_PROPS, ...KIT_PICTURES]) {
    const { hash, name, bytes } = await imported(new Uint8Array(readFileSync(new URL(file, KIT))), file);
    kit[name] = hash;
    assets[hash] = bytes;
  }
  return assets;
});

/** What a screen in a room shines by itself, as a share of its white. */
const FLARE = 0.01;

/** Contrast of each pixel with and without: how many stand out at least so much, as a share of the picture. */
function standingOut(withIt: Picture, without: Picture, least: number): number {
  const count = withIt.width * withIt.height;
  let found = 0;
  for (let p = 0; p < count; p++) {
    const [a, b] = [withIt.luminance(p) + FLARE, without.luminance(p) + FLARE];
    if (Math.max(a, b) / Math.min(a, b) >= least) found++;
  }
  return found / count;
}
for (const make of EFFECTS) {
  const { name } = make(new Proxy({}, { get: () => 'a'.repeat(64) }));
  test(`${name} stands out at game distance on every surround: 2% of the picture are 1.5 times as bright or dark`, async () => {
    const effect = make(kit);
    const own = effect.stage.surround;
    const most: Record<string, number> = {};
    const drawn: number[] = [];
    for (const step of RELEASED[name]!)
      for (const surround of SURROUNDS) {
        effect.stage.surround = surround;
        const { withIt, without } = await stage.pair(effect, step, { view: GAME as never });
        most[surround] = Math.max(most[surround] ?? 0, standingOut(withIt, without, 1.5));
        if (surround === own) drawn.push(withIt.changed(without).length);
      }
    for (const surround of SURROUNDS) expect(most[surround], `${name} at ${surround}`).toBeGreaterThanOrEqual(0.02);
    // In its own light it is drawn at its release.
    expect(drawn[0]).toBeGreaterThan(400);
  });
}
