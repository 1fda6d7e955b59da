import { spawnSync } from 'node:child_process';
import { startCluster } from './cluster.mjs';
import { ensurePackages } from './install.mjs';
import { ROOT } from './shell.mjs';
import { CLUSTER, DATABASE_PORT } from './start.mjs';

export async function run(words) {
  ensurePackages();
  const url = await startCluster(CLUSTER, DATABASE_PORT);
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'server/people/cli.ts', ...words], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, JINX_DATABASE_URL: url },
  });
  return status ?? 1;
}
