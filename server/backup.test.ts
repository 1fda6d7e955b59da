import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseEffect } from '@jinx/core/document';
import { assetsOf, readRig } from '@jinx/core/formats';
import { playAlone } from '@jinx/core/simulation';
import { kernelBytes } from '../core/testing/kernelBytes.ts';
import { dropCluster, startCluster } from '../scripts/database/cluster.mjs';
import { ServerProcess } from './testing/serverProcess.ts';
import { DATABASE_URL } from './testing/testServer.ts';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const [CLUSTER, PORT, DATABASE_PORT] = ['backup', 7439, 7440];
const STEP = 120;

describe.skipIf(!DATABASE_URL)('a backup', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'jinx-backup-'));
  const file = path.join(folder, 'fenlight.backup');
  let server: ServerProcess;
  const bring = async () => {
    server = new ServerProcess(PORT, await startCluster(CLUSTER, DATABASE_PORT));
    await server.start();
  };
  beforeAll(async () => {
    await dropCluster(CLUSTER);
    await bring();
  });
  afterAll(async () => {
    await server.kill();
    await dropCluster(CLUSTER);
    rmSync(folder, { recursive: true });
  });
  const jinx = (...words: string[]) =>
    spawnSync(path.join(ROOT, 'jinx'), words, {
      encoding: 'utf8',
      env: { ...process.env, JINX_CLUSTER: CLUSTER, JINX_DATABASE_PORT: String(DATABASE_PORT) },
    });
  const ask = async (address: string, method = 'GET') => {
    const answer = await fetch(`${server.address}/api${address}`, { method });
    return answer.status === 204 ? null : answer.json();
  };
  const effects = async (): Promise<{ id: string; name: string }[]> => {
    const [project] = (await ask('/projects')) as { id: string }[];
    return project
      ? ((await ask(`/projects/${project.id}`)) as { effects: { id: string; name: string }[] }).effects
      : [];
  };
  /** The frame of each effect at one step. */
  async function hashes(names: readonly string[]): Promise<Record<string, string | null>> {
    const found: Record<string, string | null> = {};
    for (const { id, name } of (await effects()).filter((one) => names.includes(one.name))) {
      const effect = parseEffect(((await ask(`/effects/${id}`)) as { document: unknown }).document);
      const rigs = new Map();
      for (const hash of assetsOf(effect)) {
        const bytes = new Uint8Array(await (await fetch(`${server.address}/api/assets/${hash}`)).arrayBuffer());
        try {
          rigs.set(hash, readRig(bytes));
        } catch {
          // A picture: looks show it, and no frame hangs on it.
        }
      }
      const world = playAlone(effect, rigs, {}, { kernels: kernelBytes() });
      world.advance(STEP);
      found[name] = world.hash();
    }
    return found;
  }
  const SOME = ['Lamplit Mantle', 'Wick Flame', 'Seed Wreath'];

  it(
    'is made and brought back while the server runs, and gives the same frames on an empty machine',
    { timeout: 240_000 },
    async () => {
      const before = await hashes(SOME);
      expect(Object.keys(before).sort()).toEqual([...SOME].sort());
      const all = (await effects()).map(({ name }) => name);
      const made = jinx('backup', file);
      expect([made.status, made.stderr]).toEqual([0, '']);
      expect(jinx('backup', file).stderr).toContain('is there already');

      // Work goes on; then all of it is taken back, without the server being stopped.
      for (const { id } of await effects()) await ask(`/effects/${id}`, 'DELETE');
      expect(await effects()).toEqual([]);
      const restored = jinx('restore', file);
      expect([restored.status, restored.stderr]).toEqual([0, '']);
      await server.answers();
      expect((await effects()).map(({ name }) => name)).toEqual(all);
      expect(await hashes(SOME)).toEqual(before);

      await server.kill();
      await dropCluster(CLUSTER);
      await bring();
      const { id } = (await effects()).find(({ name }) => name === SOME[0])!;
      await ask(`/effects/${id}`, 'DELETE');
      expect(jinx('restore', file).status).toBe(0);
      await server.answers();
      expect(await hashes(SOME)).toEqual(before);
    },
  );

  it('that is none, or was cut short, changes nothing', { timeout: 120_000 }, async () => {
    const all = await effects();
    const other = path.join(folder, 'other');
    writeFileSync(other, 'hello');
    for (const [name, sentence] of [
      [other, /no backup of Jinx/],
      [path.join(folder, 'none'), /there is no/],
    ] as const) {
      const refused = jinx('restore', name);
      expect(refused.status).toBe(1);
      expect(refused.stderr).toMatch(sentence);
    }
    const short = path.join(folder, 'short');
    execFileSync('sh', ['-c', `head -c 400000 "${file}" > "${short}"`]);
    const refused = jinx('restore', short);
    expect(refused.status).toBe(1);
    expect(refused.stderr).toContain('Nothing was changed');
    expect(await effects()).toEqual(all);
  });
});
