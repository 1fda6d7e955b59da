// Writes everything Jinx keeps into one file, and brings it back, while the server runs.
import { spawnSync } from 'node:child_process';
import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { databaseUrl, startCluster } from './cluster.mjs';
import { ensurePackages, postgresPrograms } from './install.mjs';
import { ROOT, Sentence } from './shell.mjs';
import { CLUSTER, DATABASE_PORT } from './start.mjs';

const tool = (name, args) => {
  const { status, stdout, stderr } = spawnSync(path.join(postgresPrograms(), name), args, {
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
  });
  return { isDone: status === 0, stdout, stderr };
};

/** The whole database as it is at one instant, in PostgreSQL's own open archive format. */
export async function run([file]) {
  if (!file) throw new Sentence('Into which file? ./jinx backup FILE');
  const target = path.resolve(file);
  if (existsSync(target)) throw new Sentence(`${target} is there already: name another file, or move it away.`);
  const url = await startCluster(CLUSTER, DATABASE_PORT);
  // Written beside it and given its name when it is whole.
  const part = `${target}.part`;
  const { isDone, stderr } = tool('pg_dump', ['--format=custom', '--no-owner', `--file=${part}`, url]);
  if (!isDone) {
    rmSync(part, { force: true });
    throw new Sentence(`The backup could not be written: ${stderr.trim()}`);
  }
  renameSync(part, target);
  console.log(
    `${target}: ${(statSync(target).size / 1048576).toFixed(1)} MB. ./jinx restore brings it back, here or elsewhere.`,
  );
  return 0;
}

/** What is restored stands in a database of its own until it is whole and brought up to date; then both change places. */
const [INCOMING, BEFORE] = ['jinx_incoming', 'jinx_before'];

export async function restore([file]) {
  if (!file || !existsSync(file))
    throw new Sentence(`Out of which file? ./jinx restore FILE${file ? ` (there is no ${file})` : ''}`);
  const listed = tool('pg_restore', ['--list', file]);
  const isOurs = ['projects', 'effects', 'edits', 'migrations'].every((table) =>
    listed.stdout.includes(`TABLE DATA public ${table} `),
  );
  if (!listed.isDone || !isOurs)
    throw new Sentence(`${file} is no backup of Jinx, or was cut short. Nothing was changed.`);
  ensurePackages();
  await startCluster(CLUSTER, DATABASE_PORT);
  const work = spawnSync(process.execPath, ['--import', 'tsx', 'server/restore.ts', path.resolve(file)], {
    cwd: ROOT,
    stdio: 'inherit',
    env: {
      ...process.env,
      JINX_ADMIN_URL: databaseUrl(CLUSTER, DATABASE_PORT, 'template1'),
      JINX_INCOMING: INCOMING,
      JINX_BEFORE: BEFORE,
      JINX_PG_RESTORE: path.join(postgresPrograms(), 'pg_restore'),
    },
  });
  return work.status ?? 1;
}
