import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'stage/**/*.test.ts',
      'web/src/**/*.test.ts',
      'demo/**/*.test.ts',
      'server/**/*.test.ts',
      'scripts/**/*.test.ts',
    ],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
