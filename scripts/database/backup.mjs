// Writes everything Jinx keeps into one file, while the server runs.
import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, openSync, readSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { access, DATABASE, OWNER, startCluster } from './cluster.mjs';
import { postgresPrograms } from '../install.mjs';
import { withLock } from '../lock.mjs';
import { Sentence } from '../shell.mjs';
import { CLUSTER, portForDatabase } from '../start.mjs';

/** By this PostgreSQL's archives begin. */
const MAGIC = 'PGDMP';

function beginsAsArchive(file) {
  const handle = openSync(file, 'r');
  const head = Buffer.alloc(MAGIC.length);
  readSync(handle, head);
  closeSync(handle);
  return head.toString('latin1') === MAGIC;
}

/** Removes what a backup that was cut short left behind, and nothing else. */
function clear(part) {
  if (!existsSync(part)) return;
  if (statSync(part).size > 0 && !beginsAsArchive(part))
    throw new Sentence(`${part} is in the way, and is no backup that was cut short: move it away.`);
  rmSync(part);
}

/** The whole database as it is at one instant, in PostgreSQL's own open archive format, but for who is signed in. */
async function backup(file) {
  const target = path.resolve(file);
  if (existsSync(target)) throw new Sentence(`${target} is there already: name another file, or move it away.`);
  const port = portForDatabase();
  const url = new URL(await startCluster(CLUSTER, port));
  // A backup holds all work, and the hashes of passwords: it is for its owner alone.
  process.umask(0o077);
  // Written beside it and given its name when it is whole.
  const part = `${target}.part`;
  clear(part);
  const { args, env } = access(CLUSTER, Number(url.port), OWNER, DATABASE);
  const { status, stderr } = spawnSync(
    path.join(postgresPrograms(), 'pg_dump'),
    ['--format=custom', '--no-owner', '--no-privileges', '--exclude-table-data=sessions', `--file=${part}`, ...args],
    { encoding: 'utf8', env },
  );
  if (status !== 0) {
    rmSync(part, { force: true });
    throw new Sentence(`The backup could not be written: ${stderr.trim()}`);
  }
  renameSync(part, target);
  console.log(
    `${target}: ${(statSync(target).size / 1048576).toFixed(1)} MB. ./jinx restore brings it back, here or elsewhere.`,
  );
  return 0;
}

export async function run([file]) {
  if (!file) throw new Sentence('Into which file? ./jinx backup FILE');
  return withLock(() => backup(file));
}
