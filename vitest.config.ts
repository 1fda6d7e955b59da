import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'stage/**/*.test.ts',
      'player/**/*.test.ts',
      'web/src/**/*.test.ts',
      'demo/**/*.test.ts',
      'server/**/*.test.ts',
      'scripts/**/*.test.ts',
    ],
    // Vitest leaves a core free for watching; here nothing watches. No test changes what another reads.
    maxWorkers: 2,
    isolate: false,
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // A machine with other work is slow, not wrong.
    expect: { poll: { timeout: 20_000 } },
  },
});
