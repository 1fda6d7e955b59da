import { defineConfig } from '@playwright/test';
import { ADDRESSES } from './e2e/addresses.ts';
import { CHROMIUM } from './server/chromium.ts';

export default defineConfig({
  testDir: './e2e',
  testMatch: '*.spec.ts',
  timeout: 240_000,
  expect: { timeout: 20_000 },
  // A server each (e2e/test.ts).
  workers: ADDRESSES.length,
  fullyParallel: false,
  forbidOnly: !!process.env['CI'],
  reporter: [['list'], ['json', { outputFile: 'data/e2e.json' }]],
  outputDir: 'test-results',
  use: {
    baseURL: ADDRESSES[0],
    actionTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    // A screen of half as many pixels each way: most of a test's time would be the drawing of pixels, in software.
    deviceScaleFactor: 0.5,
    // The page is put together without the graphics, which are done in software here; the stage is drawn with them as ever.
    launchOptions: { ...CHROMIUM, args: [...CHROMIUM.args, '--disable-gpu-compositing'] },
  },
});
