import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeMaterials, type Materials } from './testing/hostile/materials.ts';
import { controls, hostileRun, sendTo } from './testing/hostile/run.ts';
import { DATABASE_URL, TestServer } from './testing/testServer.ts';

describe.skipIf(!DATABASE_URL)('what is hostile', () => {
  let server: TestServer;
  let materials: Materials;
  beforeAll(async () => {
    [server, materials] = await Promise.all([TestServer.start('jinx_hostile_test'), makeMaterials()]);
  });
  afterAll(() => server.stop());

  it('is refused with a code and a sentence, and leaves nothing behind: 340 files, half of them with exactly one lie', async () => {
    const outcome = await hostileRun(server.base, server.database, materials, 340, 20261);
    // How long an answer takes is the benchmark's to say; one that never comes counts as a crash.
    const { files, refusals, crashes, leftovers, believed, speechless } = outcome;
    expect(files).toBe(340);
    expect({ crashes, leftovers, believed, speechless }).toEqual({
      crashes: [],
      leftovers: [],
      believed: [],
      speechless: [],
    });
    expect([...refusals.keys()].length).toBeGreaterThanOrEqual(40);
  }, 240_000);

  it('is not what is untouched', async () => {
    const project = await server.makeProject('Controls');
    for (const sent of controls(materials)) {
      const { status } = await sendTo(server.base, project, sent);
      expect([sent.name, status]).toEqual([sent.name, sent.to === 'presets' ? 204 : 201]);
    }
  });
});
