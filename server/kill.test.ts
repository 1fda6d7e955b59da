import { describe, expect, it } from 'vitest';
import { killRun } from './testing/killing.ts';
import { DATABASE_URL } from './testing/testServer.ts';

// Needs PostgreSQL's programs, as ./jinx test installs them; it brings up a cluster of its own that syncs as a real one does.
describe.skipIf(!DATABASE_URL)('what was acknowledged', () => {
  it(
    'is there after the server and the database were killed at any moment, whole and once',
    { timeout: 300_000 },
    async () => {
      const outcome = await killRun({ kills: 10, port: 7431, databasePort: 7432 });
      expect(outcome.syncs).toEqual({ fsync: 'on', synchronous_commit: 'on', full_page_writes: 'on' });
      expect(outcome.kills).toBe(20);
      expect(outcome.acknowledged).toBeGreaterThan(200);
      expect([outcome.lost, outcome.broken, outcome.behind]).toEqual([0, 0, 0]);
    },
  );
});
