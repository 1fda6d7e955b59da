import { spawnSync } from 'node:child_process';
import { buildServer } from './build.mjs';
import { startCluster } from './database/cluster.mjs';
import { ensurePackages } from './install.mjs';
import { DATA, mustOwn, ROOT } from './shell.mjs';
import { CLUSTER, portForDatabase } from './start.mjs';

export async function run(words) {
  mustOwn(DATA);
  ensurePackages();
  buildServer();
  const url = await startCluster(CLUSTER, portForDatabase());
  const { status } = spawnSync(process.execPath, ['server/dist/people.mjs', ...words], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, JINX_DATABASE_URL: url },
  });
  return status ?? 1;
}
