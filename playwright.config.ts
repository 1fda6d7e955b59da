import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium.ts';

export default defineConfig({
  testDir: './e2e',
  testMatch: '*.spec.ts',
  timeout: 240_000,
  expect: { timeout: 20_000 },
  workers: 1,
  fullyParallel: false,
  forbidOnly: !!process.env['CI'],
  reporter: [['list'], ['json', { outputFile: 'data/e2e.json' }]],
  outputDir: 'test-results',
  use: {
    baseURL: process.env['JINX_ADDRESS'] ?? 'http://localhost:7411',
    actionTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
});
