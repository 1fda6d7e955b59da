import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { build, buildPlayer, buildServer } from './build.mjs';
import { startCluster } from './database/cluster.mjs';
import { ensureBrowser, ensurePackages } from './install.mjs';
import { DATA, mustOwn, ROOT } from './shell.mjs';
import { CLUSTER, portForDatabase } from './start.mjs';

/** A folder that is named from where the command was given, and not from where Jinx lies. */
const fromHere = (words) => words.map((word, n) => (words[n - 1] === '--out' ? path.resolve(word) : word));

export async function run(words) {
  mustOwn(DATA);
  ensurePackages();
  if (/^(png|exr|flipbook|film|webp)$/.test(words[words.indexOf('--as') + 1] ?? '')) {
    ensureBrowser();
    build();
  }
  buildServer();
  buildPlayer();
  const url = await startCluster(CLUSTER, portForDatabase());
  const { status } = spawnSync(process.execPath, ['server/dist/export.mjs', ...fromHere(words)], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, JINX_DATABASE_URL: url },
  });
  return status ?? 1;
}
